"""The I/O bench: a list from a spreadsheet to addressed cards and drawn circuits, and the list that comes next week."""

from __future__ import annotations

import io

from django.contrib.auth import get_user_model
from openpyxl import Workbook
from playwright.sync_api import Locator, Page, expect

from e2e.test_benches import BenchStory
from jolly_core.checks import snags_on
from jolly_core.model import Project
from jolly_core.plc import cards, channels
from jolly_core.scenes import sheet_scene
from jolly_core.scenes.base.primitives import Text
from jolly_core.scenes.room.crowding import meet, text_box
from jolly_core.testing import Workbench
from jolly_server.projects.services import create_project

MILL = "mill"

HEAD = ["Tag", "Description", "I/O type", "Signal", "Field device", "Location", "Connected to", "Loop", "Terminals"]
KINDS = [("B", "DI", "limit switch")] * 8 + [("Y", "DO", "lamp")] * 4 + [("T", "AI", "transmitter")] * 2
KINDS += [("S", "AO", "valve")]
# Row of the list (from 0), column, and what is wrong there.
FAULTS = [(3, 2, "motor"), (7, 0, ""), (12, 0, "B100"), (18, 2, ""), (28, 5, "+NOWHERE"), (39, 8, "perhaps")]
FAULTS += [(53, 1, "x" * 201), (58, 2, "?"), (75, 5, "+KF99"), (97, 0, "B100"), (118, 2, "DX"), (148, 8, "maybe")]


def rows() -> list[list[str]]:
    """Return 180 points: twelve sections of eight inputs, four outputs, two transmitters and a valve."""
    found = []
    for n in range(180):
        letter, kind, element = KINDS[n % 15]
        signal = "24 V DC" if kind[0] == "D" else "4-20 mA"
        text = f"Section {n // 15 + 1}, {element} {n % 15 + 1}"
        found.append([f"{letter}{100 + n}", text, kind, signal, f"-BG{200 + n}", "+KF2", element, f"L{n // 15}"])
        found[-1].append("yes" if n % 2 else "")
    return found


def book(points: list[list[str]]) -> bytes:
    """Return a workbook with a cover and the points below two rows of titles."""
    made = Workbook()
    cover = made.active
    assert cover is not None
    cover.append(["Pellwick Maltings"])
    page = made.create_sheet("Points")
    for row in (["Kiln 2, points of the controller"], [], HEAD, *points):
        page.append(row)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


def mill() -> Project:
    """Return a project of a panel, its door and the field, in which nothing is drawn."""
    bench = Workbench(frame="zones", name="Mill 4")
    for code, side in (("KP2", "panel"), ("KD2", "door"), ("KF2", "field")):
        bench.do("add-location", code=code, side=side)
    return bench.project


class PointStory(BenchStory):
    """The stories of the bench, told in a project that nobody has drawn in."""

    project_id = MILL

    def open(self, bench: str, page: Page | None = None) -> Page:
        """Sign in and go to a bench of the mill."""
        page = page or self.page
        create_project(get_user_model().objects.get(username="anna"), mill(), MILL)
        self.sign_in(page, f"p/{MILL}/{bench}")
        return page

    def project(self, project_id: str = MILL) -> Project:
        return super().project(project_id)

    def card(self, page: Page, part_id: str) -> str:
        """Add a card to the panel and return its device."""
        before = set(self.project().cards)
        panel = next(loc.id for loc in self.project().locations.values() if loc.code == "KP2")
        self.send(page, kind="add-card", part_id=part_id, location_id=panel)
        (made,) = set(self.project().cards) - before
        return self.project().cards[made].device_id

    def untidy(self) -> list[str]:
        """Return what is wrong on the sheets of cards: texts on texts, things outside the frame, loose ends."""
        project = self.project()
        own = {id for card in cards(project) for id in card.sheet_ids}
        snags = [s for id in own for s in snags_on(project, id)]
        found = [s.message for s in snags if s.code in ("outside-frame", "loose-end")]
        for sheet_id in own:
            prims = [p for item in sheet_scene(project, sheet_id).items.values() for p in item.prims]
            texts = [p for p in prims if isinstance(p, Text) and p.words.strip()]
            boxes = [text_box(p) for p in texts]
            for n, (one, text) in enumerate(zip(boxes, texts, strict=True)):
                small = (one[0] + 0.1, one[1] + 0.1, one[2] - 0.1, one[3] - 0.1)
                found += [f"{text.words} on {texts[k].words}" for k in range(n) if meet(small, boxes[k])]
        return found

    def bring(self, page: Page, content: bytes) -> None:
        """Choose a file to be read."""
        page.get_by_role("button", name="Bring in…").click()
        file = {"name": "points.xlsx", "mimeType": "application/octet-stream", "buffer": content}
        page.get_by_test_id("point-file").set_input_files(file)  # type: ignore[arg-type]  # a file from memory

    def line(self, page: Page, words: str) -> Locator:
        return page.get_by_role("grid", name="Rows of the file").locator("[data-row]").filter(has_text=words)

    def places(self, project: Project) -> dict[str, tuple[str, int, int]]:
        """Return where the channel of each point is drawn."""
        found = {}
        for card in cards(project):
            for row in channels(project, card.device_id):
                if row.point_id and row.symbol_id:
                    s = project.symbols[row.symbol_id]
                    found[project.io_points[row.point_id].tag] = (s.sheet_id, s.x, s.y)
        return found


class FromAList(PointStory):
    def test_a_list_of_180_with_faults_to_drawn_sheets_and_the_next_one(self) -> None:
        page = self.open("io")
        points = rows()
        for row, column, word in FAULTS:
            points[row][column] = word
        self.bring(page, book(points))
        expect(page.get_by_text("168 added, 0 changed, 0 as they are, 12 faulty")).to_be_visible()
        expect(self.line(page, "B103")).to_contain_text("I/O type: “motor” is no type")
        # A heading of their own is kept as a column of the project's, once said.
        page.get_by_label("Loop", exact=True).click()
        page.get_by_role("option", name="a column of our own").click()
        self.done(page, page.get_by_role("button", name="Take in 168").click)
        self.assertEqual(len(self.project().io_points), 168)

        self.cards_and_channels(page)
        drawn = self.places(self.project())
        self.assertEqual(len(drawn), 168)
        self.assertEqual(self.untidy(), [])

        # By hand a switch is moved on one sheet.
        project = self.project()
        sheet_id = drawn["B100"][0]
        switch = next(s for s in project.symbols_on(sheet_id) if s.definition == "limit-no")
        self.send(page, kind="move-selection", ids=[switch.id], dx=2, dy=0)
        self.send(page, kind="place-note", sheet_id=sheet_id, x=60, y=104, text="See the plan of the ducts")

        # Next week: three change, two go, five come.
        for row in (4, 5, 6):
            points[row][1] = f"Renamed {row}"
        kept = [p for n, p in enumerate(points) if n not in (30, 31)]
        kept += [[f"B{500 + n}", "Late one", "DI", "24 V DC", "", "+KF2", "limit switch", "L9", ""] for n in range(5)]
        page.goto(f"{self.live_server_url}/p/{MILL}/io")
        self.bring(page, book(kept))
        expect(page.get_by_text("5 added, 3 changed, 163 as they are, 12 faulty")).to_be_visible()
        page.get_by_label("delete the 2 that are not in the file").check()
        self.done(page, page.get_by_role("button", name="Take in 8").click)
        page.get_by_role("button", name="Allocate").click()
        self.done(page, page.get_by_role("button", name="Suggest").click)
        page.get_by_role("button", name="Draw again…").click()
        form = page.get_by_role("dialog")
        change = form.get_by_label("What would change")
        for words in ("removed", "changed B104 on sheet", "added"):
            expect(change).to_contain_text(words)
        self.done(page, form.get_by_role("button", name="Draw again").click)
        project = self.project()
        again = self.places(project)
        self.assertEqual(len(again), 171)
        self.assertEqual(len(project.channel_circuits), 171, "those of the two that are gone are gone, too")
        names = [d.text for d in project.devices.values()]
        self.assertIn("Renamed 4", names, "the text of a drawn device follows the list")
        self.assertEqual({t: p for t, p in again.items() if t in drawn}, {t: drawn[t] for t in again if t in drawn})
        self.assertEqual(project.symbols[switch.id].x, switch.x + 2)
        self.assertIn("See the plan of the ducts", [n.text for n in project.notes.values()])

    def cards_and_channels(self, page: Page) -> None:
        """Cards for what is needed, addressed from a start; every point to a channel; all drawn."""
        # Cards are proposed with the share to spare, of the maker one chooses; each is taken with one act.
        outputs = page.get_by_role("region", name="Demand AO")
        expect(outputs).to_contain_text("no card of this maker has them for 4-20 mA")
        page.get_by_label("Cards of").click()
        page.get_by_role("option", name="Hollin Reeve").click()
        for kind in ("DI", "DO", "AI", "AO"):
            need = page.get_by_role("region", name=f"Demand {kind}")
            self.done(page, need.get_by_role("button", name="Add").click)
            expect(need.get_by_role("button", name="Add")).to_have_count(0)
            expect(need).not_to_contain_text("would leave")
        page.get_by_role("button", name="Address cards…").click()
        form = page.get_by_role("dialog")
        form.get_by_label("First address (empty: behind what stays)").fill("10.0")
        expect(form.get_by_label("What would change")).to_contain_text("-KF1: I0.0 → I10.0")
        self.done(page, form.get_by_role("button", name="Address").click)
        page.get_by_role("button", name="Address cards…").click()
        prefix = form.get_by_label("Inputs begin with")
        prefix.fill("E")
        self.done(page, lambda: prefix.press("Enter"))
        form.get_by_role("button", name="Cancel").click()
        page.get_by_role("button", name="Allocate").click()
        self.done(page, page.get_by_role("button", name="Suggest").click)
        expect(page.get_by_text("Every point has a channel.")).to_be_visible()
        page.get_by_role("button", name="Map").click()
        expect(page.get_by_role("button", name="E10.0 B100 Section 1, limit switch 1")).to_be_visible()

        page.get_by_role("button", name="Draw…").click()
        form = page.get_by_role("dialog")
        expect(form.get_by_label("What would be drawn")).to_contain_text("new sheet")
        self.done(page, form.get_by_role("button", name="Draw").click)


class ByHand(PointStory):
    def test_points_are_typed_dragged_exchanged_and_taken_back(self) -> None:
        page = self.open("io")
        self.card(page, "hollin-hr-di8")
        self.card(page, "hollin-hr-do8")
        page.get_by_role("button", name="Add a point").click()
        form = page.get_by_role("dialog")
        form.get_by_label("Tag", exact=True).fill("B9")
        form.get_by_label("Text", exact=True).fill("Door shut")
        self.done(page, form.get_by_role("button", name="Add").click)
        row = page.get_by_role("grid", name="Points").locator("[data-row]").filter(has_text="Door shut")
        row.locator("[data-key=connected]").dblclick()
        page.get_by_role("grid", name="Points").get_by_label("Connected to").fill("limit switch")
        self.done(page, lambda: page.keyboard.press("Enter"))
        page.get_by_role("button", name="Allocate").click()
        waiting = page.get_by_role("listbox", name="Points to allocate")
        # A wrong kind is refused with the reason.
        waiting.get_by_role("option", name="B9").drag_to(page.get_by_role("option", name="Q0.2 spare"))
        expect(page.get_by_text("B9 is DI, and +KP2-KF2 has DO channels. Choose another card.").first).to_be_visible()
        self.done(page, lambda: waiting.get_by_role("option").drag_to(page.get_by_role("option", name="I0.6 spare")))
        channel = page.get_by_role("option", name="I0.6 B9")
        channel.click()
        self.done(page, lambda: page.keyboard.press("Alt+ArrowUp"))
        expect(page.get_by_role("option", name="I0.5 B9")).to_be_visible()
        self.done(page, lambda: page.keyboard.press("f"))
        expect(waiting.get_by_role("option", name="B9")).to_be_visible()
        page.keyboard.press("Control+z")
        page.keyboard.press("Control+z")
        expect(page.get_by_role("option", name="I0.6 B9")).to_be_visible()

    def test_a_card_moves_and_what_its_addresses_become_is_shown_before(self) -> None:
        page = self.open("io?page=allocate")
        for part in ("hollin-hr-di8", "hollin-hr-di16"):
            self.card(page, part)
        page.get_by_role("button", name="Addresses, rack and slot of +KP2-KF1").click()
        page.get_by_role("button", name="Move it…").click()
        form = page.get_by_role("dialog")
        form.get_by_label("To", exact=True).click()
        page.get_by_role("option", name="behind +KP2-KF2").click()
        change = form.get_by_label("What would change")
        expect(change).to_contain_text("+KP2-KF1: I0.0 → I2.0")
        expect(change).to_contain_text("+KP2-KF2: I1.0 → I0.0")
        self.done(page, form.get_by_role("button", name="Move").click)
        project = self.project()
        self.assertEqual([c.start for c in cards(project)], ["0.0", "2.0"])


class FromDrawings(PointStory):
    def feeders(self, page: Page) -> str:
        """Draw one feeder with two inputs and an output, keep it as a stamp, put it down four times more."""
        self.send(page, kind="add-sheet", number="61", title="Feeders", frame="zones", size="A2")
        sheet = next(s.id for s in self.project().sheets.values() if s.number == "61")
        wire_type = next(t.id for t in self.project().wire_types.values() if t.name == "Control")
        for k, element in enumerate(("limit-no", "button-no")):
            y = 20 + 6 * k
            self.send(page, kind="place-symbol", sheet_id=sheet, definition=element, x=30, y=y, rotation=0)
            self.send(page, kind="place-symbol", sheet_id=sheet, definition="plc-input", x=60, y=y, rotation=0)
            self.send(page, kind="draw-wire", sheet_id=sheet, points=[[34, y], [60, y]], wire_type_id=wire_type)
        self.send(page, kind="place-symbol", sheet_id=sheet, definition="plc-output", x=100, y=20, rotation=0)
        self.send(page, kind="place-symbol", sheet_id=sheet, definition="lamp", x=120, y=20, rotation=0)
        self.send(page, kind="draw-wire", sheet_id=sheet, points=[[100, 20], [120, 20]], wire_type_id=wire_type)
        project = self.project()
        ids = [x.id for x in (*project.symbols_on(sheet), *project.wires_on(sheet))]
        self.send(page, kind="keep-stamp", ids=ids, name="Feeder", anchor_x=30, anchor_y=20)
        stamp = next(iter(self.project().stamps))
        rows = [{}, {}, {}, {}]
        self.send(page, kind="put-stamp", sheet_id=sheet, stamp_id=stamp, x=30, y=38, rows=rows, dx=0, dy=18)
        return sheet

    def test_five_feeders_by_stamp_are_drawn_first_and_get_their_channels_later(self) -> None:
        page = self.open("io")
        sheet = self.feeders(page)
        page.reload()
        self.done(page, page.get_by_role("button", name="Take in 15 drawn").click)
        for kind, count in (("DI", 10), ("DO", 5)):
            need = page.get_by_role("region", name=f"Demand {kind}")
            expect(need).to_contain_text(f"{count} points")
            self.done(page, need.get_by_role("button", name="Add").click)
        page.get_by_role("button", name="Allocate").click()
        self.done(page, page.get_by_role("button", name="Suggest").click)
        expect(page.get_by_text("Every point has a channel.")).to_be_visible()
        page.goto(f"{self.live_server_url}/p/{MILL}/draw/{sheet}")
        drawn = self.symbols(page)
        expect(drawn.filter(has_text="I0.4")).to_have_count(1)
        project = self.project()
        there = [s for s in project.symbols_on(sheet) if s.definition.startswith("plc-")]
        self.assertEqual(len({(s.device_id, s.definition, s.units) for s in there}), 15)
        self.assertNotIn("", {s.device_id for s in there})

    def test_a_drawn_input_is_said_by_hand_to_be_a_point_of_the_list(self) -> None:
        page = self.open("io")
        sheet = next(iter(self.project().sheets))
        self.send(page, kind="place-symbol", sheet_id=sheet, definition="plc-input", x=60, y=40, rotation=0)
        self.send(page, kind="take-in-points", points=[{"tag": "B1", "io_type": "DI", "text": "Hatch closed"}])
        page.reload()
        page.get_by_role("button", name="Allocate").click()
        page.get_by_role("listbox", name="Points to allocate").get_by_role("option", name="B1").click()
        page.get_by_role("button", name="Say where it is drawn…").click()
        self.done(page, page.get_by_role("dialog").get_by_role("button", name="That is it").click)
        project = self.project()
        (point,) = project.io_points.values()
        self.assertEqual(project.symbols[point.drawn].definition, "plc-input")
        expect(page.get_by_role("button", name="Say where it is drawn…")).to_have_count(0)
