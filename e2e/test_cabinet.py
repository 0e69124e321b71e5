"""The Cabinet bench: a panel laid out from nothing, wires led through transformers and kept apart, its papers."""

from __future__ import annotations

import re

from django.contrib.auth import get_user_model
from playwright.sync_api import Page, expect

from e2e.test_benches import MARGIN_MM, BenchStory
from jolly_core.cabinet import layout_faults, placing_of, routes
from jolly_core.checks import project_snags
from jolly_core.making import cut_list
from jolly_core.model import Project
from jolly_core.tagging import full_tag
from jolly_core.testing import Workbench
from jolly_server.projects.services import create_project

PANEL = "feeder-panel"
FEEDERS = 7
DOOR = (
    ("estop", "tamwick-tw-e40-2"),
    ("button-nc", "tamwick-tw-b22-r-01"),
    ("button-no", "tamwick-tw-b22-g-10"),
)


def feeder_panel() -> Project:
    """Return a panel as it is drawn: feeders, a drive, a soft starter, terminals, lamps and buttons in the door."""
    bench = Workbench(frame="zones")
    panel = bench.new("add-location", code="P", side="panel")
    door = bench.new("add-location", code="D", side="door", parent_id=panel)
    bench.do("change-sheet", sheet_id=bench.sheet, location_id=panel, size="A2")
    power = bench.new("add-wire-type", name="Feeder", colour="BK", category="power", cross_section_mm2=2.5)
    for pole in range(3):
        bench.wire((6, 10 + 2 * pole), (6 + 18 * FEEDERS, 10 + 2 * pole), type_id=power)
    for n in range(FEEDERS):
        x = 8 + 18 * n
        for pole in range(3):
            bench.wire((x + 4 * pole, 10 + 2 * pole), (x + 4 * pole, 96), type_id=power)
        bench.place("breaker", x, 30, rotation=90, mirror=True, poles=3, part_id="quillon-ql-c16-3p")
        coil = bench.place("coil", x + 14, 60, part_id="brindlework-bw-c09-24d-31")
        bench.place("contactor-pole", x, 50, rotation=90, mirror=True, poles=3, device_id=bench.device(coil))
        lamp = bench.place("lamp", x + 14, 74, part_id="tamwick-tw-l22-g" if n % 2 else "tamwick-tw-l22-r")
        bench.do("set-place", device_id=bench.device(lamp), function_id="", location_id=door)
        bench.wire((x + 18, 60), (x + 18, 74))
    bench.do("place-terminals", sheet_id=bench.sheet, x1=6, y1=80, x2=6 + 18 * FEEDERS, y2=80)
    strip = next(d.id for d in bench.project.devices.values() if d.letters == "XD")
    bench.do("assign-part", device_id=strip, part_id="quillon-ql-k2-5")
    drives(bench, power, {"panel": panel, "door": door})
    bench.do("change-settings", number="FP-1", name="Feeder panel", eyelet_reach_mm=60)
    return bench.project


def drives(bench: Workbench, power: str, places: dict[str, str]) -> None:
    """Draw a drive and a soft starter behind breakers, and what stops and starts them, on a sheet of their own."""
    sheet = bench.new("add-sheet", number="40", frame="zones", location_id=places["panel"], size="A2")
    for pole in range(3):
        bench.wire((6, 10 + 2 * pole), (120, 10 + 2 * pole), type_id=power, sheet_id=sheet)
    for n, part in enumerate(("orrery-drives-od-v0-75", "orrery-drives-od-ss0-75")):
        x = 20 + 40 * n
        for pole in range(3):
            at = x + 4 * pole
            bench.wire((at, 10 + 2 * pole), (at, 58), type_id=power, sheet_id=sheet)
        breaker = {"rotation": 90, "mirror": True, "poles": 3, "part_id": "quillon-ql-c16-3p"}
        bench.place("breaker", x, 30, sheet_id=sheet, **breaker)
        bench.do("place-block", sheet_id=sheet, x=x - 2, y=60, part_id=part, pins=["L1", "L2", "L3"])
    for n, (key, part) in enumerate(DOOR):
        symbol = bench.place(key, 90 + 12 * n, 80, sheet_id=sheet, part_id=part)
        bench.do("set-place", device_id=bench.device(symbol), function_id="", location_id=places["door"])
        if n:
            bench.wire((82 + 12 * n, 80), (90 + 12 * n, 80), sheet_id=sheet)


class FromNothing(BenchStory):
    project_id = PANEL

    def project(self, project_id: str = PANEL) -> Project:
        return super().project(project_id)

    def open(self, bench: str, page: Page | None = None) -> Page:
        page = page or self.page
        create_project(get_user_model().objects.get(username="anna"), feeder_panel(), PANEL)
        self.sign_in(page, f"p/{PANEL}/{bench}")
        return page

    def part(self, page: Page, label: str, words: str, option: str) -> None:
        if label in ("Rail", "Duct"):
            page.get_by_role("button", name="Rail or duct").click()
        field = page.get_by_role("combobox", name=label, exact=True)
        field.fill(words)
        page.get_by_role("option", name=re.compile(re.escape(option))).first.click()

    def on_plan(self, page: Page, x: float, y: float) -> None:
        page.mouse.click(*self.on_board(page, x, y, MARGIN_MM))

    def lengths(self) -> dict[str, float]:
        return {w.key: w.length_mm for w in cut_list(self.project())}

    def test_proposed_taken_led_through_transformers_kept_apart_and_issued(self) -> None:
        page = self.open("cabinet")
        self.part(page, "Enclosure part", "E101240", "BW-E101240")
        self.done(page, lambda: page.get_by_role("button", name="Add the enclosure").click())
        self.proposed(page)
        self.ordered(page)
        devices = self.transformers(page)
        keys = self.led_through(page, devices)
        self.moved(page, devices[0], keys[0])
        self.kept_apart(page)
        self.papers(page)

    def proposed(self, page: Page) -> None:
        """Rails, ducts and devices by proposal: its figures first, then taken with one edit."""
        self.part(page, "Rail", "R35", "BW-R35")
        self.part(page, "Duct", "D4060", "BW-D4060")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Lay out for me").click()
        figures = page.get_by_role("table", name="Proposal")
        expect(figures).to_contain_text("Devices")
        self.assertEqual(self.project().rails, {}, "nothing is changed yet")
        page.get_by_role("button", name="Look").click()
        expect(page.locator("[data-kind=placing]").first).to_be_visible()
        self.done(page, lambda: page.get_by_role("button", name="Take").click())
        project = self.project()
        (enclosure,) = project.enclosures.values()
        self.assertEqual(layout_faults(project, enclosure), [])
        self.assertEqual(sum(p.surface == "door" for p in project.placings.values()), FEEDERS + len(DOOR))
        self.assertEqual([r.missing for r in routes(project).values() if r.missing], [])
        total = len(routes(project))
        expect(page.get_by_test_id("routed")).to_contain_text(f"{total} of {total} panel wires routed")

    def ordered(self, page: Page) -> None:
        """Two breakers go back into the tray and are put down in an order changed before they land."""
        project = self.project()
        tags = ["+P-FC1", "+P-FC2"]
        placings = [placing_of(project, self.by_tag(project, t)) for t in tags]
        page.locator(f"[data-id='{placings[0].id if placings[0] else ''}']").click()
        page.locator(f"[data-id='{placings[1].id if placings[1] else ''}']").click(modifiers=["Shift"])
        self.done(page, lambda: page.keyboard.press("Delete"))
        for tag in tags:
            page.get_by_test_id(f"tray-{tag}").click()
        page.get_by_role("button", name="Later: 1").click()
        order = page.get_by_role("list", name="Order")
        expect(order.get_by_role("listitem").first).to_contain_text("+P-FC2")
        page.get_by_label("Push what is there along").check()
        rail = min(self.project().rails.values(), key=lambda r: r.y1)
        self.done(page, lambda: self.on_plan(page, rail.x1 + 2, rail.y1))
        after = self.project()
        first, second = (placing_of(after, self.by_tag(after, t)) for t in ("+P-FC2", "+P-FC1"))
        assert first is not None and second is not None
        self.assertEqual((first.rail_id, second.rail_id), (rail.id, rail.id))
        self.assertLess(first.x, second.x)
        page.keyboard.press("Escape")

    def transformers(self, page: Page) -> list[str]:
        """Three current transformers are planned below the ducts, where no lane reaches them yet."""
        before = set(self.project().placings)
        low = max(max(d.y1, d.y2) for d in self.project().ducts.values())
        self.part(page, "Plan one not drawn yet", "CT60", "TW-CT60-5")
        for x in (120, 220, 320):
            self.done(page, lambda x=x: self.on_plan(page, x, low + 130))  # type: ignore[misc]  # bound at once
        page.keyboard.press("Escape")
        project = self.project()
        made = sorted(set(project.placings) - before, key=lambda id: project.placings[id].x)
        expect(page.get_by_role("region", name="Faults")).to_contain_text("No lane reaches the eyelet of +P-BC1")
        return [project.placings[id].device_id for id in made]

    def led_through(self, page: Page, devices: list[str]) -> list[str]:
        """A phase through each, one by one: the gap is named, then a lane past all three closes it."""
        project = self.project()
        keys = [k for k in routes(project) if all(t in full_tag_at(project, k) for t in ("-FC", "-QA"))][:3]
        rows = page.get_by_role("table", name="Routes").locator("tbody tr")
        every = [r["key"] for r in page.request.get(self.api("cabinet")).json()["enclosure"]["routes"]]
        for key, device in zip(keys, devices, strict=True):
            rows.nth(every.index(key)).click()
            page.keyboard.press("t")
            placing = placing_of(self.project(), device)
            assert placing is not None
            self.done(page, lambda p=placing: self.on_plan(page, p.x + 29, p.y + 60))  # type: ignore[misc]
            page.keyboard.press("t")
        self.assertTrue(all("No lane reaches" in routes(self.project())[k].missing for k in keys))
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("Led through +P-BC3")
        self.lanes_past(page, devices)
        led = [routes(self.project())[k] for k in keys]
        self.assertEqual([r.missing for r in led], ["", "", ""])
        self.assertEqual([[leg.kind for leg in r.legs].count("eyelet") for r in led], [1, 1, 1])
        rows.nth(every.index(keys[-1])).click()
        expect(inspector.get_by_role("table", name="Way")).to_contain_text("through +P-BC3")
        return keys

    def lanes_past(self, page: Page, devices: list[str]) -> None:
        """Draw a lane above and one below the transformers, from the left duct on."""
        project = self.project()
        placing = placing_of(project, devices[0])
        assert placing is not None
        left = min(d.x1 for d in project.ducts.values())
        low = max(max(d.y1, d.y2) for d in project.ducts.values())
        page.keyboard.press("l")
        for corner in ((left, low - 10), (left, placing.y - 20), (500, placing.y - 20)):
            self.on_plan(page, *corner)
        self.done(page, lambda: page.keyboard.press("Enter"))
        for corner in ((left, placing.y - 20), (left, placing.y + 90), (500, placing.y + 90)):
            self.on_plan(page, *corner)
        self.done(page, lambda: page.keyboard.press("Enter"))
        page.keyboard.press("Escape")

    def moved(self, page: Page, device: str, key: str) -> None:
        """A transformer moved: only what is led through it is cut to another length."""
        before = self.lengths()
        placing = placing_of(self.project(), device)
        assert placing is not None
        page.locator(f"[data-id='{placing.id}']").click()
        field = page.get_by_label("From the left, mm")
        field.fill(f"{placing.x - 40:g}")
        self.done(page, lambda: field.press("Enter"))
        after = self.lengths()
        self.assertEqual({k for k in before if before[k] != after[k]}, {key})
        page.keyboard.press("Control+z")
        expect(field).to_have_value(f"{placing.x:g}")

    def kept_apart(self, page: Page) -> None:
        """Power and control wires together are a snag; a duct that is for power alone keeps the others out."""
        apart = page.get_by_role("region", name="Kept apart")
        self.done(page, lambda: apart.get_by_role("button", name="power").click())
        expect(apart.get_by_role("button", name="power")).to_have_attribute("aria-pressed", "true")
        self.done(page, lambda: apart.get_by_role("button", name="control-dc").click())
        codes = [s.code for s in project_snags(self.project())]
        self.assertIn("kept-apart", codes)
        project = self.project()
        level = [d for d in project.ducts.values() if d.y1 == d.y2]
        duct = min(level, key=lambda d: d.y1)
        page.locator(f"[data-id='{duct.id}']").click()
        use = page.get_by_role("region", name="For which wires")
        self.done(page, lambda: use.get_by_role("button", name="power").click())
        for route in routes(self.project()).values():
            wire_type = route.conductor.wire_type(self.project())
            if wire_type is not None and wire_type.category == "control-dc":
                self.assertNotIn(duct.id, [s[0] for s in route.stretches])

    def api(self, rest: str) -> str:
        return f"{self.live_server_url}/api/projects/{PANEL}/{rest}"

    def papers(self, page: Page) -> None:
        """Plate, door and holes as files, the panel in space, cutting plan and nameplates as reports."""
        (enclosure,) = self.project().enclosures
        for file, begins in (
            ("plate.pdf", b"%PDF-"),
            ("door.dxf", b"  0\nSECTION"),
            ("space.gltf", b'{"asset"'),
            ("plate.svg", b"<svg"),
        ):
            answer = page.request.get(self.api(f"layouts/{enclosure}/{file}"))
            self.assertEqual((answer.status, answer.body()[: len(begins)]), (200, begins), file)
        for report in ("cutting", "holes", "nameplates", "weights"):
            self.assertEqual(page.request.get(self.api(f"reports/{report}/csv")).status, 200)
        page.get_by_role("button", name="Space", exact=True).click()
        expect(page.get_by_test_id("space").or_(page.get_by_text("shows no pictures in space"))).to_be_visible()


def full_tag_at(project: Project, key: str) -> str:
    """Return the tags of both ends of a conductor."""
    c = routes(project)[key].conductor
    devices = (project.devices.get(project.symbols[pin[0]].device_id) for pin in (c.start, c.end))
    return " ".join(full_tag(project, d) for d in devices if d is not None)
