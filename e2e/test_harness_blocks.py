"""A harness begun with blocks: boards and fans, a stroke, wires pasted, the board, connectors swapped and renamed."""

from __future__ import annotations

import csv

from playwright.sync_api import Locator, Page, expect

from jolly_core.harness import mate_of, wires_of

from .test_benches import BenchStory

WIRES = (
    ("V1+", "RD", "0.75", "-XD1:1", "-XD4:1", "P1"),
    ("V1-", "BK", "0.75", "-XD1:2", "-XD4:2", "P1"),
    ("V2+", "RD", "0.75", "-XD1:3", "-XD5:1", "P2"),
    ("V2-", "BK", "0.75", "-XD1:4", "-XD5:2", "P2"),
    ("V3+", "RD", "0.75", "-XD1:5", "-XD6:1", "P3"),
    ("V3-", "BK", "0.75", "-XD1:6", "-XD6:2", "P3"),
)


class Blocks(BenchStory):
    def test_boards_and_fans_from_blocks_to_the_form_board(self) -> None:
        page = self.open("harness")
        page.get_by_role("button", name="Blocks", exact=True).click()
        self.box(page, "A1", "Fan controller", "Circuit board", "TW-H6P", 2)
        self.box(page, "A2", "Interface board", "Circuit board", "TW-H6P")
        for n in (1, 2, 3):
            self.box(page, f"GQ{n}", f"Fan {n}", "Fan", "TW-H2P")
        expect(page.locator("[data-kind=block]")).to_have_count(14)
        for port in ("-XD4", "-XD5", "-XD6"):
            self.stroke(page, "-XD1TW-H6P", f"{port}TW-H2P")
        expect(page.get_by_test_id("sheet")).to_contain_text("WH1")
        self.stroke(page, "-XD2TW-H6P", "-XD3TW-H6P")
        expect(page.get_by_test_id("sheet")).to_contain_text("WH2")
        self.paste_wires(page)
        self.swap(page)
        self.rename(page)

    def box(self, page: Page, tag: str, text: str, kind: str, part: str, connectors: int = 1) -> None:
        page.get_by_test_id("sheet").click(position={"x": 8, "y": 8})
        form = page.get_by_role("region", name="Add a box")
        form.get_by_role("combobox", name="What it is").click()
        page.get_by_role("option", name=kind, exact=True).click()
        form.get_by_label("Tag (empty").fill(tag)
        form.get_by_label("What it does").fill(text)
        self.done(page, form.get_by_role("button", name="Add the box").click)
        page.get_by_role("combobox", name="Connector on it").fill(part)
        page.get_by_role("option").filter(has_text=part).first.click()
        for n in range(connectors):
            self.done(page, page.get_by_role("button", name="Add the connector").click)
            expect(page.get_by_role("region", name=f"Connectors · {n + 1}")).to_be_visible()

    def connector(self, page: Page, words: str) -> Locator:
        return page.locator("[data-kind=port]").filter(has_text=words).first

    def stroke(self, page: Page, one: str, other: str) -> None:
        ports = page.locator("[data-kind=port]")
        before = ports.count()
        a, b = (self.middle(self.connector(page, words)) for words in (one, other))
        page.mouse.move(*a)
        page.mouse.down()
        page.mouse.move((a[0] + b[0]) / 2, (a[1] + b[1]) / 2, steps=4)
        page.mouse.move(*b, steps=4)
        self.done(page, page.mouse.up)
        expect(ports).not_to_have_count(before)  # a plug was put to one of them at least

    def paste_wires(self, page: Page) -> None:
        """The wires of the table are on the harness's sheet and on its board, and the blocks count them."""
        page.get_by_role("button", name="WH1", exact=True).click()
        page.get_by_role("button", name="Board", exact=True).click()
        page.get_by_role("button", name="Paste rows here").focus()
        self.paste(page, "\n".join("\t".join(row) for row in WIRES))
        form = page.get_by_role("form", name="Wires of WH1 from a table")
        self.done(page, form.get_by_role("button", name="Draw 6 wires").click)
        grid = page.get_by_role("grid", name="Wires")
        expect(grid).to_contain_text("V3-")
        expect(grid).to_contain_text("P3")
        page.get_by_role("button", name="Schematic", exact=True).click()
        expect(page.get_by_role("link", name="Harness WH1")).to_be_visible()
        page.get_by_role("button", name="Blocks", exact=True).click()
        expect(page.get_by_test_id("sheet")).to_contain_text("6 wires, 240 mm")

    def swap(self, page: Page) -> None:
        """A housing that does not mate is refused by name; the same with its mate beside it is taken."""
        self.connector(page, "-XD1TW-H6P").click()
        housing = page.get_by_role("combobox", name="Housing")
        housing.fill("TW-H8P")
        page.get_by_role("option").filter(has_text="TW-H8P").first.click()
        expect(page.get_by_role("alert")).to_contain_text("TW-H8P does not mate with TW-H6S")
        page.get_by_role("switch", name="with it").check()
        housing.fill("TW-H8P")
        self.done(page, page.get_by_role("option").filter(has_text="TW-H8P").first.click)
        project = self.project()
        mate = mate_of(
            project, next(d.id for d in project.devices.values() if project.part_named("TW-H8P") == project.part_of(d))
        )
        part = project.part_of(mate) if mate else None
        self.assertEqual(part.number if part else "", "TW-H8S")

    def rename(self, page: Page) -> None:
        """A plug renamed once has its new name among the blocks, on the board, in the table and on the sheet."""
        page.get_by_role("button", name="Form board of").or_(self.connector(page, "-XD7")).first.click()
        tag = page.get_by_label("Tag", exact=True)
        tag.fill("XD77")
        self.done(page, lambda: tag.press("Enter"))
        expect(page.get_by_test_id("sheet")).to_contain_text("-XD77")
        page.get_by_role("button", name="Form board of WH1").click()
        expect(page.get_by_role("grid", name="Wires")).to_contain_text("-XD77:1")
        expect(page.get_by_test_id("sheet")).to_contain_text("-XD77")
        harness = next(h.id for h in self.project().harnesses.values() if h.code == "WH1")
        self.assertEqual(len(wires_of(self.project(), harness)), 6)
        page.get_by_role("button", name="Schematic", exact=True).click()
        page.get_by_role("link", name="Harness WH1").click()
        expect(page.locator("svg[data-testid=sheet]")).to_contain_text("-XD77")


class Splices(BenchStory):
    def test_the_legs_of_a_splice_are_cut_to_one_length_on_the_bench_and_in_the_cut_list(self) -> None:
        page = self.open("harness")
        page.get_by_role("button", name="WH-T2").first.click()
        grid = page.get_by_role("grid", name="Wires")
        expect(grid).to_contain_text("330 mm, 120 spare")
        page.get_by_role("button", name="=K2+KT2-S2").click()
        equal = page.get_by_role("switch", name="Legs cut equal")
        self.done(page, equal.click)
        expect(grid).not_to_contain_text("spare")
        self.done(page, equal.click)
        expect(grid).to_contain_text("330 mm, 120 spare")
        page.goto(f"{self.live_server_url}/p/kiln-2/issue")
        page.get_by_role("button", name="Harness cut list").click()
        with page.expect_download() as waiting:
            page.get_by_role("link", name="CSV").click()
        rows = csv.DictReader(waiting.value.path().read_text(encoding="utf-8-sig").splitlines())
        legs = [float(r["Length mm"]) for r in rows if r["Variant"] == "Three fans" and r["Wire"] == "FM"]
        self.assertEqual(legs, [330] * 4)
