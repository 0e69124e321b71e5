"""Two people on one sheet."""

from __future__ import annotations

from django.contrib.auth import get_user_model
from django.test import Client
from playwright.sync_api import Page, expect

from .base import Story

SOON_MS = 3000  # on the clock of the browser that watches
AGAIN_MS = 15_000  # where the line was cut: several questions are lost before one is answered


class TogetherStory(Story):
    """Anna and Jory, later Anna and Vera, have the control sheet open."""

    def colleague(self, name: str) -> Page:
        """Open a second browser as another of the demo's people, on the control sheet."""
        client = Client()
        client.force_login(get_user_model().objects.get(username=name))
        page = self.visitor()
        page.context.add_cookies(
            [{"name": "spool_session", "value": client.cookies["spool_session"].value, "url": self.live_server_url}]
        )
        page.clock.install()
        page.goto(f"{self.live_server_url}/p/kiln-2")
        expect(self.symbols(page).first).to_be_visible()
        return page

    def edited_before(self, watcher: Page) -> None:
        """Place a lamp while the clock of one who watches stands; in each three seconds of it the browser asks."""
        watcher.clock.pause_at(int(watcher.evaluate("Date.now()")) + 1000)
        watcher.wait_for_load_state("networkidle")
        self.place(self.page, 54, 34, "lamp", "Lamp")
        for _ in range(3):  # once could be by chance
            with watcher.expect_response("**/changes?*"):
                watcher.clock.run_for(SOON_MS)
        watcher.clock.resume()

    def test_an_edit_shows_with_the_other_within_three_seconds(self) -> None:
        self.sign_in(self.page)
        other = self.colleague("jory")
        self.edited_before(other)
        expect(other.locator("svg[data-testid=sheet]")).to_contain_text("-PF1")
        expect(self.symbols(other)).to_have_count(self.symbols(self.page).count())
        expect(other.get_by_text("AM", exact=True)).to_be_visible()

    def test_deleting_what_the_other_changes_gives_a_clear_message(self) -> None:
        self.sign_in(self.page)
        other = self.colleague("jory")
        count = self.symbols(other).count()
        self.click(other, 35.5, 34)
        x, y = self.pixel(other, 35.5, 34)
        other.route("**/changes?*", lambda route: route.abort())
        other.mouse.move(x, y)
        other.mouse.down()
        other.mouse.move(x + 30, y)
        before = self.revision()
        self.click(self.page, 35.5, 34)
        self.page.keyboard.press("Delete")
        self.accepted(self.page, before)
        after = list(self.project().entities())
        other.mouse.move(x + 60, y)
        other.mouse.up()
        expect(other.get_by_text("Anna Marsh did “delete -QA1”").first).to_be_visible()
        other.unroute("**/changes?*")
        expect(self.symbols(other)).to_have_count(count - 1, timeout=AGAIN_MS)
        self.assertEqual(list(self.project().entities()), after)

    def test_a_viewer_sees_live_edits_and_has_nothing_to_change_them_with(self) -> None:
        self.sign_in(self.page)
        viewer = self.colleague("vera")
        expect(viewer.get_by_role("button", name="Wire")).to_be_disabled()
        self.click(viewer, 35.5, 34)
        viewer.keyboard.press("Delete")
        viewer.keyboard.type("coil")
        expect(viewer.get_by_test_id("place-box")).to_have_count(0)
        self.assertEqual(self.revision(), 0)
        self.edited_before(viewer)
        expect(self.symbols(viewer)).to_have_count(self.symbols(self.page).count())
