"""The Harness bench: a harness from nothing by its parts and a pasted table; paths, coverings and clips of WH-T1."""

from __future__ import annotations

import json
import re
import threading
from dataclasses import replace
from math import hypot
from typing import Any

from django.conf import settings
from django.test import override_settings
from playwright.sync_api import Locator, Page, expect

from jolly_core.harness import covered, span_of, wires_of
from jolly_core.model import Segment
from jolly_server.standins.space_model import SpaceModel, serve

from .base import SPACE_FLAGS
from .test_benches import BenchStory

PLUGS = (("TW-H12S", "XD11"), ("TW-H6S", "XD12"), *(("TW-H2S", f"XD{n}") for n in (13, 14, 15)))
FANS = (
    ("Signal", "Colour", "mm2", "From", "To"),
    *(("V1+", "RD", "0.75", "-XD11:1", "-XD13:1"), ("V1-", "BK", "0.75", "-XD11:2", "-XD13:2")),
    *(("V2+", "RD", "0.75", "-XD11:3", "-XD14:1"), ("V2-", "BK", "0.75", "-XD11:4", "-XD14:2")),
    *(("V3+", "RD", "0.75", "-XD11:5", "-XD15:1"), ("V3-", "BK", "0.75", "-XD11:6", "-XD15:2")),
    *(("DATA", "WH", "0.5", "-XD11:7", "-XD12:1"), ("CLOCK", "GY", "0.5", "-XD11:8", "-XD12:9")),
)


class HarnessStory(BenchStory):
    flags = SPACE_FLAGS

    def segment_to(self, tag: str) -> Segment:
        """Return the segment that ends at a connector of the demo's harness."""
        project = self.project()
        end = next(n.id for n in project.nodes.values() if n.device_id == self.by_tag(project, tag))
        return next(s for s in project.segments.values() if end in (s.a_id, s.b_id))

    def board(self) -> Page:
        page = self.open("harness")
        expect(page.get_by_test_id("sheet")).not_to_have_attribute("data-view", "0,0,3")
        return page

    def choose(self, page: Page, segment: Segment) -> Locator:
        """Point at a segment on the board, and return its part of the inspector."""
        page.mouse.click(*self.middle(page.locator(f"[data-id='{segment.id}'] polyline").first))
        return page.get_by_role("region", name="Segment")

    def saved(self, page: Page, field: Locator, value: str) -> None:
        field.fill(value)
        self.done(page, lambda: field.press("Enter"))


class OfTheDemo(HarnessStory):
    def test_an_end_dragged_makes_the_segment_and_its_wires_longer(self) -> None:
        page = self.board()
        segment = self.segment_to("=K2+KT2-XD2")
        self.send(page, kind="set-segment", segment_id=segment.id, length_mm=350)
        page.reload()
        expect(page.get_by_test_id("sheet")).not_to_have_attribute("data-view", "0,0,3")
        project = self.project()
        end = next(n for n in project.nodes.values() if n.device_id == self.by_tag(project, "=K2+KT2-XD2"))
        x, y = self.middle(page.locator(f"[data-id='{end.id}']"))
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x + 15, y)
        page.mouse.move(x + 40, y)
        self.done(page, page.mouse.up)
        longer = self.project().segments[segment.id].length_mm
        self.assertGreater(longer, 350)
        expect(page.get_by_role("grid", name="Wires")).to_contain_text(f"{longer + 550 + 40:g} mm")

    def test_a_path_in_space_gives_the_length_and_extra_is_added(self) -> None:
        page = self.board()
        segment = self.segment_to("=K2+KT2-XD2")
        panel = self.choose(page, segment)
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("6 wires, bundle ⌀ 6 mm, packed")
        extra = panel.get_by_label("Extra, mm")
        extra.fill("long")
        extra.press("Enter")
        expect(
            page.get_by_text("“long” is no length. Type a number, with a unit unless it is mm.").first
        ).to_be_visible()
        self.saved(page, extra, "15")
        expect(page.get_by_test_id("sheet")).to_contain_text("350 + 15")
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("955 mm")
        panel.get_by_role("combobox", name="Length by").click()
        self.done(page, lambda: page.get_by_role("option", name="curve").click())
        corners = panel.get_by_label("Control points")
        self.saved(page, corners, "600 0 0 | 900 -80 0")
        span = span_of(self.project(), segment.id)
        self.assertGreater(span.base_mm, 350)
        expect(page.get_by_test_id("sheet")).to_contain_text(f"{span.base_mm:g} + 15")
        # The other way in one act, and the board is as before.
        panel.get_by_role("combobox", name="Length by").click()
        self.done(page, lambda: page.get_by_role("option", name="straight line").click())
        expect(page.get_by_test_id("sheet")).to_contain_text("350 + 15")
        page.get_by_role("button", name="Space", exact=True).click()
        expect(page.get_by_test_id("harness-space").locator("canvas")).to_be_visible()

    def test_a_clip_is_put_in_and_a_covering_laid_over_and_both_are_in_the_lists(self) -> None:
        page = self.board()
        segment = self.segment_to("=K2+KT2-XD1")
        self.choose(page, segment)
        into = page.get_by_role("region", name="Put into it")
        into.get_by_role("combobox", name="What").click()
        page.get_by_role("option", name="clip", exact=True).click()
        into.get_by_label("Name").fill("C2")
        into.get_by_role("combobox", name="Clip").fill("TW-CL8")
        page.get_by_role("option").filter(has_text="TW-CL8").click()
        into.get_by_label(re.compile("At, mm")).fill("300")
        self.done(page, lambda: into.get_by_role("button", name="Put into the segment").click())
        expect(page.get_by_test_id("sheet")).to_contain_text("clip C2")
        self.choose(page, self.project().segments[segment.id])
        cover = page.get_by_role("region", name="Cover it")
        cover.get_by_role("combobox", name="Covering").fill("TW-SV6")
        page.get_by_role("option").filter(has_text="TW-SV6").click()
        self.done(page, lambda: cover.get_by_role("button", name="Cover the segment").click())
        page.get_by_role("tab", name="Coverings 3").click()
        expect(page.get_by_role("table", name="Coverings")).to_contain_text("TW-SV6")
        found = covered(self.project(), next(iter(self.project().harnesses)))
        self.assertIn(("TW-SV6", 300.0), [(c.part.number if c.part else "", c.used_mm) for c in found])


class InSpace(HarnessStory):
    def test_to_a_space_model_and_back_the_difference_is_shown_first(self) -> None:
        page = self.board()
        with page.expect_download() as waiting:
            page.get_by_role("link", name="Give out").click()
        sent = json.loads(waiting.value.path().read_bytes())
        named = [c["designation"].rsplit("-", 1)[-1] for c in sent["connectors"]]
        self.assertEqual(named, ["XD1", "XD2", "XD3", "S1", "XD5"])
        moved = next(n for n in sent["nodes"] if n["name"].endswith("-XD2"))
        moved["at"] = [912.4, 0, 0]
        sent["nodes"].append({"name": "-XD8", "sort": "connector", "at": [0, 50, 0]})
        answer = {"name": "WH-T1.json", "mimeType": "application/json", "buffer": json.dumps(sent).encode()}
        page.get_by_label("File of a space model").set_input_files([{**answer, "buffer": b"[1]"}])
        expect(page.get_by_text("WH-T1.json is no file of a space model").first).to_be_visible()
        page.get_by_label("File of a space model").set_input_files([answer])
        form = page.get_by_role("form", name="WH-T1 as in the space model")
        expect(form.get_by_role("table", name="Difference")).to_contain_text("350 mm362.4 mm")
        expect(form).to_contain_text("-XD8 is in the space model and not in WH-T1.")
        segment = self.segment_to("=K2+KT2-XD2")
        self.assertEqual(span_of(self.project(), segment.id).length_mm, 350, "nothing is taken in yet")
        self.done(page, form.get_by_role("button", name="Take in").click)
        expect(page.get_by_test_id("sheet")).to_contain_text("362.4")
        # What the board is drawn at is what the model in space says, to a tenth of a millimetre.
        item = next(i for i in self.scene(page)["items"] if i["id"] == segment.id)
        (ax, ay), (bx, by) = item["facts"]["from"], item["facts"]["to"]
        self.assertAlmostEqual(hypot(ax - bx, ay - by), 362.4, delta=0.1)
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("955 mm")

    def test_the_simulated_space_model_is_asked_and_its_clip_and_paths_taken_in(self) -> None:
        server = serve(SpaceModel(), 0)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        found = override_settings(JOLLY=replace(settings.JOLLY, space=f"http://127.0.0.1:{server.server_port}"))
        found.enable()
        self.addCleanup(found.disable)
        page = self.board()
        page.get_by_role("button", name="Ask it…").click()
        form = page.get_by_role("form", name="WH-T1 as in the space model")
        expect(form.get_by_role("table", name="Difference")).to_contain_text("362.02 mm")
        expect(form).to_contain_text("-XD4 is in the space model and not in WH-T1.")
        self.done(page, form.get_by_role("button", name="Take in").click)
        expect(page.get_by_test_id("sheet")).to_contain_text("362.02")
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("955 mm")
        page.keyboard.press("Control+z")
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("940 mm")

    def scene(self, page: Page) -> dict[str, Any]:
        address = f"{self.live_server_url}/api/projects/kiln-2/harness"
        found: dict[str, Any] = page.request.get(address).json()["harness"]["scene"]
        return found


class FromNothing(HarnessStory):
    def test_boards_and_fans_by_their_parts_and_a_pasted_table(self) -> None:
        page = self.open("harness")
        page.get_by_label("New harness").fill("WH-F")
        self.done(page, page.get_by_role("button", name="Add", exact=True).first.click)
        expect(page.get_by_text("WH-F has no segments yet.")).to_be_visible()
        for part, tag in (
            ("TW-H12S", "XD11"),
            ("TW-H6S", "XD12"),
            ("TW-H2S", "XD13"),
            ("TW-H2S", "XD14"),
            ("TW-H2S", "XD15"),
        ):
            self.connector(page, part, tag)
        table = "\n".join("\t".join(row) for row in FANS)
        here = page.get_by_role("button", name="Paste rows here")
        here.focus()
        self.paste(page, table)
        form = page.get_by_role("form", name="Wires of WH-F from a table")
        expect(form.get_by_role("status")).to_contain_text("Row 8: -XD12 has no cavity 9: it has 1 to 6.")
        expect(form.get_by_role("button", name="Draw 8 wires")).to_be_disabled()
        form.get_by_label("Rows: signal").fill(table.replace("XD12:9", "XD12:2"))
        self.done(page, lambda: form.get_by_role("button", name="Draw 8 wires").click())
        expect(page.get_by_role("tab", name="Wires 8")).to_be_visible()
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("CLOCK")
        expect(page.get_by_test_id("sheet")).to_contain_text("-XD15")
        self.the_same_wires_are_drawn(page)

    def connector(self, page: Page, part: str, tag: str) -> None:
        page.get_by_role("combobox", name="Connector", exact=True).click()
        page.get_by_role("option", name="a new one, by its part").click()
        housing = page.get_by_role("combobox", name="Housing")
        if housing.input_value() != part:
            housing.fill(part)
            page.get_by_role("option").filter(has_text=part).first.click()
        page.get_by_label("Tag (empty").fill(tag)
        self.done(page, lambda: page.get_by_role("button", name="Add to WH-F").click())
        expect(page.get_by_role("button", name=re.compile(rf"^-{tag}\b"))).to_be_visible()

    def the_same_wires_are_drawn(self, page: Page) -> None:
        """The sheet is a step away; a number changed there is the signal of the table; undone is gone everywhere."""
        page.get_by_role("button", name="Schematic", exact=True).click()
        page.get_by_role("link", name="Harness WH-F").click()
        expect(self.symbols(page)).to_have_count(16)
        expect(page.locator("svg[data-testid=sheet]")).to_contain_text("V2-")
        project = self.project()
        harness = next(h.id for h in project.harnesses.values() if h.code == "WH-F")
        wire = next(w.conductor.wire_id for w in wires_of(project, harness) if w.conductor.number == "DATA")
        self.send(page, kind="fix-wire-number", wire_id=wire, number="BUS")
        page.go_back()
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("BUS")
        page.keyboard.press("Control+z")
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("DATA")
        page.keyboard.press("Control+z")
        expect(page.get_by_role("tab", name="Wires 0")).to_be_visible()
