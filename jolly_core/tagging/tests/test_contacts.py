"""Contacts: changeovers that serve as NO and NC, markings that are there once, two coils, positions of switches."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.checks import snags_on
from jolly_core.model import Part
from jolly_core.model.entities.parts import with_units_of
from jolly_core.scenes import sheet_scene, texts_in
from jolly_core.tagging import contact_table, lead_reference, pins_of, served_pins
from jolly_core.testing import Workbench

RELAY = "hollin-hr-k2"  # a coil, changeovers 11-14-12 and 21-24-22


class Contacts(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.coil = self.bench.place("coil", 40, 16)
        self.device = self.bench.device(self.coil)

    def contact(self, key: str, x: int) -> str:
        return self.bench.place(key, x, 34, device_id=self.device)

    def pins(self, symbol_id: str) -> list[str]:
        return pins_of(self.bench.project, self.bench.symbol(symbol_id))

    def codes(self) -> set[str]:
        return {s.code for s in snags_on(self.bench.project, self.bench.sheet)}

    def rows(self) -> list[tuple[str, str, str]]:
        return [(r.kind, r.pins, r.place) for r in contact_table(self.bench.project, self.bench.symbol(self.coil))]


class Changeovers(Contacts):
    def test_each_serves_once_as_make_or_break(self) -> None:
        self.bench.do("assign-part", device_id=self.device, part_id=RELAY)
        one, two, three = self.contact("contact-no", 20), self.contact("contact-nc", 30), self.contact("contact-no", 40)
        self.assertEqual([self.pins(i) for i in (one, two, three)], [["11", "14"], ["21", "22"], ["", ""]])
        self.assertIn("no-free-unit", self.codes())
        self.assertEqual(self.rows()[:2], [("CO", "11-14-12", "303"), ("CO", "21-24-22", "303")])

    def test_one_drawn_as_changeover_is_taken(self) -> None:
        self.bench.do("assign-part", device_id=self.device, part_id=RELAY)
        self.contact("contact-co", 20)
        self.assertEqual(self.pins(self.contact("contact-no", 30)), ["21", "24"])

    def test_swapping_keeps_the_changeover(self) -> None:
        self.bench.do("assign-part", device_id=self.device, part_id=RELAY)
        one = self.contact("contact-no", 20)
        self.bench.do("swap-contact", symbol_id=one)
        self.assertEqual(self.pins(one), ["11", "12"])

    def test_a_part_chosen_later_and_changed(self) -> None:
        one, two = self.contact("contact-no", 20), self.contact("contact-nc", 30)
        self.bench.do("assign-part", device_id=self.device, part_id=RELAY)
        # 11-12 was drawn and is there still; the make contact takes the next changeover.
        self.assertEqual([self.pins(i) for i in (one, two)], [["21", "24"], ["11", "12"]])
        self.bench.do("assign-part", device_id=self.device, part_id="brindlework-bw-c09-24d")
        self.assertEqual([self.pins(i) for i in (one, two)], [["13", "14"], ["21", "22"]])

    def test_make_pin_by_its_digit_whatever_its_place(self) -> None:
        part = Part("p", "M", "N", "relay", units=(("co", ("11", "12", "14")), ("co", ("3", "4", "5"))))
        self.assertEqual(served_pins(part, "no", 1), ("11", "14"))
        self.assertEqual(served_pins(part, "nc", 1), ("11", "12"))
        self.assertEqual(served_pins(part, "no", 2), ("3", "4"))
        self.assertEqual(served_pins(part, "no", 3), ())


class MarkingsOnce(Contacts):
    def test_generic_contacts_after_a_changeover(self) -> None:
        kinds = ("contact-co", "contact-nc", "contact-nc", "contact-no")
        placed = [self.pins(self.contact(key, 16 + 8 * n)) for n, key in enumerate(kinds)]
        self.assertEqual(placed, [["11", "14", "12"], ["21", "22"], ["31", "32"], ["23", "24"]])
        self.assertNotIn("pins-twice", self.codes())

    def test_a_part_that_repeats_a_marking(self) -> None:
        self.bench.do("assign-part", device_id=self.device, part_id=RELAY)
        part = self.bench.project.parts[RELAY]
        self.assertNotIn("pins-twice", self.codes())
        twice = replace(part, units=(*part.units, ("no", ("13", "14"))))
        self.bench.project.parts[RELAY] = twice
        (snag,) = [s for s in snags_on(self.bench.project, self.bench.sheet) if s.code == "pins-twice"]
        self.assertIn("two pins named 14", snag.message)

    def test_blocks_number_on(self) -> None:
        self.bench.do("assign-part", device_id=self.device, part_id="brindlework-bw-c09-24d")
        for _ in range(2):
            self.bench.do("add-part", device_id=self.device, part_id="brindlework-bw-ax11")
        pins = [p for _, p, _ in self.rows()]
        self.assertEqual(pins[-4:], ["53-54", "61-62", "73-74", "81-82"])
        self.assertNotIn("pins-twice", self.codes())

    def test_a_block_that_begins_at_one(self) -> None:
        base = Part("a", "M", "A", "relay", units=(("coil", ("A1", "A2")), ("no", ("13", "14")), ("nc", ("21", "22"))))
        block = Part("b", "M", "B", "auxiliary-block", units=(("no", ("13", "14")), ("co", ("21", "24", "22"))))
        found = with_units_of(base, [block]).units
        self.assertEqual(found[3:], (("no", ("33", "34")), ("co", ("41", "44", "42"))))


class TwoCoils(Contacts):
    def test_both_places_are_named(self) -> None:
        second = self.bench.place("coil", 40, 25, device_id=self.device)
        self.assertEqual(self.pins(second), ["B1", "B2"])
        contact = self.contact("contact-no", 20)
        project = self.bench.project
        self.assertEqual(lead_reference(project, self.bench.symbol(contact)), "301, 302")
        self.assertEqual(self.rows(), [("coil", "B1-B2", "302"), ("NO", "13-14", "303")])
        self.assertEqual(lead_reference(project, self.bench.symbol(second)), "301")


class Positions(TestCase):
    def test_a_selector_shows_rows_and_columns(self) -> None:
        bench = Workbench()
        selector = bench.place("selector-no", 20, 16)
        bench.place("selector-no", 20, 25, device_id=bench.device(selector))
        bench.do("assign-part", device_id=bench.device(selector), part_id="tamwick-tw-s22-3p")
        rows = contact_table(bench.project, bench.symbol(selector))
        self.assertEqual(
            [(r.pins, r.marks) for r in rows], [("13-14", (True, False, False)), ("23-24", (False, False, True))]
        )
        items = sheet_scene(bench.project, bench.sheet).items
        words = [p.words for p in texts_in(items[f"table:{selector}"])]
        self.assertEqual([w for w in words if w in ("Hand", "Off", "Auto", "×")], ["Hand", "Off", "Auto", "×", "×"])

    def test_a_switch_that_does_not_say_has_no_columns(self) -> None:
        bench = Workbench()
        selector = bench.place("selector-no", 20, 16)
        bench.do("assign-part", device_id=bench.device(selector), part_id="tamwick-tw-s22-2")
        self.assertTrue(all(not r.marks for r in contact_table(bench.project, bench.symbol(selector))))
