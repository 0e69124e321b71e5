"""The sheet as a surface: zoom, pan, links that can be sent, titles."""

from __future__ import annotations

import gzip
import re

from django.conf import settings
from django.contrib.auth import get_user_model
from django.test import Client
from playwright.sync_api import Page, Route, expect

from jolly_core.model import Sheet, Symbol
from jolly_core.tagging import full_tag

from .base import NOT_FITTED, Story
from .kept import apart


class SurfaceStory(Story):
    """Looking around on the control sheet."""

    def view(self, page: Page) -> tuple[float, float, float]:
        sheet = page.get_by_test_id("sheet")
        expect(sheet).not_to_have_attribute("data-view", NOT_FITTED)
        x, y, scale = (float(v) for v in (sheet.get_attribute("data-view") or "").split(","))
        return x, y, scale

    def on_page(self, page: Page, symbol: Symbol) -> bool:
        return page.url.split("?")[0].endswith(symbol.sheet_id)

    def settled(self, page: Page, before: tuple[float, float, float]) -> tuple[float, float, float]:
        """Wait until the view is another one and at rest."""
        text = page.get_by_test_id("sheet")
        was = ",".join(f"{v:g}" if v == int(v) else repr(v) for v in before)
        page.wait_for_function(
            """(was) => {
              const sheet = document.querySelector('svg[data-testid=sheet]')
              return sheet.dataset.view !== was && !sheet.getAnimations().length
            }""",
            arg=was,
        )
        self.assertTrue(text.is_visible())
        return self.view(page)

    def test_the_wheel_zooms_at_the_pointer_and_zero_fits_again(self) -> None:
        page = self.page
        self.sign_in(page)
        spot = self.pixel(page, 46, 34)
        first = self.view(page)
        page.mouse.move(*spot)
        page.mouse.wheel(0, -400)
        near = self.settled(page, first)
        self.assertGreater(near[2], first[2] * 1.3)
        for a, b in zip(self.pixel(page, 46, 34), spot, strict=True):
            self.assertAlmostEqual(a, b, delta=1.5)
        page.keyboard.press("0")
        back = self.settled(page, near)
        self.assertAlmostEqual(back[2], first[2], places=3)

    def test_the_selection_comes_near_and_the_small_sheet_leads_elsewhere(self) -> None:
        page = self.page
        self.sign_in(page)
        first = self.view(page)
        expect(page.get_by_test_id("minimap")).to_have_count(0)
        coil = next(s for s in self.project().symbols.values() if s.definition == "coil" and self.on_page(page, s))
        page.locator(f"[data-id='{coil.id}']").click()
        page.keyboard.press("z")
        near = self.settled(page, first)
        self.assertGreater(near[2], first[2] * 1.3)
        box = page.get_by_test_id("sheet").bounding_box() or {}
        middle = near[0] + box["width"] / 2 / near[2], near[1] + box["height"] / 2 / near[2]
        self.assertLess(abs(middle[0] - coil.x * 2.5 - 5), 12)
        small = page.get_by_test_id("minimap")
        expect(small).to_be_visible()
        small.click(position={"x": 5, "y": 5})
        left = self.settled(page, near)
        self.assertLess(left[0], near[0] - 50)
        self.assertEqual(left[2], near[2], "it moves and does not zoom")
        page.keyboard.press("0")
        self.settled(page, left)
        expect(small).to_have_count(0)

    def test_the_middle_button_pans(self) -> None:
        page = self.page
        self.sign_in(page)
        x, y = self.pixel(page, 46, 30)
        first = self.view(page)
        page.mouse.move(x, y)
        page.mouse.down(button="middle")
        page.mouse.move(x + 60, y + 30)
        page.mouse.up(button="middle")
        moved = self.settled(page, first)
        self.assertAlmostEqual((first[0] - moved[0]) * first[2], 60, delta=1)
        self.assertAlmostEqual((first[1] - moved[1]) * first[2], 30, delta=1)
        self.assertEqual(self.revision(), 0)

    def test_an_address_opens_the_sheet_with_its_selection(self) -> None:
        page = self.page
        self.sign_in(page)
        project = self.project()
        sheet = next(s for s in project.sheets.values() if s.number == "10")
        motor = next(s for s in project.symbols.values() if s.definition == "motor")
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{sheet.id}?sel={motor.id}")
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("OD-M3")
        expect(page.locator("[data-kind=symbol][data-look=selected]")).to_have_count(1)
        page.go_back()
        expect(page.get_by_test_id("place")).to_contain_text("line 30")

    def beside_the_next(self, page: Page) -> tuple[list[Sheet], int]:
        """Open the control sheet, wait until one beside it was asked for, and return all sheets and which it is."""
        sheets = self.project().sheets_in_order()
        at = next(n for n, s in enumerate(sheets) if s.number == "30")
        with page.expect_response(f"**/{sheets[at + 1].id}/view?ahead=true*"):
            self.sign_in(page)
        return sheets, at

    @apart
    def test_what_is_marked_among_what_was_found_is_there_when_it_is_taken(self) -> None:
        page = self.page
        self.sign_in(page)
        motor = next(s for s in self.project().symbols.values() if s.definition == "motor")
        page.keyboard.press("Control+k")
        with page.expect_response(f"**/{motor.sheet_id}/view?ahead=true*"):
            page.keyboard.type(full_tag(self.project(), self.project().devices[motor.device_id]))
        asked: list[str] = []
        page.on("request", lambda request: asked.append(request.url))
        page.keyboard.press("Enter")
        expect(page.locator(f"[data-kind=symbol][data-id='{motor.id}']")).to_be_visible()
        self.assertEqual([url for url in asked if f"/{motor.sheet_id}/view" in url], [])

    @apart
    def test_a_drawing_is_painted_without_the_scripts_of_other_benches(self) -> None:
        page = self.page
        scripts: list[str] = []
        page.on("response", lambda answer: scripts.append(answer.url) if answer.url.endswith(".js") else None)
        held: list[Route] = []

        def hold(route: Route) -> None:
            held.append(route)

        page.route("**/view?*", hold)
        self.sign_in(page, "p/kiln-2/draw")
        # The bench runs, so all that it needs is there; the ledger and the inspector are fetched after the drawing.
        expect(page.get_by_test_id("sheet-tree").locator("a").first).to_be_visible()
        names = [url.rsplit("/", 1)[-1] for url in scripts]
        self.assertEqual([n.split("-")[0] for n in names if "Bench" in n], ["DrawBench"])
        files = [settings.JOLLY.front_end / "assets" / name for name in names]
        self.assertGreater(len(files), 10)
        self.assertLessEqual(sum(len(gzip.compress(file.read_bytes())) for file in files), 250_000)
        self.assertTrue(held)
        for route in held:
            route.continue_()
        self.symbols(page).first.wait_for()

    @apart
    def test_a_bench_that_cannot_be_fetched_says_so_and_comes_when_the_page_is_loaded_anew(self) -> None:
        page = self.page
        self.sign_in(page)
        page.route("**/assets/CablesBench*", lambda route: route.abort())
        benches = page.get_by_role("navigation", name="Benches")
        benches.get_by_role("link", name="Cables").click()
        told = page.get_by_role("alert").filter(has_text="could not be fetched")
        expect(told).to_be_visible()
        benches.get_by_role("link", name="Draw").click()
        expect(self.symbols(page).first).to_be_visible()
        benches.get_by_role("link", name="Cables").click()
        expect(told).to_be_visible()
        page.unroute("**/assets/CablesBench*")
        told.get_by_role("link").click()
        expect(page.get_by_role("grid").first).to_be_visible()

    @apart
    def test_a_drawing_does_not_wait_for_what_is_found_on_it(self) -> None:
        page = self.page
        self.sign_in(page)
        held: list[Route] = []
        passing = [False]

        def hold(route: Route) -> None:
            route.continue_() if passing[0] else held.append(route)

        page.route(re.compile(r"/changes\?"), hold)
        power = next(s for s in self.project().sheets_in_order() if s.number == "10")
        row = page.get_by_test_id("sheet-tree").locator(f"a[href$='{power.id}']")
        stays = page.url
        with page.context.expect_page() as other:  # beside this one, as of any link
            row.click(modifiers=["Control"])
        other.value.wait_for_url(f"**/{power.id}")
        other.value.close()
        self.assertEqual(stays, page.url)
        row.click()
        expect(page.locator("[data-kind=frame]")).to_contain_text(power.title)
        ledger = page.get_by_role("region", name="Ledger")
        expect(ledger.get_by_role("tab", name="Wires", exact=True)).to_be_visible()
        page.keyboard.press("/")
        page.get_by_label("Quick line").fill('nc "Stop", no "Start"')
        previewed = page.locator("[data-kind=symbol][data-look=preview]")
        expect(previewed).not_to_have_count(0)
        passing[0] = True
        for route in held:
            route.continue_()
        expect(ledger.get_by_role("tab", name=re.compile(r"^Wires [1-9]"))).to_be_visible()
        expect(ledger.get_by_role("tab", name=re.compile(r"^Snags \d"))).to_be_visible()
        expect(previewed).not_to_have_count(0)  # what is found of the same drawing takes away nothing

    @apart
    def test_paging_on_while_an_edit_is_under_way_mixes_no_sheets(self) -> None:
        page = self.page
        sheets, at = self.beside_the_next(page)
        symbol = self.symbols(page).first
        id = symbol.get_attribute("data-id") or ""
        drawn = symbol.inner_html()
        symbol.click()
        held: list[Route] = []

        def hold(route: Route) -> None:
            held.append(route)

        page.route("**/edits", hold)
        with page.expect_request("**/edits"):
            page.keyboard.press("f")
            page.keyboard.press("Control")
        page.keyboard.press("PageDown")
        page.wait_for_url(f"**/draw/{sheets[at + 1].id}")
        expect(page.locator("[data-kind=frame]")).to_contain_text(sheets[at + 1].title)
        shown = self.symbols(page).count()
        with page.expect_response("**/edits"):
            held.pop().continue_()
        page.unroute("**/edits")
        self.accepted(page, 0)
        expect(page.locator(f"[data-id='{id}']")).to_have_count(0)
        self.assertEqual(self.symbols(page).count(), shown)
        page.keyboard.press("PageUp")
        page.wait_for_url(f"**/draw/{sheets[at].id}*")
        expect(page.locator(f"[data-kind=symbol][data-id='{id}']")).to_be_visible()
        self.assertNotEqual(page.locator(f"[data-kind=symbol][data-id='{id}']").inner_html(), drawn)
        flipped = self.symbols(page).evaluate_all("all => all.map(e => e.innerHTML)")
        page.reload()
        expect(self.symbols(page)).to_have_count(len(flipped))
        self.assertEqual(self.symbols(page).evaluate_all("all => all.map(e => e.innerHTML)"), flipped)

    def test_a_sheet_come_back_to_has_what_others_did_meanwhile(self) -> None:
        page = self.page
        sheets, at = self.beside_the_next(page)
        page.keyboard.press("PageDown")
        expect(page.locator("[data-kind=frame]")).to_contain_text(sheets[at + 1].title)
        jory = Client()
        jory.force_login(get_user_model().objects.get(username="jory"))
        note = {"kind": "place-note", "sheet_id": sheets[at].id, "x": 20, "y": 70, "text": "seen by Jory"}
        answer = jory.post("/api/projects/kiln-2/edits", {"edit": note}, content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content)
        self.accepted(page, 0)
        page.keyboard.press("PageUp")
        expect(page.get_by_test_id("sheet")).to_contain_text("seen by Jory")
        page.keyboard.press("PageUp")
        page.wait_for_url(f"**/draw/{sheets[at - 1].id}")
        expect(page.get_by_test_id("sheet")).not_to_contain_text("seen by Jory")

    def test_a_title_changed_shows_in_list_and_title_block(self) -> None:
        page = self.page
        self.sign_in(page)
        before = self.revision()
        inspector = page.get_by_role("complementary", name="Inspector")
        inspector.get_by_label("Title").fill("Auger, stop and start")
        inspector.get_by_label("Title").press("Enter")
        self.accepted(page, before)
        expect(page.get_by_role("navigation", name="Sheets")).to_contain_text("Auger, stop and start")
        expect(page.locator("[data-kind=frame]")).to_contain_text("Auger, stop and start")
        inspector.get_by_label("Number").fill("10")
        inspector.get_by_label("Number").press("Enter")
        expect(page.get_by_text("There is already a sheet 10.").first).to_be_visible()

    def test_benches_by_keys_and_the_folded_ledger(self) -> None:
        page = self.page
        self.sign_in(page)
        page.get_by_role("button", name="Fold the ledger").click()
        expect(page.get_by_role("gridcell").first).to_be_hidden()
        page.get_by_role("tab", name="Devices").click()
        expect(page.get_by_role("gridcell", name="-QA1", exact=True)).to_be_visible()
        for key, role, name in (
            ("1", "heading", "Project"),
            ("3", "button", "New part"),
            ("9", "heading", "Snags of the project"),
        ):
            page.keyboard.press(f"Alt+{key}")
            expect(page.get_by_role(role, name=name)).to_be_visible()
        page.keyboard.press("Alt+2")
        expect(self.symbols(page).first).to_be_visible()
