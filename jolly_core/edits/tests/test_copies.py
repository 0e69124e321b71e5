"""Copies of parts in a project: stale, refreshed, replaced; add-ons and sets; candidates with reasons."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.drawing import pin_points, place_in
from jolly_core.edits import own_symbols, ranked, stale_parts
from jolly_core.exchange import read_project, write_project
from jolly_core.harness.tests.test_sharing import ClipCase
from jolly_core.model import Part, RuleError
from jolly_core.reports import run_report
from jolly_core.tagging import contact_table, pins_of
from jolly_core.testing import Workbench

from ..devices.choosing import asked_of

C09 = "brindlework-bw-c09-24d-31"
PLAIN = "brindlework-bw-c09-24d"


class Copies(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.coil = self.bench.place("coil", 20, 20, part_id=C09)
        self.contacts = [self.bench.place("contact-no", 40 + 10 * n, 20, device_id=self.device) for n in range(3)]

    @property
    def device(self) -> str:
        return self.bench.device(self.coil)

    def pins(self) -> list[list[str]]:
        return [pins_of(self.bench.project, self.bench.symbol(c)) for c in self.contacts]

    def change(self, part_id: str, **fields: object) -> None:
        library = self.bench.library.parts
        library[part_id] = replace(library[part_id], version=2, **fields)  # type: ignore[arg-type]  # passed through

    def test_a_changed_part_is_stale_until_it_is_refreshed_and_undone(self) -> None:
        self.assertEqual(stale_parts(self.bench.project.parts, self.bench.library), {})
        self.change(C09, text="Contactor, new text", price=99.0)
        stale = stale_parts(self.bench.project.parts, self.bench.library)[C09]
        self.assertEqual([d.field for d in stale], ["description", "price"])
        outcome = self.bench.do("refresh-parts")
        self.assertEqual(self.bench.project.parts[C09].text, "Contactor, new text")
        self.assertEqual(stale_parts(self.bench.project.parts, self.bench.library), {})
        self.bench.project.apply(outcome.changes.inverse())
        self.assertIn(C09, stale_parts(self.bench.project.parts, self.bench.library))
        self.bench.do("refresh-parts", part_ids=[C09])
        with self.assertRaisesRegex(RuleError, "the same as in the library"):
            self.bench.do("refresh-parts")

    def test_a_refreshed_part_maps_its_units_anew_and_says_what_is_lost(self) -> None:
        before = self.pins()
        part = self.bench.library.parts[C09]
        self.change(C09, units=tuple(u for u in part.units if u != ("no", tuple(before[2]))))
        outcome = self.bench.do("refresh-parts")
        self.assertEqual(self.pins()[:2], before[:2])
        self.assertEqual(self.pins()[2], ["", ""])
        tag = f"-{self.bench.tag(self.coil)}"
        lost = self.bench.symbol(self.contacts[2])
        place = place_in(self.bench.project.sheets[self.bench.sheet], lost.x, lost.y)
        self.assertEqual(outcome.table[1:], [[tag, f"no free NO for the one drawn at {place}"]])
        self.assertEqual(outcome.remarks, ["1 device has units drawn that the part no longer has; see the list."])

    def test_replaced_everywhere_keeping_pins_and_listing_misfits(self) -> None:
        other = self.bench.place("coil", 20, 60, part_id=C09)
        table = self.bench.do("replace-part", part_id=C09, by_id="BW-C09-24D").table
        self.assertEqual({d.part_id for d in self.bench.project.devices.values()}, {PLAIN})
        self.assertNotIn(C09, self.bench.project.parts)
        tag = self.bench.tag(self.coil)
        self.assertEqual(table[0], ["Device", "What does not fit"])
        self.assertEqual({row[0] for row in table[1:]}, {f"-{tag}"})
        self.assertIn("no free NO", table[1][1])
        self.assertEqual(self.pins()[0], ["13", "14"])
        only = self.bench.device(other)
        self.bench.do("replace-part", part_id=PLAIN, by_id=C09, device_ids=[only])
        self.assertEqual(self.bench.project.devices[only].part_id, C09)
        self.assertEqual(self.bench.project.devices[self.device].part_id, PLAIN)
        with self.assertRaisesRegex(RuleError, "by itself"):
            self.bench.do("replace-part", part_id=C09, by_id=C09)

    def test_what_nothing_has_cannot_be_replaced(self) -> None:
        for part_id in (PLAIN, "brindlework-bw-r35"):
            part = self.bench.library.part(part_id)
            assert part is not None
            self.bench.project.load("part", [part])
            with self.assertRaisesRegex(RuleError, f"Nothing has the part {part.number}. Choose one that is used."):
                self.bench.do("replace-part", part_id=part_id, by_id=C09)

    def test_an_add_on_gives_the_device_its_units_and_is_bought(self) -> None:
        self.bench.do("assign-part", device_id=self.device, part_id=PLAIN)
        self.assertEqual([p for p in self.pins() if p == ["", ""]], [["", ""]] * 2)
        self.bench.do("add-part", device_id=self.device, part_id="BW-AX22")
        self.assertEqual(self.pins(), [["13", "14"], ["53", "54"], ["63", "64"]])
        free = [row.pins for row in contact_table(self.bench.project, self.bench.symbol(self.coil)) if not row.place]
        self.assertIn("71-72", free)
        bought = {str(row[4]): row[1] for row in run_report(self.bench.project, "parts").rows}
        self.assertEqual((bought["BW-AX22"], bought["BW-C09-24D"]), (1, 1))
        again = read_project(write_project(self.bench.project))
        self.assertEqual(pins_of(again, again.symbols[self.contacts[2]]), ["63", "64"])
        outcome = self.bench.do("remove-part", device_id=self.device, part_id="brindlework-bw-ax22")
        self.assertEqual(len(outcome.remarks), 2)
        self.assertNotIn("brindlework-bw-ax22", self.bench.project.parts)
        with self.assertRaisesRegex(RuleError, "not on the device"):
            self.bench.do("remove-part", device_id=self.device, part_id="brindlework-bw-ax22")

    def test_a_copied_device_brings_its_add_ons_along(self) -> None:
        self.bench.do("assign-part", device_id=self.device, part_id=PLAIN)
        self.bench.do("add-part", device_id=self.device, part_id="BW-AX22")
        drawn = [self.coil, *self.contacts]
        placed = self.bench.do("duplicate-selection", ids=drawn, dx=0, dy=40).placed
        copy = self.bench.project.symbols[placed[0]].device_id
        self.assertNotEqual(copy, self.device)
        self.assertEqual([p.number for p in self.bench.project.add_ons_to(copy)], ["BW-AX22"])
        pins = sorted(pins_of(self.bench.project, self.bench.project.symbols[i]) for i in placed)
        self.assertEqual(pins, [["13", "14"], ["53", "54"], ["63", "64"], ["A1", "A2"]])

    def test_a_set_gives_all_its_members_and_goes_with_the_device(self) -> None:
        outcome = self.bench.do("assign-part", device_id=self.device, part_id="BW-SET09")
        numbers = [p.number for p in self.bench.project.add_ons_to(self.device)]
        self.assertEqual(numbers, ["BW-AX22", "BW-SV24"])
        self.assertEqual(self.pins(), [["13", "14"], ["53", "54"], ["63", "64"]])
        self.assertEqual(outcome.remarks, [])
        for symbol in [self.coil, *self.contacts]:
            self.bench.do("delete-selection", ids=[symbol])
        self.assertEqual((self.bench.project.parts, self.bench.project.add_ons), ({}, {}))

    def test_a_set_that_contains_itself_is_refused_by_name(self) -> None:
        library = self.bench.library.parts
        one = next(p for p in library.values() if p.number == "BW-SET09")
        self.change(one.id, members=("BW-C09-24D", one.number))
        with self.assertRaisesRegex(RuleError, r"BW-SET09 contains itself \(BW-SET09, BW-SET09\)"):
            self.bench.do("assign-part", device_id=self.device, part_id=one.id)
        other = next(p for p in library.values() if p.members and p.id != one.id)
        self.change(one.id, members=("BW-C09-24D", other.number))
        self.change(other.id, members=("BW-AX22", one.number))
        with self.assertRaisesRegex(RuleError, "contains itself"):
            self.bench.do("assign-part", device_id=self.device, part_id=one.id)
        self.change(other.id, members=("BW-AX22", "BW-SV24"))
        self.bench.do("assign-part", device_id=self.device, part_id=one.id)
        numbers = [p.number for p in self.bench.project.add_ons_to(self.device)]
        self.assertEqual(numbers, ["BW-AX22", "BW-SV24"], "a set in a set comes down to its members")

    def test_when_none_fits_the_refusal_lists_each(self) -> None:
        self.bench.place("coil", 20, 60, part_id=C09)
        with self.assertRaisesRegex(RuleError, r"None of 2 devices can have TW-L22-G\. -\w+: .+; -\w+: "):
            self.bench.do("replace-part", part_id=C09, by_id="tamwick-tw-l22-g")
        self.assertEqual({d.part_id for d in self.bench.project.devices.values()}, {C09})

    def test_devices_and_not_faults_are_counted(self) -> None:
        fourth = self.bench.place("contact-no", 80, 20, device_id=self.device)
        self.assertTrue(fourth)
        outcome = self.bench.do("replace-part", part_id=C09, by_id="BW-C09-24D")
        self.assertGreater(len(outcome.table), 2)
        self.assertEqual(outcome.remarks, ["1 of 1 do not fit altogether; see the list."])

    def test_a_parts_own_symbol_is_drawn_when_it_is_asked_for_and_keeps_the_wires(self) -> None:
        lamp = self.bench.place("lamp", 20, 60)
        self.bench.wire((24, 60), (40, 60))
        device, spans = self.bench.device(lamp), self.bench.spans()
        self.change("tamwick-tw-l22-g", symbols={"lamp": "horn"})
        part = self.bench.library.parts["tamwick-tw-l22-g"]
        self.assertEqual(own_symbols(self.bench.project, self.bench.project.devices[device], part), {lamp: "horn"})
        self.bench.do("assign-part", device_id=device, part_id=part.id)
        self.assertEqual(self.bench.symbol(lamp).definition, "lamp", "only when it is asked for")
        outcome = self.bench.do("assign-part", device_id=device, part_id=part.id, own_symbols=True)
        self.assertEqual((self.bench.symbol(lamp).definition, self.bench.spans()), ("horn", spans))
        self.bench.project.apply(outcome.changes.inverse())
        self.assertEqual(self.bench.symbol(lamp).definition, "lamp")

    def test_texts_of_parts_come_in_the_language_of_the_project(self) -> None:
        self.change(C09, texts={"de": "Schütz, 9 A"})
        self.bench.do("refresh-parts")

        def texts() -> set[str]:
            return {str(r[5]) for r in run_report(self.bench.project, "parts").rows if r[4]}

        self.assertIn(self.bench.library.parts[C09].text, texts())
        self.bench.do("change-settings", part_language="de")
        self.assertEqual(texts(), {"Schütz, 9 A"})
        self.bench.do("change-settings", part_language="fr")
        self.assertIn(self.bench.library.parts[C09].text, texts(), "its own where it has none in that language")

    def test_a_part_goes_onto_a_device_that_has_one(self) -> None:
        bare = self.bench.device(self.bench.place("coil", 20, 80))
        with self.assertRaisesRegex(RuleError, "Choose the part"):
            self.bench.do("add-part", device_id=bare, part_id="BW-AX22")


def contactors(bench: Workbench) -> list[Part]:
    return bench.library.parts_of("contactor")


class Choosing(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        b = self.bench
        b.wire((20, 10), (60, 10))
        for x, name in ((20, "24 V"), (60, "0 V")):
            b.do("place-continuation", sheet_id=b.sheet, x=x, y=10, name=name)
        self.coil = b.place("coil", 38, 10)

    def test_the_net_and_the_motor_are_asked_for(self) -> None:
        b = self.bench
        device = b.device(self.coil)
        poles = b.place("contactor-pole", 30, 40, device_id=device, poles=3)
        motor = b.place("motor", 60, 60)
        ends = pin_points(b.symbol(poles))
        b.wire(ends[1], (pin_points(b.symbol(motor))[0][0], ends[1][1]), pin_points(b.symbol(motor))[0])
        asked = asked_of(b.project, b.project.devices[device])
        self.assertEqual(asked.volts, "24")
        b.do("assign-part", device_id=b.device(motor), part_id="orrery-drives-od-n4")
        self.assertEqual(asked_of(b.project, b.project.devices[device]).motor_a, 8.5)
        words = [r.words for c in ranked(b.project, b.project.devices[device], contactors(b)) for r in c.reasons]
        self.assertIn("9 A AC-3 is enough for the motor’s 8.5 A", words)

    def test_candidates_are_ranked_and_say_why(self) -> None:
        b = self.bench
        device = b.project.devices[b.device(self.coil)]
        for n in range(2):
            b.place("contact-no", 20, 60 + 10 * n, device_id=device.id)
        found = ranked(b.project, device, contactors(b))
        best, worst = found[0], found[-1]
        self.assertEqual(best.part.ratings["coil_voltage_v"], "24")
        self.assertIn("24 V DC, as the net has", [r.words for r in best.reasons])
        self.assertIn("has all units drawn", [r.words for r in best.reasons])
        self.assertNotEqual(worst.part.ratings["coil_voltage_v"], "24")
        self.assertIn("but the net has 24 V", " ".join(r.words for r in worst.reasons))
        self.assertEqual([then for _, _, then in best.mapping][:2], ["A1-A2", "13-14"])

    def test_what_the_project_uses_already_comes_first_of_equals(self) -> None:
        b = self.bench
        first = b.place("coil", 20, 90)
        b.do("assign-part", device_id=b.device(first), part_id="brindlework-bw-c12-24d-11")
        device = b.project.devices[b.device(self.coil)]
        parts = [p for p in b.library.parts.values() if p.number in ("BW-C09-24D-11", "BW-C12-24D-11")]
        found = ranked(b.project, device, parts)
        self.assertEqual(found[0].part.number, "BW-C12-24D-11")
        self.assertIn("used 1 time in this project", [r.words for r in found[0].reasons])

    def test_the_positions_of_a_switch_stand_at_its_contacts(self) -> None:
        b = self.bench
        hand = b.place("selector-no", 20, 88, part_id="TW-S22-3P")
        auto = b.place("selector-no", 20, 96, device_id=b.device(hand))
        rows = [(row.kind, row.marks) for row in contact_table(b.project, b.symbol(hand))]
        self.assertEqual(rows, [("NO", (True, False, False)), ("NO", (False, False, True))])
        self.assertEqual(pins_of(b.project, b.symbol(auto)), ["23", "24"])


class ReplacedInHarness(ClipCase):
    """Coverings and clips of a harness get another part everywhere at once, as devices do."""

    def test_coverings_and_clips_are_replaced_in_all_harnesses_and_only_by_their_own_kind(self) -> None:
        b = self.bench
        tape, sleeve = [p.id for p in b.library.parts_of("covering")][:2]
        segments = sorted(b.project.segments)
        b.do("cover-segment", ids=segments, part_id=tape)
        b.do("change-node", node_id=self.clip, part_id="tamwick-tw-cl8")
        outcome = b.do("replace-part", part_id=tape, by_id=sleeve)
        self.assertEqual({sleeve}, {c.part_id for c in b.project.coverings.values()})
        self.assertEqual(len(segments), len(b.project.coverings))
        self.assertNotIn(tape, b.project.parts, "nobody has it any more")
        b.do("replace-part", part_id="tamwick-tw-cl8", by_id="tamwick-tw-cl14")
        self.assertEqual("tamwick-tw-cl14", b.project.nodes[self.clip].part_id)
        with self.assertRaisesRegex(RuleError, "is no harness clip|is no clip"):
            b.do("replace-part", part_id="tamwick-tw-cl14", by_id=sleeve)
        self.assertEqual("tamwick-tw-cl14", b.project.nodes[self.clip].part_id, "refused means unchanged")
        b.project.apply(outcome.changes.inverse())
        self.assertEqual({tape}, {c.part_id for c in b.project.coverings.values()})
