"""Stamps: kept with questions, put down once and from a table, over several sheets, with parts chosen by rating."""

from __future__ import annotations

import json
from unittest import TestCase

from jolly_core.checks import snags_on
from jolly_core.library import built_in_stamps
from jolly_core.model import FileError, RuleError
from jolly_core.sizing import motor_choice
from jolly_core.tagging import contact_table, full_tag, lead_of
from jolly_core.testing import DemoLibrary, Workbench
from jolly_core.wiring import nets_of_sheet

from ..pieces.stampbody import body_from_text


def with_bus(width: int = 150) -> Workbench:
    """Return a sheet with zones and a bus of L1, L2, L3 and PE, as the starters begin on."""
    bench = Workbench(frame="zones")
    bench.do("take-wire-types", standard="iec")
    types = {t.name: t.id for t in bench.project.wire_types.values()}
    names = [types["Power"]] * 3 + [types["Protective"]]
    bench.do("draw-bus", sheet_id=bench.sheet, points=[[10, 14], [width, 14]], wire_type_ids=names)
    return bench


def motors(bench: Workbench) -> list[str]:
    """Return the texts of the motors, sheet by sheet from the left."""
    p = bench.project
    found = []
    for sheet in p.sheets_in_order():
        own = [s for s in p.symbols_on(sheet.id) if s.definition == "motor"]
        found += [p.devices[s.device_id].text for s in sorted(own, key=lambda s: s.x)]
    return found


class FromATable(TestCase):
    def test_twenty_motors_are_twenty_feeders_on_as_many_sheets_as_they_need(self) -> None:
        bench = with_bus()
        powers = ["0.75", "1.5", "2.2", "3", "4"] * 4
        rows = [{"Motor": f"Fan {n}", "Power kW": kw} for n, kw in enumerate(powers, start=1)]
        outcome = bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14, rows=rows)
        p = bench.project
        self.assertEqual(motors(bench), [f"Fan {n}" for n in range(1, 21)])
        self.assertGreater(len(p.sheets), 2)
        tags = [full_tag(p, d) for d in p.devices.values()]
        self.assertEqual(len(tags), len(set(tags)), "each has tags of its own")
        self.assertTrue(bench.canonical())
        for device in p.devices.values():
            lead = lead_of(p, device.id)
            if lead is not None and lead.definition == "coil":
                poles = [r for r in contact_table(p, lead) if r.kind == "pole"]
                self.assertEqual(len(poles), 1, "each coil has its own poles")
                self.assertTrue(poles[0].place)
        chosen = {(row[0], row[1]): row[2:] for row in outcome.table[1:]}
        self.assertEqual(chosen["1 Fan 1", "Motor protective breaker"][0], "BW-M2-5")
        self.assertIn("1.9 A", chosen["1 Fan 1", "Motor protective breaker"][1])
        self.assertEqual(chosen["4 Fan 4", "Motor"][0], "OD-M3")

    def test_the_bus_goes_on_over_the_sheets(self) -> None:
        bench = with_bus()
        rows = [{"Motor": f"Fan {n}"} for n in range(1, 9)]
        bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14, rows=rows)
        p = bench.project
        first, second = p.sheets_in_order()[:2]
        nets = nets_of_sheet(p, second.id)
        over = [n for n in nets if {g.sheet_id for g in n} >= {first.id, second.id}]
        buses = [n for n in over if sum(len(g.pins) for g in n if g.sheet_id == second.id) > 1]
        self.assertEqual(len(buses), 4 + 1, "three phases, PE and 0 V")
        found = {s.code for sheet in (first, second) for s in snags_on(p, sheet.id)}
        self.assertFalse(found & {"joined-potentials", "protective-joined", "equal-tags", "no-device"})

    def test_answers_that_cannot_be_are_refused_and_nothing_is_drawn(self) -> None:
        bench = with_bus()
        for answers, words in (
            ({"Power kW": "many"}, "no power in kW or hp"),
            ({"Power kW": "9000"}, "outside the table"),
            ({"Colour": "red"}, "does not ask"),
            ({"Function": "X9"}, "no function X9"),
            ({"Breaker part": "NONE-1"}, "no part NONE-1"),
        ):
            with self.assertRaisesRegex(RuleError, words):
                bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14, rows=[answers])
        self.assertFalse(bench.project.symbols)
        with self.assertRaisesRegex(RuleError, "neither in the project"):
            bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="nothing", x=20, y=14)

    def test_a_table_of_copies_that_would_leave_the_frame_is_refused_and_one_is_told(self) -> None:
        bench = with_bus(100)
        bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14)
        self.assertFalse([s for s in snags_on(bench.project, bench.sheet) if s.code == "outside-frame"])
        small = with_bus(100)
        small.do("change-sheets", sheets=[{"sheet_id": small.sheet, "size": "A4"}])
        count = len(small.project.sheets)
        twenty = [{"Motor": f"M{n}"} for n in range(20)]
        with self.assertRaisesRegex(RuleError, "It would lie partly .* a larger size for the sheet"):
            small.do("put-stamp", sheet_id=small.sheet, stamp_id="direct-starter", x=20, y=14, rows=twenty)
        self.assertEqual(len(small.project.sheets), count)
        outcome = small.do("put-stamp", sheet_id=small.sheet, stamp_id="direct-starter", x=20, y=14)
        self.assertIn("larger size for the sheet", outcome.remarks[0])
        self.assertTrue([s for s in snags_on(small.project, small.sheet) if s.code == "outside-frame"])

    def test_copies_over_several_sheets_are_counted_first(self) -> None:
        bench = with_bus()
        rows = [{"Motor": f"M{n}", "Power kW": "1.5"} for n in range(9)]
        outcome = bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14, rows=rows)
        sheets = {s.sheet_id for s in bench.project.symbols.values()}
        numbers = [s.number for s in bench.project.sheets_in_order()]
        self.assertEqual(outcome.remarks, [f"9 copies on {len(sheets)} sheets, {numbers[0]} to {numbers[-1]}."])

    def test_a_stamp_dropped_far_to_the_right_does_not_make_a_sheet_for_each_copy(self) -> None:
        bench = with_bus()
        rows = [{"Motor": f"M{n}", "Power kW": "1.5"} for n in range(20)]
        left = bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14, rows=rows)
        wanted = len({s.sheet_id for s in bench.project.symbols.values()})
        bench.project.apply(left.changes.inverse())
        right = 20
        while True:  # the last place on the sheet where one copy still stands inside
            outcome = bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=right + 4, y=14)
            bench.project.apply(outcome.changes.inverse())
            if any("partly" in words for words in outcome.remarks):
                break
            right += 4
        bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=right, y=14, rows=rows)
        sheets = {s.sheet_id for s in bench.project.symbols.values()}
        self.assertLessEqual(len(sheets), wanted + 1)
        on_bus = [s for s in snags_on(bench.project, bench.sheet) if s.code == "outside-frame"]
        self.assertEqual(on_bus, [])

    def test_a_part_typed_by_hand_wins_over_the_one_proposed(self) -> None:
        bench = with_bus()
        row = {"Motor": "Auger", "Power kW": "1.5", "Breaker part": "BW-M6-3"}
        bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14, rows=[row])
        parts = {p.part_class: p.number for p in bench.project.parts.values()}
        self.assertEqual(parts["motor-breaker"], "BW-M6-3")
        self.assertEqual(parts["contactor"], "BW-C09-24D")

    def test_a_large_motor_gets_thicker_wires(self) -> None:
        bench = with_bus()
        bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14, rows=[{"Power kW": "15"}])
        sizes = {t.cross_section_mm2 for t in bench.project.wire_types.values() if t.category == "power"}
        self.assertIn(6.0, sizes)


class Kept(TestCase):
    def test_a_selection_is_kept_with_its_questions_and_put_down_again(self) -> None:
        bench = Workbench(rails=True)
        bench.wire((14, 16), (82, 16))
        button = bench.place("button-no", 24, 16, text="Start")
        coil = bench.place("coil", 60, 16, text="Run")
        ids = [button, coil, *(w.id for w in bench.project.wires.values() if w.y1 == w.y2)]
        questions = [
            {"name": "What", "kind": "text", "targets": [bench.device(coil)]},
            {"name": "Tag", "kind": "tag", "targets": [bench.device(button)]},
        ]
        values = {"name": "Rung", "anchor_x": 14, "anchor_y": 16, "questions": questions}
        stamp = bench.new("keep-stamp", ids=ids, **values)
        with self.assertRaisesRegex(RuleError, "already a stamp"):
            bench.do("keep-stamp", ids=ids, name="Rung")
        rows = [{"What": "Fan", "Tag": "SF90"}, {"What": "Auger"}]
        bench.do("put-stamp", sheet_id=bench.sheet, stamp_id=stamp, x=14, y=25, rows=rows, dx=0, dy=9)
        coils = sorted((s for s in bench.project.symbols.values() if s.definition == "coil"), key=lambda s: s.y)
        texts = [bench.project.devices[c.device_id].text for c in coils]
        self.assertEqual(
            [(c.y, t) for c, t in zip(coils, texts, strict=True)], [(16, "Run"), (25, "Fan"), (34, "Auger")]
        )
        self.assertIn("SF90", {d.fixed_tag for d in bench.project.devices.values()})
        bench.do("change-stamp", stamp_id=stamp, name="Rung 2", questions=[])
        self.assertEqual(body_from_text(bench.project.stamps[stamp].body).questions, ())
        bench.do("remove-stamp", stamp_id=stamp)
        self.assertFalse(bench.project.stamps)

    def test_questions_about_what_is_not_there_are_refused(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 40, 16)
        for question, words in (
            ({"name": "A", "kind": "text", "targets": ["zz"]}, "not in the stamp"),
            ({"name": "A", "kind": "part", "targets": []}, "concerns nothing"),
        ):
            with self.assertRaisesRegex(FileError, words):
                bench.do("keep-stamp", ids=[coil], name="S", questions=[question])

    def test_the_stamps_that_come_along_can_all_be_read_and_put_down(self) -> None:
        for id, stamp in built_in_stamps().items():
            body = body_from_text(stamp.body)
            self.assertTrue(stamp.name and stamp.text and body.questions, id)
            bench = Workbench(frame="zones")
            bench.do("put-stamp", sheet_id=bench.sheet, stamp_id=id, x=30, y=20)
            self.assertTrue(bench.canonical(), id)
            found = {s.code for s in snags_on(bench.project, bench.sheet) if s.severity == "error"}
            self.assertFalse(found, id)

    def test_faulty_bodies_are_refused(self) -> None:
        good = json.loads(next(iter(built_in_stamps().values())).body)
        changes: tuple[dict[str, object], ...] = (
            {"anchor": [1]},
            {"anchor": ["a", 2]},
            {"questions": [{"name": 3}]},
            {"piece": {}},
        )
        for change in changes:
            with self.assertRaises(FileError):
                body_from_text(json.dumps({**good, **change}))


class Choice(TestCase):
    def test_horsepower_on_a_north_american_supply(self) -> None:
        """5 hp take 7.6 A at 460 V (NFPA 70 table 430.250); coils are for the control voltage that the project has."""
        bench = Workbench(frame="zones", standard="na", supply="480 V 3~ 60 Hz", control_voltages="120 V AC")
        row = {"Power kW": "5 hp"}
        table = bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="direct-starter", x=20, y=14, rows=[row]).table
        said = " ".join(cell for line in table for cell in line)
        self.assertIn("7.6 A", said)
        self.assertIn("5 hp at 480 V", said)
        self.assertIn("coil 120 V", said)
        for answer in ("3 to 5 kW", "5 apples"):
            with self.assertRaisesRegex(RuleError, "no power in kW or hp"):
                bench.do(
                    "put-stamp",
                    sheet_id=bench.sheet,
                    stamp_id="direct-starter",
                    x=20,
                    y=14,
                    rows=[{"Power kW": answer}],
                )

    def test_each_proposal_says_why(self) -> None:
        library = DemoLibrary()
        parts = {key: library.parts_of(key) for key in ("motor-breaker", "contactor", "overload", "motor")}
        by_class = {c.what: c for c in motor_choice(2.2, parts)}
        self.assertEqual(by_class["motor-breaker"].part.number if by_class["motor-breaker"].part else "", "BW-M6-3")
        self.assertEqual(by_class["contactor"].part.number if by_class["contactor"].part else "", "BW-C09-24D")
        self.assertIn("4.9 A", by_class["motor-breaker"].reason)
        self.assertEqual(by_class["conductor"].area_mm2, 0.75)
        none = {c.what: c for c in motor_choice(75, parts)}
        self.assertIsNone(none["motor-breaker"].part)
        self.assertIn("no motor-breaker", none["motor-breaker"].reason)
