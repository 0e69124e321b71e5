"""From two drawn sheets to wires cut and one zip, without leaving the application."""

from __future__ import annotations

import io
import json
import threading
import zipfile
from collections.abc import Callable
from dataclasses import replace
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.test import override_settings
from playwright.sync_api import Locator, Page, expect

from e2e.base import SPACE_FLAGS, Story
from jolly_core.edits import compute, parse_edit
from jolly_core.making import cut_list, dossiers
from jolly_core.model import Project
from jolly_core.tagging import full_tag
from jolly_core.terminals import strips
from jolly_server.projects.services import create_project
from jolly_server.projects.store import load_rows
from jolly_server.standins.wire_machine import WireMachine, serve

CHAIN = "chain"
MARGIN_MM = 30
POINTS = """Tag,Text,Type,Connected to
B1,Hatch closed,DI,limit switch
B2,Hopper low,digital input,limit switch
B3,Chain slack,pushing,limit switch
B4,Outlet open,DI,limit switch
"""


def two_sheets() -> Project:
    """Return the demo as it was before anything was built from it: sheets 10 and 30 and nothing else."""
    project = load_rows("kiln-2")

    def do(kind: str, **values: Any) -> None:
        project.apply(compute(project, parse_edit({"kind": kind, **values})).changes)

    for sheet in [s for s in project.sheets.values() if s.number not in ("10", "30")]:
        do("delete-sheet", sheet_id=sheet.id)
    do("remove-from-layout", ids=list(project.enclosures))
    for harness in list(project.harnesses):
        do("remove-harness", harness_id=harness)
    do("delete-points", ids=list(project.io_points))
    for card in list(project.cards.values()):
        do("delete-card", device_id=card.device_id)
    do("delete-selection", ids=list(project.bands))
    for item in [i for i in project.strip_items.values() if i.kind != "terminal"]:
        do("remove-strip-items", strip_id=item.strip_id, keys=[item.id])
    for strip in [s for s in strips(project) if not project.units_of(s.id)]:
        do("remove-strip", strip_id=strip.id)
    return project


class ChainStory(Story):
    """The whole job in one go."""

    flags = SPACE_FLAGS

    def setUp(self) -> None:
        super().setUp()
        self.machine = WireMachine()
        server = serve(self.machine, 0)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        there = override_settings(
            JOLLY=replace(settings.JOLLY, machine=f"http://127.0.0.1:{server.server_port}", demo=True)
        )
        there.enable()
        self.addCleanup(there.disable)
        self.sign_in(self.page)
        anna = get_user_model().objects.get(username="anna")
        create_project(anna, two_sheets(), CHAIN)

    def chain(self) -> Project:
        return load_rows(CHAIN)

    def bench(self, name: str) -> None:
        """Go to a bench by the rail."""
        self.page.get_by_role("navigation", name="Benches").get_by_role("link", name=name).click()

    def done(self, act: Callable[[], object]) -> None:
        """Do something and wait until the project has a later revision."""
        before = self.revision(CHAIN)
        with self.page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            act()
        self.assertGreater(self.revision(CHAIN), before)

    def choose_part(self, label: str, typed: str, number: str) -> None:
        """Choose a library part in a field that offers those of its class."""
        field = self.page.get_by_role("combobox", name=label)
        field.fill(typed)
        self.page.get_by_role("option").filter(has_text=number).first.click()

    def plan_pixel(self, x: float, y: float) -> tuple[float, float]:
        """Return where a point of the plate is on the screen."""
        svg = self.page.get_by_test_id("plan").get_by_test_id("sheet")
        expect(svg).not_to_have_attribute("data-view", "0,0,3")
        vx, vy, scale = (float(v) for v in (svg.get_attribute("data-view") or "").split(","))
        box = svg.bounding_box() or {"x": 0.0, "y": 0.0}
        return box["x"] + (x + MARGIN_MM - vx) * scale, box["y"] + (y + MARGIN_MM - vy) * scale

    def drag_on_plan(self, start: tuple[float, float], end: tuple[float, float]) -> None:
        self.page.mouse.move(*self.plan_pixel(*start))
        self.page.mouse.down()
        self.page.mouse.move(*self.plan_pixel((start[0] + end[0]) / 2, (start[1] + end[1]) / 2))
        self.page.mouse.move(*self.plan_pixel(*end))
        self.page.mouse.up()

    def test_from_the_sheets_to_the_zip(self) -> None:
        page = self.page
        self.the_band_on_the_sheet(page)
        self.the_strip(page)
        self.the_cable(page)
        self.the_points(page)
        self.the_channel_on_a_sheet(page)
        self.the_cabinet(page)
        self.the_harness(page)
        self.the_machine(page)
        self.the_zip(page)

    def the_band_on_the_sheet(self, page: Page) -> None:
        sheet = next(s for s in self.chain().sheets.values() if s.number == "10")
        page.goto(f"{self.live_server_url}/p/{CHAIN}/draw/{sheet.id}")
        expect(self.symbols(page).first).to_be_visible()
        page.keyboard.press("Shift+C")
        self.click(page, 27, 76)
        page.mouse.move(*self.pixel(page, 45, 76))
        self.done(lambda: self.click(page, 45, 76))
        band = page.locator("[data-kind=band]")
        expect(band).to_contain_text("-WD1")
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("-WD1")

    def the_strip(self, page: Page) -> None:
        self.bench("Terminals")
        row = page.locator("[data-row=u5]")
        expect(row).to_contain_text("=K2+KF2-MA1:U1")
        expect(row).to_contain_text("=K2+KP2-FQ1:2")
        page.locator("[data-row=u8] [data-key=number]").dblclick()
        page.get_by_role("grid").get_by_label("No.").fill("PE")
        self.done(lambda: page.keyboard.press("Enter"))
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Put in terminals…").click()
        form = page.get_by_role("form", name="Put in on")
        form.get_by_label("What").click()
        page.get_by_role("option", name="end bracket").click()
        self.choose_part("Part", "QL-E", "QL-EB")
        self.done(lambda: form.get_by_role("button", name="Put in").click())
        expect(page.get_by_role("grid")).to_contain_text("end bracket")
        grip = page.locator("[data-row=u8] [draggable=true]")
        self.done(lambda: grip.drag_to(page.locator("[data-row=u7]")))
        chain = self.chain()
        (strip,) = [d for d in chain.devices.values() if full_tag(chain, d).endswith("XD1")]
        order = sorted((i.order, i.unit) for i in chain.strip_items.values() if i.strip_id == strip.id)
        self.assertEqual([unit for _, unit in order], [1, 2, 3, 4, 5, 6, 8, 7, 0])
        page.keyboard.press("Escape")
        page.get_by_role("link", name="Terminal plan as a sheet").click()
        expect(page.locator("svg[data-testid=sheet]")).to_contain_text("=K2+KF2-MA1:PE")

    def the_cable(self, page: Page) -> None:
        self.bench("Cables")
        self.done(lambda: self.choose_part("Cable part", "4G2.5", "QL-C4G2.5"))
        expect(self.core(page, "BN")).to_contain_text("MA1:U1")
        length = page.get_by_label("Length, m")
        length.fill("35")
        self.done(lambda: length.press("Enter"))
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("3.18 V = 0.79 %")
        grip = self.core(page, "BN").locator("[draggable=true]")
        self.done(lambda: grip.drag_to(self.core(page, "GY")))
        expect(self.core(page, "BN")).to_contain_text("MA1:W1")
        expect(self.core(page, "GY")).to_contain_text("MA1:U1")
        page.keyboard.press("Control+z")
        expect(self.core(page, "BN")).to_contain_text("MA1:U1")

    def the_points(self, page: Page) -> None:
        self.bench("I/O")
        page.get_by_role("button", name="Bring in…").click()
        page.get_by_test_id("point-file").set_input_files(
            {"name": "points.csv", "mimeType": "text/csv", "buffer": POINTS.encode()}
        )
        faulty = page.get_by_role("grid", name="Rows of the file").locator("[data-row]").filter(has_text="faulty")
        expect(faulty).to_contain_text("Type: “pushing” is no type. Use DI, DO, AI or AO.")
        self.assertEqual(self.chain().io_points, {})
        self.done(lambda: page.get_by_role("button", name="Take in 3").click())
        page.get_by_role("button", name="Add a card…").click()
        self.choose_part("Card part", "DI8", "HR-DI8")
        self.done(page.get_by_role("button", name="Add", exact=True).last.click)
        waiting = page.get_by_role("listbox", name="Points to allocate").get_by_role("option")
        for n, keys in enumerate(([], ["ControlOrMeta"], ["ControlOrMeta"])):
            waiting.nth(n).click(modifiers=keys)  # type: ignore[arg-type]  # names of keys
        self.done(lambda: waiting.first.drag_to(page.get_by_role("option", name="I0.2 spare")))
        expect(page.get_by_role("option", name="I0.4 B4")).to_be_visible()
        expect(page.get_by_role("region", name="Demand DI")).to_contain_text("8 of 4")

    def the_channel_on_a_sheet(self, page: Page) -> None:
        sheet = next(s for s in self.chain().sheets.values() if s.number == "30")
        page.goto(f"{self.live_server_url}/p/{CHAIN}/draw/{sheet.id}")
        expect(self.symbols(page).first).to_be_visible()
        for y in (61, 64):
            self.click(page, 24, y)
            page.keyboard.press("Escape")
            page.keyboard.type("input")
            option = page.get_by_test_id("place-box").get_by_role("option").filter(has_text="PLC input of -KF1").first
            self.done(lambda option=option: option.click())  # type: ignore[misc]  # bound at once
        expect(self.symbols(page).filter(has_text="I0.1")).to_contain_text("spare")
        self.bench("I/O")
        page.get_by_role("button", name="Allocate").click()
        # A channel dragged onto another one: they exchange what they serve.
        served = page.get_by_role("option", name="I0.2 B1")
        self.done(lambda: served.drag_to(page.get_by_role("option", name="I0.0 spare")))
        page.goto(f"{self.live_server_url}/p/{CHAIN}/draw/{sheet.id}")
        expect(self.symbols(page).filter(has_text="I0.0")).to_contain_text("B1 Hatch closed")

    def the_cabinet(self, page: Page) -> None:
        self.bench("Cabinet")
        self.choose_part("Enclosure part", "E6825", "BW-E6825")
        self.done(lambda: page.get_by_role("button", name="Add the enclosure").click())
        page.get_by_role("button", name="Rail or duct").click()
        self.choose_part("Rail", "R35", "BW-R35")
        for y in (200, 470):
            self.done(lambda y=y: self.drag_on_plan((50, y), (500, y)))  # type: ignore[misc]  # bound at once
        page.get_by_role("button", name="Rail or duct").click()
        self.choose_part("Duct", "D40", "BW-D4060")
        for ends in (((40, 70), (510, 70)), ((40, 330), (510, 330)), ((530, 50), (530, 350)), ((20, 50), (20, 350))):
            self.done(lambda ends=ends: self.drag_on_plan(*ends))  # type: ignore[misc]  # bound at once
        page.keyboard.press("Escape")
        tray = page.get_by_role("region", name="Tray")
        tray.get_by_test_id("tray-=K2+KP2-XD1").click()
        self.done(lambda: page.mouse.click(*self.plan_pixel(100, 472)))
        # The tray is asked for anew after each edit: what is placed must be out of it before the rest is chosen.
        expect(tray.get_by_test_id("tray-=K2+KP2-XD1")).to_have_count(0)
        tray.get_by_role("button", name="Choose all").click()
        self.done(lambda: page.mouse.click(*self.plan_pixel(60, 203)))
        expect(tray).to_contain_text("everything for the plate is placed")
        page.get_by_role("button", name="Door", exact=True).click()
        tray.get_by_role("button", name="Choose all").click()
        self.done(lambda: page.mouse.click(*self.plan_pixel(120, 200)))
        self.every_wire_is_routed(page)
        page.get_by_role("button", name="Plate", exact=True).click()
        routes = page.get_by_role("table", name="Routes")
        routes.get_by_role("row").filter(has_text="FQ1:2").click()
        expect(page.get_by_test_id("route")).to_be_attached()
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("mm")
        self.moved_longer(page)
        self.chosen_in_space(page)

    def every_wire_is_routed(self, page: Page) -> None:
        panel = sum(1 for d in dossiers(self.chain()).values() if d.runs == "panel")
        expect(page.get_by_test_id("routed")).to_contain_text(f"{panel} of {panel} panel wires routed")

    def moved_longer(self, page: Page) -> None:
        """Drag a device along its rail; its wires have another length at once, and undo brings the old one back."""
        before = {w.key: w.length_mm for w in cut_list(self.chain())}
        chain = self.chain()
        (supply,) = [p for p in chain.placings.values() if chain.devices[p.device_id].letters == "TB"]
        middle = (supply.x + 20, 200.0)
        self.done(lambda: self.drag_on_plan(middle, (middle[0] + 150, 200)))
        after = {w.key: w.length_mm for w in cut_list(self.chain())}
        self.assertTrue(any(after[k] != before[k] for k in before))
        page.get_by_role("button", name="Undo move").click()
        expect(page.get_by_role("button", name="Redo move")).to_be_enabled()
        self.assertEqual({w.key: w.length_mm for w in cut_list(self.chain())}, before)

    def chosen_in_space(self, page: Page) -> None:
        """A click on a box in space chooses the same device as on the plan."""
        page.get_by_role("button", name="Space", exact=True).click()
        space = page.get_by_test_id("space")
        canvas = space.locator("canvas")
        expect(canvas).to_be_visible()
        placings = self.chain().placings
        chosen = ""
        # Where a box lies on the screen is the camera's business: look along a line across the middle.
        for step in range(30, 75, 3):
            box = canvas.bounding_box() or {"x": 0, "y": 0, "width": 0, "height": 0}
            page.mouse.click(box["x"] + box["width"] * step / 100, box["y"] + box["height"] * 0.33)
            page.evaluate("() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))")
            chosen = space.get_attribute("data-selected") or ""
            if chosen in placings:
                break
        self.assertIn(chosen, placings)
        tag = full_tag(self.chain(), self.chain().devices[placings[chosen].device_id])
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text(tag)
        page.get_by_role("button", name="Plate" if placings[chosen].surface == "plate" else "Door", exact=True).click()
        expect(self.placed(page, chosen)).to_have_attribute("data-look", "selected")

    @staticmethod
    def placed(page: Page, id: str) -> Locator:
        return page.get_by_test_id("plan").locator(f"[data-id='{id}']")

    def the_harness(self, page: Page) -> None:
        sheet = next(s for s in self.chain().sheets.values() if s.number == "30")
        page.goto(f"{self.live_server_url}/p/{CHAIN}/draw/{sheet.id}")
        expect(self.symbols(page).first).to_be_visible()
        for y in (58, 66):
            self.click(page, 60, y)
            page.keyboard.press("Escape")
            page.keyboard.type("plug")
            option = page.get_by_test_id("place-box").get_by_role("option").first
            self.done(lambda option=option: option.click())  # type: ignore[misc]  # bound at once
        page.keyboard.press("w")
        for at in ((60, 58), (54, 58), (54, 66)):
            page.mouse.move(*self.pixel(page, *at))
            self.click(page, *at)
        page.mouse.move(*self.pixel(page, 60, 66))
        self.done(lambda: self.click(page, 60, 66))
        self.bench("Harness")
        page.get_by_label("New harness").fill("WH-1")
        self.done(lambda: page.get_by_role("button", name="Add", exact=True).click())
        for n in range(2):
            page.get_by_role("combobox", name="Connector").click()
            page.get_by_role("option").first.click()
            if page.get_by_label("Length, mm").count():
                page.get_by_label("Length, mm").fill("640")
            self.done(lambda: page.get_by_role("button", name="Add to WH-1").click())
            expect(page.get_by_role("tab", name=f"Connectors {n + 1}")).to_be_visible()
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("680 mm")
        self.assertEqual([s.length_mm for s in self.chain().segments.values()], [640])

    def the_machine(self, page: Page) -> None:
        self.bench("Make")
        count = len(cut_list(self.chain()))
        counts = page.get_by_test_id("counts")
        expect(counts).to_contain_text(f"{count} wires: 0 done, 0 waiting, 0 refused, {count} to give")
        expect(page.get_by_test_id("machine")).to_contain_text("Simulated wire machine")
        page.get_by_role("button", name=f"Give {count} to the machine").click()
        expect(counts).to_contain_text(f"{count} waiting")
        for _ in range(5):
            self.machine.cut_next()
        expect(counts).to_contain_text("5 done")
        while self.machine.cut_next():
            pass
        expect(counts).to_contain_text(f"{count} done, 0 waiting")

    def the_zip(self, page: Page) -> None:
        self.bench("Issue")
        page.get_by_role("button", name="Issue this pack").click()
        expect(page.get_by_role("link", name="Take the ZIP")).to_be_visible()
        with page.expect_download() as waiting:
            page.get_by_role("link", name="Take the ZIP").click()
        archive = zipfile.ZipFile(io.BytesIO(waiting.value.path().read_bytes()))
        names = set(archive.namelist())
        for wanted in ("00-contents.pdf", "drawing.pdf", "terminal-plan.pdf", "core-plan.pdf", "plate-UC1.dxf"):
            self.assertIn(wanted, names)
        wires = json.loads(archive.read("cut-list.json"))["wires"]
        self.assertEqual(
            {w["key"]: w["length_mm"] for w in wires}, {w.key: w.length_mm for w in cut_list(self.chain())}
        )
        listed = archive.read("wire-list.csv").decode("utf-8-sig").strip().splitlines()
        self.assertEqual(len(listed) - 1, len(dossiers(self.chain())))
