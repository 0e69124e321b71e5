"""Blocks of devices with many pins: made from the part, arranged, split over sheets, re-mapped by another part."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import snags_on
from jolly_core.drawing import pin_points
from jolly_core.library import block_key, definition, sides_of
from jolly_core.model import FileError, Part, RuleError
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
