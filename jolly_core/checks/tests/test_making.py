"""Checks of what is cut."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.edits import parse_edit, perform
from jolly_core.making import cut_list
from jolly_core.testing import demo


class Spools(TestCase):
    def test_a_wire_longer_than_a_spool_is_an_error_by_name(self) -> None:
        project = demo()
        wires = sorted(cut_list(project), key=lambda w: w.length_mm)
        between = (wires[-3].length_mm + wires[-4].length_mm) / 2000
        self.assertGreater(wires[-3].length_mm, wires[-4].length_mm)
        self.assertEqual([s for s in project_snags(project) if s.code == "wire-longer-than-spool"], [])
        perform(project, parse_edit({"kind": "change-settings", "spool_m": between}))
        found = [s for s in project_snags(project) if s.code == "wire-longer-than-spool"]
        self.assertEqual([s.severity for s in found], ["error"] * 3)
        for wire in wires[-3:]:
            said = [s.message for s in found if wire.start in s.message and wire.end in s.message]
            self.assertRegex(said[0], r"long, and a spool holds .* m\. Say a longer spool")
