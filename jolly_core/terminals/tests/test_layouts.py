"""A strip's layout out to a spreadsheet and back: nothing changes by itself, and what changes is said first."""

from __future__ import annotations

import csv
import io
from dataclasses import asdict
from typing import Any
from unittest import TestCase

from ezdxf.filemanagement import read

from jolly_core.exchange import read_project, scenes_dxf
from jolly_core.model import FileError, RuleError
from jolly_core.scenes import leaves_of, plan_of
from jolly_core.terminals import LAYOUT_COLUMNS, layout_rows, read_layout, strip_rows, strips
from jolly_core.testing import DEMO, Workbench


def lines(text: str) -> list[dict[str, Any]]:
    """Return a CSV text as lines of the edit."""
    found = read_layout(list(csv.reader(io.StringIO(text))))
    if found.faults:
        raise AssertionError(found.faults)
    return [{k: v for k, v in asdict(line).items() if k != "row"} for line in found.lines]


class Layouts(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.project = self.bench.project
        for y in (20, 24, 28):
            self.bench.wire((20, y), (80, y))
        row = {"sheet_id": self.bench.sheet, "x1": 50, "y1": 18, "x2": 50, "y2": 30}
        self.strip = self.bench.device(self.bench.do("place-terminals", **row).placed[0])
        self.bench.do("assign-part", device_id=self.strip, part_id="QL-K2-5")

    def out(self) -> str:
        stream = io.StringIO()
        csv.writer(stream).writerows([LAYOUT_COLUMNS, *layout_rows(self.project, self.strip)])
        return stream.getvalue()

    def lay(self, text: str) -> list[list[str]]:
        return self.bench.do("lay-out-strip", strip_id=self.strip, lines=lines(text)).table

    def test_what_goes_out_changes_nothing_when_it_comes_back(self) -> None:
        self.bench.do("plan-terminals", strip_id=self.strip, count=2, spare=True, remark="reserve")
        self.bench.do("add-strip-accessory", strip_id=self.strip, accessory="end-bracket", position=0, part_id="QL-EB")
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[1, 2])
        before = self.out()
        self.assertIn("1,feed-through,1,A,QL-K2-5,,", before)
        with self.assertRaisesRegex(RuleError, "Nothing would change"):
            self.lay(before)
        self.assertEqual(self.out(), before)
        self.assertFalse(any(r.number for r in self.project.strip_items.values()), "no number was fixed by that")

    def test_added_changed_moved_and_taken_off(self) -> None:
        self.bench.do("plan-terminals", strip_id=self.strip, count=1)
        table = self.lay(
            "Terminals of the second auger\n\n"
            + "Number,Kind,Bridge,Part,Level,Remark\n"
            + "3,fuse,A,QL-K2-5F,1,\n1,,A,,1,first\nPE,earth,,QL-K2-5E,1,\n,end bracket,,QL-EB,,\n2,,,,1,\n"
        )
        self.assertEqual(
            sorted(table),
            sorted(
                [
                    ["PE", "added"],
                    ["end-bracket", "added"],
                    ["4", "taken off"],
                    ["3", "feed-through becomes fuse, part none becomes QL-K2-5F"],
                    ["bridge", "added"],
                ]
            ),
        )
        rows = strip_rows(self.project, self.strip)
        self.assertEqual([r.number for r in rows], ["3", "1", "PE", "End bracket", "2"])
        self.assertEqual([r.terminal_kind for r in rows][:3], ["fuse", "feed-through", "earth"])
        self.assertEqual([b.units for b in self.project.bridges.values()], [(3, 1)])
        drawn = {s.units[0]: s.definition for s in self.project.units_of(self.strip)}
        self.assertEqual(drawn[3], "terminal-fuse")

    def test_an_accessory_with_a_number_and_a_bridge_is_an_accessory_all_the_same(self) -> None:
        self.lay("Number,Kind,Bridge\n2,,A\n2a,plate,A\n1,,A\n9,end bracket,A\n3,,\n")
        rows = strip_rows(self.project, self.strip)
        self.assertEqual([r.number for r in rows], ["2", "Partition plate", "1", "End bracket", "3"])
        self.assertEqual([b.units for b in self.project.bridges.values()], [(2, 1)])

    def test_what_is_drawn_and_not_in_the_table_stays_and_is_named(self) -> None:
        table = self.lay("Number\n2\n1\n")
        self.assertIn(["3", "not in the table, but drawn: it stays at the end"], table)
        self.assertEqual([r.unit for r in strip_rows(self.project, self.strip)], [2, 1, 3])

    def test_faults_are_named_by_row_and_nothing_is_taken_for_another(self) -> None:
        cells = [
            ["Number", "Kind", "Level"],
            ["1", "toaster", ""],
            ["", "earth", ""],
            ["2", "", "9"],
            ["3", "pe", ""],
            ["3", "", ""],
        ]
        found = read_layout(cells)
        self.assertEqual([line.number for line in found.lines], ["3"])
        self.assertEqual(
            found.faults,
            [
                "Row 2: “toaster” is no kind of terminal or accessory.",
                "Row 3: a terminal has no number.",
                "Row 4: “9” is no level from 1 to 8.",
                "Row 6: the number 3 stands in row 5 already.",
            ],
        )
        with self.assertRaisesRegex(FileError, "Call a column “Number”"):
            read_layout([["Article", "Pieces"], ["x", "3"]])
        with self.assertRaisesRegex(RuleError, "neither in the project nor in the library"):
            self.lay("Number,Part\n1,QL-NONE\n")


class AsDxf(TestCase):
    def test_a_plan_in_either_style_is_lines_texts_and_wires(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        strip = strips(project)[1]
        content = scenes_dxf(project, leaves_of(project, plan_of(project, "terminals", strip.id)))
        space = read(io.StringIO(content.decode())).modelspace()
        words = {t.dxf.text for t in space.query("TEXT")}
        self.assertIn("=K2+KF2-BG1:13", words)
        self.assertGreater(len(space.query("LINE")), 10)
        self.assertEqual(content, scenes_dxf(project, leaves_of(project, plan_of(project, "terminals", strip.id))))

    def test_a_schematic_has_its_symbols(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        sheet = next(s.id for s in project.sheets.values() if s.number == "10")
        space = read(io.StringIO(scenes_dxf(project, leaves_of(project, sheet)).decode())).modelspace()
        self.assertEqual(len(space.query('INSERT[layer=="SYMBOLS"]')), len(project.symbols_on(sheet)))
        self.assertGreater(len([e for e in space if e.dxf.layer == "WIRES"]), 10)
