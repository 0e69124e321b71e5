"""Units, contact tables, tags."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags, snags_on
from jolly_core.model import RuleError
from jolly_core.tagging import (
    contact_table,
    full_tag,
    lead_of,
    lead_reference,
    likely_devices,
    pins_of,
    product_tag,
    tag_on,
)
from jolly_core.testing import Workbench


class Contacts(TestCase):
    """A relay with NO 13-14, NC 21-22, NC 31-32, NO 43-44, drawn bit by bit."""

    def setUp(self) -> None:
        self.bench = Workbench()
        self.coil = self.bench.place("coil", 70, 16, text="Fan run")
        self.device = self.bench.device(self.coil)

    def contact(self, kind: str, line: int) -> str:
        return self.bench.place(f"contact-{kind}", 30, 16 + 9 * line, device_id=self.device)

    def pins(self, symbol_id: str) -> str:
        return "-".join(pins_of(self.bench.project, self.bench.symbol(symbol_id)))

    def part(self, number: str) -> None:
        self.bench.do("assign-part", device_id=self.device, part_id=self.bench.library.part(number).id)  # type: ignore[union-attr]  # it is there

    def codes(self) -> list[str]:
        found = snags_on(self.bench.project, self.bench.sheet)
        return sorted(s.code for s in found if s.severity == "error")

    def test_worked_example_no_no_nc_no(self) -> None:
        self.part("HR-K22")
        placed = [self.contact(kind, i) for i, kind in enumerate(("no", "no", "nc", "no"), start=1)]
        self.assertEqual([self.pins(p) for p in placed], ["13-14", "43-44", "21-22", "-"])
        self.assertEqual(self.codes(), ["no-free-unit"])

    def test_a_freed_unit_is_taken_next_and_the_others_keep_theirs(self) -> None:
        self.part("HR-K22")
        first, second = self.contact("no", 1), self.contact("no", 2)
        self.bench.do("delete-selection", ids=[first])
        self.assertEqual(self.pins(second), "43-44")
        self.assertEqual(self.pins(self.contact("no", 3)), "13-14")

    def test_without_a_part_pins_are_numbered_on(self) -> None:
        placed = [self.contact("no", 1), self.contact("no", 2), self.contact("nc", 3)]
        self.assertEqual([self.pins(p) for p in placed], ["13-14", "23-24", "11-12"])

    def test_a_changed_part_keeps_pins_that_still_exist_and_says_what_it_cannot(self) -> None:
        self.part("BW-C09-24D-31")
        placed = [self.contact("no", i) for i in range(1, 4)]
        self.assertEqual([self.pins(p) for p in placed], ["13-14", "33-34", "43-44"])
        self.bench.do("delete-selection", ids=[placed[0]])
        outcome = self.bench.do("assign-part", device_id=self.device, part_id="hollin-hr-k22")
        self.assertEqual([self.pins(p) for p in placed[1:]], ["13-14", "43-44"])
        self.assertEqual(outcome.remarks, [])
        outcome = self.bench.do("assign-part", device_id=self.device, part_id="brindlework-bw-c09-24d")
        self.assertEqual([self.pins(p) for p in placed[1:]], ["13-14", "-"])
        self.assertEqual(len(outcome.remarks), 1)

    def test_a_part_that_is_something_else_is_refused(self) -> None:
        with self.assertRaisesRegex(RuleError, r"TW-L22-G \(indicator light\) has no coil"):
            self.bench.do("assign-part", device_id=self.device, part_id="tamwick-tw-l22-g")

    def test_the_coil_shows_its_contacts_and_each_contact_its_coil(self) -> None:
        self.part("HR-K22")
        here = self.contact("no", 1)
        sheet = self.bench.new("add-sheet", number="31")
        self.bench.place("contact-nc", 30, 34, device_id=self.device, sheet_id=sheet)
        rows = contact_table(self.bench.project, self.bench.symbol(self.coil))
        self.assertEqual(
            [(r.kind, r.pins, r.place) for r in rows],
            [("NO", "13-14", "302"), ("NC", "21-22", "31.313"), ("NC", "31-32", ""), ("NO", "43-44", "")],
        )
        self.assertEqual(lead_reference(self.bench.project, self.bench.symbol(here)), "301")
        self.bench.do("move-selection", ids=[self.coil], dx=0, dy=27)
        self.assertEqual(lead_reference(self.bench.project, self.bench.symbol(here)), "304")

    def test_swapping_takes_the_unit_anew(self) -> None:
        self.part("HR-K22")
        symbol = self.contact("no", 1)
        self.bench.do("swap-contact", symbol_id=symbol)
        self.assertEqual(self.pins(symbol), "21-22")
        self.bench.do("swap-contact", symbol_id=symbol)
        self.assertEqual(self.pins(symbol), "13-14")
        with self.assertRaisesRegex(RuleError, "no opposite"):
            self.bench.do("swap-contact", symbol_id=self.coil)

    def test_a_lead_deleted_leaves_orphans(self) -> None:
        symbol = self.contact("no", 1)
        self.bench.do("delete-selection", ids=[self.coil])
        self.assertEqual(self.codes(), ["no-device"])
        other = self.bench.place("coil", 70, 34)
        self.bench.do("belong-to", symbol_id=symbol, device_id=self.bench.device(other))
        self.assertEqual(self.codes(), [])
        self.assertNotIn(self.device, self.bench.project.devices)

    def test_a_contact_without_a_device_waits_for_one(self) -> None:
        symbol = self.bench.place("contact-no", 30, 25)
        self.assertEqual(self.codes(), ["no-device"])
        likely = likely_devices(self.bench.project, "contact-no", self.bench.sheet)
        self.assertEqual([d.id for d, _, _ in likely], [self.device])
        self.bench.do("belong-to", symbol_id=symbol, device_id=self.device)
        self.assertEqual(self.pins(symbol), "13-14")

    def test_duplicated_contacts_follow_the_copied_coil_or_stay(self) -> None:
        symbol = self.contact("no", 1)
        alone = self.bench.do("duplicate-selection", ids=[symbol], dx=20, dy=0).placed[0]
        self.assertEqual(self.bench.device(alone), self.device)
        both = self.bench.do("duplicate-selection", ids=[self.coil, symbol], dx=0, dy=36).placed
        copies = {self.bench.device(p) for p in both}
        self.assertEqual(len(copies), 1)
        self.assertNotIn(self.device, copies)
        self.assertEqual(self.bench.tag(both[0]), "KF2")


class Tags(TestCase):
    def test_iec_numbers_run_on_and_fixed_ones_are_kept(self) -> None:
        bench = Workbench()
        first = bench.place("coil", 70, 16)
        second = bench.place("coil", 70, 25)
        self.assertEqual([bench.tag(first), bench.tag(second)], ["KF1", "KF2"])
        bench.do("set-tag", device_id=bench.device(second), tag="-KF9")
        bench.do("delete-selection", ids=[first])
        self.assertEqual(bench.tag(bench.place("coil", 70, 34)), "KF1")
        self.assertEqual(bench.tag(second), "KF9")
        bench.do("set-tag", device_id=bench.device(second), tag="")
        self.assertEqual(bench.tag(second), "KF2")

    def test_letters_follow_the_part(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 70, 16)
        bench.do("assign-part", device_id=bench.device(coil), part_id="brindlework-bw-c09-24d")
        self.assertEqual(bench.tag(coil), "QA1")
        bench.do("assign-part", device_id=bench.device(coil), part_id="")
        self.assertEqual(bench.tag(coil), "KF1")
        self.assertEqual(bench.project.parts, {})

    def test_line_habit_takes_the_line_and_a_suffix(self) -> None:
        bench = Workbench(standard="na", tag_habit="line")
        bench.do("change-sheet", sheet_id=bench.sheet, first_line=214)
        first = bench.place("button-no", 20, 16)
        self.assertEqual(bench.tag(first), "PB214")
        second = bench.place("button-nc", 40, 16)
        self.assertEqual([bench.tag(first), bench.tag(second)], ["PB214", "PB214A"])
        bench.do("move-selection", ids=[second], dx=0, dy=9)
        self.assertEqual([bench.tag(first), bench.tag(second)], ["PB214", "PB215"])

    def test_cards_are_on_no_line_and_keep_their_numbers_when_their_channels_are_drawn(self) -> None:
        bench = Workbench(standard="na", tag_habit="line")
        cards = [bench.new("add-card", part_id="hollin-hr-di8") for _ in range(2)]
        points = [{"tag": f"S{n}", "io_type": "DI", "connected": "limit switch"} for n in range(10)]
        bench.do("take-in-points", points=points)
        bench.do("suggest-channels")
        before = [product_tag(bench.project, bench.project.devices[id]) for id in cards]
        self.assertEqual(before, ["PLC1", "PLC2"])
        bench.do("draw-channels")
        self.assertEqual([product_tag(bench.project, bench.project.devices[id]) for id in cards], before)
        self.assertFalse([s for s in all_snags(bench.project) if s.code.startswith("equal-tags")])
        coil = bench.place("coil", 40, 16)
        contact = bench.place("contact-no", 20, 16, device_id=bench.device(coil))
        bench.do("delete-selection", ids=[coil])
        self.assertEqual(bench.tag(contact), "CR?", "an orphan waits for a lead")

    def test_function_and_location_are_shown_where_they_differ(self) -> None:
        bench = Workbench()
        k2 = bench.new("add-function", code="K2")
        panel = bench.new("add-location", code="KP2")
        door = bench.new("add-location", code="KD2", side="door")
        sheet = bench.new("add-sheet", number="40", function_id=k2, location_id=panel)
        coil = bench.place("coil", 40, 16, sheet_id=sheet)
        device = bench.project.devices[bench.device(coil)]
        self.assertEqual(full_tag(bench.project, device), "=K2+KP2-KF1")
        self.assertEqual(tag_on(bench.project, device, bench.project.sheets[sheet]), "-KF1")
        bench.do("set-place", device_id=device.id, function_id=k2, location_id=door)
        device = bench.project.devices[device.id]
        self.assertEqual(tag_on(bench.project, device, bench.project.sheets[sheet]), "+KD2-KF1")
        self.assertEqual(bench.tag(bench.place("coil", 40, 25, sheet_id=sheet)), "KF1")

    def test_equal_tags_are_a_snag(self) -> None:
        bench = Workbench()
        bench.place("coil", 70, 16)
        other = bench.place("coil", 70, 25)
        bench.do("set-tag", device_id=bench.device(other), tag="KF1")
        codes = [s.code for s in snags_on(bench.project, bench.sheet)]
        self.assertEqual(codes.count("equal-tags"), 2)

    def test_terminals_go_to_one_strip_and_count_on(self) -> None:
        bench = Workbench(frame="zones")
        placed = [bench.place("terminal", 20 + 4 * i, 20, rotation=90, mirror=True) for i in range(3)]
        self.assertEqual(len({bench.device(p) for p in placed}), 1)
        self.assertEqual([bench.symbol(p).units for p in placed], [(1,), (2,), (3,)])
        lead = lead_of(bench.project, bench.device(placed[0]))
        self.assertEqual(lead and lead.id, placed[0])
