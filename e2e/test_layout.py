"""Layouts: kept and put down again, a strip renamed and numbered on its rail, what does not fit named and shown."""

from __future__ import annotations

import re
from dataclasses import replace

from django.contrib.auth import get_user_model
from playwright.sync_api import Page, expect

from e2e.test_benches import MARGIN_MM, BenchStory
from jolly_core.cabinet import outline, placing_of, placings_in
from jolly_core.model import Change, ChangeSet, Project
from jolly_core.terminals import strip_rows
from jolly_core.testing import Workbench
from jolly_server.projects.services import create_project

ODD = "deep-panel"


class Kept(BenchStory):
    def second(self) -> str:
        """Return the id of the right field."""
        return sorted(self.project().enclosures)[1]

    def on_plan(self, page: Page, x: float, y: float) -> tuple[float, float]:
        return self.on_board(page, x, y, MARGIN_MM)

    def test_a_relay_row_is_kept_seen_where_it_would_land_and_put_down_in_another_field(self) -> None:
        page = self.open("cabinet")
        page.get_by_role("button", name="right field").click()
        expect(page.get_by_test_id("plan")).to_contain_text("=K2+KP2-UC2")
        project = self.project()
        rail = next(r for r in project.rails.values() if r.enclosure_id == self.second() and r.y1 == 295)
        on_it = sorted((p for p in project.placings.values() if p.rail_id == rail.id), key=lambda p: p.x)
        page.mouse.click(*self.on_plan(page, rail.x2 - 4, rail.y1))
        page.get_by_label("Name of a layout stamp").fill("Relay row")
        self.done(page, lambda: page.get_by_role("button", name="Keep", exact=True).click())
        self.field_of_its_own(page)
        stamps = page.get_by_role("region", name="Layout stamps")
        stamps.get_by_role("button", name="Relay row").click()
        for x in (70, 80):  # the plate says where it would land before it does
            page.mouse.move(*self.on_plan(page, x, 300))
        expect(page.get_by_test_id("landing").locator("rect")).not_to_have_count(0)
        self.assertEqual(placings_in(self.project(), max(self.project().enclosures)), [])
        self.done(page, lambda: page.mouse.click(*self.on_plan(page, 80, 300)))
        after = self.project()
        new = max(after.enclosures)
        made = sorted(placings_in(after, new), key=lambda p: p.x)
        self.assertEqual(
            [after.devices[p.device_id].part_id for p in made], [project.devices[p.device_id].part_id for p in on_it]
        )
        self.assertEqual([p.x - made[0].x for p in made], [p.x - on_it[0].x for p in on_it])
        expect(page.get_by_test_id("plan").locator("[data-kind=placing]")).to_have_count(len(made))
        page.keyboard.press("Control+z")
        expect(page.get_by_test_id("plan").locator("[data-kind=placing]")).to_have_count(0)

    def field_of_its_own(self, page: Page) -> None:
        """Add an enclosure of the same size beside the others and look at it."""
        page.get_by_role("button", name="Another enclosure").click()
        field = page.get_by_role("combobox", name="Enclosure part", exact=True).first
        field.fill("E81030")
        page.get_by_role("option", name=re.compile("BW-E81030")).first.click()
        self.done(page, lambda: page.get_by_role("button", name="Add the enclosure").click())
        new = max(self.project().enclosures)
        page.goto(f"{self.live_server_url}/p/kiln-2/cabinet?enclosure={new}")
        expect(page.get_by_test_id("plan")).to_contain_text("750 × 950")

    def test_a_strip_is_renamed_and_its_last_three_numbered_anew_on_its_rail(self) -> None:
        page = self.open("cabinet")
        page.get_by_role("button", name="right field").click()
        expect(page.get_by_test_id("plan")).to_contain_text("=K2+KP2-UC2")
        project = self.project()
        strip = self.by_tag(project, "=K2+KP2-XD92")
        placing = placing_of(project, strip)
        assert placing is not None
        box = outline(project, placing)
        page.mouse.click(*self.on_plan(page, box.x + 3, box.y + box.height - 3))
        tag = page.get_by_label("Tag", exact=True)
        tag.fill("XD95")
        self.done(page, lambda: tag.press("Enter"))
        terminals = page.get_by_role("region", name="Terminals")
        for number in ("10", "11", "12"):
            terminals.get_by_role("button", name=number, exact=True).click()
        terminals.get_by_role("button", name="Number 3 again").click()
        page.get_by_label("First number").fill("101")
        expect(page.get_by_label("What would change")).to_contain_text("12 → 103")
        self.done(page, lambda: page.get_by_role("button", name="Number", exact=True).click())
        numbers = [r.number for r in strip_rows(self.project(), strip) if r.unit]
        self.assertEqual(numbers[-4:], ["9", "101", "102", "103"])
        expect(terminals.get_by_role("button", name="103", exact=True)).to_be_visible()
        page.get_by_role("link", name="Open the strip").click()
        expect(page.get_by_role("button", name="=K2+KP2-XD95")).to_be_visible()
        expect(page.get_by_role("main")).to_contain_text("103")
        symbol = next(s for s in self.project().symbols.values() if s.device_id == strip)
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{symbol.sheet_id}")
        expect(page.locator("svg[data-testid=sheet]")).to_contain_text("-XD95")


def deep_panel() -> Project:
    """Return a panel with a drive that is 900 mm deep, and a relay of 220 mm behind a lamp of the door."""
    bench = Workbench(frame="zones")
    panel = bench.new("add-location", code="P", side="panel")
    enclosure = bench.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=panel)
    for part, surface, x, y in (
        ("orrery-drives-od-v0-25", "plate", 60, 560),
        ("hollin-hr-k22", "plate", 300, 190),
        ("tamwick-tw-l22-g", "door", 330, 215),
    ):
        if part == "hollin-hr-k22":
            ends = {"x1": 280, "y1": 200, "x2": 500, "y2": 200}
            bench.do("draw-run", what="rail", part_id="brindlework-bw-r35", enclosure_id=enclosure, **ends)
        bench.do("plan-device", part_id=part, enclosure_id=enclosure, surface=surface, x=x, y=y)
    for id, depth in (("orrery-drives-od-v0-25", 900.0), ("hollin-hr-k22", 220.0)):
        part_as_kept = bench.project.parts[id]
        change = Change("part", id, part_as_kept, replace(part_as_kept, depth_mm=depth))
        bench.project.apply(ChangeSet([change]))
    bench.do("change-settings", number="DP-1", name="Deep panel")
    return bench.project


class Odd(BenchStory):
    def project(self, project_id: str = ODD) -> Project:
        return super().project(project_id)

    def test_what_is_too_deep_meets_the_door_or_crosses_is_named_with_its_place(self) -> None:
        page = self.page
        create_project(get_user_model().objects.get(username="anna"), deep_panel(), ODD)
        self.sign_in(page, f"p/{ODD}/cabinet")
        faults = page.get_by_role("region", name="Faults")
        expect(faults).to_contain_text("+P-TA1 is 900 mm deep")
        expect(faults).to_contain_text("in the door and +P-KF1 behind it need")
        page.get_by_test_id("plan").locator("[data-kind=placing]").first.wait_for()
        page.keyboard.press("d")  # no part is chosen yet: it is asked for
        field = page.get_by_role("combobox", name="Duct", exact=True)
        field.fill("D4060")
        page.get_by_role("option", name=re.compile("BW-D4060")).first.click()
        for start, end in (((40, 400), (500, 400)), ((420, 330), (420, 480))):
            page.mouse.move(*self.on_board(page, *start, MARGIN_MM))
            page.mouse.down()
            page.mouse.move(*self.on_board(page, *end, MARGIN_MM))
            self.done(page, page.mouse.up)
        expect(faults).to_contain_text("cross")
        page.keyboard.press("Escape")
        faults.get_by_text("cross").first.click()
        expect(page.get_by_test_id("plan").locator("[data-kind=duct][data-look=selected]")).to_have_count(2)


class InSpace(BenchStory):
    def test_a_part_gets_a_picture_in_space_that_says_its_size_and_stands_in_the_cabinet(self) -> None:
        page = self.open("parts/library?part=orrery-od-v5-5")
        stl = solid_box(105, 170, 240).encode()
        page.get_by_label("In space file").set_input_files(
            {"name": "drive.stl", "mimeType": "model/stl", "buffer": stl}
        )
        seen = page.get_by_test_id("solid").or_(page.get_by_text("Reading drive.stl"))
        expect(seen.first).to_be_visible()
        expect(page.get_by_test_id("solid")).to_contain_text("105 × 240 × 170 mm")
        page.get_by_label("Its front is").click()
        page.get_by_role("option", name="+x", exact=True).click()
        expect(page.get_by_test_id("solid")).to_contain_text("the part says 105 × 240 × 170")
        page.get_by_label("Its front is").click()
        page.get_by_role("option", name="-y", exact=True).click()
        with page.expect_response(lambda r: r.url.endswith("/api/library/part") and r.status == 200):
            page.get_by_role("button", name="Save", exact=True).click()
        page.goto(f"{self.live_server_url}/p/kiln-2/parts/project")
        self.done(page, lambda: page.get_by_role("button", name="Refresh all 1 stale").click())
        enclosure = sorted(self.project().enclosures)[1]
        with page.expect_response(lambda r: r.url.endswith("/files/drive.stl") and r.status == 200):
            page.goto(f"{self.live_server_url}/p/kiln-2/cabinet?enclosure={enclosure}")
            page.get_by_role("button", name="Space", exact=True).click()


def solid_box(width: float, depth: float, height: float) -> str:
    """Return a box as STL in words, as a machine would print it: its front to -y, its top to +z."""
    corners = [(x, y, z) for z in (0.0, height) for y in (0.0, depth) for x in (0.0, width)]
    quads = ((0, 2, 3, 1), (4, 5, 7, 6), (0, 1, 5, 4), (2, 6, 7, 3), (1, 3, 7, 5), (0, 4, 6, 2))
    faces = [t for a, b, c, d in quads for t in ((a, b, c), (a, c, d))]
    loops = (
        "facet normal 0 0 0\nouter loop\n"
        + "".join(f"vertex {x:g} {y:g} {z:g}\n" for x, y, z in (corners[n] for n in face))
        + "endloop\nendfacet\n"
        for face in faces
    )
    return "solid box\n" + "".join(loops) + "endsolid box\n"
