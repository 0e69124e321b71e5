"""A power circuit begins with a bus: laid in one stroke, tied onto by a second, with a breaker dropped onto it."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from jolly_core.wiring import nets_of_sheet
from jolly_server.projects.store import load_rows

from .base import Story


class BusStory(Story):
    def sheet_with_zones(self, page: Page, number: str) -> str:
        page.get_by_role("button", name="Add a sheet", exact=True).click()
        form = page.get_by_role("form", name="Add a sheet")
        form.get_by_label("Number").fill(number)
        form.get_by_label("Title").fill("Fan, power")
        form.get_by_label("Frame").click()
        page.get_by_role("option", name="Zones").click()
        form.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_test_id("sheet")).to_contain_text("Fan, power")
        return next(s.id for s in load_rows("kiln-2").sheets.values() if s.number == number)

    def lay(self, page: Page, *points: tuple[int, int]) -> None:
        """Lay a bus by clicking where it begins and its corners; Enter ends it."""
        page.keyboard.press("b")
        for gx, gy in points[:-1]:
            page.mouse.move(*self.pixel(page, gx, gy))
            page.mouse.click(*self.pixel(page, gx, gy))
        page.mouse.move(*self.pixel(page, *points[-1]))
        with page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            page.keyboard.press("Enter")

    def test_a_bus_a_feeder_tied_onto_it_and_a_breaker_on_all_its_wires(self) -> None:
        page = self.page
        self.sign_in(page)
        sheet = self.sheet_with_zones(page, "60")
        page.get_by_test_id("place").click()
        page.keyboard.press("b")
        bar = page.get_by_label("Type of conductor 1")
        for n, name in ((1, "Power"), (2, "Power"), (3, "Protective")):
            page.get_by_label(f"Type of conductor {n}").locator("..").click()
            page.get_by_role("option", name=name, exact=True).click()
        expect(bar).to_have_count(1)
        page.keyboard.press("Escape")
        page.get_by_test_id("place").click()
        self.lay(page, (14, 12), (100, 12))
        expect(page.locator("[data-kind=wire]")).to_have_count(3)
        self.lay(page, (40, 12), (40, 60))
        project = load_rows("kiln-2")
        self.assertEqual(len(nets_of_sheet(project, sheet)), 3, "each conductor of the feeder is one of the bus")
        self.click(page, 40, 30)
        before = self.revision()
        page.keyboard.type("motor-breaker")
        page.keyboard.press("Enter")
        self.accepted(page, before)
        expect(self.symbols(page)).to_have_count(1)
        project = load_rows("kiln-2")
        (breaker,) = project.symbols_on(sheet)
        self.assertEqual(len(breaker.units), 2, "it takes the two live conductors and never the protective one")
        page.get_by_test_id("place").click()
        page.keyboard.press("b")
        page.get_by_label("Conductors of the bus").locator("..").click()
        page.get_by_role("option", name="L1 L2 L3 N PE", exact=True).click()
        expect(page.get_by_label("Type of conductor 5").locator("..")).to_have_text("Protective")
        page.get_by_label("Distance between conductors").locator("..").click()
        page.get_by_role("option", name="2 steps apart").click()
        page.get_by_test_id("place").click()
        self.lay(page, (14, 50), (30, 50))
        laid = sorted(w.y1 for w in load_rows("kiln-2").wires_on(sheet) if w.x1 == 14 and w.y1 >= 50)
        self.assertEqual(laid, [50, 52, 54, 56, 58])
        page.get_by_test_id("place").click()
        for _ in range(4):
            page.keyboard.press("Control+z")
        expect(page.locator("[data-kind=wire]")).to_have_count(0)
