"""Two harnesses that begin at one connector, its backshell and sides; wires led through a clip; the board turned."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from jolly_core.harness import lead_through, wires_of

from .test_harness import HarnessStory


class Shared(HarnessStory):
    def harness(self, code: str) -> str:
        return next(h.id for h in self.project().harnesses.values() if h.code == code)

    def test_a_second_harness_begins_at_a_connector_and_has_wires_of_its_own(self) -> None:
        page = self.open("harness")
        expect(page.get_by_role("button", name="WH-T1").first).to_be_visible()
        self.send(page, kind="add-harness", code="WH-F")
        first = self.harness("WH-F")
        for tag, part in (("XD11", "tamwick-tw-h6s"), ("XD12", "tamwick-tw-h2p")):
            self.send(page, kind="add-connector", harness_id=first, part_id=part, tag=tag)
        rows = [{"signal": f"V{n}", "size": "0.5", "start": f"XD11:{n}", "end": f"XD12:{n}"} for n in (1, 2)]
        self.send(page, kind="draw-harness-wires", harness_id=first, rows=rows)
        page.get_by_label("New harness").fill("WH-G")
        self.done(page, page.get_by_role("button", name="Add", exact=True).first.click)
        expect(page.get_by_text("WH-G has no segments yet.")).to_be_visible()
        self.add(page, "-XD11 (in another harness)")
        self.add(page, "a new one, by its part", "TW-H2P", "XD13")
        page.get_by_role("button", name="Paste rows here").focus()
        self.paste(page, "V4\tBU\t0.5\t-XD11:4\t-XD13:1\nV5\tBU\t0.5\t-XD11:5\t-XD13:2")
        form = page.get_by_role("form", name="Wires of WH-G from a table")
        self.done(page, lambda: form.get_by_role("button", name="Draw 2 wires").click())
        expect(page.get_by_role("tab", name="Wires 2")).to_be_visible()
        project = self.project()
        numbers = [sorted(w.conductor.number for w in wires_of(project, self.harness(c))) for c in ("WH-F", "WH-G")]
        self.assertEqual(numbers, [["V1", "V2"], ["V4", "V5"]])
        expect(page.get_by_test_id("sheet")).to_contain_text("in WH-F")
        self.of_the_connector(page)

    def add(self, page: Page, option: str, part: str = "", tag: str = "") -> None:
        page.get_by_role("combobox", name="Connector", exact=True).click()
        page.get_by_role("option").filter(has_text=option).click()
        if part:
            page.get_by_role("combobox", name="Housing").fill(part)
            page.get_by_role("option").filter(has_text=part).first.click()
            page.get_by_label("Tag (empty").fill(tag)
        self.done(page, lambda: page.get_by_role("button", name="Add to WH-G").click())

    def of_the_connector(self, page: Page) -> None:
        """It is a step from both boards; its backshell is offered; from the mating side the table says so."""
        page.get_by_role("button", name="-XD11").filter(has_text="4 of 6 · 2 harnesses").click()
        expect(page.get_by_role("button", name="Form board of WH-F")).to_be_visible()
        parts = page.get_by_role("region", name="Goes with it")
        expect(parts).to_contain_text("TW-BS6")
        self.done(page, parts.get_by_role("button", name="Put on").click)
        expect(parts.get_by_role("button", name="Take off")).to_be_visible()
        page.get_by_role("combobox", name="Seen from").click()
        self.done(page, lambda: page.get_by_role("option", name="mating side").click())
        expect(page.get_by_test_id("sheet")).to_contain_text("mating side")
        page.get_by_role("button", name="Form board of WH-F").click()
        expect(page.get_by_test_id("sheet")).to_contain_text("in WH-G")
        page.get_by_role("combobox", name="The trunk leads").click()
        self.done(page, lambda: page.get_by_role("option", name="downwards").click())
        scene = page.request.get(
            f"{self.live_server_url}/api/projects/kiln-2/harness?harness_id={self.harness('WH-F')}"
        )
        segment = next(i for i in scene.json()["harness"]["scene"]["items"] if i["kind"] == "segment")
        (ax, ay), (bx, by) = segment["facts"]["from"], segment["facts"]["to"]
        self.assertEqual((ax, abs(by - ay)), (bx, 200))


class Clip(HarnessStory):
    def test_wires_in_a_clip_lie_where_they_are_put(self) -> None:
        page = self.board()
        project = self.project()
        clip = next(n for n in project.nodes.values() if n.sort == "clip")
        page.mouse.click(*self.middle(page.locator(f"[data-id='{clip.id}']")))
        section = page.get_by_role("img", name="Section of clip C1")
        expect(section).to_contain_text("90-7")
        page.get_by_role("combobox", name="Wires in it").click()
        self.done(page, lambda: page.get_by_role("option", name="each at its offset").click())
        field = page.get_by_label("Offsets, x y for each, mm")
        expect(field).to_have_value("-3 0 | -1 0 | 1 0 | 3 0")
        field.fill("-3 0 | -1 0 | 1 0 | 1.5 0")
        self.done(page, lambda: field.press("Enter"))
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("lie in each other in clip C1")
        led = lead_through(self.project(), clip.id)
        self.assertEqual([(x.x, x.y) for x in led.inside], [(-3, 0), (-1, 0), (1, 0), (1.5, 0)])
        page.keyboard.press("Control+z")
        page.get_by_role("combobox", name="Wires in it").click()
        self.done(page, lambda: page.get_by_role("option", name="all at one point").click())
        self.assertEqual({(x.x, x.y) for x in lead_through(self.project(), clip.id).inside}, {(0, 0)})
