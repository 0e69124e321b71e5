"""Any random sequence of edits: wires stay canonical, indexes true, and undo of all gives the first model again."""

from __future__ import annotations

from contextlib import suppress
from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.model import CoreError, Project
from jolly_core.scenes import sheet_scene
from jolly_core.testing import Workbench, rebuilt
from jolly_core.testing.strange import perform_act
from jolly_core.wiring import all_nets, nets_of_sheet

from .sequences import Watch, acts, taken_back


class RandomEdits(TestCase):
    @settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts("drawing"), min_size=1, max_size=14))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        bench = Workbench(rails=True)
        project = bench.project
        first = list(project.entities())
        Watch(self, bench)
        for act in sequence:
            with suppress(CoreError, ValidationError):
                perform_act(bench, *act)
            self.assertTrue(bench.canonical(), f"wires are not canonical after {act[0]}")
            self.nets_are_right(project, bench.sheet)
        fresh = rebuilt(project)
        for name in ("on_sheet", "symbols_of_device", "devices_of_part", "devices_tagged", "continuations_named"):
            self.assertEqual(getattr(project, name), getattr(fresh, name), f"index {name} is not true")
        self.assertEqual(project.numbered_wires, fresh.numbered_wires)
        self.assertTrue(sheet_scene(project, bench.sheet).items)
        taken_back(self, bench, first, redone=True)

    def nets_are_right(self, project: Project, sheet_id: str) -> None:
        """Compare nets kept over edits with nets from cold, and with what touches by plain walking."""
        kept = [(g.pins, g.wires) for net in nets_of_sheet(project, sheet_id) for g in net]
        cold = [(g.pins, g.wires) for net in nets_of_sheet(rebuilt(project), sheet_id) for g in net]
        self.assertEqual(kept, cold)
        pins = [pin for net in all_nets(project) for g in net for pin in g.pins]
        self.assertEqual(len(pins), len(set(pins)), "a pin is in two nets")
        where = {w: i for i, net in enumerate(all_nets(project)) for g in net for w in g.wires}
        wires = list(project.wires.values())
        for a in wires:
            for b in wires:
                if {(a.x1, a.y1), (a.x2, a.y2)} & {(b.x1, b.y1), (b.x2, b.y2)}:
                    self.assertEqual(where[a.id], where[b.id], "wires that meet are in two nets")
