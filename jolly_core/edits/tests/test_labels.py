"""What an edit is called in the journal and on the undo button: one thing is not spoken of as many."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from jolly_core.edits import parse_edit, perform
from jolly_core.exchange import read_project
from jolly_core.model import IdSource, RuleError
from jolly_core.testing import DEMO, DemoLibrary, Workbench


class OfOneAndOfMany(TestCase):
    def setUp(self) -> None:
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.ids = IdSource(99)

    def said(self, **edit: Any) -> str:
        return perform(self.project, parse_edit(edit), ids=self.ids, library=DemoLibrary()).label

    def test_points(self) -> None:
        points = self.project.io_points
        ids = sorted(p.id for p in points.values() if p.channel and not p.fixed)[:4]
        was = points[ids[0]]
        self.assertEqual(self.said(kind="fix-points", ids=ids[:1], fixed=True), "fix 1 point")
        self.assertEqual(self.said(kind="fix-points", ids=ids[1:], fixed=True), "fix 3 points")
        self.assertEqual(self.said(kind="fix-points", ids=[ids[0], ids[0]], fixed=False), "release 1 point")
        self.assertEqual(self.said(kind="free-points", ids=ids[:1]), "free 1 point")
        self.assertEqual(self.said(kind="free-points", ids=ids[1:]), "free 3 points")
        self.assertEqual(self.said(kind="suggest-channels", ids=ids[:1]), "allocate 1 point")
        self.assertEqual(points[was.id].io_type, was.io_type)
        self.assertEqual(self.said(kind="delete-points", ids=ids[:1]), "delete 1 point")

    def test_texts(self) -> None:
        bench = Workbench(frame="zones")
        self.project = bench.project
        for n, text in enumerate(("Sluice gate", "Second sluice", "Third sluice")):
            bench.place("lamp", 20 + 20 * n, 20, text=text)
        words = {"kind": "replace-texts", "replace": "valve", "where": ["texts"]}
        self.assertEqual(self.said(**words, find="Second sluice"), "replace Second sluice by valve, 1 time")
        self.assertEqual(self.said(**words, find="sluice"), "replace sluice by valve, 2 times")

    def test_terminals_continuations_and_wire_types(self) -> None:
        bench = Workbench(frame="zones")
        self.project = bench.project
        for y in (20, 30, 40):
            bench.wire((10, y), (90, y))
        across = {"kind": "place-terminals", "sheet_id": bench.sheet, "new_strip": True}
        self.assertEqual(self.said(**across, x1=30, y1=18, x2=30, y2=22), "place 1 terminal of -XD1")
        self.assertEqual(self.said(**across, x1=50, y1=28, x2=50, y2=42), "place 2 terminals of -XD2")
        marks = {"kind": "place-continuations", "sheet_id": bench.sheet, "x1": 90, "x2": 90}
        self.assertEqual(self.said(**marks, y1=18, y2=22, names=["L1"]), "place 1 continuation")
        with self.assertRaisesRegex(RuleError, "3 names for 2 wires"):
            self.said(**marks, y1=28, y2=42, names=["L2", "L3", "L4"])
        with self.assertRaisesRegex(RuleError, "wires are of the type"):
            self.said(kind="remove-wire-type", wire_type_id=bench.blue)
        one = bench.new("add-wire-type", name="Alone", colour="BK", category="power")
        bench.wire((10, 60), (20, 60), type_id=one)
        with self.assertRaisesRegex(RuleError, "1 wire is of the type Alone"):
            self.said(kind="remove-wire-type", wire_type_id=one)
