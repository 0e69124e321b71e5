"""What a designer does on a sheet beside drawing: lining up, poles, swaps, texts, locks, marks, rungs, boundaries."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import snags_on
from jolly_core.drawing import ladder_line, pin_points
from jolly_core.model import RuleError
from jolly_core.scenes import sheet_scene, texts_in
from jolly_core.tagging import contact_table, lead_of, pins_of
from jolly_core.terminals import item_records, strips
from jolly_core.testing import Workbench
from jolly_core.wiring import nets_of_sheet


def texts_of(bench: Workbench, symbol_id: str) -> dict[str, tuple[float, float]]:
    """Return the place of each text of a symbol by what it says."""
    item = sheet_scene(bench.project, bench.sheet).items[symbol_id]
    return {p.words: (p.x, p.y) for p in texts_in(item)}


class Lines(TestCase):
    def test_contacts_of_three_rungs_come_under_each_other_and_stay_wired(self) -> None:
        bench = Workbench(rails=True)
        placed = []
        for n, x in enumerate((24, 27, 31)):
            y = 16 + 9 * n
            bench.wire((14, y), (82, y))
            placed.append(bench.place("button-no", x, y))
        nets = len(nets_of_sheet(bench.project, bench.sheet))
        bench.do("align-selection", ids=placed, how="left")
        self.assertEqual([bench.symbol(i).x for i in placed], [24, 24, 24])
        bench.do("move-selection", ids=[placed[0]], dx=5, dy=0)
        bench.do("align-selection", ids=placed, how="right")
        self.assertEqual([bench.symbol(i).x for i in placed], [29, 29, 29])
        self.assertEqual(nets, len(nets_of_sheet(bench.project, bench.sheet)))
        self.assertTrue(bench.canonical())

    def test_even_spacing_along_a_wire(self) -> None:
        bench = Workbench()
        bench.wire((10, 16), (90, 16))
        placed = [bench.place("button-no", x, 16) for x in (20, 26, 70)]
        bench.do("distribute-selection", ids=placed, along="across")
        self.assertEqual([bench.symbol(i).x for i in placed], [20, 45, 70])
        self.assertTrue(bench.canonical())

    def test_two_cannot_be_spread_and_wires_alone_cannot_be_lined_up(self) -> None:
        bench = Workbench()
        bench.wire((10, 16), (90, 16))
        bench.wire((10, 26), (90, 26))
        with self.assertRaisesRegex(RuleError, "at least two"):
            bench.do("align-selection", ids=list(bench.project.wires), how="left")
        pair = [bench.place("coil", x, 40) for x in (20, 50)]
        with self.assertRaisesRegex(RuleError, "at least three"):
            bench.do("distribute-selection", ids=[*pair, *bench.project.wires][:3], along="across")


class Poles(TestCase):
    def bus(self, bench: Workbench, count: int) -> None:
        for n in range(count):
            bench.wire((20 + 4 * n, 20), (20 + 4 * n, 60))

    def test_a_fourth_pole_cuts_its_wire_and_taking_the_middle_one_away_heals_it(self) -> None:
        bench = Workbench()
        self.bus(bench, 4)
        breaker = bench.place("breaker", 20, 30, poles=3)
        before = len(bench.project.wires)
        bench.do("set-poles", symbol_id=breaker, poles=4)
        self.assertEqual(pins_of(bench.project, bench.symbol(breaker)), ["1", "2", "3", "4", "5", "6", "7", "8"])
        self.assertEqual(len(bench.project.wires), before + 1)
        bench.do("set-poles", symbol_id=breaker, without=2)
        self.assertEqual(pins_of(bench.project, bench.symbol(breaker)), ["1", "2", "5", "6", "7", "8"])
        self.assertEqual(len(bench.project.devices), 1, "a device has as many poles as it has, never half a one")
        self.assertIn((32, 20, 32, 60), bench.spans(), "the wire of the pole that went is whole again")
        self.assertTrue(bench.canonical())

    def test_no_pole_and_five_poles_are_refused(self) -> None:
        bench = Workbench()
        breaker = bench.place("breaker", 20, 30, poles=1)
        for values in ({"without": 1}, {"without": 3}):
            with self.assertRaises(RuleError):
                bench.do("set-poles", symbol_id=breaker, **values)
        coil = bench.place("coil", 50, 50)
        with self.assertRaisesRegex(RuleError, "1 to 1"):
            bench.do("set-poles", symbol_id=coil, poles=2)

    def test_a_part_with_three_poles_has_no_fourth(self) -> None:
        bench = Workbench()
        self.bus(bench, 4)
        coil = bench.place("coil", 60, 30)
        bench.do("assign-part", device_id=bench.device(coil), part_id="brindlework-bw-c09-24d")
        poles = bench.place("contactor-pole", 20, 30, poles=3, device_id=bench.device(coil))
        outcome = bench.do("set-poles", symbol_id=poles, poles=4)
        self.assertEqual(bench.symbol(poles).units, (1, 2, 3, 0))
        self.assertIn("no free pole", outcome.remarks[0])

    def test_poles_drawn_apart_stay_one_device(self) -> None:
        bench = Workbench()
        self.bus(bench, 3)
        breaker = bench.place("breaker", 20, 30, poles=3)
        spans = bench.spans()
        made = bench.do("split-poles", symbol_id=breaker).placed
        self.assertEqual(len({bench.device(i) for i in made}), 1)
        self.assertEqual([bench.symbol(i).units for i in made], [(1,), (2,), (3,)])
        self.assertEqual(bench.spans(), spans)
        bench.do("move-selection", ids=[made[2]], dx=0, dy=12)
        self.assertEqual(pins_of(bench.project, bench.symbol(made[2])), ["5", "6"])

    def test_the_middle_one_of_poles_drawn_apart_is_missed_until_it_is_drawn_again(self) -> None:
        bench = Workbench()
        self.bus(bench, 3)
        made = bench.do("split-poles", symbol_id=bench.place("breaker", 20, 30, poles=3)).placed
        device = bench.device(made[0])
        bench.do("delete-selection", ids=[made[1]])
        self.assertIn((24, 20, 24, 60), bench.spans(), "its wire is whole again")
        (snag,) = [s for s in snags_on(bench.project, bench.sheet) if s.code == "pole-left-out"]
        self.assertEqual(snag.message, "Pole 2 of -FC1 is not drawn, though pole 3 is.")
        self.assertEqual(snag.ids, (made[2],))
        again = bench.place("breaker", 24, 42, poles=1, device_id=device)
        self.assertEqual(bench.symbol(again).units, (2,), "it takes the pole that is free")
        self.assertFalse([s for s in snags_on(bench.project, bench.sheet) if s.code == "pole-left-out"])

    def test_poles_of_a_contactor_are_missed_on_whichever_sheet_the_later_one_is(self) -> None:
        bench = Workbench()
        power = bench.new("add-sheet", number="31", frame="zones")
        coil = bench.place("coil", 60, 16)
        bench.do("assign-part", device_id=bench.device(coil), part_id="brindlework-bw-c09-24d")
        poles = bench.place("contactor-pole", 20, 30, poles=3, device_id=bench.device(coil), sheet_id=power)

        def missed(sheet: str) -> list[str]:
            return [s.message for s in snags_on(bench.project, sheet) if s.code == "pole-left-out"]

        bench.do("set-poles", symbol_id=poles, poles=2)
        self.assertEqual(missed(power), [], "a last pole that is not in use is no gap")
        bench.do("set-poles", symbol_id=poles, poles=3)
        bench.do("set-poles", symbol_id=poles, without=1)
        self.assertEqual(len(missed(power)), 1)
        self.assertIn("Pole 1 of", missed(power)[0])
        self.assertEqual(missed(bench.sheet), [], "the coil's sheet has nothing to mend")
        bench.do("set-poles", symbol_id=poles, poles=3)
        self.assertEqual(missed(power), [], "the free pole was taken first")


class Swap(TestCase):
    def test_a_lamp_becomes_a_horn_on_the_same_wires(self) -> None:
        bench = Workbench()
        bench.wire((10, 16), (60, 16))
        lamp = bench.place("lamp", 30, 16, text="Running")
        spans = bench.spans()
        bench.do("swap-symbol", symbol_id=lamp, definition="horn")
        self.assertEqual(bench.spans(), spans)
        self.assertEqual(bench.tag(lamp), "PJ1")
        self.assertEqual(bench.project.devices[bench.device(lamp)].text, "Running")

    def test_a_longer_symbol_takes_the_wire_under_it_and_a_shorter_one_is_reached(self) -> None:
        bench = Workbench()
        bench.wire((10, 16), (60, 16))
        fuse = bench.place("fuse", 30, 16, poles=1, rotation=0)
        bench.do("swap-symbol", symbol_id=fuse, definition="breaker")
        self.assertEqual(bench.spans(), [(10, 16, 30, 16), (36, 16, 60, 16)])
        bench.do("swap-symbol", symbol_id=fuse, definition="fuse")
        self.assertEqual(bench.spans(), [(10, 16, 30, 16), (34, 16, 60, 16)])
        with self.assertRaisesRegex(RuleError, "other way"):
            bench.do("swap-symbol", symbol_id=fuse, definition="motor")

    def test_a_terminal_that_becomes_something_else_leaves_its_strip_as_it_is(self) -> None:
        bench = Workbench()
        bench.wire((10, 16), (70, 16))
        first = bench.place("terminal", 30, 16)
        strip = bench.device(first)
        second = bench.place("terminal", 40, 16, device_id=strip)
        tag = bench.tag(first)
        outcome = bench.do("swap-symbol", symbol_id=first, definition="coil")
        self.assertNotEqual(bench.device(first), strip)
        (said,) = outcome.remarks
        self.assertIn(f"-{tag} has one unit less", said)
        self.assertIn(f"is -{bench.tag(first)} now", said)
        self.assertEqual((bench.device(second), bench.tag(second)), (strip, tag))
        self.assertEqual([d.id for d in strips(bench.project)], [strip])
        self.assertEqual([i.unit for i in item_records(bench.project, strip)], [bench.symbol(second).units[0]])

    def test_a_unit_that_becomes_a_terminal_leaves_its_device(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 60, 16)
        contact = bench.place("contact-no", 30, 16, device_id=bench.device(coil))
        bench.do("swap-symbol", symbol_id=contact, definition="terminal")
        self.assertNotEqual(bench.device(contact), bench.device(coil))
        self.assertEqual([d.id for d in strips(bench.project)], [bench.device(contact)])
        # Alone it takes its device along, to and fro.
        alone = bench.device(contact)
        bench.do("swap-symbol", symbol_id=contact, definition="contact-no")
        self.assertEqual((bench.device(contact), strips(bench.project)), (alone, []))

    def test_a_unit_the_part_lacks_is_told(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 60, 16)
        bench.do("assign-part", device_id=bench.device(coil), part_id="brindlework-bw-c09-24d")
        contact = bench.place("contact-no", 30, 16, device_id=bench.device(coil))
        outcome = bench.do("swap-symbol", symbol_id=contact, definition="contact-on-delay-no")
        self.assertEqual(bench.symbol(contact).units, (0,))
        self.assertTrue(outcome.remarks)


class Texts(TestCase):
    def test_a_text_is_moved_hidden_and_put_back(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 40, 16, text="Fan run")
        at = texts_of(bench, coil)
        bench.do("move-text", ids=[coil], text="tag", dx_mm=4, dy_mm=-2.5)
        moved = texts_of(bench, coil)
        self.assertEqual(moved["-KF1"], (at["-KF1"][0] + 4, at["-KF1"][1] - 2.5))
        self.assertEqual(moved["Fan run"], at["Fan run"])
        bench.do("show-texts", ids=[coil], texts=["text", "pin"], shown=False)
        self.assertEqual(set(texts_of(bench, coil)), {"-KF1"})
        bench.do("show-texts", ids=[coil], texts=["text", "pin"], shown=True)
        bench.do("move-text", ids=[coil], text="tag")
        self.assertEqual(texts_of(bench, coil), at)
        self.assertEqual(bench.symbol(coil).texts, {})


class Locks(TestCase):
    def test_what_is_locked_is_neither_moved_nor_deleted_until_unlocked(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 40, 16)
        bench.do("set-lock", ids=[coil], locked=True)
        for kind, values in (
            ("move-selection", {"ids": [coil], "dx": 4, "dy": 0}),
            ("delete-selection", {"ids": [coil]}),
            ("turn-selection", {"ids": [coil], "how": "turn"}),
            ("swap-symbol", {"symbol_id": coil, "definition": "lamp"}),
        ):
            with self.assertRaisesRegex(RuleError, "-KF1 is locked"):
                bench.do(kind, **values)
        bench.do("set-lock", ids=[coil], locked=False)
        bench.do("move-selection", ids=[coil], dx=4, dy=0)
        self.assertEqual(bench.symbol(coil).x, 44)


class Marks(TestCase):
    def test_four_conductors_leave_at_once_and_arrive_by_name(self) -> None:
        bench = Workbench()
        other = bench.new("add-sheet", number="40")
        for n in range(3):
            bench.wire((20, 20 + 4 * n), (60, 20 + 4 * n))
            bench.wire((20, 40 + 4 * n), (60, 40 + 4 * n), sheet_id=other)
        made = bench.do("place-continuations", sheet_id=bench.sheet, x1=60, y1=18, x2=60, y2=30, names=["400 V L"])
        names = [bench.project.continuations[i].name for i in made.placed]
        self.assertEqual(names, ["400 V L1", "400 V L2", "400 V L3"])
        bench.do("place-continuations", sheet_id=other, x1=20, y1=38, x2=20, y2=50, names=names)
        self.assertEqual(len(nets_of_sheet(bench.project, other)[0]), 2)
        self.assertEqual({c.toward for c in bench.project.continuations_on(other)}, {"left"})

    def test_a_count_that_does_not_fit_is_refused(self) -> None:
        bench = Workbench()
        for y in (20, 24):
            bench.wire((20, y), (60, y))
        with self.assertRaisesRegex(RuleError, "3 names for 2 wires"):
            bench.do("place-continuations", sheet_id=bench.sheet, x1=60, y1=18, x2=60, y2=30, names=["a", "b", "c"])
        with self.assertRaisesRegex(RuleError, "meets no wire"):
            bench.do("place-continuations", sheet_id=bench.sheet, x1=70, y1=18, x2=70, y2=30, names=["a"])

    def test_renaming_takes_both_ends_and_pairing_takes_one(self) -> None:
        bench = Workbench()
        marks = [
            bench.new("place-continuation", sheet_id=bench.sheet, x=20 + 10 * n, y=20, name=name)
            for n, name in enumerate(("A", "A", "B"))
        ]
        bench.do("rename-continuation", mark_id=marks[0], name="24 V")
        self.assertEqual(len(bench.project.continuations_named.get("24 V")), 2)
        with self.assertRaisesRegex(RuleError, "24 V already"):
            bench.do("rename-continuation", mark_id=marks[2], name="24 V")
        bench.do("rename-continuation", mark_id=marks[2], name="24 V", alone=True)
        self.assertEqual(len(bench.project.continuations_named.get("24 V")), 3)


class Rungs(TestCase):
    def drawn(self) -> tuple[Workbench, list[str]]:
        bench = Workbench(rails=True, tag_habit="line", standard="na")
        bench.do("change-sheet", sheet_id=bench.sheet, line_count=4)
        coils = []
        for n in range(3):
            y = 16 + 9 * n
            bench.wire((14, y), (82, y))
            coils.append(bench.place("coil", 60, y))
            bench.place("contact-no", 24, y, device_id=bench.device(coils[0]))
        return bench, coils

    def test_what_lies_below_moves_down_and_tags_and_references_follow(self) -> None:
        bench, coils = self.drawn()
        first = [bench.tag(c) for c in coils]
        self.assertEqual(first, ["CR301", "CR302", "CR303"])
        nets = len(nets_of_sheet(bench.project, bench.sheet))
        bench.do("insert-rung", sheet_id=bench.sheet, line=302)
        self.assertEqual([bench.tag(c) for c in coils], ["CR301", "CR303", "CR304"])
        lead = lead_of(bench.project, bench.device(coils[0]))
        assert lead is not None
        self.assertEqual([r.place for r in contact_table(bench.project, lead)], ["301", "303", "304"])
        self.assertEqual(nets, len(nets_of_sheet(bench.project, bench.sheet)))
        self.assertTrue(bench.canonical())
        bench.do("remove-rung", sheet_id=bench.sheet, line=302)
        self.assertEqual([bench.tag(c) for c in coils], first)
        self.assertTrue(bench.canonical())

    def test_a_line_with_something_on_it_stays_and_a_full_sheet_takes_no_more(self) -> None:
        bench, coils = self.drawn()
        with self.assertRaisesRegex(RuleError, "not empty"):
            bench.do("remove-rung", sheet_id=bench.sheet, line=302)
        with self.assertRaisesRegex(RuleError, "no ladder line 999"):
            bench.do("insert-rung", sheet_id=bench.sheet, line=999)
        with self.assertRaisesRegex(RuleError, "no room"):
            for _ in range(20):
                bench.do("insert-rung", sheet_id=bench.sheet, line=302)
        lowest = max(bench.symbol(c).y for c in coils)
        sheet = bench.project.sheets[bench.sheet]
        self.assertEqual(
            lowest, sheet.line_top + (sheet.line_count - 1) * sheet.line_spacing, "the last line made room"
        )
        self.assertTrue(bench.canonical())

    def test_a_symbol_across_the_line_is_named(self) -> None:
        bench, _ = self.drawn()
        breaker = bench.place("breaker", 40, 18, poles=1)
        points = pin_points(bench.symbol(breaker))
        sheet = bench.project.sheets[bench.sheet]
        self.assertEqual(len({ladder_line(sheet, x, y) for x, y in points}), 2)
        with self.assertRaisesRegex(RuleError, "-?CB30.* lies partly above"):
            bench.do("insert-rung", sheet_id=bench.sheet, line=302)


class Boundaries(TestCase):
    def test_what_is_put_or_moved_into_a_boundary_takes_its_location(self) -> None:
        bench = Workbench(frame="zones")
        panel = bench.new("add-location", code="KP2", side="panel")
        field = bench.new("add-location", code="F", side="field")
        bench.do("change-sheet", sheet_id=bench.sheet, location_id=panel)
        lamp = bench.place("lamp", 30, 30)
        other = bench.place("lamp", 100, 60)
        frame = bench.new(
            "draw-figure", sheet_id=bench.sheet, x1=20, y1=20, x2=60, y2=40, text="Field", location_id=field
        )
        self.assertEqual(self.place(bench, lamp), "F")
        self.assertEqual(self.place(bench, other), "KP2")
        bench.do("move-selection", ids=[other], dx=-60, dy=-30)
        self.assertEqual(self.place(bench, other), "F")
        self.assertEqual(self.place(bench, bench.place("horn", 50, 26)), "F")
        bench.do("move-selection", ids=[lamp], dx=0, dy=40)
        self.assertEqual(self.place(bench, lamp), "KP2")
        bench.do("change-figure", figure_id=frame, location_id=panel)
        self.assertEqual(self.place(bench, other), "KP2")

    def place(self, bench: Workbench, symbol_id: str) -> str:
        """Return the code of a symbol's location."""
        return bench.project.locations[bench.project.devices[bench.device(symbol_id)].location_id].code

    def test_figures_without_size_or_outside_are_refused(self) -> None:
        bench = Workbench()
        for values, words in (
            ({"x1": 20, "y1": 20, "x2": 20, "y2": 40}, "no size"),
            ({"x1": 20, "y1": 20, "x2": 20, "y2": 20, "figure": "line"}, "no length"),
            ({"x1": 20, "y1": 20, "x2": 900, "y2": 40}, "outside"),
        ):
            with self.assertRaisesRegex(RuleError, words):
                bench.do("draw-figure", sheet_id=bench.sheet, **values)

    def test_figures_are_moved_copied_and_deleted_like_anything_drawn(self) -> None:
        bench = Workbench()
        line = bench.new("draw-figure", sheet_id=bench.sheet, figure="line", x1=20, y1=20, x2=40, y2=30)
        bench.do("move-selection", ids=[line], dx=5, dy=5)
        self.assertEqual((bench.project.figures[line].x1, bench.project.figures[line].y2), (25, 35))
        copy = bench.new("duplicate-selection", ids=[line], dx=0, dy=20)
        self.assertEqual(bench.project.figures[copy].y1, 45)
        bench.do("delete-selection", ids=[line, copy])
        self.assertFalse(bench.project.figures)


class WireTypes(TestCase):
    def test_a_type_is_changed_given_to_a_net_and_taken_away(self) -> None:
        bench = Workbench()
        bench.wire((10, 16), (60, 16))
        bench.place("coil", 30, 16)
        bench.wire((20, 16), (20, 30))
        branch = next(w for w in bench.project.wires.values() if w.x1 == w.x2)
        bench.do("set-wire-type", ids=[branch.id], wire_type_id=bench.red, whole_net=True)
        left = {w.type_id for w in bench.project.wires.values() if w.x2 <= 30}
        self.assertEqual(left, {bench.red})
        self.assertEqual({w.type_id for w in bench.project.wires.values() if w.x1 >= 34}, {bench.blue})
        change = {"wire_type_id": bench.red, "awg": "16", "outside": True, "number_at": "ends"}
        bench.do("change-wire-types", changes=[change])
        self.assertEqual(bench.project.wire_types[bench.red].size(), "AWG 16")
        with self.assertRaisesRegex(RuleError, "Say which type"):
            bench.do("remove-wire-type", wire_type_id=bench.red)
        bench.do("remove-wire-type", wire_type_id=bench.red, goes_to=bench.blue)
        self.assertEqual({w.type_id for w in bench.project.wires.values()}, {bench.blue})
        self.assertTrue(bench.canonical())

    def test_colours_and_names_are_checked(self) -> None:
        bench = Workbench()
        for values, words in (({"colour": "ZZ"}, "IEC 60757"), ({"name": "Supply"}, "already")):
            with self.assertRaisesRegex(RuleError, words):
                bench.do("change-wire-types", changes=[{"wire_type_id": bench.blue, **values}])
        with self.assertRaisesRegex(RuleError, "IEC 60757"):
            bench.do("add-wire-type", name="New", colour="XY")

    def test_the_usual_types_of_a_standard_are_added_once(self) -> None:
        bench = Workbench()
        bench.do("take-wire-types", standard="iec")
        names = [t.name for t in bench.project.wire_types.values()]
        self.assertEqual(len(names), len(set(names)))
        field = next(t for t in bench.project.wire_types.values() if t.name == "Field")
        self.assertTrue(field.outside and not field.numbered)
        with self.assertRaisesRegex(RuleError, "Nothing would change"):
            bench.do("take-wire-types", standard="iec")
