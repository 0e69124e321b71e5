"""The Issue bench: lists by recipe and back, packs, freezing a revision, and what changed since."""

from __future__ import annotations

import io
import re
import tempfile
import zipfile
from dataclasses import replace
from pathlib import Path

from django.conf import settings
from django.contrib.auth import get_user_model
from django.test import override_settings
from openpyxl import Workbook, load_workbook
from playwright.sync_api import Page, Request, expect

from jolly_core.edits import parse_edit
from jolly_core.tagging import full_tag
from jolly_server.projects.services import apply_edit

from .kept import apart
from .test_benches import BenchStory

XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


class IssueStory(BenchStory):
    """What the stories share; what is issued goes into a folder of its own."""

    def setUp(self) -> None:
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        away = override_settings(JOLLY=replace(settings.JOLLY, data=Path(folder.name)))
        away.enable()
        self.addCleanup(away.disable)

    def downloaded(self, page: Page, name: str) -> bytes:
        with page.expect_download() as waiting:
            page.get_by_role("link", name=name, exact=True).click()
        return waiting.value.path().read_bytes()

    def pick(self, page: Page, label: str, option: str) -> None:
        page.get_by_label(label, exact=True).click()
        page.get_by_role("option", name=option, exact=True).click()


class Recipes(IssueStory):
    def test_a_list_is_made_from_nothing_taken_out_edited_and_taken_in_again(self) -> None:
        page = self.open("issue")
        page.get_by_role("button", name="New recipe…").click()
        recipe = page.get_by_role("complementary", name="Recipe")
        recipe.get_by_label("Name of the recipe").fill("Panel devices by supplier")
        for column in ("Location", "Supplier", "Price in all", "Qty"):
            self.pick(page, "Add a column", column)
        recipe.get_by_role("button", name="Leave out Maker").click()
        recipe.get_by_role("button", name="Add a filter").click()
        page.get_by_label("Column asked").click()
        page.get_by_role("option", name="Location", exact=True).click()
        page.get_by_label("What is asked").click()
        page.get_by_role("option", name="is", exact=True).click()
        recipe.get_by_label("Value asked").fill("+KP2")
        self.pick(page, "Grouped by", "Supplier")
        recipe.get_by_label("Sum of “Qty”").check()
        recipe.get_by_label("Sum of “Price in all”").check()
        project = self.project()
        panel = [d for d in project.devices.values() if "+KP2-" in full_tag(project, d)]
        expect(page.get_by_test_id("row-count")).to_contain_text(f"{len(panel)} rows")
        rows = page.get_by_role("table", name="Rows of the recipe")
        expect(rows.locator("tr[data-line=sums]").last).to_contain_text(str(len(panel)))
        self.done(page, lambda: recipe.get_by_role("button", name="Keep the recipe").click())
        expect(page.get_by_role("button", name=re.compile("^Panel devices by supplier"))).to_be_visible()
        # One text is edited, one row's device changes in the meantime, one cell is a formula.
        book = load_workbook(io.BytesIO(self.downloaded(page, "XLSX")))
        first, second, third = self.edited(book)
        ids = {full_tag(project, d): d.id for d in project.devices.values()}
        self.send(page, kind="set-text", device_id=ids[second], text="Changed meanwhile")
        out = io.BytesIO()
        book.save(out)
        page.get_by_label("Edited list").set_input_files(
            {"name": "list.xlsx", "mimeType": XLSX, "buffer": out.getvalue()}
        )
        form = page.get_by_role("form", name="Take in an edited list")
        expect(form.get_by_role("table", name="What would change")).to_contain_text("Edited in the sheet")
        expect(form).to_contain_text(f"{second} has changed since the list was written")
        expect(form).to_contain_text("is not taken in. Type its value.")
        self.done(page, lambda: form.get_by_role("button", name="Take in 1").click())
        devices = self.project().devices
        self.assertEqual(devices[ids[first]].text, "Edited in the sheet")
        self.assertEqual(devices[ids[second]].text, "Changed meanwhile")
        self.assertEqual(devices[ids[third]].text, project.devices[ids[third]].text)
        page.keyboard.press("Control+z")
        expect(page.get_by_role("table", name="Rows")).not_to_contain_text("Edited in the sheet")

    def test_a_recipe_goes_as_a_file_and_rows_lead_to_the_bench_that_shows_them(self) -> None:
        page = self.open("issue")
        page.get_by_role("button", name=re.compile("Order, whole panel")).click()
        page.get_by_role("button", name="Change the recipe").click()
        content = self.downloaded(page, "Save as a file")
        page.get_by_role("button", name="New recipe…").click()
        file = {"name": "order.recipe.json", "mimeType": "application/json", "buffer": b"no recipe"}
        page.get_by_label("Recipe file").set_input_files({**file})
        expect(page.get_by_role("alert")).to_contain_text("not the file of a recipe")
        page.get_by_label("Recipe file").set_input_files({**file, "buffer": content})
        recipe = page.get_by_role("complementary", name="Recipe")
        expect(recipe.get_by_label("Name of the recipe")).to_have_value("Order, whole panel")
        recipe.get_by_label("Name of the recipe").fill("Order, again")
        self.done(page, lambda: recipe.get_by_role("button", name="Keep the recipe").click())
        expect(page.get_by_role("button", name=re.compile("^Order, again"))).to_be_visible()
        kept = {r.name: r for r in self.project().recipes.values()}
        self.assertEqual(kept["Order, again"].columns, kept["Order, whole panel"].columns)
        page.get_by_role("button", name="Assembly order", exact=True).click()
        page.get_by_role("table", name="Rows").get_by_role("link", name="WH-T1").first.click()
        expect(page).to_have_url(re.compile(r"/harness\?harness="))
        page.go_back()
        # What is bought for many things leads to the list they are in; its first cell that says something is the link.
        page.get_by_role("button", name="Parts list", exact=True).click()
        rows = page.get_by_role("table", name="Rows")
        page.get_by_text("117 rows").wait_for()
        rows.hover()
        page.mouse.wheel(0, 100_000)
        rows.get_by_role("row").filter(has_text="Label, wire").get_by_role("link").click()
        expect(page).to_have_url(re.compile(r"show=labels$"))
        page.get_by_role("button", name="Cut list", exact=True).click()
        page.get_by_role("table", name="Rows").get_by_role("link").first.click()
        expect(page).to_have_url(re.compile(r"/draw/.*\?sel="))

    @staticmethod
    def edited(book: Workbook) -> tuple[str, str, str]:
        """Edit the texts of three rows: typed, typed where the device is about to change, and a formula."""
        page = book.worksheets[0]
        rows = [row for row in page.iter_rows(min_row=2) if str(row[0].value).startswith("=")]
        for row, words in zip(rows[:3], ("Edited in the sheet", "Too late", '="a"&"b"'), strict=True):
            row[1].value = words
        one, two, three = (str(row[0].value) for row in rows[:3])
        return one, two, three


class Lists(IssueStory):
    @apart
    def test_a_list_is_asked_for_once_each_time_it_is_chosen(self) -> None:
        page = self.open("issue")
        asked: list[str] = []

        def note(request: Request) -> None:
            if "/lists/" in request.url:
                asked.append(request.url.split("/")[-2])

        page.on("request", note)
        for name, column in (("Wire list", "Cross-section"), ("Parts list", "Maker"), ("Parts list", "Maker")):
            with page.expect_response(lambda response: "/lists/" in response.url):
                page.get_by_text(name, exact=True).first.click()
            expect(page.get_by_text(column, exact=True).first).to_be_visible()
        self.assertEqual(asked, ["wires", "parts", "parts"], "what is left is not read again")


class Packs(IssueStory):
    def test_a_pack_of_ones_own_is_issued_with_progress_and_says_what_looks_wrong(self) -> None:
        page = self.open("issue")
        page.get_by_role("button", name="Make a pack of it").click()
        form = page.get_by_role("form", name="Pack")
        form.get_by_label("Name of the pack").fill("For the buyer")
        form.get_by_label("Names of files").fill("{project number}-{project revision}-{kind}")
        out = form.get_by_role("button", name="Take out")
        while out.count() > 2:
            out.last.click()
        self.pick(page, "Add to the pack", "Plates and doors")
        self.done(page, lambda: form.get_by_role("button", name="Keep the pack").click())
        names = page.get_by_role("list", name="Files of the pack")
        expect(names).to_contain_text("PM-0417-B-parts-list.xlsx")
        page.get_by_role("button", name="Issue this pack").click()
        run = page.get_by_role("region", name="Issued For the buyer")
        files = run.get_by_role("table", name="Files that were issued")
        expect(files).to_contain_text("PM-0417-B-plate-UC1.pdf")
        expect(run).to_contain_text("3 snags are muted")
        content = self.downloaded(page, "Take the ZIP")
        listed = zipfile.ZipFile(io.BytesIO(content)).namelist()
        self.assertEqual(listed[0], "00-contents.pdf")
        self.assertEqual(set(listed[1:]), set(names.get_by_role("listitem").all_inner_texts()))
        # One that takes long is cancelled.
        page.get_by_role("button", name="Everything").click()
        page.get_by_role("button", name="Issue this pack").click()
        page.get_by_role("button", name="Cancel").click()
        expect(page.get_by_role("region", name="Issued Everything")).to_contain_text("cancelled")


class Revisions(IssueStory):
    def test_a_revision_is_frozen_and_what_changed_since_is_marked_listed_and_ticked(self) -> None:
        page = self.open("issue")
        page.get_by_role("button", name="Freeze as B…").click()
        form = page.get_by_role("form", name="Freeze a revision")
        expect(form).to_contain_text("Say first what changed.")
        form.get_by_label("What changed, as the table").fill("First issue")
        form.get_by_label("Checked by").fill("J. Brand")
        form.get_by_role("button", name="Freeze as B").click()
        expect(page.get_by_role("table", name="Revision", exact=True)).to_contain_text("First issue")
        expect(page.get_by_text("working on C")).to_be_visible()
        project = self.project()
        wire = next(w for w in project.wires.values() if w.number)
        self.send(page, kind="fix-wire-number", wire_id=wire.id, number="7777")
        number = project.sheets[wire.sheet_id].number
        # Only the sheet that changed, the cover and the contents would get C.
        page.get_by_role("button", name="Freeze as C…").click()
        expect(page.get_by_test_id("new-index")).to_contain_text(
            f"Sheets 1, 2, {number} get the new index; 28 keep theirs"
        )
        page.get_by_role("button", name="What changed", exact=True).click()
        work = page.get_by_role("table", name="Work list")
        expect(work).to_contain_text("relabel")
        job = work.get_by_role("checkbox").first
        with page.expect_response(lambda r: r.url.endswith("/tick") and r.status == 200):
            job.click()
        expect(job).to_be_checked()
        expect(page.get_by_text("1 of")).to_be_visible()
        self.assertTrue(self.downloaded(page, "PDF").startswith(b"%PDF"))
        page.get_by_role("tab", name="Drawings").click()
        expect(page.get_by_test_id("sheet").locator("[data-mark=changed]").first).to_be_visible()
        page.get_by_role("button", name="Beside").click()
        expect(page.get_by_role("group", name="before").get_by_test_id("sheet")).to_contain_text(wire.number)
        expect(page.get_by_role("group", name="after").get_by_test_id("sheet")).to_contain_text("7777")
        # The frozen state opens to be read, with its papers.
        page.get_by_role("button", name=re.compile("^B.*First issue")).click()
        expect(page.get_by_role("link", name="Take its papers, ZIP")).to_be_visible()
        papers = self.downloaded(page, "Take its papers, ZIP")
        self.assertIn("drawing.pdf", zipfile.ZipFile(io.BytesIO(papers)).namelist())
        page.get_by_role("button", name="Open to read").click()
        page.wait_for_url("**/draw**")
        expect(page.get_by_text("can be read, not changed").or_(page.get_by_text("archived")).first).to_be_visible()


class WhatChanged(IssueStory):
    def test_what_changed_since_a_file_is_listed_with_the_work_for_the_shop(self) -> None:
        page = self.open("issue")
        earlier = self.downloaded(page, "Take out .spool.json")
        project = self.project()
        wire = next(w for w in project.wires.values() if w.number)
        self.send(page, kind="fix-wire-number", wire_id=wire.id, number="7777")
        page.get_by_role("button", name="What changed", exact=True).click()
        expect(page.get_by_text("Choose a project file that was taken out earlier", exact=False)).to_be_visible()
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


class BeforeIssue(IssueStory):
    def test_all_that_would_be_wrong_is_named_and_each_leads_to_its_place(self) -> None:
        page = self.page
        self.sign_in(page, "p/dehumidifier/issue")
        page.get_by_role("button", name="Check before issue").click()
        expect(page.get_by_text("Nothing would be wrong on paper")).to_be_visible()
        anna = get_user_model().objects.get(username="anna")
        placed = list(self.project("dehumidifier").placings)
        apply_edit("dehumidifier", anna, parse_edit({"kind": "remove-from-layout", "ids": placed}))
        page.reload()
        page.get_by_role("button", name="Check before issue").click()
        uncut = page.get_by_role("group", name="45 wires have no length")
        expect(uncut.get_by_role("link")).to_have_count(8)
        uncut.get_by_role("button", name="and 37 more").click()
        expect(uncut.get_by_role("link")).to_have_count(45)
        uncut.get_by_role("link").last.click()
        page.wait_for_url("**/dehumidifier/draw/**")
        expect(self.symbols(page).first).to_be_visible()


class OnDrawings(IssueStory):
    def test_a_table_is_laid_on_the_drawing_and_shows_what_is_chosen(self) -> None:
        sheet = next(s for s in self.project().sheets.values() if s.number == "30")
        page = self.open(f"draw/{sheet.id}")
        drawing = page.get_by_test_id("sheet")
        expect(drawing).to_contain_text("Auger run")
        page.keyboard.press("Control+k")
        page.keyboard.type("Table of parts")
        page.get_by_role("option", name=re.compile("Table of parts or wire types")).click()
        page.mouse.click(*self.pixel(page, 24, 54))
        self.done(page, lambda: page.mouse.click(*self.pixel(page, 62, 64)))
        expect(drawing).to_contain_text("Parts of this sheet")
        expect(drawing).to_contain_text("+KD2-SF1")
        page.get_by_label("Shows", exact=True).click()
        self.done(page, lambda: page.get_by_role("option", name="Wire types of this sheet").click())
        expect(drawing).to_contain_text("Wire types of this sheet")
        expect(drawing).to_contain_text("Control DC")
