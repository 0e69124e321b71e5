"""A project is set up: from nothing to twelve sheets with a title block, by a new user; and by two people at once."""

from __future__ import annotations

import io

from django.contrib.auth import get_user_model
from PIL import Image
from playwright.sync_api import Page, expect

from benchmarks.generate import synthetic
from jolly_server.projects.models import Membership
from jolly_server.projects.services import create_project
from jolly_server.projects.store import load_rows

from .base import Story

TITLES = ("Supply", "Main switch", "Fan, power", "Fan, control", "Heater, power", "Heater, control")
MORE = ("Pump, power", "Pump, control", "Valves", "Alarms", "Lights", "Spare")
PASSWORD = "barley-and-kiln-7"


def logo() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (120, 40), "navy").save(out, "PNG")
    return out.getvalue()


class SetupStory(Story):
    """From an empty list to a set of sheets."""

    def account(self, name: str, first: str = "", last: str = "") -> None:
        get_user_model().objects.create_user(name, password=PASSWORD, first_name=first, last_name=last)

    def enter(self, page: Page, name: str) -> None:
        page.goto(self.live_server_url)
        page.get_by_label("Name", exact=True).fill(name)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="Projects")).to_be_visible()

    def brief(self, page: Page, section: str) -> None:
        page.get_by_role("navigation", name="Benches").get_by_role("link", name="Brief").click()
        page.get_by_role("navigation", name="Brief: list").get_by_role("button", name=section).click()

    def stored_after(self, page: Page) -> object:
        return page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200)

    def choose(self, page: Page, scope: object, label: str, option: str) -> None:
        scope.get_by_label(label, exact=True).click()  # type: ignore[attr-defined]
        page.get_by_role("option", name=option).click()

    def add_place(self, page: Page, kind: str, code: str, words: str) -> None:
        page.get_by_label(f"New {kind}", exact=True).fill(code)
        page.get_by_label(f"Description of the new {kind}").fill(words)
        with self.stored_after(page):
            page.get_by_role("button", name=f"Add a {kind}").click()

    def paste_sheets(self, page: Page, titles: tuple[str, ...], function: str) -> None:
        page.get_by_role("button", name="Add sheets", exact=True).click()
        form = page.get_by_role("form", name="Add sheets")
        form.get_by_label("Titles").fill("\n".join(titles))
        self.choose(page, form, "In function", function)
        self.choose(page, form, "Where", "at the end")
        with self.stored_after(page):
            form.get_by_role("button", name=f"Add {len(titles)} sheets").click()

    def test_a_new_user_sets_up_a_north_american_project(self) -> None:
        page = self.page
        self.account("ruth")
        self.enter(page, "ruth")
        expect(page.get_by_text("You have no project yet.")).to_be_visible()
        page.get_by_role("button", name="New project").click()
        page.get_by_label("Name", exact=True).fill("Barley dryer")
        page.get_by_label("Customer", exact=True).fill("Pellwick Maltings")
        self.choose(page, page, "Habits", "North American, AWG")
        page.get_by_role("button", name="Make", exact=True).click()
        expect(page.get_by_test_id("place")).to_contain_text("line 11")

        id = page.url.split("/p/")[1].split("/")[0]
        self.structure_and_sheets(page, id)
        self.block_with_logo(page)
        sheet_id = self.contents_and_a_lamp(page, id)
        self.locations_are_renamed(page, id, sheet_id)

    def structure_and_sheets(self, page: Page, id: str) -> None:
        """Three locations, two functions, twelve sheets with pasted titles and locations."""
        self.brief(page, "Structure")
        self.add_place(page, "location", "MP1", "Main panel")
        self.add_place(page, "location", "RP1", "Remote panel")
        self.add_place(page, "location", "DR1", "Dryer")
        self.add_place(page, "function", "HT", "Heating")
        self.add_place(page, "function", "PM", "Pumping")

        self.brief(page, "Sheets")
        self.paste_sheets(page, TITLES, "=HT")
        self.paste_sheets(page, MORE, "=PM")
        sheets = load_rows(id).sheets_in_order()
        self.assertEqual([s.title for s in sheets[1:]], [*TITLES, *MORE])
        self.assertEqual([s.number for s in sheets], [str(n) for n in range(1, 14)])
        # A column of locations is pasted into the table, beginning at a cell.
        grid = page.get_by_role("grid", name="Sheets")
        cell = grid.get_by_role("row").filter(has_text="Supply").locator("[data-key=location_id]")
        cell.click()
        with self.stored_after(page):
            self.paste(page, "\n".join(["+MP1"] * 6 + ["+RP1"] * 6))
        expect(grid.get_by_role("row").filter(has_text="Spare")).to_contain_text("+RP1")

    def block_with_logo(self, page: Page) -> None:
        """A title block of the house's own, with a picture, for the whole project."""
        self.brief(page, "Title blocks")
        page.get_by_role("button", name="ANSI, 6.5 x 1.5 in").click()
        with self.stored_after(page):
            page.get_by_role("button", name="Take into the project").click()
        picture = {"name": "mark.png", "mimeType": "image/png", "buffer": logo()}
        with self.stored_after(page), self.stored_after(page):
            page.get_by_label("Picture file").set_input_files(picture)  # type: ignore[arg-type]
        expect(page.locator("svg[data-testid=sheet] image")).to_have_count(1)
        self.release(page)
        with self.stored_after(page):
            page.get_by_role("button", name="Use it for the project").click()

    def contents_and_a_lamp(self, page: Page, id: str) -> str:
        """A contents sheet at the front, and something drawn in the main panel."""
        self.brief(page, "Sheets")
        page.get_by_role("button", name="Add sheets", exact=True).click()
        form = page.get_by_role("form", name="Add sheets")
        form.get_by_label("Titles").fill("Contents")
        self.choose(page, form, "Kind of sheet", "Contents")
        self.choose(page, form, "Where", "at the front")
        with self.stored_after(page):
            form.get_by_role("button", name="Add the sheet").click()

        drawn = next(s for s in load_rows(id).sheets.values() if s.title == "Fan, control")
        page.goto(f"{self.live_server_url}/p/{id}/draw/{drawn.id}")
        expect(page.get_by_test_id("place")).to_contain_text("line 91")
        page.keyboard.press("/")
        page.get_by_label("Quick line").fill('no "Start", lamp "Running"')
        with self.stored_after(page):
            page.keyboard.press("Enter")
        page.keyboard.press("Control+k")
        page.get_by_label("Find or do").fill("running")
        page.get_by_role("option").filter(has_text="LT91  Running").click()
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector.get_by_label("Text", exact=True)).to_have_value("Running")
        inspector.get_by_label("Location").click()
        with self.stored_after(page):
            page.get_by_role("option", name="+RP1").click()
        sheet = page.get_by_test_id("sheet")
        expect(sheet.locator("image")).to_have_count(1)
        page.get_by_role("navigation", name="Sheets").get_by_role("link", name="Contents").click()
        expect(sheet).to_contain_text("Fan, control")
        expect(sheet).to_contain_text("+MP1")
        return drawn.id

    def locations_are_renamed(self, page: Page, id: str, sheet_id: str) -> None:
        """Their new codes are in the contents, on the sheets, and in the tag of what was drawn."""
        sheet = page.get_by_test_id("sheet")
        self.brief(page, "Structure")
        code = page.get_by_label("Code of +MP1")
        code.fill("CP1")
        with self.stored_after(page):
            code.press("Enter")
        page.get_by_role("navigation", name="Benches").get_by_role("link", name="Draw").click()
        page.get_by_role("navigation", name="Sheets").get_by_role("link", name="Contents").click()
        expect(sheet).to_contain_text("+CP1")
        expect(sheet).not_to_contain_text("+MP1")
        page.get_by_role("navigation", name="Sheets").get_by_role("link", name="Supply").click()
        expect(sheet).to_contain_text("=HT+CP1")
        page.get_by_role("navigation", name="Sheets").get_by_role("link", name="Fan, control").click()
        expect(sheet).to_contain_text("+RP1-LT91")
        self.brief(page, "Structure")
        code = page.get_by_label("Code of +RP1")
        code.fill("RP9")
        with self.stored_after(page):
            code.press("Enter")
        page.goto(f"{self.live_server_url}/p/{id}/draw/{sheet_id}")
        expect(sheet).to_contain_text("+RP9-LT91")

    def release(self, page: Page) -> None:
        """Choose nothing on the canvas, so that the inspector shows the block."""
        box = page.get_by_test_id("sheet").bounding_box() or {"x": 0.0, "y": 0.0}
        page.mouse.click(box["x"] + 8, box["y"] + 8)

    def test_a_cell_of_the_title_block_is_dragged_and_gets_a_field(self) -> None:
        page = self.page
        self.sign_in(page)
        self.brief(page, "Title blocks")
        cell = page.locator("[data-kind=cell]").filter(has_text="Site")
        cell.click()
        inspector = page.get_by_role("complementary", name="Inspector")
        inspector.get_by_label("Find a field").fill("kiln load")
        with self.stored_after(page):
            inspector.get_by_role("button", name="Kiln load").click()
        expect(page.get_by_test_id("sheet")).to_contain_text("38 t")
        height = inspector.get_by_label("Height, mm", exact=True)
        expect(height).to_have_value("12")
        grip = page.locator("[data-corner=se]").bounding_box() or {"x": 0.0, "y": 0.0, "width": 0.0, "height": 0.0}
        page.mouse.move(grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2)
        page.mouse.down()
        page.mouse.move(grip["x"] - 40, grip["y"] - 10, steps=6)
        with self.stored_after(page):
            page.mouse.up()
        expect(height).not_to_have_value("12")
        page.keyboard.press("Escape")
        self.release(page)
        page.get_by_role("button", name="Undo").click()
        cell.click()
        expect(height).to_have_value("12")

    def test_sheets_are_numbered_again_after_a_look_at_what_would_change(self) -> None:
        page = self.page
        self.sign_in(page)
        self.brief(page, "Sheets")
        page.get_by_role("button", name="Number again").click()
        form = page.get_by_role("form", name="Number again")
        form.get_by_label("From").fill("10")
        form.get_by_label("Steps of").fill("10")
        change = form.get_by_role("list", name="What would change")
        expect(change).to_contain_text("30 → 100 Loading auger, control")
        expect(change).to_contain_text("line 301 → 1001, 8 wire numbers")
        before = self.numbers()
        self.assertEqual(before[:4], ["1", "2", "3", "10"])
        with self.stored_after(page):
            form.get_by_role("button", name=f"Number {len(before)} again").click()
        self.assertEqual(self.numbers(), [str(10 * n) for n in range(1, len(before) + 1)])

    def numbers(self) -> list[str]:
        return [s.number for s in load_rows("kiln-2").sheets_in_order()]

    def test_a_sheet_is_dragged_to_another_place_in_the_tree(self) -> None:
        page = self.page
        self.sign_in(page)
        tree = page.get_by_role("navigation", name="Sheets")
        row = tree.get_by_role("link", name="90 Turner carriage harness")
        with self.stored_after(page):
            row.locator("../..").drag_to(tree.get_by_role("link", name="3 Technical data"))
        self.assertEqual(self.numbers()[2:5], ["3", "90", "10"])
        tree.get_by_label("Filter the sheets").fill("auger power")
        expect(tree.get_by_role("link")).to_have_count(1)

    def test_what_is_drawn_is_moved_to_another_sheet_and_keeps_its_tag(self) -> None:
        page = self.page
        self.sign_in(page)
        self.click(page, 76, 43)
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("+KD2-PF2")
        inspector.get_by_label("Move to sheet").click()
        with self.stored_after(page):
            page.get_by_role("option", name="90 Turner carriage harness").click()
        expect(page.get_by_test_id("sheet")).to_contain_text("Turner carriage harness")
        expect(page.get_by_test_id("sheet")).to_contain_text("+KD2-PF2")
        project = load_rows("kiln-2")
        moved = next(s for s in project.symbols.values() if project.devices[s.device_id].text == "Auger stopped")
        self.assertEqual(project.sheets[moved.sheet_id].number, "90")

    def test_a_plan_gets_a_place_among_the_sheets(self) -> None:
        page = self.page
        self.sign_in(page)
        tree = page.get_by_role("navigation", name="Sheets")
        words = tree.get_by_placeholder("Filter", exact=True).or_(page.get_by_placeholder("Filter", exact=True)).first
        words.fill("Terminal plan")
        for number in ("T1", "T10"):
            expect(tree.get_by_role("link", name=f"{number} Terminal plan")).to_have_count(1)
        words.fill("")
        page.get_by_role("button", name="Add a sheet after 30").click()
        form = page.get_by_role("form", name="Add a sheet")
        form.get_by_label("Title").fill("Terminals of the motor")
        self.choose(page, form, "Kind of sheet", "Terminal plan")
        with self.stored_after(page):
            form.get_by_role("button", name="Add", exact=True).click()
        sheet = page.get_by_test_id("sheet")
        expect(sheet).to_contain_text("Choose the terminal strip this sheet shows.")
        self.choose(page, page, "Shows", "=K2+KP2-XD1")
        expect(sheet).to_contain_text("Supply and motor")
        expect(sheet).to_contain_text("11 of 32, next 31")
        self.assertEqual(self.numbers()[9:12], ["30", "97", "31"])
        words.fill("Terminal plan")
        expect(tree.get_by_role("link", name="T9 Terminal plan")).to_have_count(1)
        expect(tree.get_by_role("link", name="T10 Terminal plan")).to_have_count(0)

    def test_hundreds_of_sheets_are_a_short_tree_that_filters(self) -> None:
        anna = get_user_model().objects.get(username="anna")
        create_project(anna, synthetic(120), "hundreds")
        page = self.at_the_door()
        page.get_by_role("button", name="Open the demo project").click()
        expect(page.get_by_role("heading", name="Projects")).to_be_visible()
        page.goto(f"{self.live_server_url}/p/hundreds")
        tree = page.get_by_role("navigation", name="Sheets")
        # The first to come in waits until the project is read from its rows.
        expect(tree.get_by_role("link").first).to_be_visible()
        self.assertLess(tree.get_by_role("link").count(), 80, "only what is in view is in the page")
        page.get_by_test_id("sheet-tree").evaluate("e => { e.scrollTop = e.scrollHeight }")
        last = load_rows("hundreds").sheets_in_order()[-1]
        expect(tree.get_by_role("link", name=f"{last.number} ").last).to_be_visible()
        tree.get_by_label("Filter the sheets").fill("117")
        found = tree.get_by_role("link").first
        expect(found).to_contain_text("117")
        found.click()
        expect(self.symbols(page).first).to_be_visible()
        page.keyboard.press("Control+k")
        page.get_by_label("Find or do").fill("qa1")
        expect(page.get_by_role("option").first).to_be_visible()

    def test_an_owner_invites_a_viewer_who_sees_live_and_changes_nothing(self) -> None:
        self.account("ruth", "Ruth", "Penn")
        owner, viewer = self.page, self.visitor()
        self.sign_in(owner)
        self.brief(owner, "People")
        owner.get_by_label("Account name").fill("ruth")
        self.choose(owner, owner.get_by_role("form", name="Invite"), "As", "viewer")
        owner.get_by_role("button", name="Invite").click()
        expect(owner.get_by_role("row").filter(has_text="Ruth Penn")).to_contain_text("invited")
        self.enter(viewer, "ruth")
        expect(viewer.get_by_text("Anna Marsh invites you to PM-0417 Kiln 2 as viewer.")).to_be_visible()
        viewer.get_by_role("button", name="Take part").click()
        viewer.get_by_role("link", name="Kiln 2").click()
        expect(self.symbols(viewer).first).to_be_visible()
        expect(viewer.get_by_role("button", name="Add a sheet", exact=True)).to_have_count(0)
        expect(viewer.get_by_role("complementary", name="Inspector").get_by_label("Title")).to_be_disabled()
        expect(owner.get_by_role("row").filter(has_text="Ruth Penn")).to_contain_text("sheet 30")
        self.brief(owner, "Sheets")
        cell = owner.get_by_role("grid").get_by_role("row").filter(has_text="Loading auger, control")
        cell.locator("[data-key=title]").dblclick()
        title = owner.get_by_role("grid").get_by_label("Title", exact=True)
        title.fill("Auger, control")
        with self.stored_after(owner):
            title.press("Enter")
        expect(viewer.get_by_test_id("sheet")).to_contain_text("Auger, control")
        expect(viewer.get_by_role("navigation", name="Sheets")).to_contain_text("Auger, control")
        token = next(c["value"] for c in viewer.context.cookies() if c["name"] == "spool_csrf")
        answer = viewer.request.post(
            f"{self.live_server_url}/api/projects/kiln-2/edits",
            data={"edit": {"kind": "change-settings", "site": "x"}},
            headers={"X-CSRFToken": token, "Referer": self.live_server_url},
        )
        self.assertEqual(answer.status, 403)
        self.assertEqual(Membership.objects.get(project_id="kiln-2", user__username="ruth").role, "viewer")

    def test_an_edit_is_found_in_the_journal_looked_at_and_taken_back(self) -> None:
        page = self.page
        self.sign_in(page)
        before = self.symbols(page).count() - 1
        self.click(page, 76, 43)
        page.keyboard.press("Delete")
        expect(self.symbols(page)).to_have_count(before)
        self.brief(page, "Journal")
        page.get_by_role("listitem").get_by_role("button").first.click()
        edit = page.get_by_role("region", name="Edit")
        expect(edit.locator("[data-kind=symbol]")).to_have_count(before)
        edit.get_by_role("button", name="Before").click()
        expect(edit.locator("[data-kind=symbol]")).to_have_count(before + 1)
        expect(edit.locator("[data-kind=symbol][data-look=selected]")).to_have_count(1)
        edit.get_by_role("button", name="Take this edit back").click()
        expect(edit).to_contain_text("has been taken back already")
        page.get_by_role("navigation", name="Benches").get_by_role("link", name="Draw").click()
        expect(self.symbols(page)).to_have_count(before + 1)

    def test_a_project_is_kept_as_a_starting_point_binned_and_restored(self) -> None:
        page = self.at_the_door()
        page.get_by_role("button", name="Open the demo project").click()
        page.get_by_role("button", name="More for Kiln 2").click()
        page.get_by_role("menuitem", name="Keep as a starting point").click()
        expect(page.get_by_text("starting point", exact=True)).to_be_visible()
        page.get_by_role("button", name="New project").click()
        page.get_by_label("Name", exact=True).fill("Kiln 3")
        self.choose(page, page, "Habits", "like PM-0417 Kiln 2")
        page.get_by_role("button", name="Make", exact=True).click()
        tree = page.get_by_role("navigation", name="Sheets")
        expect(tree).to_contain_text("Contents")
        expect(tree).not_to_contain_text("Loading auger")
        page.get_by_role("link", name="All projects").click()
        page.get_by_role("button", name="More for Kiln 3").click()
        page.get_by_role("menuitem", name="Put into the bin").click()
        expect(page.get_by_role("link", name="Kiln 3")).to_have_count(0)
        page.get_by_role("button", name="Bin", exact=True).click()
        page.get_by_role("button", name="More for Kiln 3").click()
        page.get_by_role("menuitem", name="Restore").click()
        page.get_by_role("button", name="Open", exact=True).click()
        page.get_by_label("Find by number, name, customer").fill("kiln 3")
        expect(page.get_by_role("link", name="Kiln 3")).to_be_visible()
        expect(page.get_by_role("link", name="Kiln 2")).to_have_count(0)
        picture = page.get_by_role("link", name="Kiln 3").locator("img")
        source = picture.get_attribute("src") or ""
        self.assertIn(b"<svg", page.request.get(f"{self.live_server_url}{source}").body())
