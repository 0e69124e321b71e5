"""From the list of projects to the documents: import, making a project, finding, taking files out."""

from __future__ import annotations

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Route, expect

from jolly_core.exchange import write_project
from jolly_server.projects.store import load_rows

from .base import Story
from .kept import apart


class ProjectStory(Story):
    """A designer takes a project out, in again, and looks things up."""

    def test_the_project_file_out_and_in_again(self) -> None:
        page = self.page
        self.sign_in(page)
        page.get_by_role("link", name="Issue").click()
        with page.expect_download() as waiting:
            page.get_by_role("link", name="Take out .spool.json").click()
        path = waiting.value.path()
        with page.expect_download() as drawing:
            page.get_by_role("link", name="All sheets, PDF").click()
        self.assertEqual(Path(drawing.value.path()).read_bytes()[:5], b"%PDF-")
        page.get_by_role("link", name="All projects").click()
        page.get_by_label("Project file").set_input_files(
            {"name": "kiln.spool.json", "mimeType": "application/json", "buffer": path.read_bytes()}
        )
        expect(page.get_by_role("region", name="Import")).to_contain_text("Kiln 2 came in: 31 sheets")
        page.get_by_role("link", name="Open it").click()
        expect(self.symbols(page).first).to_be_visible()
        made = page.url.split("/p/")[1].split("/")[0]
        self.assertNotEqual(made, "kiln-2")
        self.assertEqual(write_project(load_rows(made)), path.read_text(encoding="utf-8"))

    def test_a_foreign_file_gets_a_clear_message(self) -> None:
        page = self.at_the_door()
        page.get_by_role("button", name="Open the demo project").click()
        with tempfile.NamedTemporaryFile(suffix=".json") as file:
            file.write(b'{"hello": "world"}')
            file.flush()
            page.get_by_label("Project file").set_input_files(file.name)
            expect(page.get_by_text("This is not a Jolly Spool project file")).to_be_visible()
        expect(page.get_by_text("Nothing was taken in.")).to_be_visible()
        expect(page.get_by_role("link", name="Kiln 2")).to_have_count(1)

    def test_a_north_american_project_from_nothing(self) -> None:
        page = self.at_the_door()
        page.get_by_role("button", name="Open the demo project").click()
        page.get_by_role("button", name="New project").click()
        page.get_by_label("Name", exact=True).fill("Sample-store dehumidifier")
        page.get_by_label("Habits").click()
        page.get_by_role("option", name="North American, AWG").click()
        page.get_by_role("button", name="Make", exact=True).click()
        expect(page.get_by_test_id("place")).to_contain_text("line 11")
        page.keyboard.press("/")
        page.get_by_label("Quick line").fill('nc "Stop", no "Start", coil "Dryer run"')
        page.keyboard.press("Enter")
        expect(self.symbols(page)).to_have_count(3)
        texts = page.locator("svg[data-testid=sheet] text").all_text_contents()
        for tag in ("PB11", "PB11A", "CR11"):
            self.assertIn(tag, texts)

    def test_the_omnibox_goes_to_a_tag_and_does_an_action(self) -> None:
        page = self.page
        self.sign_in(page)
        page.keyboard.press("Control+k")
        page.get_by_label("Find or do").fill("MA1")
        page.get_by_role("option").filter(has_text="=K2+KF2-MA1").click()
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("OD-M3")
        page.keyboard.press("Control+k")
        page.get_by_label("Find or do").fill("QA1:A1")
        page.get_by_role("option").filter(has_text="=K2+KP2-QA1:A1").click()
        expect(page.get_by_test_id("place")).to_contain_text("line 301")
        page.keyboard.press("Control+k")
        page.get_by_label("Find or do").fill("cable wd2")
        page.get_by_role("option").filter(has_text="=K2+KP2-WD2").click()
        expect(page.get_by_label("Text", exact=True)).to_have_value("Field switches")
        page.get_by_role("navigation", name="Benches").get_by_role("link", name="Draw").click()
        page.keyboard.press("Control+k")
        # Words of an act in any order; a ">" in front asks for acts alone.
        page.get_by_label("Find or do").fill("> wire draw")
        expect(page.get_by_role("option").first).to_contain_text("Draw a wire")
        page.keyboard.press("Enter")
        page.get_by_label("Find or do").blur()
        page.keyboard.press("Escape")
        page.get_by_role("link", name="Parts", exact=True).click()
        page.get_by_label("Words, part of a number, 2NO, 3P").fill("overload")
        expect(page.get_by_role("gridcell", name="BW-R8-5", exact=True)).to_be_visible()

    @apart
    def test_what_is_typed_into_the_omnibox_before_it_has_come_is_found_when_it_comes(self) -> None:
        page = self.page
        held: list[Route] = []

        def hold(route: Route) -> None:
            held.append(route)

        page.route("**/assets/Omnibox*", hold)
        with page.expect_request("**/assets/Omnibox*"):
            self.sign_in(page)
        page.keyboard.press("Control+k")
        page.keyboard.type("MA")
        expect(page.get_by_label("Find or do")).to_have_value("MA")
        for route in held:
            route.continue_()
        expect(page.get_by_role("option").filter(has_text="=K2+KF2-MA1")).to_be_visible()
        page.keyboard.type("1")
        expect(page.get_by_label("Find or do")).to_have_value("MA1")
        page.get_by_role("option").filter(has_text="=K2+KF2-MA1").click()
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("OD-M3")

    def test_selection_is_in_step_both_ways_and_references_are_links(self) -> None:
        page = self.page
        self.sign_in(page)
        page.get_by_role("tab", name="Devices").click()
        page.get_by_role("gridcell", name="-QA1", exact=True).click()
        expect(page.locator("[data-kind=symbol][data-look=selected]")).to_have_count(4)
        self.click(page, 76, 43)
        expect(page.locator(".chosen")).to_contain_text("Auger stopped")
        inspector = page.get_by_role("complementary", name="Inspector")
        inspector.get_by_label("Text").fill("Auger at rest")
        inspector.get_by_label("Text").press("Enter")
        expect(page.locator("svg[data-testid=sheet]")).to_contain_text("Auger at rest")
        expect(page.locator(".chosen")).to_contain_text("Auger at rest")
        page.locator("[data-kind=table] text[data-link]").filter(has_text="10/").click()
        expect(page).to_have_url(re.compile("sel="))
        expect(page.get_by_label("Sheet", exact=True)).to_contain_text("Supply 400 V")
