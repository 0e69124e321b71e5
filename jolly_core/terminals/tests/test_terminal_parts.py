"""Parts of terminals: a strip of mixed kinds is ordered kind by kind."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.edits.base.history import take_back
from jolly_core.model import RuleError
from jolly_core.reports import needs
from jolly_core.reports.parts import parts_list
from jolly_core.terminals import groups_of, strip_rows, strip_width_mm
from jolly_core.testing import Workbench
from jolly_core.wiring import site_of


class MixedStrip(TestCase):
    def setUp(self) -> None:
        """A strip of two plain terminals, two fuse terminals and an earth terminal, with the part of the plain ones."""
        self.bench = Workbench(frame="zones")
        for y, kind in ((20, "blue"), (30, "blue"), (40, "blue"), (50, "blue"), (60, "pe")):
            self.bench.wire((20, y), (80, y), type_id=getattr(self.bench, kind))
        place = {"sheet_id": self.bench.sheet, "x1": 50, "x2": 50}
        first = self.bench.do("place-terminals", y1=18, y2=32, **place).placed
        self.strip = self.bench.device(first[0])
        more = self.bench.do("place-terminals", y1=38, y2=52, device_id=self.strip, definition="terminal-fuse", **place)
        self.fuses = more.placed
        self.bench.do("place-terminals", y1=58, y2=62, device_id=self.strip, **place)
        self.bench.do("assign-part", device_id=self.strip, part_id="quillon-ql-t4")

    def needed(self) -> dict[str, float]:
        return {self.bench.project.parts[id].number: n.quantity for (id, _), n in needs(self.bench.project).items()}

    def snags(self) -> list[str]:
        return [s.message for s in project_snags(self.bench.project) if s.code == "terminal-part"]

    def test_the_part_of_the_strip_counts_for_its_own_kind_only(self) -> None:
        self.assertEqual(self.needed(), {"QL-T4": 2})
        self.assertEqual(
            [(g.words, len(g.rows), g.part is None) for g in groups_of(self.bench.project, self.strip)],
            [("feed-through terminals", 2, False), ("fuse terminals", 2, True), ("earth terminal", 1, True)],
        )
        last = next(row for row in parts_list(self.bench.project) if row[5] == "no part chosen yet")
        self.assertEqual(last[1], 3)
        self.assertEqual(last[7], "-XD1 (1 earth terminal), -XD1 (2 fuse terminals)")

    def test_what_has_no_part_of_its_kind_is_a_snag_that_names_the_terminals(self) -> None:
        self.assertEqual(
            self.snags(),
            [
                "-XD1 has 1 earth terminal (5), and QL-T4 is of the kind feed-through. Choose a part for them.",
                "-XD1 has 2 fuse terminals (3, 4), and QL-T4 is of the kind feed-through. Choose a part for them.",
            ],
        )

    def test_parts_of_their_own_are_ordered_measured_and_dropped_again(self) -> None:
        width = strip_width_mm(self.bench.project, self.strip)
        fuse = self.bench.do("set-terminals", strip_id=self.strip, units=[3, 4], part_id="quillon-ql-k2-5f")
        self.bench.do("set-terminals", strip_id=self.strip, units=[5], part_id="QL-T4E")
        self.assertEqual(self.needed(), {"QL-T4": 2, "QL-K2-5F": 2, "QL-T4E": 1})
        self.assertEqual(self.snags(), [])
        self.assertAlmostEqual(strip_width_mm(self.bench.project, self.strip), width - 2 * (6.2 - 5.2))
        self.bench.do("set-terminals", strip_id=self.strip, units=[5], part_id="")
        self.assertNotIn("quillon-ql-t4e", self.bench.project.parts)
        self.bench.project.apply(take_back(self.bench.project, fuse.changes))
        self.assertEqual(self.needed(), {"QL-T4": 2})

    def test_conductors_at_a_point_are_those_of_the_terminals_own_part(self) -> None:
        self.assertEqual(site_of(self.bench.project, (self.fuses[0], 0)).room, 2)
        self.bench.do("set-terminals", strip_id=self.strip, units=[3], part_id="quillon-ql-k2-5f")
        self.assertEqual(site_of(self.bench.project, (self.fuses[0], 0)).room, 1, "its part says 1")
        self.assertEqual(site_of(self.bench.project, (self.fuses[1], 0)).room, 2, "the next has none")

    def test_a_part_of_another_kind_is_refused_by_name(self) -> None:
        with self.assertRaisesRegex(RuleError, "QL-T4E is of the kind earth, -XD1:3 of the kind fuse"):
            self.bench.do("set-terminals", strip_id=self.strip, units=[3], part_id="QL-T4E")
        with self.assertRaisesRegex(RuleError, "is no terminal"):
            self.bench.do("set-terminals", strip_id=self.strip, units=[3], part_id="quillon-ql-eb")
        with self.assertRaisesRegex(RuleError, "no such terminal"):
            self.bench.do("set-terminals", strip_id=self.strip, units=[9], part_id="")
        self.assertEqual(self.needed(), {"QL-T4": 2})

    def test_a_terminal_that_goes_takes_its_part_along(self) -> None:
        self.bench.do("set-terminals", strip_id=self.strip, units=[3, 4], part_id="quillon-ql-k2-5f")
        self.bench.do("delete-selection", ids=self.fuses)
        self.assertNotIn("quillon-ql-k2-5f", self.bench.project.parts)
        self.assertEqual(len(strip_rows(self.bench.project, self.strip)), 3)
