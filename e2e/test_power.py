"""Poles, rows and names on a power sheet: a breaker's bus, poles more, fewer and apart, rows of terminals and marks."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from jolly_core.checks import snags_on
from jolly_core.drawing import pin_points
from jolly_core.library import definition
from jolly_core.model import Symbol

from .test_drawing import Drawing


class PowerSheet(Drawing):
    """A sheet with zones, and what is drawn first on it."""

    def lay(self, page: Page, bus: str, *points: tuple[int, int]) -> None:
        """Choose a usual bus and lay it along points."""
        page.get_by_test_id("place").click()
        page.keyboard.press("b")
        page.get_by_label("Conductors of the bus").locator("..").click()
        page.get_by_role("option", name=bus, exact=True).click()
        for gx, gy in points[:-1]:
            page.mouse.move(*self.pixel(page, gx, gy))
            self.click(page, gx, gy)
        page.mouse.move(*self.pixel(page, *points[-1]))
        with self.edited(page):
            page.keyboard.press("Enter")

    def breaker(self, sheet: str) -> list[Symbol]:
        drawn = [s for s in self.project().symbols_on(sheet) if definition(s.definition).unit == "pole"]
        return sorted(drawn, key=lambda s: s.x)

    def start(self, page: Page) -> str:
        """Open a new sheet with a bus of three phases and PE, and a breaker on its phases."""
        self.sign_in(page)
        sheet = self.zones_sheet(page, "60", "Blower, power")
        self.lay(page, "L1 L2 L3 PE", (20, 12), (20, 80))
        self.click(page, 20, 24)
        page.keyboard.press("Escape")
        with self.edited(page):
            page.keyboard.type("breaker")
            page.keyboard.press("Enter")
        return sheet


class PolesStory(PowerSheet):
    """A breaker on its bus, and a bus at the pins of a breaker."""

    def test_poles_are_added_taken_away_and_drawn_apart(self) -> None:
        page = self.page
        sheet = self.start(page)
        (breaker,) = self.breaker(sheet)
        self.assertEqual(len(breaker.units), 3, "onto the phases, and not onto PE")
        page.locator(f"[data-id='{breaker.id}']").click()
        inspector = page.get_by_role("complementary", name="Inspector")
        with self.edited(page):
            inspector.get_by_role("button", name="− pole").click()
        self.assertEqual(len(self.breaker(sheet)[0].units), 2)
        self.assert_canonical(self.project())
        page.get_by_test_id("place").click()
        page.keyboard.press("Control+z")
        expect(inspector.get_by_text("3 poles")).to_be_visible()
        with self.edited(page):
            inspector.get_by_role("button", name="Draw apart").click()
        poles = self.breaker(sheet)
        self.assertEqual([len(s.units) for s in poles], [1, 1, 1])
        self.assertEqual(len({s.device_id for s in poles}), 1, "it is one device still")

        page.get_by_test_id("place").click()
        page.keyboard.press("Escape")
        page.locator(f"[data-id='{poles[1].id}']").click()
        expect(page.locator("[data-look=linked][data-kind=symbol]")).to_have_count(2)
        with self.edited(page):
            page.keyboard.press("Delete")
        page.get_by_role("tab", name="Snags").click()
        expect(page.get_by_role("gridcell", name="Pole 2 of")).to_be_visible()
        page.keyboard.press("Control+z")
        expect(page.get_by_role("gridcell", name="Pole 2 of")).to_have_count(0)
        self.assert_canonical(self.project())

    def test_a_bus_begins_at_the_pins_of_a_device(self) -> None:
        page = self.page
        self.sign_in(page)
        sheet = self.zones_sheet(page, "60", "Blower, power")
        self.click(page, 30, 20)
        page.keyboard.type("breaker")
        with self.edited(page):
            page.keyboard.press("Enter")
        (breaker,) = self.breaker(sheet)
        page.locator(f"[data-id='{breaker.id}']").click()
        inspector = page.get_by_role("complementary", name="Inspector")
        while len(breaker.units) < 3:
            with self.edited(page):
                inspector.get_by_role("button", name="+ pole").click()
            (breaker,) = self.breaker(sheet)
        pins = pin_points(breaker)
        low = sorted(p for p in pins if p[1] == max(y for _, y in pins))
        self.lay(page, "L1 L2 L3", low[1], (low[1][0], low[1][1] + 24))
        ends = sorted((w.x1, w.y1) for w in self.project().wires_on(sheet))
        self.assertEqual(ends, low, "begun at the middle pin, each conductor has its own")


class RowsStory(PowerSheet):
    """Rows along a stroke: terminals, names of continuations; and texts of many at once."""

    def stroke(self, page: Page, key: str, start: tuple[int, int], end: tuple[int, int], names: str = "") -> None:
        """Draw a stroke of a kind across wires."""
        page.get_by_test_id("place").click()
        page.keyboard.press(key)
        if names:
            page.get_by_label("Names of the continuations").fill(names)
            page.get_by_test_id("place").click()
        page.mouse.move(*self.pixel(page, *start))
        self.click(page, *start)
        page.mouse.move(*self.pixel(page, *end))
        with self.edited(page):
            self.click(page, *end)

    def test_terminals_and_continuations_in_one_stroke_each(self) -> None:
        page = self.page
        sheet = self.start(page)
        self.stroke(page, "Shift+T", (16, 50), (36, 50))
        terminals = [s for s in self.project().symbols_on(sheet) if definition(s.definition).unit == "terminal"]
        self.assertEqual(len(terminals), 4)
        self.assertEqual(len({s.device_id for s in terminals}), 1)
        earth = [s for s in terminals if s.definition == "terminal-earth"]
        self.assertEqual([s.x for s in earth], [32], "the protective conductor has an earth terminal")
        self.stroke(page, "Shift+M", (16, 12), (36, 12), "400 V L1, 400 V L2, 400 V L3, PE")
        project = self.project()
        marks = sorted(project.continuations_on(sheet), key=lambda c: c.x)
        self.assertEqual([c.name for c in marks], ["400 V L1", "400 V L2", "400 V L3", "PE"])
        mark = page.locator(f"[data-id='{marks[0].id}']")
        expect(mark).to_contain_text("11/")
        expect(mark.locator("[data-role=number]")).to_have_text("11-8")
        self.assertFalse([s for s in snags_on(project, sheet) if s.code == "unpaired-continuation"])

    def test_texts_of_many_are_hidden_at_once_and_the_sheet_is_printed(self) -> None:
        page = self.page
        sheet = self.start(page)
        self.stroke(page, "Shift+T", (16, 50), (36, 50))
        page.get_by_test_id("place").click()
        page.keyboard.press("Control+a")
        inspector = page.get_by_role("complementary", name="Inspector")
        with self.edited(page):
            inspector.get_by_role("button", name="Hide tag").click()
        expect(page.locator("[data-kind=symbol] text[data-role=tag]")).to_have_count(0)
        with page.context.expect_event("request", lambda asked: "drawing.pdf" in asked.url) as printed:
            page.get_by_test_id("place").click()
            page.keyboard.press("Control+p")
        self.assertIn(f"drawing.pdf?sheet_id={sheet}", printed.value.url)
        answer = page.request.get(f"{self.live_server_url}/api/projects/kiln-2/drawing.pdf?sheet_id={sheet}")
        self.assertEqual(answer.body()[:5], b"%PDF-")
