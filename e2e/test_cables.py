"""The Cables bench: lengths from the table of ways, a shield landed, a part made on the spot and kept, cores filled."""

from __future__ import annotations

from playwright.sync_api import Locator, Page, expect

from e2e.test_benches import BenchStory
from jolly_core.model import Cable
from jolly_server.library.models import LibraryPart


class ACable(BenchStory):
    def cable(self, tag: str) -> Cable:
        project = self.project()
        device = self.by_tag(project, tag)
        return next(c for c in project.cables.values() if c.device_id == device)

    def pick(self, page: Page, label: str, option: str) -> None:
        page.get_by_label(label, exact=True).click()
        page.get_by_role("option", name=option, exact=True).click()

    def entry(self, page: Page, tag: str) -> Locator:
        """A cable in the list."""
        return page.get_by_role("button", name=tag)

    def test_lengths_come_from_the_table_of_ways_until_one_is_typed(self) -> None:
        page = self.open("cables")
        page.get_by_role("button", name="Table of ways").click()
        allowance = page.get_by_label("Allowance, m")
        allowance.fill("1,5")
        self.done(page, lambda: allowance.press("Enter"))
        ways = page.get_by_role("grid", name="Ways of cables")
        row = ways.locator("[data-row]").filter(has_text="KF2").first
        row.locator("[data-key=length_m]").dblclick()
        ways.get_by_label("Length, m").fill("18")
        self.done(page, lambda: page.keyboard.press("Enter"))
        # A way and the allowance make a cable's length; what was typed stays.
        expect(self.entry(page, "=T1+KP2-WD1")).to_contain_text("19.5 m")
        expect(self.entry(page, "=K2+KP2-WD1")).to_contain_text("35 m")
        # Typed with a word in place of a number, nothing is changed and it is said.
        row.locator("[data-key=length_m]").dblclick()
        ways.get_by_label("Length, m").fill("far")
        page.keyboard.press("Enter")
        expect(page.get_by_text("“far” is no number.").first).to_be_visible()
        expect(row.locator("[data-key=length_m]")).to_have_text("18")

    def test_a_shield_is_landed_and_a_part_is_made_on_the_spot_and_kept(self) -> None:
        page = self.open("cables")
        self.entry(page, "=M1+KP2-WD1").click()
        picture = page.get_by_test_id("sheet")
        expect(picture.get_by_text("shield landed")).to_have_count(1)
        self.done(page, lambda: self.pick(page, "Shield landed", "at both ends"))
        expect(picture.get_by_text("shield landed")).to_have_count(2)
        self.assertEqual(self.cable("=M1+KP2-WD1").shield_landed, "both")

        page.get_by_role("button", name="New cable part…").click()
        form = page.get_by_role("form", name="New cable part")
        for label, value in (("Maker", "Quillon"), ("Part number", "QL-OWN"), ("Cores", "many")):
            form.get_by_label(label, exact=True).fill(value)
        form.get_by_role("button", name="Make it").click()
        expect(page.get_by_role("alert").filter(has_text="many").first).to_be_visible()
        form.get_by_label("Cores", exact=True).fill("4x2x0.5")
        form.get_by_label("Shielded").check()
        self.done(page, lambda: form.get_by_role("button", name="Make it").click())
        expect(page.get_by_role("combobox", name="Cable part")).to_have_value("QL-OWN")
        expect(self.entry(page, "=M1+KP2-WD1")).to_contain_text("QL-OWN")

        page.get_by_role("button", name="Keep it in the library…").click()
        page.get_by_role("button", name="Keep it there").click()
        expect(page.get_by_text("QL-OWN is in the library.").first).to_be_visible()
        self.assertEqual(LibraryPart.objects.filter(number="QL-OWN").count(), 1)

    def test_the_cores_of_all_cables_are_filled_in_another_order_and_back(self) -> None:
        page = self.open("cables")
        every = page.get_by_role("region", name="Cores of all cables")
        before = dict(self.project().core_choices)
        self.done(page, lambda: every.get_by_role("button", name="Fill by wire number").click())
        chosen = {c.device_id for c in self.project().core_choices.values()}
        self.assertEqual(chosen, {c.device_id for c in self.project().cables.values()})
        page.keyboard.press("Control+z")
        expect(page.get_by_role("button", name="All cores back in order")).to_have_count(0)
        self.assertEqual(dict(self.project().core_choices), before)
        self.done(page, lambda: every.get_by_role("button", name="Fill by source").click())
        self.done(page, lambda: every.get_by_role("button", name="All back in order").click())
        self.assertEqual(self.project().core_choices, {})
