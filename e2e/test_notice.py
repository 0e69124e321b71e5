"""Faults in control and safety circuits are told where they are made, and what nobody would notice is asked for."""

from __future__ import annotations

from dataclasses import replace
from unittest.mock import patch

from django.contrib.auth import get_user_model
from playwright.sync_api import Page, expect

from jolly_core.checks import all_snags
from jolly_core.planting import FAULTS
from jolly_core.testing.machines import Machine
from jolly_server.projects.services import create_project

from .base import Story

MACHINE = "mash-tun"


def reversing_with_safety() -> Machine:
    """Return the first drawn machine with a motor that runs both ways and a safety relay."""
    machines = (Machine(seed) for seed in range(60))
    return next(m for m in machines if "safety" in m.made and any(len(f.contactors) == 2 for f in m.feeders))


class Noticing(Story):
    def delete(self, page: Page, symbol_id: str) -> None:
        """Go to a symbol and delete it."""
        before = self.revision(MACHINE)
        sheet_id = self.project(MACHINE).symbols[symbol_id].sheet_id
        page.goto(f"{self.live_server_url}/p/{MACHINE}/draw/{sheet_id}?sel={symbol_id}")
        expect(page.locator("[data-look=selected]").first).to_be_visible()
        page.keyboard.press("Delete")
        self.accepted(page, before)

    def test_a_reversing_starter_without_interlock_and_a_channel_without_its_stop(self) -> None:
        page = self.page
        machine = reversing_with_safety()
        anna = get_user_model().objects.get(username="anna")
        create_project(anna, machine.bench.project, MACHINE)
        rung = next(r for r in machine.rungs if "contact-nc" in r.symbols)
        self.sign_in(page, f"p/{MACHINE}/snags")
        snags = page.get_by_role("grid").get_by_role("row")
        expect(snags.filter(has_text="has no part").first).to_be_visible()
        expect(snags.filter(has_text="may not be on together")).to_have_count(0)
        self.delete(page, rung.symbols["contact-nc"])
        self.delete(page, machine.made["estop 2"])
        page.get_by_role("navigation").get_by_role("link", name="Snags").click()
        expect(snags.filter(has_text="may not be on together")).to_have_count(1)
        channel = snags.filter(has_text="has a contact in channel 1 alone")
        expect(channel).to_have_count(1)
        channel.click()
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("HR-SR2")
        codes = {s.code for s in all_snags(self.project(MACHINE)) if s.severity == "error"}
        self.assertEqual(codes, {"interlock", "two-channel"})

    def test_star_delta_is_offered_the_right_three_sizes(self) -> None:
        """Of a motor of 22 A the line and the triangle carry 0.58, the star 0.33."""
        page = self.page
        machine = next(m for m in map(Machine, range(60)) if any(len(f.contactors) == 3 for f in m.feeders))
        feeder = next(f for f in machine.feeders if len(f.contactors) == 3)
        bench = machine.bench
        bench.do("assign-part", device_id=bench.device(feeder.motor), part_id="orrery-drives-od-n11-d")
        anna = get_user_model().objects.get(username="anna")
        create_project(anna, bench.project, MACHINE)
        sizes = ("16 A AC-3 is enough for the motor’s 12.7 A",) * 2 + ("9 A AC-3 is enough for the motor’s 7.33 A",)
        for n, (contactor, size) in enumerate(zip(feeder.contactors, sizes, strict=True)):
            address = f"p/{MACHINE}/draw/{feeder.sheet}?sel={contactor}"
            self.sign_in(page, address) if not n else page.goto(f"{self.live_server_url}/{address}")
            page.get_by_role("button", name="Change part").click()
            best = page.get_by_role("listbox", name="Parts found").get_by_role("option").first
            expect(best).to_contain_text(size)
            before = self.revision(MACHINE)
            if "16 A" in size:
                expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("BW-C09-230A-11")
                best.click()
                self.accepted(page, before)
                expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("BW-C16-230A")

    def test_what_nobody_would_notice_is_listed_and_leads_to_its_place(self) -> None:
        page = self.page
        heard, deaf = FAULTS["overload-bridged"], FAULTS["contactor-bridged"]
        kinds = {heard.key: heard, deaf.key: replace(deaf, codes=frozenset())}
        before = self.revision()
        with patch.dict(FAULTS, kinds, clear=True):
            self.sign_in(page, "p/kiln-2/snags")
            page.get_by_role("tab", name="Would anybody notice?").click()
            expect(page.get_by_text("Nothing was planted yet.")).to_be_visible()
            page.get_by_role("button", name="Plant faults on trial").click()
            expect(page.get_by_role("status").filter(has_text="would go unseen")).to_contain_text("of 2 kinds planted")
        rows = page.get_by_role("grid").get_by_role("row").filter(has_text="A pole of a contactor bridged")
        expect(rows).to_have_count(3)
        expect(page.get_by_role("grid").get_by_role("row").filter(has_text="overload")).to_have_count(0)
        rows.first.click()
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("QA")
        self.assertEqual(self.revision(), before)
