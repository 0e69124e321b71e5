"""Texts find their place: counted by geometry of its own, no text lies on another, on a symbol or on a wire."""

from __future__ import annotations

import random
from collections.abc import Iterator
from contextlib import suppress
from unittest import TestCase

from jolly_core.checks import snags_on
from jolly_core.drawing import ADVANCE, FRAME_MM, GRID_MM, turned
from jolly_core.exchange import read_project, write_project
from jolly_core.library import block_of
from jolly_core.model import Project, RuleError
from jolly_core.scenes import (
    Art,
    Item,
    Line,
    Poly,
    Prim,
    Rect,
    Strand,
    Text,
    art_of,
    generated_pages,
    made,
    page_leaves,
    sheet_scene,
)
from jolly_core.testing import DEMO, Workbench

Box = tuple[float, float, float, float]
TOUCH_MM = 0.03
DEFINITIONS = tuple(
    "contact-no contact-nc coil lamp button-no selector-no estop terminal terminal-fuse terminal-earth limit-no "  # noqa: SIM905
    "overload-nc breaker contactor-pole motor fuse motor-breaker transformer dc-supply plc-input thermostat contact-co "
    "coil-on-delay overload valve cavity earth light-load".split()
)
WORDS = (
    "Circulation fan of the lower malting drum with soft starter",
    "",
    "Stop",
    "Loading auger",
    "Exhaust damper close to the far end of the kiln",
)


def text_box(p: Text) -> Box:
    width = len(p.words) * p.size * ADVANCE
    left = p.x - {"start": 0, "middle": width / 2, "end": width}[p.anchor]
    return left, p.y - 0.8 * p.size, left + width, p.y + 0.2 * p.size


def meet(a: Box, b: Box) -> bool:
    return a[0] + TOUCH_MM < b[2] and b[0] + TOUCH_MM < a[2] and a[1] + TOUCH_MM < b[3] and b[1] + TOUCH_MM < a[3]


def crosses(box: Box, ax: float, ay: float, bx: float, by: float) -> bool:
    """Return whether a stroke runs through a box, by cutting it to the box side by side."""
    first, last = 0.0, 1.0
    dx, dy = bx - ax, by - ay
    left, top, right, bottom = box[0] + TOUCH_MM, box[1] + TOUCH_MM, box[2] - TOUCH_MM, box[3] - TOUCH_MM
    for step, room in ((-dx, ax - left), (dx, right - ax), (-dy, ay - top), (dy, bottom - ay)):
        if step == 0:
            if room < 0:
                return False
        elif step < 0:
            first = max(first, room / step)
        else:
            last = min(last, room / step)
    return first <= last


def strokes(item: Item, standard: str) -> Iterator[tuple[float, float, float, float]]:
    """Return the strokes of an item: its wires and lines, and those of its symbol's graphics."""
    for prim in item.prims:
        if isinstance(prim, Art):
            for one in art_of(prim.key, prim.poles, standard):
                points = []
                for x, y in corners(one):
                    dx, dy = turned(x / GRID_MM, y / GRID_MM, prim.rotation, prim.mirror)
                    points.append((prim.x + dx * GRID_MM, prim.y + dy * GRID_MM))
                yield from ((*a, *b) for a, b in zip(points, points[1:], strict=False))
        elif not isinstance(prim, Rect):
            points = corners(prim)
            yield from ((*a, *b) for a, b in zip(points, points[1:], strict=False))


def corners(prim: Prim) -> list[tuple[float, float]]:
    """Return the points a primitive's strokes run through; of what is filled, a diagonal."""
    match prim:
        case Line() | Strand():
            return [(prim.x1, prim.y1), (prim.x2, prim.y2)]
        case Poly():
            return list(zip(prim.points[0::2], prim.points[1::2], strict=True))
        case Rect(tone="ink"):
            return [(prim.x, prim.y), (prim.x + prim.width, prim.y + prim.height)]
        case _:
            return []


def clashes(project: Project, sheet_id: str) -> list[str]:
    """Return in words each text of a sheet that lies on something or outside."""
    scene, sheet = sheet_scene(project, sheet_id), project.sheets[sheet_id]
    block = block_of(project, sheet).block
    right, bottom = scene.width - FRAME_MM, scene.height - FRAME_MM
    texts = [
        (i, p, text_box(p)) for i in scene.items.values() for p in i.prims if isinstance(p, Text) and p.words.strip()
    ]
    lines = [(i, s) for i in scene.items.values() if i.kind != "frame" for s in strokes(i, project.settings.standard)]
    bodies = [(i, i.facts["body"]) for i in scene.items.values() if i.kind == "symbol"]
    found = []
    for n, (item, prim, box) in enumerate(texts):
        if item.kind == "frame":
            continue
        what = f"{item.kind} {prim.role} {prim.words!r}"
        under = box[2] > right - block.width_mm and box[3] > bottom - block.height_mm
        if under or box[0] < FRAME_MM or box[1] < FRAME_MM or box[2] > right or box[3] > bottom:
            found.append(f"{what} outside")
        found += [
            f"{what} on {q.words!r}" for j, q, other in texts[n + 1 :] + frame_texts(texts[:n]) if meet(box, other)
        ]
        found += [
            f"{what} on a stroke of {j.kind}"
            for j, stroke in lines
            if not (j is item and item.kind == "table") and crosses(box, *stroke)
        ]
        found += [f"{what} on {j.facts['tag']}" for j, body in bodies if j is not item and meet(box, body)]
    return found


def frame_texts(texts: list[tuple[Item, Text, Box]]) -> list[tuple[Item, Text, Box]]:
    return [t for t in texts if t[0].kind == "frame"]


def random_sheet(seed: int) -> Workbench:
    """Draw wires, symbols, a row of terminals and continuations at random, in either habit and frame."""
    r = random.Random(seed)
    frame = "ladder" if seed % 2 else "zones"
    bench = Workbench(frame=frame) if seed % 3 else Workbench(frame=frame, standard="na", tag_habit="line")
    rows = sorted(r.sample(range(8, 90, 2), 10))

    def attempt(kind: str, **values: object) -> None:
        with suppress(RuleError):  # no room there: the next
            bench.do(kind, sheet_id=bench.sheet, **values)

    for y in rows:
        x = r.randrange(10, 60, 2)
        points = [[x, y], [x + r.randrange(30, 90, 2), y]]
        attempt("draw-wire", points=points, wire_type_id=r.choice([bench.red, bench.blue, bench.pe]))
    for _ in range(6):
        x, y = r.randrange(14, 140, 2), r.randrange(8, 60, 2)
        attempt("draw-wire", points=[[x, y], [x, y + r.randrange(10, 40, 2)]], wire_type_id=bench.blue)
    for _ in range(30):
        place = {"x": r.randrange(12, 140), "y": r.choice(rows)}
        attempt("place-symbol", definition=r.choice(DEFINITIONS), text=r.choice(WORDS), **place)
    for n in range(3):
        place = {"x": r.randrange(12, 140, 2), "y": r.choice(rows)}
        attempt("place-continuation", name=f"L{n}", toward=r.choice(["left", "right", "up", "down"]), **place)
    x = r.randrange(30, 120, 2)
    attempt("place-terminals", x1=x, y1=rows[2] - 1, x2=x, y2=rows[6] + 1)
    attempt("draw-band", x1=x + 9, y1=rows[2] - 1, x2=x + 9, y2=rows[6] + 1)
    return bench


class Nowhere(TestCase):
    """0 texts on texts, symbols or wires."""

    def test_on_the_sheets_of_both_demos(self) -> None:
        for name in ("pellwick-kiln-2", "sample-store-dehumidifier"):
            project = read_project((DEMO / f"{name}.spool.json").read_bytes())
            for sheet in project.sheets_in_order():
                if not made(project, sheet.id):
                    with self.subTest(f"{name} {sheet.number}"):
                        self.assertEqual(clashes(project, sheet.id), [])

    def test_on_forty_sheets_of_stamps(self) -> None:
        bench = Workbench(frame="zones")
        for stamp in ("direct-starter", "start-stop"):
            bench.do("put-stamp", sheet_id=bench.sheet, stamp_id=stamp, x=20, y=30, rows=[{}] * 60)
        sheets = [s.id for s in bench.project.sheets_in_order()]
        self.assertGreaterEqual(len(sheets), 40)
        for id in [*sheets[::4], sheets[-1]]:  # those between have the same stamps under other numbers
            self.assertEqual(clashes(bench.project, id), [])

    def test_on_random_sheets(self) -> None:
        for seed in range(20):
            with self.subTest(seed):
                bench = random_sheet(seed)
                self.assertGreater(len(bench.project.symbols), 5)
                self.assertEqual(clashes(bench.project, bench.sheet), [])


class Remembering(TestCase):
    def test_edit_by_edit_gives_what_a_look_at_the_whole_gives(self) -> None:
        for seed in range(6):
            bench = random_sheet(seed)
            r = random.Random(seed)
            for n in range(12):
                sheet_scene(bench.project, bench.sheet)
                symbols = sorted(s.id for s in bench.project.symbols_on(bench.sheet))
                wires = sorted(w.id for w in bench.project.wires_on(bench.sheet))
                edits: list[dict[str, object]] = [
                    {"kind": "delete-selection", "ids": [r.choice(symbols)]},
                    {"kind": "delete-selection", "ids": [r.choice(wires)]},
                    {"kind": "move-selection", "ids": [r.choice(symbols)], "dx": r.randrange(-6, 7), "dy": 0},
                    {"kind": "change-settings", "wire_width": n % 3 + 1},
                ]
                edit = r.choice(edits)
                with suppress(RuleError):
                    bench.do(str(edit.pop("kind")), **edit)
            warm = sheet_scene(bench.project, bench.sheet)
            cold = sheet_scene(read_project(write_project(bench.project)), bench.sheet)
            self.assertEqual({i: v.prims for i, v in warm.items.items()}, {i: v.prims for i, v in cold.items.items()})


class Places(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")

    def shown(self, id: str) -> dict[str, Text]:
        item = sheet_scene(self.bench.project, self.bench.sheet).items[id]
        return {p.role: p for p in item.prims if isinstance(p, Text)}

    def test_a_tag_stands_where_it_is_usual_as_long_as_it_is_free_there(self) -> None:
        bench = self.bench
        lamp = bench.place("lamp", 40, 30)
        alone = self.shown(lamp)["tag"]
        bench.wire((30, 28), (60, 28))
        tag = self.shown(lamp)["tag"]
        self.assertNotEqual((tag.x, tag.y), (alone.x, alone.y), "a wire runs through its usual place")
        self.assertLess(abs(tag.x - alone.x) + abs(tag.y - alone.y), 12, "it stands near by")
        (wire,) = bench.project.wires_on(bench.sheet)
        bench.do("delete-selection", ids=[wire.id])
        self.assertEqual(self.shown(lamp)["tag"], alone)

    def test_what_a_hand_has_moved_stays_and_says_when_it_leaves_the_frame(self) -> None:
        bench = self.bench
        lamp = bench.place("lamp", 40, 30)
        bench.do("move-text", ids=[lamp], text="tag", dx_mm=10, dy_mm=0)
        by_hand = self.shown(lamp)["tag"]
        bench.wire((30, 28), (60, 28))
        self.assertEqual(self.shown(lamp)["tag"], by_hand)
        self.assertEqual([s for s in snags_on(bench.project, bench.sheet) if s.code == "text-outside"], [])
        bench.do("move-text", ids=[lamp], text="tag", dx_mm=-150, dy_mm=0)
        (snag,) = [s for s in snags_on(bench.project, bench.sheet) if s.code == "text-outside"]
        self.assertEqual((snag.ids, snag.message[:20]), ((lamp,), "“-PF1” lies outside "))

    def test_how_far_it_moved_is_told_so_that_a_hand_can_take_over_from_there(self) -> None:
        lamp = self.bench.place("lamp", 40, 30)
        usual = self.shown(lamp)["tag"]
        self.bench.wire((30, 28), (60, 28))
        item = sheet_scene(self.bench.project, self.bench.sheet).items[lamp]
        dx, dy = (float(v) for v in item.facts["settled"]["tag"].split(","))
        tag = self.shown(lamp)["tag"]
        self.assertEqual((round(usual.x + dx, 2), round(usual.y + dy, 2)), (tag.x, tag.y))
        self.bench.do("move-text", ids=[lamp], text="tag", dx_mm=dx, dy_mm=dy)
        self.assertEqual(self.shown(lamp)["tag"], tag, "taken over by hand it stands where it stood")

    def test_each_row_of_terminals_each_side_of_a_gap_and_each_lone_one_names_its_strip(self) -> None:
        bench = self.bench
        for x in (20, 24, 28, 60, 64, 120):
            bench.wire((x, 20), (x, 60))
        placed = bench.do("place-terminals", sheet_id=bench.sheet, x1=18, y1=40, x2=122, y2=40).placed
        tags = [self.shown(id)["tag"].words for id in placed]
        self.assertEqual(tags, ["-XD1:1", ":2", ":3", "-XD1:4", ":5", "-XD1:6"])
        other = bench.do("place-terminals", sheet_id=bench.sheet, x1=18, y1=50, x2=30, y2=50, new_strip=True).placed
        self.assertEqual([self.shown(id)["tag"].words for id in other], ["-XD2:1", ":2", ":3"])

    def test_a_continuation_shows_all_its_other_ends_each_its_own_link(self) -> None:
        bench = self.bench
        here = bench.new("place-continuation", sheet_id=bench.sheet, x=20, y=20, name="24 V", toward="left")
        ends = []
        for n in range(14):
            sheet = bench.new("add-sheet", number=str(40 + n), frame="zones")
            ends.append(bench.new("place-continuation", sheet_id=sheet, x=30, y=20, name="24 V"))
        item = sheet_scene(bench.project, bench.sheet).items[here]
        texts = [p for p in item.prims if isinstance(p, Text)]
        self.assertEqual([p.link for p in texts if p.link], ends)
        self.assertEqual([p.words.rstrip(",") for p in texts if p.link], [f"{40 + n}/A2" for n in range(14)])
        self.assertGreaterEqual(min(p.size for p in texts), 1.8)
        self.assertEqual(clashes(bench.project, bench.sheet), [])


class Legible(TestCase):
    def test_no_text_on_any_paper_is_smaller_than_can_be_read_and_none_is_cut(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        pages = [s.id for s in project.sheets_in_order()] + [p.id for p in generated_pages(project)]
        for id in pages:
            for scene in page_leaves(project, id) if made(project, id) else [sheet_scene(project, id)]:
                texts = [p for item in scene.items.values() for p in item.prims if isinstance(p, Text) and p.words]
                self.assertGreaterEqual(min(p.size for p in texts), 1.8 - 1e-9, id)
                self.assertEqual([p.words for p in texts if "…" in p.words], [])
