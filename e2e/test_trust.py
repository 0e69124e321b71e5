"""What a practitioner must be able to trust: colours of cores, sides of strips, lists that name what they lack."""

from __future__ import annotations

import re
import threading
from dataclasses import replace

from django.conf import settings
from django.test import override_settings
from playwright.sync_api import expect

from jolly_core.cables import cable_cores
from jolly_core.making import cut_list
from jolly_core.reports import run_report
from jolly_core.tagging import full_tag
from jolly_server.standins.wire_machine import WireMachine, serve

from .test_benches import BenchStory

PAGE = (
    "Manufacturer: Brindlework\nArticle number: BW-C99\nDescription: Contactor\nPoles: 3\n"
    "Auxiliary contacts: 1 NO + 1 NC\nCoil voltage: 24VDC\nWidth: 2 3/4 in\nWeight: 11 oz\nPrice: 1.248,90 EUR\n"
    "Rated control supply voltage: 24...240 V\nAC3: 9 A"
)


class Trust(BenchStory):
    def test_green_yellow_stays_with_the_protective_conductor(self) -> None:
        """A four-core motor cable: the exchange that would put a phase on green-yellow is refused, others are kept."""
        project = self.project()
        cable = self.by_tag(project, "=K2+KP2-WD1")
        page = self.open(f"cables?cable={cable}")
        earth = self.core(page, "GNYE")
        expect(earth).to_contain_text("MA1:PE")
        earth.locator("[data-key=name]").click()
        page.keyboard.press("Alt+ArrowUp")
        expect(page.get_by_text(re.compile("green-yellow|GNYE|protective", re.IGNORECASE)).first).to_be_visible()
        names = {r.name: r.conductor for r in cable_cores(self.project(), cable)}
        conductor = names["GNYE"]
        assert conductor is not None
        wire_type = conductor.wire_type(self.project())
        self.assertEqual(wire_type.category if wire_type else "", "pe")
        self.core(page, "BK").locator("[data-key=name]").click()
        self.done(page, lambda: page.keyboard.press("Alt+ArrowUp"))
        expect(earth).to_contain_text("MA1:PE")

    def test_a_device_in_another_panel_is_on_the_field_side(self) -> None:
        page = self.open("terminals")
        row = page.locator("[data-row=u1]")
        panel_side = row.locator("[data-key=panel]")
        expect(panel_side).to_contain_text("=K2+KP2-FC1:1")
        self.send(page, kind="add-location", code="P9", text="Second panel", side="panel")
        other = next(loc.id for loc in self.project().locations.values() if loc.code == "P9")
        breaker = self.by_tag(self.project(), "=K2+KP2-FC1")
        function = self.project().devices[breaker].function_id
        self.send(page, kind="set-place", device_id=breaker, function_id=function, location_id=other)
        expect(row.locator("[data-key=field]")).to_contain_text("+P9-FC1:1")
        expect(panel_side).not_to_contain_text("FC1")
        page.goto(f"{self.live_server_url}/p/kiln-2/snags")
        expect(page.get_by_role("grid")).to_contain_text(re.compile(r"\+P9-FC1.*(terminal|cable)"))

    def test_what_is_not_placed_is_named_in_snags_and_at_the_end_of_the_cut_list(self) -> None:
        page = self.open("cabinet")
        project = self.project()
        relay = self.by_tag(project, "=K2+KP2-KF3")
        placing = next(p.id for p in project.placings.values() if p.device_id == relay)
        whole = len(cut_list(project))
        page.get_by_test_id("plan").locator(f"[data-id='{placing}']").click()
        self.done(page, lambda: page.keyboard.press("Delete"))
        badge = page.get_by_test_id("snag-count")
        expect(badge).to_have_text(re.compile("[1-9]"))
        page.goto(f"{self.live_server_url}/p/kiln-2/snags")
        grid = page.get_by_role("grid")
        expect(grid).to_contain_text("=K2+KP2-KF3")
        expect(grid).to_contain_text(re.compile(r"\d+ conductors have no length and are not cut"))
        # In a narrow window, too, a message is read to its end.
        page.set_viewport_size({"width": 760, "height": 700})
        message = grid.locator("[data-field='message'][role='gridcell']", has_text="have no length").first
        cut = message.evaluate("cell => cell.scrollWidth > cell.clientWidth || cell.scrollHeight > cell.clientHeight")
        self.assertFalse(cut, "the message is cut")
        page.set_viewport_size({"width": 1280, "height": 800})
        page.goto(f"{self.live_server_url}/p/kiln-2/make")
        missing = whole - len(cut_list(self.project()))
        self.assertGreater(missing, 0)
        told = page.get_by_role("status").filter(has_text="no length yet")
        expect(told).to_contain_text(f"{missing} wires have no length yet")
        expect(told).to_contain_text("is not placed yet")

    def test_a_change_withdraws_what_is_not_cut_and_says_what_was_cut_in_vain(self) -> None:
        machine = WireMachine()
        server = serve(machine, 0)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        address = f"http://127.0.0.1:{server.server_port}"
        there = override_settings(JOLLY=replace(settings.JOLLY, machine=address, demo=True))
        there.enable()
        self.addCleanup(there.disable)
        page = self.open("make")
        before = {w.key: w.length_mm for w in cut_list(self.project())}
        count = len(before)
        counts = page.get_by_test_id("counts")
        page.get_by_role("button", name=f"Give {count} to the machine").click()
        expect(counts).to_contain_text(f"{count} waiting")
        for _ in range(6):
            machine.cut_next()
        expect(counts).to_contain_text("6 done")
        self.send(page, kind="change-settings", end_allowance_mm=90)
        same = [w for w in cut_list(self.project()) if before[w.key] == w.length_mm]  # the harnesses keep their lengths
        self.assertEqual(len(same), 25)
        expect(counts).to_contain_text(f" {len(same)} waiting")
        expect(page.get_by_test_id("vain")).to_contain_text("cut in vain")
        while machine.cut_next():
            pass
        self.assertEqual(sum(machine.memory.cuts.values()), 6 + len(same), "nothing that was withdrawn is cut")

    def test_a_pasted_data_sheet_is_read_whole_and_what_is_left_over_is_listed(self) -> None:
        page = self.open("parts")
        page.get_by_role("button", name="New part").click()
        page.get_by_label("Text from a page or data sheet").fill(PAGE)
        page.get_by_role("button", name="Read the text").click()
        expect(page.get_by_text("Not understood: Rated control supply voltage: 24...240 V")).to_be_visible()
        for label, value in (("Width mm", "69.85"), ("Weight kg", "0.311845"), ("Price", "1248.9")):
            expect(page.get_by_label(re.compile(f"^{label.split()[0]}")).first).to_have_value(value)
        for pins in ("1 2", "3 4", "5 6", "13 14", "21 22"):
            expect(page.locator(f"input[value='{pins}']")).to_have_count(1)

    def test_the_badge_counts_the_project_and_copies_are_counted_before_they_are_put(self) -> None:
        page = self.page
        self.sign_in(page)
        badge = page.get_by_test_id("snag-count")
        coil = next(
            s for s in self.project().symbols.values() if s.definition == "coil" and full_tag_of(self, s.id) == "KF2"
        )
        self.send(page, kind="delete-selection", ids=[coil.id])
        other = next(s for s in self.project().sheets.values() if s.number == "53")
        self.assertNotEqual(coil.sheet_id, other.id)
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{other.id}")
        expect(page.get_by_role("tab", name="Snags 0")).to_be_visible()
        expect(badge).to_have_text(re.compile("[1-9]"))

    def test_a_fuse_terminal_is_ordered_as_one(self) -> None:
        """A fuse terminal on a strip of feed-through ones asks for a part of its kind, and the parts list counts it."""
        page = self.page
        self.sign_in(page)
        project = self.project()
        strip = self.by_tag(project, "=Q1+KP2-XD1")
        terminal = next(s for s in project.symbols.values() if s.device_id == strip)
        self.send(page, kind="swap-symbol", symbol_id=terminal.id, definition="terminal-fuse")
        page.goto(f"{self.live_server_url}/p/kiln-2/terminals?strip={strip}")
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("No part of their kind yet")
        page.get_by_role("combobox", name="Part of 1 fuse terminal").click()
        options = page.get_by_role("option")
        expect(options.first).to_be_visible()
        expect(options.filter(has_text="Feed-through")).to_have_count(0)
        self.done(page, lambda: options.filter(has_text="QL-K2-5F").click())
        expect(inspector).not_to_contain_text("No part of their kind yet")
        bought = {str(row[4]): row[1] for row in run_report(self.project(), "parts").rows}
        self.assertEqual(bought["QL-K2-5F"], 3, "two are spare on another strip")

    def test_two_enclosures_open_to_each_other_are_one_panel(self) -> None:
        page = self.open("cabinet")
        page.get_by_text("Kiln 2 control panel, right field").click()
        page.get_by_label("Open to the one on its left").click()
        self.done(page, lambda: page.get_by_role("option", name="=K2+KP2-UC1").click())
        opening = page.get_by_label("Opening below the upper edge, mm")
        opening.fill("wide")
        opening.press("Enter")
        refusal = page.get_by_text("“wide” is no length. Type a number, with a unit unless it is mm.")
        expect(refusal.first).to_be_visible()
        opening.fill("120")
        self.done(page, lambda: opening.press("Enter"))
        self.assertIn((True, 120.0), {(bool(e.left_id), e.opening_mm) for e in self.project().enclosures.values()})


def full_tag_of(story: Trust, symbol_id: str) -> str:
    project = story.project()
    device = project.devices.get(project.symbols[symbol_id].device_id)
    return full_tag(project, device).rpartition("-")[2] if device else ""
