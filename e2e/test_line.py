"""With the server away, with a session that has ended, with two in one field: what is typed is kept."""

from __future__ import annotations

from django.contrib.auth import get_user_model
from django.contrib.sessions.models import Session
from django.core.cache import cache
from django.test import Client
from playwright.sync_api import Locator, Page, Route, expect

from .base import Story
from .kept import apart

TITLE = "Loading auger, control"


class LineStory(Story):
    def titled(self) -> tuple[Page, Locator, str]:
        """Come to sheet 30 with nothing chosen; return its title's field and its id."""
        page = self.page
        sheet = next(s.id for s in self.project().sheets.values() if s.number == "30")
        self.sign_in(page, f"p/kiln-2/draw/{sheet}")
        field = page.get_by_label("Title", exact=True)
        expect(field).to_have_value(TITLE)
        return page, field, sheet

    @staticmethod
    def lamp(page: Page) -> Locator:
        return page.get_by_role("status", name="Connection")

    def stored(self, sheet: str) -> str:
        return self.project().sheets[sheet].title

    def by_jory(self, sheet: str, title: str) -> None:
        jory = Client()
        jory.force_login(get_user_model().objects.get(username="jory"))
        edit = {"edit": {"kind": "change-sheet", "sheet_id": sheet, "title": title}}
        answer = jory.post("/api/projects/kiln-2/edits", edit, content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content)

    @apart
    def test_what_is_done_while_the_server_is_away_is_sent_when_it_is_back(self) -> None:
        page, field, sheet = self.titled()
        expect(self.lamp(page)).to_have_text("In step")
        page.context.set_offline(True)
        field.fill("Auger, control")
        field.press("Enter")
        expect(self.lamp(page)).to_have_text("Server away, 1 edit waiting")
        expect(page.get_by_text("Waiting to be saved.")).to_be_visible()
        page.get_by_test_id("place").click()
        page.keyboard.type("coil")
        expect(page.get_by_role("alert").filter(has_text="cannot be looked up")).to_be_visible()
        self.assertEqual(self.stored(sheet), TITLE)
        page.context.set_offline(False)
        expect(page.get_by_role("option").filter(has_text="Coil").first).to_be_visible()
        page.keyboard.press("Escape")
        expect(self.lamp(page)).to_have_text("In step")
        expect(page.get_by_text("Auger, control").first).to_be_visible()
        self.assertEqual(self.stored(sheet), "Auger, control")

    @apart
    def test_what_waited_when_the_page_was_loaded_anew_is_sent_once(self) -> None:
        page, field, sheet = self.titled()
        page.route("**/edits", lambda route: route.abort())
        before = self.revision()
        field.fill("Auger")
        field.press("Enter")
        expect(self.lamp(page)).to_contain_text("1 edit waiting")
        page.unroute("**/edits")
        page.reload()
        self.accepted(page, before)
        expect(page.get_by_label("Title", exact=True)).to_have_value("Auger")
        self.assertEqual((self.stored(sheet), self.revision()), ("Auger", before + 1))

    @apart
    def test_who_was_signed_out_signs_in_over_the_page_and_goes_on(self) -> None:
        page, field, sheet = self.titled()
        field.fill("Auger, by night")
        Session.objects.all().delete()
        cache.clear()
        field.press("Enter")
        again = page.get_by_role("dialog", name="Please sign in again")
        expect(again).to_contain_text("one edit that waits")
        expect(page.get_by_text("Signed out", exact=True)).to_be_visible()
        again.get_by_role("button", name="Open the demo project").click()
        expect(again).to_be_hidden()
        expect(self.lamp(page)).to_have_text("In step")
        expect(field).to_have_value("Auger, by night")
        self.assertEqual(self.stored(sheet), "Auger, by night")

    def test_of_two_in_one_field_both_texts_are_shown(self) -> None:
        page, field, sheet = self.titled()
        field.fill("Auger, mine")
        self.by_jory(sheet, "Auger, of Jory")
        told = page.get_by_text("Meanwhile somebody saved “Auger, of Jory”.")
        expect(told).to_be_visible()
        expect(field).to_have_value("Auger, mine")
        field.blur()
        expect(told).to_be_visible()
        self.assertEqual(self.stored(sheet), "Auger, of Jory")
        page.reload()
        expect(field).to_have_value("Auger, mine")
        before = self.revision()
        page.get_by_role("button", name="Save mine").click()
        self.accepted(page, before)
        expect(told).to_be_hidden()
        self.assertEqual(self.stored(sheet), "Auger, mine")
        field.fill("Auger, mine again")
        self.by_jory(sheet, "Auger, of Jory again")
        expect(page.get_by_text("Meanwhile somebody saved “Auger, of Jory again”.")).to_be_visible()
        field.blur()
        page.get_by_role("button", name="Take theirs").click()
        expect(field).to_have_value("Auger, of Jory again")

    @apart
    def test_who_saves_before_being_told_replaces_nothing_they_never_saw(self) -> None:
        page, field, sheet = self.titled()
        news = "**/changes?*"
        page.route(news, lambda route: route.abort())  # this window is not told
        field.fill("Auger, mine")
        self.by_jory(sheet, "Auger, of Jory")
        field.press("Enter")
        expect(page.get_by_text("set title to “Auger, of Jory”")).to_be_visible()
        expect(field).to_have_value("Auger, mine")
        self.assertEqual(self.stored(sheet), "Auger, of Jory")
        page.unroute(news)
        before = self.revision()
        page.get_by_role("button", name="Save mine").click()
        self.accepted(page, before)
        self.assertEqual(self.stored(sheet), "Auger, mine")

    @apart
    def test_where_the_server_fails_the_words_stay_and_it_says_what_was_not_done(self) -> None:
        page, field, sheet = self.titled()
        before = self.revision()

        def fail(route: Route) -> None:
            route.fulfill(status=500, content_type="text/html", body="<h1>Server Error</h1>")

        page.route("**/edits", fail)
        field.fill("Auger, at last")
        field.press("Enter")
        expect(page.get_by_text("Not done: change sheet. The server answered 500. Try it again.")).to_be_visible()
        expect(page.get_by_text("Not saved.")).to_be_visible()
        expect(field).to_have_value("Auger, at last")
        page.unroute("**/edits")
        page.get_by_role("button", name="Save", exact=True).click()
        self.accepted(page, before)
        expect(page.get_by_text("Not saved.")).to_be_hidden()
        self.assertEqual(self.stored(sheet), "Auger, at last")
