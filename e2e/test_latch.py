"""The latch circuit, from an empty sheet to the lists."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from jolly_core.model import Project
from jolly_core.reports import run_report
from jolly_core.tagging import pin_name
from jolly_core.wiring import nets_of_sheet

from .base import Story


def texts(page: Page) -> list[str]:
    """Return all texts painted on the sheet."""
    return page.locator("svg[data-testid=sheet] text").all_text_contents()


class LatchStory(Story):
    """A designer draws the auger's latch circuit on a new sheet."""

    def draw_latch(self, page: Page) -> None:
        """Draw stop, start, coil, latch, and two lamps."""
        self.sign_in(page)
        self.new_sheet(page, "40", "Spare auger")
        page.keyboard.press("/")
        page.get_by_label("Quick line").fill('nc "Stop", no "Start", coil "Auger run"')
        expect(page.locator("[data-kind=symbol][data-look=preview]")).to_have_count(3)
        page.keyboard.press("Enter")
        expect(page.get_by_test_id("quick-line")).to_have_count(0)
        expect(self.symbols(page)).to_have_count(3)
        self.wire(page, (29, 16), (29, 25), (42, 25), (42, 16))
        self.place(page, 33, 25, "no", "NO contact of -KF4")
        for line, kind in ((34, "no"), (43, "nc")):
            self.wire(page, (14, line), (82, line))
            name = "NO contact of -KF4" if kind == "no" else "NC contact of -KF4"
            self.place(page, 33, line, kind, name)
            self.place(page, 74, line, "lamp", "Lamp")
        expect(self.symbols(page)).to_have_count(8)

    def assign(self, page: Page, at: tuple[float, float], tag: str, typed: str, number: str) -> None:
        """Choose a part for the device at a place by typing part of its number."""
        before = self.revision()
        self.click(page, *at)
        # The card of the device before stays until that of this one is there.
        expect(page.get_by_role("complementary", name="Inspector").get_by_label("Tag", exact=True)).to_have_value(tag)
        page.get_by_role("button", name="Choose part").click()
        page.get_by_label("Find a part").fill(typed)
        page.get_by_role("listbox", name="Parts found").get_by_text(number, exact=True).click()
        self.accepted(page, before)
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text(number)

    def circuit(self, project: Project) -> set[frozenset[str]]:
        """Return the pairs of pins wired together on the new sheet, as the wire list says."""
        rows = run_report(project, "wires").rows
        ends = [(str(r[1]), str(r[2])) for r in rows if str(r[8]).startswith("40.")]
        return {frozenset(e.removeprefix("=K2+KP2") for e in pair) for pair in ends}

    def nets(self, project: Project) -> set[frozenset[str]]:
        """Return the nets of the new sheet, each as the pins it joins; the pins of a later symbol do not count."""
        sheet = next(s for s in project.sheets.values() if s.number == "40")
        return {
            frozenset(pin_name(project, pin, sheet.id) for group in net for pin in group.pins)
            for net in nets_of_sheet(project, sheet.id)
        }

    def test_drawn_numbered_and_listed_without_asking(self) -> None:
        page = self.page
        self.draw_latch(page)
        seen = texts(page)
        for tag in ("-SF1", "-SF2", "-KF4", "-PF1", "-PF2"):
            self.assertIn(tag, seen)
        for number in ("4011", "4012", "4013", "4014", "4031", "4041"):
            self.assertIn(number, seen, f"wire numbers on the sheet: {seen}")
        table = page.locator("[data-kind=table]").all_text_contents()
        self.assertEqual(len(table), 1)
        for piece in ("13-14", "23-24", "11-12", "402", "403", "404"):
            self.assertIn(piece, table[0])
        project = self.project()
        self.assert_canonical(project)
        wired = self.circuit(project)
        self.assertIn(frozenset(("-SF1:12", "-SF2:13")), wired)
        self.assertIn(frozenset(("-SF2:13", "-KF4:13")), wired)
        self.assertIn(frozenset(("-SF2:14", "-KF4:A1")), wired)
        self.assertIn(frozenset(("-KF4:24", "-PF1:X1")), wired)
        self.assertIn(frozenset(("-KF4:12", "-PF2:X1")), wired)
        self.assertEqual(page.locator("[data-kind=symbol] text[data-link]").all_text_contents(), ["401"] * 3)

    def test_parts_by_part_of_a_number_and_the_fourth_contact(self) -> None:
        page = self.page
        self.draw_latch(page)
        self.assign(page, (76, 16), "-KF4", "c09-24d-31", "BW-C09-24D-31")
        expect(page.locator("[data-kind=table]")).to_contain_text("43-44")
        self.assertIn("-QA2", texts(page))
        for line, pins in ((52, "43-44 free"), (61, "none free")):
            self.fit(page)
            self.wire(page, (14, line), (82, line))
            self.click(page, 33, line)
            page.keyboard.press("Escape")
            page.keyboard.type("no")
            option = page.get_by_role("option").filter(has_text="NO contact of -QA2").first
            expect(option).to_contain_text(pins.split(" ")[0])
            before = self.revision()
            option.click()
            self.accepted(page, before)
        page.get_by_role("tab", name="Snags").click()
        expect(page.get_by_role("region", name="Ledger")).to_contain_text("-QA2 has no free NO left on BW-C09-24D-31.")
        self.click(page, 35, 61)
        page.get_by_role("button", name="choose", exact=True).click()
        offered = page.get_by_role("listbox", name="Parts found")
        expect(offered).to_contain_text("BW-C09-24D-62")
        # Of what it has now is said what it is short of; it stands behind those that have all.
        now = offered.get_by_role("option").filter(has_text="BW-C09-24D-31")
        expect(now).to_contain_text("✗ 1 NO short")
        expect(offered.get_by_role("option").first).to_contain_text("has all units drawn")
        before = self.revision()
        offered.get_by_text("BW-C09-24D-62", exact=True).click()
        self.accepted(page, before)
        expect(page.get_by_role("region", name="Ledger")).not_to_contain_text("no free NO")
        page.goto(page.url.split("/draw/")[0] + "/issue")
        page.get_by_role("button", name="Parts list", exact=True).click()
        shown = page.get_by_role("table", name="Rows", exact=True)
        expect(shown.get_by_role("cell", name="BW-C09-24D-62", exact=True)).to_be_visible()
        with page.expect_download() as waiting:
            page.get_by_role("link", name="CSV").click()
        text = waiting.value.path().read_text(encoding="utf-8-sig")
        self.assertIn("BW-C09-24D-62", text)
        rows = {str(r[4]): r[1] for r in run_report(self.project(), "parts").rows}
        self.assertEqual(rows["BW-C09-24D-62"], 1)

    def test_dragged_deleted_and_all_undone_and_redone(self) -> None:
        page = self.page
        self.draw_latch(page)
        drawn = self.project()
        before = self.revision()
        self.drag(page, (35, 16), (38, 16))
        self.accepted(page, before)
        self.assert_canonical(self.project())
        self.assertEqual(self.nets(self.project()), self.nets(drawn), "sliding along changes no circuit")
        before = self.revision()
        self.drag(page, (38, 16), (38, 20))
        self.accepted(page, before)
        self.assert_canonical(self.project())
        self.assertEqual(self.nets(self.project()), self.nets(drawn), "stretching changes no circuit")
        before = self.revision()
        page.keyboard.press("Delete")
        self.accepted(page, before)
        expect(self.symbols(page)).to_have_count(7)
        edited = self.project()
        self.assert_canonical(edited)
        steps = 0
        while page.locator("[data-kind=wire]").count() > 2 or self.symbols(page).count() > 0:
            before = self.revision()
            page.keyboard.press("Control+z")
            self.accepted(page, before)
            self.assert_canonical(self.project())
            steps += 1
            self.assertLess(steps, 30, "undo does not come to an end")
        self.assertEqual(len(self.project().devices), len(drawn.devices) - 5)
        for _ in range(steps):
            before = self.revision()
            page.keyboard.press("Control+y")
            self.accepted(page, before)
            self.assert_canonical(self.project())
        self.assertEqual(list(self.project().entities()), list(edited.entities()))
