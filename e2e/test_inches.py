"""A project in inches: what is measured stands in inches and feet on every bench, and is typed as people type it."""

from __future__ import annotations

from django.contrib.auth import get_user_model
from django.test import Client
from playwright.sync_api import Locator, Page, Route, expect

from e2e.kept import apart
from e2e.test_benches import BenchStory
from jolly_core.model import Placing

PROJECT = "dehumidifier"


class Inches(BenchStory):
    def test_places_cables_and_wires_in_inches_and_feet(self) -> None:
        page = self.page
        self.sign_in(page, f"p/{PROJECT}/cabinet")
        self.placed(page)
        self.allowance(page)
        self.cable(page)
        page.goto(f"{self.live_server_url}/p/{PROJECT}/make")
        expect(page.get_by_test_id("machine")).to_contain_text("does not answer")
        rows = page.get_by_role("table", name="Cut list").get_by_role("row")
        expect(rows.nth(1)).to_contain_text(" in")
        expect(page.get_by_role("columnheader", name="Feet")).to_be_visible()
        spool = page.get_by_label("Wire on a spool, ft")
        for words, metres in (("250", 76.2), ("300' 6 1/2\"", 91.6051), ("75 m", 75.0)):
            self.typed(page, spool, words)
            self.assertAlmostEqual(self.project(PROJECT).settings.spool_m, metres, 4, words)

    @apart
    def test_what_is_typed_next_is_not_lost_to_the_answer_of_what_was_saved(self) -> None:
        page = self.page
        spool, held = self.spool_held("260")
        spool.fill("75 m")
        with page.expect_response(lambda r: r.url.endswith("/settings") or "/outline" in r.url):
            self.done(page, held[0].continue_)
        page.unroute("**/edits")
        expect(page.get_by_text("change project settings")).to_be_visible()
        expect(spool).to_have_value("75 m")
        jory = Client()
        jory.force_login(get_user_model().objects.get(username="jory"))
        edit = {"edit": {"kind": "change-settings", "spool_m": 90.0}}
        with page.expect_response(lambda r: r.url.endswith("/settings") or "/outline" in r.url):
            jory.post(f"/api/projects/{PROJECT}/edits", edit, content_type="application/json")
        expect(spool).to_have_value("75 m")
        self.done(page, lambda: spool.press("Enter"))
        self.assertAlmostEqual(self.project(PROJECT).settings.spool_m, 75.0, 4)

    @apart
    def test_what_is_marked_to_be_typed_over_stays_so_when_an_answer_comes(self) -> None:
        page = self.page
        spool, held = self.spool_held("75 m")
        spool.focus()
        page.keyboard.press("Control+a")
        held[0].continue_()
        page.unroute("**/edits")
        expect(spool).not_to_have_value("75 m")
        page.keyboard.type("260")
        expect(spool).to_have_value("260")
        self.done(page, lambda: spool.press("Enter"))
        self.assertAlmostEqual(self.project(PROJECT).settings.spool_m, 260 * 0.3048, 4)

    def spool_held(self, words: str) -> tuple[Locator, list[Route]]:
        """Save a length of wire on a spool, and hold back the request: the field, and what is held."""
        page = self.page
        self.sign_in(page, f"p/{PROJECT}/make")
        spool = page.get_by_label("Wire on a spool, ft")
        held: list[Route] = []

        def hold(route: Route) -> None:
            held.append(route)

        page.route("**/edits", hold)
        spool.fill(words)
        with page.expect_request("**/edits"):
            spool.press("Enter")
        return spool, held

    def typed(self, page: Page, field: Locator, words: str) -> None:
        """Type into a field and wait until it is saved."""
        field.fill(words)
        self.done(page, lambda: field.press("Enter"))

    def placed(self, page: Page) -> None:
        """A device is moved by typing: a number of inches, a fraction, another unit; what is none is refused."""
        box = page.locator("svg[data-testid=sheet] [data-kind=placing]").first
        id = str(box.get_attribute("data-id"))
        box.click()
        field = page.get_by_label("From the left, in")
        for words, mm in (("6", 152.4), ('6 1/8"', 155.575), ("150 mm", 150.0), ("0.5 ft", 152.4)):
            self.typed(page, field, words)
            placing = self.project(PROJECT).placings[id]
            self.assertIsInstance(placing, Placing)
            self.assertAlmostEqual(placing.x, mm, 3, words)
        expect(field).to_have_value("6")
        field.fill("six")
        field.press("Enter")
        expect(page.get_by_text("“six” is no length. Type a number, with a unit unless it is in.")).to_be_visible()
        self.assertAlmostEqual(self.project(PROJECT).placings[id].x, 152.4, 3)
        field.press("Escape")

    def allowance(self, page: Page) -> None:
        """A setting in inches changes all lengths, which are said in them."""
        field = page.get_by_label("At each end, in")
        self.typed(page, field, "4")
        self.assertAlmostEqual(self.project(PROJECT).settings.end_allowance_mm, 101.6)
        expect(page.get_by_test_id("routed")).to_contain_text(" ft")

    def cable(self, page: Page) -> None:
        """A cable's length is in feet, in its list, its panel and the table."""
        page.goto(f"{self.live_server_url}/p/{PROJECT}/cables")
        field = page.get_by_label("Length, ft")
        self.typed(page, field, "42")
        longest = max(c.length_m for c in self.project(PROJECT).cables.values())
        self.assertAlmostEqual(longest, 12.8016)
        page.get_by_text("Table of cables").click()
        expect(page.get_by_role("grid", name="All cables")).to_contain_text("42.00 ft")
