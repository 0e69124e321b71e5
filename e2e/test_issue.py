"""The Issue bench: what changed since a project file that was taken out, and what the shop has to do for it."""

from __future__ import annotations

from playwright.sync_api import expect

from .test_benches import BenchStory


class WhatChanged(BenchStory):
    def test_what_changed_since_a_file_is_listed_with_the_work_for_the_shop(self) -> None:
        page = self.open("issue")
        with page.expect_download() as waiting:
            page.get_by_role("link", name="Take out .spool.json").click()
        earlier = waiting.value.path().read_bytes()
        project = self.project()
        wire = next(w for w in project.wires.values() if w.number)
        self.send(page, kind="fix-wire-number", wire_id=wire.id, number="7777")
        page.get_by_role("button", name="What changed", exact=True).click()
        expect(page.get_by_text("Choose a project file that was taken out earlier.")).to_be_visible()
        file = page.get_by_label("Earlier project file")
        file.set_input_files({"name": "notes.json", "mimeType": "application/json", "buffer": b"[]"})
        expect(page.get_by_role("alert")).to_contain_text("This is not a Jolly Spool project file")
        file.set_input_files({"name": "kiln.spool.json", "mimeType": "application/json", "buffer": earlier})
        work = page.get_by_role("table", name="Work list")
        expect(work).to_contain_text("relabel")
        expect(work).to_contain_text("7777")
        page.get_by_role("tab", name="Wires").click()
        changes = page.get_by_role("table", name="Changes")
        expect(changes).to_contain_text(f"number {wire.number}, now 7777")
        page.get_by_role("tab", name="Drawings").click()
        expect(page.get_by_role("table", name="Drawings")).to_contain_text(project.sheets[wire.sheet_id].number)
        page.get_by_role("tab", name="Wires").click()
        changes.get_by_role("link", name="Look at it").first.click()
        page.wait_for_url("**/draw/**")
