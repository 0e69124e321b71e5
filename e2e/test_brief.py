"""A new project from nothing: its structure, and that what is drawn in it can be built."""

from __future__ import annotations

from playwright.sync_api import expect

from e2e.base import Story
from jolly_core.tagging import full_tag
from jolly_server.demo.services import PROJECTS
from jolly_server.projects.models import ProjectRow
from jolly_server.projects.store import load_rows


class BriefStory(Story):
    def test_a_new_project_has_a_panel_and_its_lamp_waits_in_the_tray(self) -> None:
        page = self.at_the_door()
        page.get_by_role("button", name="Open the demo project").click()
        page.get_by_role("button", name="New project").click()
        page.get_by_label("Name", exact=True).fill("Sample store")
        page.get_by_role("button", name="Make", exact=True).click()
        expect(page.locator("[data-kind=wire]")).to_have_count(2)
        project_id = ProjectRow.objects.exclude(pk__in=PROJECTS).get().pk
        self.click(page, 30, 16)
        page.keyboard.press("Escape")
        page.keyboard.type("TW-L22-G")
        option = page.get_by_test_id("place-box").get_by_role("option").filter(has_text="TW-L22-G").first
        with page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            option.click()
        page.get_by_role("navigation", name="Benches").get_by_role("link", name="Brief").click()
        page.get_by_role("button", name="Structure Functions and locations").click()
        code = page.get_by_label("Code of +P1")
        code.fill("SP1")
        with page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            code.press("Enter")
        expect(page.get_by_label("Code of +SP1")).to_be_visible()
        (lamp,) = load_rows(project_id).devices.values()
        self.assertEqual(full_tag(load_rows(project_id), lamp), "+SP1-PF1")
        page.get_by_role("button", name="Remove +SP1").click()
        page.get_by_label("Where what is in +SP1 goes").locator("..").click()
        with page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            page.get_by_role("option", name="+D1").click()
        (lamp,) = load_rows(project_id).devices.values()
        self.assertEqual(full_tag(load_rows(project_id), lamp), "+D1-PF1")
        page.get_by_role("navigation", name="Benches").get_by_role("link", name="Cabinet").click()
        expect(page.get_by_role("region", name="Tray")).to_contain_text("1 more for the door")
        self.assertEqual([p.side for p in load_rows(project_id).locations.values()], ["door", "field"])
