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
        self.entry(page, "=T1+KP2-WD1").click()
        typed = page.get_by_label("Length, m", exact=True)
        expect(typed).to_have_value("44")
        typed.fill("0")  # so that it follows its way
        self.done(page, lambda: typed.press("Enter"))
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
        expect(page.get_by_text("“far” is no length. Type a number, with a unit unless it is m.").first).to_be_visible()
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

    def test_the_cores_of_some_and_of_all_cables_are_filled_in_another_order_and_back(self) -> None:
        page = self.open("cables")
        page.get_by_role("button", name="Table of cables").click()
        table = page.get_by_role("grid", name="All cables")
        acts = page.get_by_role("region", name="Cores of these cables")
        before = dict(self.project().core_choices)
        for tag in ("=T1+KP2-WD1", "=Q1+KP2-WD1"):
            table.locator("[data-row]").filter(has_text=tag).get_by_role("checkbox").check()
        expect(page.get_by_text("2 of 18 cables")).to_be_visible()
        self.done(page, lambda: acts.get_by_role("button", name="Fill by wire number").click())
        chosen = {c.device_id for c in self.project().core_choices.values()} - {c.device_id for c in before.values()}
        self.assertEqual(chosen, {self.cable(tag).device_id for tag in ("=T1+KP2-WD1", "=Q1+KP2-WD1")})
        page.keyboard.press("Control+z")
        expect(acts.get_by_role("button", name="All back in order")).to_have_count(0)
        self.assertEqual(dict(self.project().core_choices), before)

        page.get_by_role("checkbox", name="Select all").check()
        self.done(page, lambda: acts.get_by_role("button", name="Fill by source").click())
        every = {c.device_id for c in self.project().core_choices.values()}
        self.assertEqual(every, {c.device_id for c in self.project().cables.values()})
        self.done(page, lambda: acts.get_by_role("button", name="All back in order").click())
        self.assertEqual(self.project().core_choices, {})

    def test_a_twisted_pair_goes_to_another_pair_as_one_and_a_warmer_place_carries_less(self) -> None:
        page = self.open("cables")
        self.entry(page, "=M1+KP2-WD1").click()
        cores = page.get_by_role("grid", name="Cores of =M1+KP2-WD1")
        rows = cores.locator("[data-row]")
        expect(rows.nth(0).locator("[data-key=pair]")).to_have_text("1")
        expect(rows.nth(3).locator("[data-key=pair]")).to_have_text("2")
        ends = [rows.nth(n).locator("[data-key=from]").inner_text() for n in range(4)]
        picture = page.get_by_test_id("sheet")
        first, third = (picture.get_by_text(name, exact=True).bounding_box() for name in ("WH", "GN"))
        assert first is not None and third is not None
        page.mouse.move(first["x"] + first["width"] / 2, first["y"] + first["height"] / 2)
        page.mouse.down()
        page.mouse.move(third["x"] + third["width"] / 2, third["y"] + third["height"] / 2, steps=4)
        self.done(page, page.mouse.up)
        expect(rows.nth(2).locator("[data-key=from]")).to_have_text(ends[0])
        expect(rows.nth(3).locator("[data-key=from]")).to_have_text(ends[1])
        expect(rows.nth(0).locator("[data-key=from]")).to_have_text("spare")

        page.get_by_role("button", name="Table of ways").click()
        air = page.get_by_label("Air around cables, °C")
        air.fill("50")
        self.done(page, lambda: air.press("Enter"))
        self.entry(page, "=K2+KP2-WD1").click()
        panel = page.get_by_label("Inspector")
        expect(panel).to_contain_text("14.27 A")
        self.done(page, lambda: self.pick(page, "Laid", "E, cable on a tray in air"))
        expect(panel).to_contain_text("18.04 A")
        together = page.get_by_label("Loaded circuits together")
        together.fill("4")
        self.done(page, lambda: together.press("Enter"))
        expect(panel).to_contain_text("13.89 A")
