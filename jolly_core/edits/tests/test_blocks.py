"""Blocks of devices with many pins: made from the part, arranged, split over sheets, re-mapped by another part."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import snags_on
from jolly_core.circuits import potential_of
from jolly_core.drawing import extent_of, lies_beneath, pin_points
from jolly_core.library import block_key, definition, sides_of
from jolly_core.model import ChangeSet, FileError, Part, RuleError, Symbol, Wire
from jolly_core.scenes import sheet_scene, texts_in
from jolly_core.tagging import pins_of, unit_rows
from jolly_core.testing import Workbench

DRIVE = Part(
    "d",
    "Orrery Drives",
    "OD-X",
    "drive",
    units=(
        ("pins", ("L1", "L2", "L3")),
        ("pins", ("U", "V", "W")),
        ("pins", ("1", "2", "3")),
        ("pins", ("10", "11")),
        ("no", ("21", "24")),
    ),
)


class Keys(TestCase):
    def test_sides_go_out_and_in(self) -> None:
        sides = {"left": ["1", "", "2"], "right": ["A"], "top": ["L1", "L2"], "bottom": []}
        key = block_key("drive", sides)
        self.assertEqual(sides_of(key), sides)
        self.assertEqual(definition(key).generic, ("1", "2", "A", "L1", "L2"))

    def test_pins_twice_none_or_nonsense_are_refused(self) -> None:
        for left in (["1", "1"], [], [str(n) for n in range(80)]):
            with self.assertRaises(FileError):
                block_key("drive", {"left": left})
        for key in ("block:", "block:[]", 'block:["drive",10,8,[["x",1,"1"]]]', 'block:["rocket",10,8,[["l",1,"1"]]]'):
            with self.assertRaises(FileError):
                definition(key)


class Blocks(TestCase):
    def bench(self) -> Workbench:
        bench = Workbench(frame="zones")
        bench.library.parts["d"] = DRIVE
        bench.library.parts["e"] = Part("e", "Orrery Drives", "OD-Y", "drive", units=(("pins", ("L1", "L2", "U")),))
        return bench

    def test_a_block_has_all_pins_supply_on_top_and_motor_below(self) -> None:
        bench = self.bench()
        block = bench.new("place-block", sheet_id=bench.sheet, x=30, y=30, part_id="d", text="Kiln fan")
        self.assertEqual(
            sides_of(bench.symbol(block).definition),
            {"left": ["1", "2", "3"], "right": ["10", "11"], "top": ["L1", "L2", "L3"], "bottom": ["U", "V", "W"]},
        )
        self.assertEqual(bench.tag(block), "TA1")
        self.assertEqual(pins_of(bench.project, bench.symbol(block))[0], "1")
        words = {p.words for p in texts_in(sheet_scene(bench.project, bench.sheet).items[block])}
        self.assertLessEqual({"-TA1", "Kiln fan", "L1", "W", "11"}, words)
        rows = unit_rows(bench.project, bench.project.devices[bench.device(block)])
        self.assertEqual([(r.kind, bool(r.symbol_id)) for r in rows], [("pins", True)] * 4 + [("no", False)])

    def test_wires_end_at_its_pins_and_it_moves_with_them(self) -> None:
        bench = self.bench()
        block = bench.new("place-block", sheet_id=bench.sheet, x=30, y=40, part_id="d")
        top = [p for p in pin_points(bench.symbol(block)) if p[1] == 38]
        for x, y in top:
            bench.wire((x, 20), (x, y))
        self.assertNotIn("loose-end", {s.code for s in snags_on(bench.project, bench.sheet) if s.y == 38})
        bench.do("move-selection", ids=[block], dx=0, dy=6)
        self.assertTrue(all((x, 20, x, y + 6) in bench.spans() for x, y in top))
        with self.assertRaisesRegex(RuleError, "not turned"):
            bench.do("turn-selection", ids=[block], how="turn")

    def test_pins_taken_off_go_on_another_sheet(self) -> None:
        bench = self.bench()
        block = bench.new("place-block", sheet_id=bench.sheet, x=30, y=30, part_id="d")
        other = bench.new("add-sheet", number="40", frame="zones")
        with self.assertRaisesRegex(RuleError, "that are not drawn yet"):
            bench.do("place-block", sheet_id=other, x=30, y=30, device_id=bench.device(block))
        sides = {"top": ["L1", "L2", "L3"], "bottom": ["U", "V", "W"]}
        bench.do("arrange-block", symbol_id=block, **sides)
        second = bench.new("place-block", sheet_id=other, x=30, y=30, device_id=bench.device(block))
        self.assertEqual(set(definition(bench.symbol(second).definition).generic), {"1", "2", "3", "10", "11"})
        self.assertEqual(bench.device(second), bench.device(block))
        with self.assertRaisesRegex(RuleError, "another block"):
            bench.do("arrange-block", symbol_id=block, left=["1"], **sides)
        with self.assertRaisesRegex(RuleError, "no pin X9"):
            bench.do("arrange-block", symbol_id=block, left=["X9"])

    def test_another_part_without_a_pin_is_a_snag_with_its_name(self) -> None:
        bench = self.bench()
        block = bench.new("place-block", sheet_id=bench.sheet, x=30, y=30, part_id="d")
        bench.do("assign-part", device_id=bench.device(block), part_id="e")
        found = [s.message for s in snags_on(bench.project, bench.sheet) if s.code == "block-pins"]
        self.assertEqual(len(found), 1)
        self.assertIn("has no pin 1, 2, 3, 10", found[0])

    def test_a_copy_of_a_block_is_a_device_of_its_own(self) -> None:
        bench = self.bench()
        block = bench.new("place-block", sheet_id=bench.sheet, x=30, y=30, part_id="d")
        copy = bench.do("duplicate-selection", ids=[block], dx=40, dy=0).placed[0]
        self.assertEqual(bench.tag(copy), "TA2")
        self.assertEqual(pins_of(bench.project, bench.symbol(copy)), pins_of(bench.project, bench.symbol(block)))


class OnABus(TestCase):
    """A block put down on the wires of a feeder."""

    def setUp(self) -> None:
        self.b = b = Workbench(frame="zones")
        b.library.parts["d"] = DRIVE
        for n in range(4):
            b.wire((32 + 4 * n, 10), (32 + 4 * n, 90), type_id=b.pe if n == 3 else b.red)

    def put(self, x: int = 30, y: int = 30, **values: object) -> Symbol:
        return self.b.symbol(self.b.do("place-block", sheet_id=self.b.sheet, x=x, y=y, part_id="d", **values).placed[0])

    def ends(self, symbol: Symbol) -> dict[str, list[tuple[str, int]]]:
        """Return for each pin of a block the pins it shares a potential with."""
        project = self.b.project
        names = pins_of(project, symbol)
        return {name: sorted(potential_of(project, (symbol.id, n)).pins) for n, name in enumerate(names)}

    def test_it_cuts_them_at_its_pins_and_joins_no_input_with_an_output(self) -> None:
        drive = self.put(pins=["L1", "L2", "L3", "U", "V", "W"])
        self.assertEqual(dict(sides_of(drive.definition))["top"], ["L1", "L2", "L3"])
        self.assertEqual({len(pins) for pins in self.ends(drive).values()}, {1})
        wires = self.b.project.wires_on(self.b.sheet)
        self.assertEqual(len([w for w in wires if w.type_id == self.b.red]), 6)
        self.assertFalse([w for w in wires if lies_beneath(drive, w)])
        self.assertNotIn("wire-beneath", {s.code for s in snags_on(self.b.project, self.b.sheet)})

    def test_a_wire_past_which_it_has_no_pin_is_no_way_beneath_it(self) -> None:
        with self.assertRaisesRegex(RuleError, "would run beneath .*no pin"):
            self.put(x=26, pins=["1", "2", "3", "10", "11"])
        self.assertEqual(len(self.b.project.wires), 4)
        drive = self.put(x=60, pins=["1", "2", "3", "10", "11"])
        left, top, right, bottom = extent_of(drive)
        with self.assertRaisesRegex(RuleError, "would run beneath"):
            self.b.wire((int(right) - 5, int(top) - 4), (int(right) - 5, int(bottom) + 4))
        with self.assertRaisesRegex(RuleError, "would run beneath"):
            self.b.do("move-selection", ids=[drive.id], dx=-32, dy=0)

    def test_taken_away_the_wires_heal(self) -> None:
        drive = self.put(pins=["L1", "L2", "L3", "U", "V", "W"])
        self.b.do("delete-selection", ids=[drive.id])
        reds = [w for w in self.b.project.wires.values() if w.type_id == self.b.red]
        self.assertEqual({(w.y1, w.y2) for w in reds}, {(10, 90)})

    def test_moved_onto_wires_it_cuts_them_too(self) -> None:
        drive = self.put(x=90, y=30, pins=["L1", "L2", "L3", "U", "V", "W"])
        self.b.do("move-selection", ids=[drive.id], dx=-60, dy=10)
        self.assertEqual({len(p) for p in self.ends(self.b.symbol(drive.id)).values()}, {1})

    def test_one_drawn_before_is_told_and_cut_on_request(self) -> None:
        b = self.b
        drive = self.put(pins=["L1", "L2", "L3", "U", "V", "W"])
        for n in range(3):  # as an older project has it
            x = 32 + 4 * n
            changes = ChangeSet()
            for wire in [w for w in b.project.wires.values() if w.x1 == w.x2 == x]:
                changes.record("wire", wire.id, wire, None)
            changes.record("wire", f"old{n}", None, Wire(f"old{n}", b.sheet, x, 10, x, 90, b.red))
            b.project.apply(changes)
        self.assertEqual({len(p) for p in self.ends(drive).values()}, {1})
        (told,) = [s for s in snags_on(b.project, b.sheet) if s.code == "wire-beneath"]
        self.assertRegex(told.message, "^3 wires run on beneath -.* and join what it parts.$")
        b.do("place-note", sheet_id=b.sheet, x=150, y=20, text="other things can be done meanwhile")
        assert told.act is not None
        b.do(told.act.kind, **dict(told.act.values))
        self.assertEqual(len([w for w in b.project.wires.values() if w.type_id == b.red]), 6)
        self.assertNotIn("wire-beneath", {s.code for s in snags_on(b.project, b.sheet)})
        with self.assertRaisesRegex(RuleError, "No wire lies beneath"):
            b.do("cut-beneath", symbol_id=drive.id)
