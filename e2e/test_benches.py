"""The benches after Draw, each by something a practitioner would do there."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace

from django.conf import settings
from django.contrib.auth import get_user_model
from django.test import override_settings
from playwright.sync_api import Locator, Page, expect

from e2e.base import Story
from jolly_core.model import Project
from jolly_core.tagging import full_tag

MARGIN_MM = 30
NOBODY = "http://127.0.0.1:9"


class BenchStory(Story):
    """What the stories of the benches share."""

    project_id = "kiln-2"

    def setUp(self) -> None:
        super().setUp()
        away = override_settings(JOLLY=replace(settings.JOLLY, machine=NOBODY, demo=True))
        away.enable()
        self.addCleanup(away.disable)

    def open(self, bench: str, page: Page | None = None) -> Page:
        """Sign in and go to a bench of the demo."""
        page = page or self.page
        self.sign_in(page, f"p/kiln-2/{bench}")
        return page

    def done(self, page: Page, act: Callable[[], object]) -> None:
        """Do something and wait for the accepted edit."""
        with page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            act()

    def send(self, page: Page, **edit: object) -> None:
        """Send an edit as another window of the same person would."""
        with page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            page.evaluate(
                """([id, edit]) => fetch(`/api/projects/${id}/edits`, {
                    method: 'POST',
                    headers: {'Content-Type': 'application/json',
                              'X-CSRFToken': document.cookie.match(/spool_csrf=([^;]*)/)[1]},
                    body: JSON.stringify({edit}),
                })""",
                [self.project_id, edit],
            )

    def by_tag(self, project: Project, tag: str) -> str:
        return next(d.id for d in project.devices.values() if full_tag(project, d) == tag)

    @staticmethod
    def on_board(page: Page, x: float, y: float, offset: float = 0) -> tuple[float, float]:
        """Return where a point of a drawing in mm is on the screen."""
        svg = page.get_by_test_id("sheet")
        expect(svg).not_to_have_attribute("data-view", "0,0,3")
        vx, vy, scale = (float(v) for v in (svg.get_attribute("data-view") or "").split(","))
        box = svg.bounding_box() or {"x": 0.0, "y": 0.0}
        return box["x"] + (x + offset - vx) * scale, box["y"] + (y + offset - vy) * scale

    @staticmethod
    def middle(item: Locator) -> tuple[float, float]:
        box = item.bounding_box() or {"x": 0.0, "y": 0.0, "width": 0.0, "height": 0.0}
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


class Together(BenchStory):
    def test_what_one_does_in_a_bench_the_other_sees_in_another(self) -> None:
        anna = self.open("cables")
        other = self.visitor()
        self.sign_in(other, "p/kiln-2/terminals")
        expect(other.locator("[data-row=u5]")).to_contain_text("BN")
        self.core(anna, "BN").locator("[data-key=name]").click()
        self.done(anna, lambda: anna.keyboard.press("Alt+ArrowDown"))
        expect(self.core(anna, "BK")).to_contain_text("MA1:U1")
        expect(other.locator("[data-row=u5]")).to_contain_text("BK")

    def test_a_viewer_looks_and_is_offered_nothing_to_change(self) -> None:
        get_user_model().objects.get(username="anna").memberships.update(role="viewer")  # type: ignore[attr-defined]  # the reverse of Membership.user
        page = self.open("terminals")
        number = page.locator("[data-row=u1] [data-key=number]")
        number.click()
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("1 terminal of =K2+KP2-XD1")
        page.keyboard.press("9")
        expect(page.get_by_role("grid").get_by_role("textbox")).to_have_count(0)
        expect(number).to_have_text("1")
        for act in ("New strip…", "Put in…", "Take all", "Take off"):
            expect(page.get_by_role("button", name=act)).to_have_count(0)
        number.dblclick()  # what cannot be typed in leads to its sheet
        expect(page).to_have_url(re.compile("/draw/"))
        page.goto(f"{self.live_server_url}/p/kiln-2/cables")
        expect(page.get_by_role("grid")).to_contain_text("=K2+KP2-XD1")
        for act in ("New cable part…", "Fill by wire number", "Turn source and destination"):
            expect(page.get_by_role("button", name=act)).to_have_count(0)
        for bench, word in (("io", "Add a card…"), ("make", "to the machine"), ("harness", "Add to WH-T1")):
            page.goto(f"{self.live_server_url}/p/kiln-2/{bench}")
            main = page.get_by_role("main")
            expect(main.get_by_role("table").or_(main.get_by_role("grid")).first).to_be_visible()
            expect(page.get_by_role("button", name=word)).to_have_count(0)


class Cabinet(BenchStory):
    def on_plan(self, page: Page, x: float, y: float) -> tuple[float, float]:
        return self.on_board(page, x, y, MARGIN_MM)

    def test_a_collision_is_a_snag_that_leads_back_to_the_layout(self) -> None:
        page = self.open("cabinet")
        first = min(self.project().enclosures)
        level = [d for d in self.project().ducts.values() if d.enclosure_id == first and d.y1 == d.y2]
        ducts = sorted(level, key=lambda d: d.y1)
        page.mouse.move(*self.on_plan(page, 100, ducts[0].y1))
        page.mouse.down()
        page.mouse.move(*self.on_plan(page, 100, ducts[0].y1 + 60))
        page.mouse.move(*self.on_plan(page, 100, ducts[0].y1 + 100))
        self.done(page, page.mouse.up)
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("are in each other's place on the plate")
        page.get_by_role("navigation", name="Benches").get_by_role("link", name="Snags").click()
        row = page.get_by_role("gridcell").filter(has_text="in each other's place").first
        row.click()
        expect(page.get_by_test_id("plan")).to_be_visible()
        page.keyboard.press("Control+z")
        expect(inspector).not_to_contain_text("in each other's place")

    def test_taken_out_a_device_waits_in_the_tray_and_is_dragged_back_onto_a_rail(self) -> None:
        page = self.open("cabinet")
        relay = self.by_tag(self.project(), "=K2+KP2-KF3")
        placing = next(p for p in self.project().placings.values() if p.device_id == relay)
        rails = sorted(r.y1 for r in self.project().rails.values() if r.enclosure_id == placing.enclosure_id)
        page.mouse.click(*self.on_plan(page, placing.x + 20, self.project().rails[placing.rail_id].y1))
        expect(page.locator(f"[data-id='{placing.id}']")).to_have_attribute("data-look", "selected")
        self.done(page, lambda: page.keyboard.press("Delete"))
        waiting = page.get_by_test_id("tray-=K2+KP2-KF3")
        expect(waiting).to_be_visible()
        expect(page.get_by_test_id("routed")).not_to_contain_text("63 of 63")
        plan = page.get_by_test_id("plan")
        box = plan.bounding_box() or {"x": 0.0, "y": 0.0}
        x, y = self.on_plan(page, 250, rails[-1])
        self.done(page, lambda: waiting.drag_to(plan, target_position={"x": x - box["x"], "y": y - box["y"]}))
        expect(page.get_by_test_id("routed")).to_contain_text("63 of 63")
        back = next(p for p in self.project().placings.values() if p.device_id == relay)
        self.assertEqual(self.project().rails[back.rail_id].y1, rails[-1])

    def test_off_every_rail_it_is_refused_and_stays_in_the_tray(self) -> None:
        page = self.open("cabinet")
        relay = self.by_tag(self.project(), "=K2+KP2-KF3")
        placing = next(p for p in self.project().placings.values() if p.device_id == relay)
        page.mouse.click(*self.on_plan(page, placing.x + 20, self.project().rails[placing.rail_id].y1))
        self.done(page, lambda: page.keyboard.press("Delete"))
        page.get_by_test_id("tray-=K2+KP2-KF3").click()
        page.mouse.click(*self.on_plan(page, 300, 450))
        expect(page.get_by_text("=K2+KP2-KF3 clips on a rail. Drop it on one.").first).to_be_visible()
        expect(page.get_by_test_id("tray-=K2+KP2-KF3")).to_be_visible()


class Others(BenchStory):
    def test_with_the_machine_away_what_is_given_waits(self) -> None:
        page = self.open("make")
        expect(page.get_by_test_id("machine")).to_contain_text("The machine does not answer.")
        page.get_by_role("button", name="Give 335 to the machine").click()
        expect(page.get_by_test_id("counts")).to_contain_text("0 done, 335 waiting, 0 refused, 0 to give")
        page.reload()
        expect(page.get_by_test_id("counts")).to_contain_text("335 waiting")

    def test_a_generated_page_is_looked_at_and_leads_to_the_sheets(self) -> None:
        page = self.open("draw")
        page.get_by_placeholder("Filter", exact=True).fill("Terminal plan")
        page.get_by_role("link", name="T1 Terminal plan").click()
        sheet = page.locator("svg[data-testid=sheet]")
        expect(sheet).to_contain_text("=K2+KF2-MA1:U1")
        expect(page.get_by_test_id("caret")).to_have_count(0)
        expect(page.get_by_role("button", name="Wire W")).to_be_disabled()
        sheet.get_by_text("=K2+KP2-FQ1:2", exact=True).click()
        expect(page.locator("[data-kind=symbol][data-look=selected]")).to_contain_text("-FQ1")

    def test_allowances_are_changed_where_lengths_are_looked_at(self) -> None:
        page = self.open("cabinet")
        expect(page.get_by_test_id("routed")).to_contain_text("46.50 m")
        field = page.get_by_label("At each end, mm")
        field.fill("100")
        self.done(page, lambda: field.press("Enter"))
        expect(page.get_by_test_id("routed")).to_contain_text("51.54 m")

    def test_a_channel_freed_and_a_card_that_is_drawn_cannot_be_deleted(self) -> None:
        page = self.open("io")
        row = page.get_by_role("grid", name="Points").locator("[data-row]").filter(has_text="Chain slack")
        row.get_by_role("checkbox").check()
        self.done(page, lambda: page.get_by_role("button", name="Take off their channels").click())
        expect(row).to_contain_text("waits")
        page.get_by_role("button", name="Allocate").click()
        page.get_by_role("button", name="Delete =K2+KP2-KF1").click()
        expect(page.get_by_text("Channels of -KF1 are drawn. Delete them on their sheets first.").first).to_be_visible()
