"""Following a motor to its source by one key, with what is missing in red."""

from __future__ import annotations

from playwright.sync_api import expect

from .base import Story


class TraceStory(Story):
    def test_a_motor_is_followed_to_its_source_by_one_key(self) -> None:
        page = self.page
        project = self.project()
        motor = next(
            s for s in project.symbols.values() if s.definition == "motor" and project.sheets[s.sheet_id].number == "10"
        )
        self.sign_in(page, f"p/kiln-2/draw/{motor.sheet_id}?sel={motor.id}")
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("MA1")
        page.keyboard.press("t")
        members = inspector.get_by_role("list", name="From the source to the load").get_by_role("listitem")
        expect(members).to_have_count(7)
        expect(members.first).to_contain_text("XD1")
        for n, (role, name) in enumerate(
            (
                ("protection and overload", "FC1"),
                ("switching", "QA1"),
                ("overload", "FQ1"),
                ("terminal", "XD1"),
                ("cable", "WD1"),
            ),
            1,
        ):
            expect(members.nth(n)).to_contain_text(role)
            expect(members.nth(n)).to_contain_text(name)
        expect(members.last).to_contain_text("load")
        expect(inspector).to_contain_text("comes to the earth")
        expect(inspector).to_contain_text("QA1 on")
        lit = page.locator("[data-kind=wire][data-look=selected]")
        self.assertGreater(lit.count(), 8, "the way is lit on the sheet")
        with page.context.expect_event("request", lambda asked: "trace.pdf" in asked.url) as paper:
            inspector.get_by_role("button", name="On paper").click()
        self.assertIn(f"id={motor.id}", paper.value.url)
        members.nth(2).get_by_role("button").click()
        page.keyboard.press("Escape")
        expect(members).to_have_count(0)

    def test_the_same_key_follows_a_core_and_a_terminal(self) -> None:
        page = self.page
        inspector = page.get_by_role("complementary", name="Inspector")
        members = inspector.get_by_role("list", name="From the source to the load").get_by_role("listitem")
        project = self.project()
        cable = next(d for d in project.devices.values() if d.letters == "WD" and d.number == 1)
        self.sign_in(page, f"p/kiln-2/cables?cable={cable.id}")
        page.get_by_role("grid", name="Cores of").get_by_text("BN", exact=True).first.click()
        page.keyboard.press("Alt+t")
        expect(members.last).to_contain_text("load")
        expect(members.filter(has_text="cable")).to_have_count(1)
        expect(inspector.get_by_role("list", name="From the load to the return")).to_have_count(0)  # phases alone
        page.goto(f"{self.live_server_url}/p/kiln-2/terminals")
        page.get_by_role("grid").get_by_role("row").filter(has_text="FQ1").first.click()
        page.keyboard.press("Alt+t")
        expect(members.last).to_contain_text("MA1")
        self.assertIn("/draw/", page.url)

    def test_a_coil_comes_back_by_its_return(self) -> None:
        page = self.page
        project = self.project()
        coil = next(
            s for s in project.symbols.values() if s.definition == "coil" and project.sheets[s.sheet_id].number == "50"
        )
        self.sign_in(page, f"p/kiln-2/draw/{coil.sheet_id}?sel={coil.id}")
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("KF")
        page.keyboard.press("t")
        back = inspector.get_by_role("list", name="From the load to the return").get_by_role("listitem")
        expect(back.last).to_contain_text("return")
        expect(back.last).to_contain_text("0 V")
        sources = inspector.get_by_role("list", name="From the source to the load").get_by_role("listitem")
        expect(sources.filter(has_text="source")).to_have_count(1)

    def test_what_a_motor_lacks_is_red_in_the_list_and_a_snag_says_it(self) -> None:
        page = self.page
        project = self.project()
        drawn = {s.id: project.sheets[s.sheet_id].number for s in project.symbols.values()}
        motor = next(s for s in project.symbols.values() if s.definition == "motor" and drawn[s.id] == "10")
        before = self.revision()
        self.sign_in(page, f"p/kiln-2/draw/{motor.sheet_id}?sel={motor.id}")
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("MA1")
        for key in ("motor-breaker", "overload"):
            symbol = next(s for s in project.symbols.values() if s.definition == key and drawn[s.id] == "10")
            page.goto(f"{self.live_server_url}/p/kiln-2/draw/{motor.sheet_id}?sel={symbol.id}")
            expect(page.locator("[data-look=selected]").first).to_be_visible()
            page.keyboard.press("Delete")
            self.accepted(page, before)
            before = self.revision()
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{motor.sheet_id}?sel={motor.id}")
        expect(inspector).to_contain_text("MA1")
        page.keyboard.press("t")
        members = inspector.get_by_role("list", name="From the source to the load").get_by_role("listitem")
        expect(members.filter(has_text="missing")).to_have_count(2)
        expect(members.filter(has_text="overload")).to_contain_text("6.5 A needed")
