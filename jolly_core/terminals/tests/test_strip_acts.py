"""Acts on strips: order, sorting, numbers, parts and kinds of many, another strip, bridges in their slots."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags, project_snags
from jolly_core.circuits import links_of
from jolly_core.edits.base.history import take_back
from jolly_core.exchange import write_project
from jolly_core.model import RuleError
from jolly_core.tagging import full_tag, pin_name
from jolly_core.terminals import laid_bridges, strip_rows, strips, wire_numbers_at
from jolly_core.testing import Workbench
from jolly_core.wiring import sheet_groups, wire_numbers


class Acts(TestCase):
    def setUp(self) -> None:
        """Six level wires from lamps in the panel to lamps in the field, with a row of terminals across."""
        self.bench = Workbench(frame="zones")
        self.project = self.bench.project
        panel = self.bench.new("add-location", code="P", side="panel")
        field = self.bench.new("add-location", code="F", side="field")
        for y in range(20, 80, 10):
            for x, place in ((20, panel), (80, field)):
                lamp = self.bench.place("lamp", x, y)
                self.bench.do("set-place", device_id=self.bench.device(lamp), function_id="", location_id=place)
            self.bench.wire((24, y), (80, y))
        self.symbols = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=50, y1=18, x2=50, y2=72).placed
        self.strip = self.bench.device(self.symbols[0])
        self.bench.do("assign-part", device_id=self.strip, part_id="QL-K2-5")
        self.bench.done.clear()

    def units(self) -> list[int]:
        return [r.unit for r in strip_rows(self.project, self.strip) if r.kind == "terminal"]

    def numbers(self) -> list[str]:
        return [r.number for r in strip_rows(self.project, self.strip) if r.kind == "terminal"]

    def snags(self, code: str) -> list[str]:
        return [s.message for s in project_snags(self.project) if s.code == code]

    def test_several_are_moved_together_and_a_block_as_a_whole(self) -> None:
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u5", "u6"], to=1)
        self.assertEqual(self.units(), [1, 5, 6, 2, 3, 4])
        self.bench.do("plan-terminals", strip_id=self.strip, levels=2, at="u1")
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u7"], to=0)
        self.assertEqual(self.units(), [7, 8, 1, 5, 6, 2, 3, 4])
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u4"], to=1)
        self.assertEqual(self.units()[:3], [7, 8, 4], "nothing comes between the levels of a block")
        with self.assertRaisesRegex(RuleError, "stands on the block of 1"):
            self.bench.do("move-strip-items", strip_id=self.strip, keys=["u8"], to=3)

    def test_by_steps_from_where_they_stand(self) -> None:
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u5", "u6"], by=-1)
        self.assertEqual(self.units(), [1, 2, 3, 5, 6, 4])
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u1"], by=2)
        self.assertEqual(self.units(), [2, 3, 1, 5, 6, 4])
        self.bench.do("plan-terminals", strip_id=self.strip, levels=2, at="u3")
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u1"], by=-1)
        self.assertEqual(self.units(), [2, 3, 1, 7, 8, 5, 6, 4])
        with self.assertRaisesRegex(RuleError, "Nothing would change"):
            self.bench.do("move-strip-items", strip_id=self.strip, keys=["u2"], by=-1)

    def test_sorting_keeps_accessories_where_they_stand(self) -> None:
        for key, number in (("u1", "9"), ("u2", "B"), ("u3", "10")):
            self.bench.do("number-terminal", strip_id=self.strip, unit=int(key[1:]), number=number)
        self.bench.do("add-strip-accessory", strip_id=self.strip, accessory="plate", position=2)
        self.bench.do("sort-strip", strip_id=self.strip, by="number")
        self.assertEqual(self.units(), [4, 5, 6, 1, 3, 2])
        self.assertEqual(self.numbers(), ["1", "2", "3", "9", "10", "B"], "numbers by order follow the order")
        self.assertEqual([r.kind for r in strip_rows(self.project, self.strip)].index("plate"), 2)
        self.bench.do("sort-strip", strip_id=self.strip, by="sheet")
        self.assertEqual(self.units(), [1, 2, 3, 4, 5, 6])
        self.bench.do("sort-strip", strip_id=self.strip, by="number", units=[1, 4])
        self.assertEqual(self.units(), [4, 2, 3, 1, 5, 6])

    def test_by_cable_and_core(self) -> None:
        cable = self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=70, y1=72, x2=70, y2=18, part_id="QL-C7G1.5")
        self.assertTrue(cable)
        self.bench.do("sort-strip", strip_id=self.strip, by="cable")
        self.assertEqual(self.units(), [6, 5, 4, 3, 2, 1])

    def test_odd_numbers_a_start_and_what_is_fixed(self) -> None:
        self.bench.do("number-terminal", strip_id=self.strip, unit=3, number="PE1")
        self.bench.do("number-terminals", strip_id=self.strip, way="order", start=11, step=2)
        self.assertEqual(self.numbers(), ["11", "13", "PE1", "17", "19", "21"])
        self.bench.do("number-terminals", strip_id=self.strip, way="order", start=2, step=2, keep_fixed=False)
        self.assertEqual(self.numbers(), ["2", "4", "6", "8", "10", "12"])
        with self.assertRaisesRegex(RuleError, "has a terminal 8 already"):
            self.bench.do("number-terminals", strip_id=self.strip, units=[1, 2], start=8)
        self.bench.do("number-terminals", strip_id=self.strip, way="wire")
        wires = [wire_numbers_at(r)[0] for r in strip_rows(self.project, self.strip)]
        self.assertEqual(self.numbers(), wires)

    def test_level_by_level(self) -> None:
        strip = self.bench.new("make-strip", count=3, levels=2)
        self.bench.do("number-terminals", strip_id=strip, way="level")
        self.assertEqual([r.number for r in strip_rows(self.project, strip)], ["1", "4", "2", "5", "3", "6"])

    def test_kind_and_part_of_many_are_changed_on_the_sheet_too(self) -> None:
        self.bench.do("set-terminals", strip_id=self.strip, units=[2, 3], terminal_kind="fuse")
        drawn = {s.units[0]: s.definition for s in self.project.units_of(self.strip)}
        self.assertEqual((drawn[2], drawn[3], drawn[4]), ("terminal-fuse", "terminal-fuse", "terminal"))
        self.assertTrue(self.bench.canonical())
        self.assertEqual(
            [r.part.number if r.part else "" for r in strip_rows(self.project, self.strip)][:4],
            ["QL-K2-5", "", "", "QL-K2-5"],
        )
        self.bench.do("set-terminals", strip_id=self.strip, units=[2, 3], part_id="QL-K2-5F")
        self.bench.do("set-terminals", strip_id=self.strip, units=[2, 3], terminal_kind="feed-through")
        self.assertNotIn("quillon-ql-k2-5f", self.project.parts, "a part of another kind goes with the kind")

    def test_the_wire_number_is_carried_or_parted(self) -> None:
        def sides(symbol: str) -> tuple[str, str]:
            groups = sheet_groups(self.project, self.bench.sheet)
            numbers = wire_numbers(self.project, self.bench.sheet)
            return numbers[groups.of_pin[symbol, 0]], numbers[groups.of_pin[symbol, 1]]

        one, other = sides(self.symbols[0])
        self.assertEqual(one, other)
        self.bench.do("set-terminals", strip_id=self.strip, units=[1], joint="part")
        one, other = sides(self.symbols[0])
        self.assertNotEqual(one, other)
        self.assertEqual(len(wire_numbers_at(strip_rows(self.project, self.strip)[0])), 2)
        self.bench.do("set-terminals", strip_id=self.strip, units=[2], terminal_kind="disconnect")
        fuse = next(s.id for s in self.project.units_of(self.strip) if s.units == (2,))
        self.assertNotEqual(*sides(fuse))
        self.bench.do("set-terminals", strip_id=self.strip, units=[2], joint="carry")
        self.assertEqual(*sides(fuse))
        # One potential on both sides is what it is there for, and no contact that a wire goes round.
        self.assertNotIn("bridged", [s.code for s in all_snags(self.project)])
        links = {n: len(links_of(self.project, self.bench.symbol(self.symbols[n]))) for n in (0, 2)}
        self.assertEqual((links, len(links_of(self.project, self.bench.symbol(fuse)))), ({0: 1, 2: 0}, 0))

    def test_sides_by_hand_win_over_places(self) -> None:
        row = strip_rows(self.project, self.strip)[0]
        self.assertEqual(([t.name for t in row.panel], [t.name for t in row.field]), (["+P-PF1:X2"], ["+F-PF1:X1"]))
        self.bench.do("set-terminals", strip_id=self.strip, units=[1], facing="second")
        row = strip_rows(self.project, self.strip)[0]
        self.assertEqual(([t.name for t in row.panel], [t.name for t in row.field]), (["+F-PF1:X1"], ["+P-PF1:X2"]))

    def test_terminals_go_to_another_strip_with_parts_numbers_and_bridges(self) -> None:
        self.bench.do("number-terminal", strip_id=self.strip, unit=6, number="N")
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[4, 5, 6])
        before = write_project(self.project)
        outcome = self.bench.do("move-terminals", strip_id=self.strip, units=[5, 6])
        (target,) = outcome.placed
        self.assertEqual([full_tag(self.project, s) for s in strips(self.project)], ["-XD1", "-XD2"])
        self.assertEqual([r.number for r in strip_rows(self.project, target)], ["1", "N"])
        self.assertEqual(pin_name(self.project, (self.symbols[5], 0)), "-XD2:N")
        self.assertEqual([b.units for b in self.project.bridges.values()], [(1, 2)], "what is left of it joins nothing")
        self.project.apply(take_back(self.project, outcome.changes))
        self.assertEqual(write_project(self.project), before)

    def test_two_strips_are_put_together_and_split_again(self) -> None:
        (other,) = self.bench.do("move-terminals", strip_id=self.strip, units=[4, 5, 6]).placed
        self.bench.do("number-terminal", strip_id=other, unit=2, number="2")
        outcome = self.bench.do("merge-strips", strip_id=other, into_id=self.strip)
        self.assertEqual(self.numbers(), ["1", "2", "3", "4", "5", "6"])
        self.assertEqual(outcome.remarks, ["-XD1 has a terminal 2 already: it is numbered anew."])
        self.assertEqual(len(strips(self.project)), 1)
        with self.assertRaisesRegex(RuleError, "another strip"):
            self.bench.do("merge-strips", strip_id=self.strip, into_id=self.strip)

    def test_the_tag_stays_when_the_strip_moves_unless_it_is_taken(self) -> None:
        place = self.bench.new("add-location", code="P2", side="panel")
        self.bench.new("make-strip", location_id=place)
        two = self.bench.new("make-strip")
        self.assertEqual(full_tag(self.project, self.project.devices[two]), "-XD2")
        self.bench.do("set-place", device_id=two, function_id="", location_id=place, keep_tag=True)
        self.assertEqual(full_tag(self.project, self.project.devices[two]), "+P2-XD2")
        outcome = self.bench.do("set-place", device_id=self.strip, function_id="", location_id=place, keep_tag=True)
        self.assertEqual(full_tag(self.project, self.project.devices[self.strip]), "+P2-XD3")
        self.assertEqual(outcome.remarks, ["There is a +P2-XD1 already: it becomes +P2-XD3."])

    def test_bridges_lie_in_slots_and_a_third_one_is_too_many(self) -> None:
        for units in ([1, 4], [2, 5], [3, 6]):
            self.bench.do("bridge-terminals", strip_id=self.strip, units=units)
        laid = laid_bridges(self.project, self.strip)
        self.assertEqual(
            [(b.bridge.units, b.lane, b.reach) for b in laid], [((1, 4), 0, 4), ((2, 5), 1, 4), ((3, 6), 2, 4)]
        )
        self.assertEqual(self.snags("bridge"), ["-XD1 has 3 bridges side by side, and its terminals 2 slot(s)."])
        parts = {b.part_id for b in self.project.bridges.values()}
        self.assertEqual(parts, {"quillon-ql-br2-5-10"}, "the smallest that reaches is cut to length")

    def test_a_bridge_part_that_does_not_fit_is_refused(self) -> None:
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[1, 2])
        (bridge,) = self.project.bridges.values()
        for part, words in (("QL-BR4-2", "another width"), ("QL-EB", "is no bridge")):
            with self.assertRaisesRegex(RuleError, words):
                self.bench.do("set-bridge", bridge_id=bridge.id, part_id=part)
        self.bench.do("set-bridge", bridge_id=bridge.id, part_id="")
        self.assertEqual(self.snags("bridge-part"), ["A bridge of -XD1 has no part."])
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[2, 3, 4])
        with self.assertRaisesRegex(RuleError, "reaches over 3 terminals, the bridge over 4"):
            self.bench.do("set-bridge", bridge_id=next(iter(self.project.bridges)), part_id="QL-BR2-5-3")

    def test_a_bridge_joins_fuse_terminals_on_one_side(self) -> None:
        self.bench.do("set-terminals", strip_id=self.strip, units=[1, 2], terminal_kind="fuse")
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[1, 2])
        symbols = {s.units[0]: s.id for s in self.project.units_of(self.strip)}
        groups = sheet_groups(self.project, self.bench.sheet)
        numbers = wire_numbers(self.project, self.bench.sheet)
        first = [numbers[groups.of_pin[symbols[u], 0]] for u in (1, 2)]
        second = [numbers[groups.of_pin[symbols[u], 1]] for u in (1, 2)]
        self.assertEqual(first[0], first[1])
        self.assertNotEqual(second[0], second[1])

    def test_levels_are_bridged_within_a_block_or_along_one_level(self) -> None:
        strip = self.bench.new("make-strip", count=3, levels=2)
        with self.assertRaisesRegex(RuleError, "along one level"):
            self.bench.do("bridge-terminals", strip_id=strip, units=[1, 4])
        self.bench.do("bridge-terminals", strip_id=strip, units=[2, 4, 6])
        self.bench.do("bridge-terminals", strip_id=strip, units=[1, 2])
        self.assertEqual(
            [(b.level, b.blocks) for b in laid_bridges(self.project, strip)], [(0, (0, 0)), (2, (0, 1, 2))]
        )

    def test_cells_pasted_into_the_table_are_one_edit(self) -> None:
        cells = [
            {"unit": 1, "number": "2"},
            {"unit": 2, "number": "1", "remark": "swapped"},
            {"unit": 3, "number": "3"},
        ]
        self.bench.do("write-terminals", strip_id=self.strip, cells=cells)
        self.assertEqual(self.numbers(), ["2", "1", "3", "4", "5", "6"])
        records = {r.unit: r for r in self.project.strip_items.values()}
        self.assertEqual((records[2].remark, records[3].number), ("swapped", ""), "what is so by itself is not fixed")
        with self.assertRaisesRegex(RuleError, "has a terminal 6 already"):
            self.bench.do("write-terminals", strip_id=self.strip, cells=[{"unit": 1, "number": "6"}])


class Found(TestCase):
    """What the checks of strips say, and that it is silent once mended."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.project = self.bench.project
        self.thick = self.bench.new(
            "add-wire-type", name="Supply 10", colour="BK", cross_section_mm2=10.0, category="power"
        )
        for y in (20, 30):
            self.bench.wire((20, y), (80, y), type_id=self.thick if y == 20 else "")
        self.bench.place("lamp", 80, 20)
        self.bench.place("lamp", 80, 30)
        self.bench.place("lamp", 16, 20)
        self.bench.place("lamp", 16, 30)
        self.symbols = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=50, y1=18, x2=50, y2=32).placed
        self.strip = self.bench.device(self.symbols[0])

    def found(self, code: str) -> list[str]:
        return [s.message for s in project_snags(self.project) if s.code == code]

    def test_a_conductor_outside_the_range_of_its_terminal(self) -> None:
        self.bench.do("assign-part", device_id=self.strip, part_id="QL-K2-5")
        messages = self.found("terminal-size")
        self.assertEqual(len(messages), 2)
        self.assertIn("-XD1:1 takes at most 2.5 mm²", messages[0])
        self.bench.do("assign-part", device_id=self.strip, part_id="QL-K10")
        self.assertEqual(self.found("terminal-size"), [])

    def test_a_bridge_between_kinds_of_wire_and_named_potentials(self) -> None:
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[1, 2])
        self.assertEqual(self.found("bridge"), ["A bridge of -XD1 joins wires of the types Supply 10 and Control."])
        plus = {"wire_type_id": self.thick, "name": "24 V DC", "category": "control-dc"}
        minus = {"wire_type_id": self.bench.blue, "name": "0 V DC"}
        self.bench.do("change-wire-types", changes=[plus, minus])
        self.assertEqual(self.found("bridge"), ["A bridge of -XD1 joins the potentials 24 V and 0 V."])

    def test_a_target_without_a_location_is_named_until_it_has_one(self) -> None:
        (message,) = self.found("terminal-side")
        self.assertIn("on -XD1 have no location", message)
        place = self.bench.new("add-location", code="F", side="field")
        for device in list(self.project.devices.values()):
            self.bench.do("set-place", device_id=device.id, function_id="", location_id=place)
        self.assertEqual(self.found("terminal-side"), [])

    def test_a_strip_longer_than_its_rail(self) -> None:
        self.bench.do("assign-part", device_id=self.strip, part_id="QL-K10")
        box = self.bench.do(
            "add-enclosure", part_id=next(p.id for p in self.bench.library.parts_of("enclosure"))
        ).placed[0]
        enclosure = box if box in self.project.enclosures else next(iter(self.project.enclosures))
        rail_part = next(p.id for p in self.bench.library.parts_of("rail"))
        rail = self.bench.new(
            "draw-run", what="rail", enclosure_id=enclosure, x1=20, y1=100, x2=80, y2=100, part_id=rail_part
        )
        self.bench.do("place-devices", enclosure_id=enclosure, surface="plate", device_ids=[self.strip], x=22, y=100)
        self.assertTrue(any(p.rail_id == rail for p in self.project.placings.values()))
        self.assertEqual(self.found("strip-long"), [])
        self.bench.do("plan-terminals", strip_id=self.strip, count=5, spare=True)
        self.assertEqual(self.found("strip-long"), ["-XD1 is 71.4 mm long, and its rail 60 mm."])
