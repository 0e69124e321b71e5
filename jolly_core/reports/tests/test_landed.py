"""What is wired at a device and where else a thing is drawn, as the inspector and one key show it."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.reports import landed_at, places_of, sheet_wires, where_drawn
from jolly_core.testing import Workbench, demo

CONTACTOR = "hollin-hr-c12-24"


class AtADevice(TestCase):
    """A terminal strip with twelve terminals in a row, each wired to a lamp, in an order of its own."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        self.sheet = next(iter(b.project.sheets))
        first = b.place("terminal", 20, 20)
        self.strip = b.device(first)
        terminals = [first, *(b.place("terminal", 20, 20 + 8 * n, device_id=self.strip) for n in range(1, 12))]
        self.lamps = [b.place("lamp", 40, 20 + 8 * n) for n in range(12)]
        for symbol in terminals:
            y = b.symbol(symbol).y
            b.wire((b.symbol(symbol).x, y), (40, y))

    def test_pins_are_in_natural_order_and_each_says_what_is_at_the_other_end(self) -> None:
        rows = landed_at(self.bench.project, self.strip)
        pins = [row.pin for row in rows]
        self.assertEqual([str(n) for n in range(1, len(pins) + 1)], pins, "2 before 10")
        lamps = [row.symbol for row in rows]
        self.assertEqual(self.lamps, lamps)
        self.assertTrue(all(row.to.startswith("-P") for row in rows), rows)
        (seen,) = landed_at(self.bench.project, self.bench.device(self.lamps[3]))
        self.assertEqual(rows[3].number, seen.number)
        self.assertTrue(seen.to.endswith(":4"), seen.to)

    def test_what_is_wired_nowhere_has_nothing_landed(self) -> None:
        alone = self.bench.device(self.bench.place("lamp", 80, 20))
        self.assertEqual([], landed_at(self.bench.project, alone))


class Elsewhere(TestCase):
    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        self.first = next(iter(b.project.sheets))
        self.second = b.new("add-sheet", number="20", title="Control")
        self.coil = b.place("coil", 20, 20)
        self.device = b.device(self.coil)
        self.contact = b.place("contact-no", 20, 60, sheet_id=self.second, device_id=self.device)
        self.marks = [
            b.new("place-continuation", sheet_id=sheet, x=x, y=20, name="24 V")
            for sheet, x in ((self.second, 60), (self.first, 60))
        ]

    def places(self, id: str) -> list[tuple[str, str]]:
        found = places_of(self.bench.project, id)
        self.assertTrue(all(place["place"].startswith(place["sheet"]) for place in found))
        return [(place["sheet_id"], place["id"]) for place in found]

    def test_a_symbol_is_wherever_its_device_is_and_a_mark_wherever_its_name_is(self) -> None:
        both = [(self.first, self.coil), (self.second, self.contact)]
        self.assertEqual(both, self.places(self.coil))
        self.assertEqual(both, self.places(self.contact))
        self.assertEqual([(self.first, self.marks[1]), (self.second, self.marks[0])], self.places(self.marks[0]))

    def test_a_wire_leads_to_the_marks_of_its_net_and_one_without_marks_nowhere(self) -> None:
        b = self.bench
        b.wire((60, 20), (70, 20))
        wire = next(w.id for w in b.project.wires_on(self.first))
        self.assertEqual([(self.first, self.marks[1]), (self.second, self.marks[0])], self.places(wire))
        b.wire((100, 40), (120, 40))
        other = next(w.id for w in b.project.wires_on(self.first) if w.x1 == 100)
        self.assertEqual([], self.places(other))
        self.assertEqual([], self.places("nothing"))

    def test_where_each_kind_of_thing_is_seen(self) -> None:
        project = self.bench.project
        self.assertEqual((self.first, self.coil), where_drawn(project, self.device))
        self.assertEqual((self.second, self.contact), where_drawn(project, self.contact))
        self.assertEqual((self.second, ""), where_drawn(project, self.second))
        self.assertEqual((self.second, self.marks[0]), where_drawn(project, self.marks[0]))
        self.assertEqual(("", ""), where_drawn(project, "nothing"))
        self.bench.do("delete-selection", ids=[self.coil])
        sheet, shown = where_drawn(project, self.device)
        self.assertIn((sheet, shown), [("", ""), (self.second, self.contact)], "only a follower is left")


class Ledger(TestCase):
    def test_protective_conductors_of_a_bonded_return_are_told_where_they_are_drawn(self) -> None:
        project = demo()
        by_number = {sheet.number: sheet.id for sheet in project.sheets.values()}

        def protective(number: str) -> list[str]:
            return [r.place for r in sheet_wires(project, by_number[number]) if r.type_name == "Protective"]

        self.assertEqual(protective("50"), [], "its 0 V is bonded on sheet 10")
        self.assertGreater(len(protective("10")), 1)
        self.assertIn("0 V DC", {r.type_name for r in sheet_wires(project, by_number["50"])})
