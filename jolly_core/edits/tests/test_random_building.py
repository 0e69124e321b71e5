"""Any random sequence of edits to strips, cables, cards, layouts and harnesses: nothing half done, all taken back."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.checks import all_snags
from jolly_core.exchange import read_project, write_project
from jolly_core.making import dossiers
from jolly_core.model import CoreError, changes_from_json, changes_to_json
from jolly_core.reports import REPORTS, run_report
from jolly_core.scenes import generated_pages, page_scene
from jolly_core.terminals import place_key, strips
from jolly_core.testing import Workbench

from ..base.history import take_back

pick = st.integers(0, 10_000)
few = st.integers(0, 9)
mm = st.integers(-20, 800)

KINDS = (
    "terminals",
    "order",
    "number",
    "bridge",
    "unbridge",
    "accessory",
    "unaccessory",
    "plan",
    "spare",
    "make-strip",
    "set-terminals",
    "sort",
    "renumber",
    "hand-over",
    "merge",
    "proposals",
    "draw-planned",
    "band",
    "cable-part",
    "swap",
    "default",
    "length",
    "points",
    "card",
    "address",
    "allocate",
    "free",
    "channel",
    "uncard",
    "rail",
    "duct",
    "put",
    "shift",
    "out",
    "node",
    "split",
    "segment",
    "unnode",
    "delete",
    "move",
    "place",
)
acts = st.tuples(st.sampled_from(KINDS), pick, pick, few, mm, mm)
CABLES = ("quillon-ql-c4g2-5", "quillon-ql-c7g1-5", "quillon-ql-s4-0-5-s")


def one(values: Any, number: int) -> Any:
    """Return one of some sorted values, "" when there are none."""
    found = sorted(values)
    return found[number % len(found)] if found else ""


class Base(Workbench):
    """A panel lamp row wired to field lamps, three connectors wired to each other, an enclosure."""

    def __init__(self) -> None:
        super().__init__(frame="zones")
        self.places = [
            self.new("add-location", code=c, side=s) for c, s in (("P", "panel"), ("D", "door"), ("F", "field"))
        ]
        for n, y in enumerate((20, 26, 32, 38)):
            for x, place in ((12, self.places[n % 2]), (60, self.places[2])):
                lamp = self.place("lamp", x, y, part_id="tamwick-tw-l22-g" if n else "")
                self.do("set-place", device_id=self.device(lamp), function_id="", location_id=place)
            self.wire((16, y), (60, y), type_id=self.pe if n == 3 else self.blue)
        relay = self.place("coil", 80, 20, part_id="hollin-hr-k22")
        self.do("set-place", device_id=self.device(relay), function_id="", location_id=self.places[0])
        for n, y in enumerate((50, 56, 62)):
            self.wire((20, y), (60, y))
            self.place("connector", 60, y, part_id="tamwick-tw-p4")
            self.place("connector", 20, y, rotation=180, part_id="tamwick-tw-p4" if n else "")
        self.enclosure = self.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=self.places[0])
        self.harness = self.new("add-harness", code="WH-1")
        self.do("place-terminals", sheet_id=self.sheet, x1=24, y1=18, x2=24, y2=40)
        self.do("draw-band", sheet_id=self.sheet, x1=40, y1=18, x2=40, y2=40, part_id=CABLES[1])
        self.do("add-card", part_id="hollin-hr-di8", location_id=self.places[0])
        self.do("take-in-points", points=[{"tag": f"B{n}", "io_type": ("DI", "DO")[n % 2]} for n in range(4)])
        for what, part, y in (("rail", "brindlework-bw-r35", 200), ("duct", "brindlework-bw-d4060", 100)):
            run = {"enclosure_id": self.enclosure, "part_id": part, "x1": 40, "y1": y, "x2": 500, "y2": y}
            self.do("draw-run", what=what, **run)
        connectors = sorted(s.device_id for s in self.project.symbols.values() if s.definition == "connector")
        start = self.new("add-node", harness_id=self.harness, device_id=connectors[0])
        self.do("add-node", harness_id=self.harness, device_id=connectors[1], from_id=start, length_mm=400)
        self.done.clear()

    def one_strip(self, i: int) -> str:
        return str(one([d.id for d in strips(self.project)], i))

    def one_cable(self, i: int) -> str:
        return str(one({c.device_id for c in self.project.cables.values()}, i))

    def one_card(self, i: int) -> str:
        return str(one({c.device_id for c in self.project.cards.values()}, i))


Act = Callable[["Base", int, int, int, int, int], None]
ACTS: dict[str, Act] = {}


def act(*names: str) -> Callable[[Act], Act]:
    """Register a random act under its names."""

    def register(function: Act) -> Act:
        ACTS.update(dict.fromkeys(names, function))
        return function

    return register


@act("terminals")
def _terminals(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    column = 24 + 6 * (i % 5)
    b.do("place-terminals", sheet_id=b.sheet, x1=column, y1=18, x2=column, y2=20 + 6 * (j % 4), new_strip=k > 6)


@act("order")
def _order(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = b.one_strip(i)
    b.do("move-strip-items", strip_id=strip, keys=[f"u{1 + j % 6}"], to=k)


@act("number")
def _number(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = b.one_strip(i)
    b.do("number-terminal", strip_id=strip, unit=1 + j % 5, number=f"{k}" if k else "")


@act("bridge")
def _bridge(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = b.one_strip(i)
    b.do("bridge-terminals", strip_id=strip, units=[1 + j % 4, 2 + j % 4] if k else [1, 4])


@act("unbridge")
def _unbridge(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("remove-bridge", bridge_id=one(p.bridges, j))


@act("accessory")
def _accessory(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = b.one_strip(i)
    part = "quillon-ql-eb" if k % 2 else ""
    b.do("add-strip-accessory", strip_id=strip, accessory="end-bracket", position=k, part_id=part)


@act("unaccessory")
def _unaccessory(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    item = p.get("strip_item", one(p.strip_items, j))
    b.do("remove-strip-items", strip_id=item.strip_id, keys=[place_key(item)])


@act("plan", "spare")
def _plan(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    kinds = ("feed-through", "earth", "fuse", "disconnect")
    b.do(
        "plan-terminals",
        strip_id=b.one_strip(i),
        count=1 + j % 3,
        at=f"u{k}" if k else "",
        side="before" if x % 2 else "after",
        terminal_kind=kinds[y % 4],
        levels=1 + j % 2,
        spare=x % 3 == 0,
        bridged=k % 4 == 0,
    )


@act("make-strip")
def _make_strip(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    ends = {"accessories": ["end-bracket"], "terminal_kind": "earth"}
    b.do("make-strip", count=2 + j % 5, start=i, step=1 + k % 2, backward=j % 2 == 0, levels=1 + k % 3, last=ends)


@act("set-terminals")
def _set_terminals(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    said = ({"terminal_kind": "fuse"}, {"joint": "part"}, {"facing": "first"}, {"remark": "see note"}, {"spare": True})
    b.do("set-terminals", strip_id=b.one_strip(i), units=[1 + k % 5, 2 + k % 5], **said[j % 5])


@act("sort", "renumber")
def _sort(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = b.one_strip(i)
    if j % 2:
        b.do("sort-strip", strip_id=strip, by=("number", "wire", "cable", "sheet", "place")[k % 5])
    else:
        units = [1 + k % 4, 3] if y % 2 else []
        b.do("number-terminals", strip_id=strip, units=units, start=k, step=1 + x % 2, keep_fixed=y % 3 == 0)


@act("hand-over", "merge")
def _hand_over(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    strip, other = b.one_strip(i), b.one_strip(j)
    if k == 9:
        b.do("remove-strip", strip_id=strip)
    elif k % 3 == 0:
        b.do("merge-strips", strip_id=strip, into_id=other)
    else:
        b.do("move-terminals", strip_id=strip, units=[1 + x % 4], to_strip_id=other if k % 2 else "")


@act("proposals")
def _proposals(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("take-proposals", strip_id=b.one_strip(i), spare_percent=5 * k)


@act("draw-planned")
def _draw_planned(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    column = 24 + 6 * (i % 5)
    ends = {"x1": column, "y1": 18, "x2": column, "y2": 20 + 6 * (j % 4)}
    b.do("place-terminals", sheet_id=b.sheet, device_id=b.one_strip(k), units=[1 + x % 9, 2 + x % 9, 3 + x % 9], **ends)


@act("band")
def _band(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = b.one_cable(i)
    column = 27 + 6 * (i % 5)
    b.do(
        "draw-band",
        sheet_id=b.sheet,
        x1=column,
        y1=18 + 6 * (j % 3),
        x2=column,
        y2=40,
        device_id=cable if k > 4 else "",
        part_id=CABLES[k % 3] if k < 3 else "",
    )


@act("cable-part")
def _cable_part(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = b.one_cable(i)
    b.do("assign-part", device_id=cable, part_id=CABLES[j % 3] if k else "")


@act("swap")
def _swap(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = b.one_cable(i)
    b.do("swap-cores", device_id=cable, first=1 + j % 5, second=1 + k % 5)


@act("default")
def _default(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = b.one_cable(i)
    b.do("default-cores", device_id=cable)


@act("length")
def _length(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = b.one_cable(i)
    b.do("set-cable", device_id=cable, length_m=k, load_a=j % 3)


@act("points")
def _points(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    listed = [{"tag": f"B{(j + n) % 7}", "io_type": ("DI", "DO")[(k + n) % 2]} for n in range(1 + k % 3)]
    b.do("take-in-points", points=listed)


@act("card")
def _card(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("add-card", part_id=("hollin-hr-di8", "hollin-hr-do8")[k % 2], location_id=b.places[0])


@act("address")
def _address(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    card = b.one_card(i)
    b.do(
        "address-card",
        device_id=card,
        scheme=("whole", "byte.bit")[k % 2],
        start=str(j % 9) + (".3" if k > 4 else ""),
    )


@act("allocate")
def _allocate(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    card = b.one_card(i)
    b.do("allocate-points", ids=[one(p.io_points, j), one(p.io_points, j + 1)], device_id=card, channel=1 + k)


@act("free")
def _free(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("free-points", ids=[one(p.io_points, j)])


@act("channel")
def _channel(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    card = b.one_card(i)
    b.place("plc-input" if k % 2 else "plc-output", 90 + j % 30, 60 + k, device_id=card)


@act("uncard")
def _uncard(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    card = b.one_card(i)
    b.do("delete-card", device_id=card)


@act("rail")
def _rail(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    part = "brindlework-bw-r35"
    ends = {"x1": 40, "y1": y, "x2": x, "y2": y} if k % 2 else {"x1": x, "y1": 40, "x2": x, "y2": y}
    b.do("draw-run", what="rail", enclosure_id=b.enclosure, part_id=part, **ends)


@act("duct")
def _duct(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    part = "brindlework-bw-d4060"
    ends = {"x1": 40, "y1": y, "x2": x, "y2": y} if k % 2 else {"x1": x, "y1": 40, "x2": x, "y2": y}
    b.do("draw-run", what="duct", enclosure_id=b.enclosure, part_id=part, **ends)


@act("put")
def _put(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    rail = p.rails.get(one(p.rails, j))
    at = (rail.x1, rail.y1) if rail else (x, y)
    surface = "door" if k % 3 == 0 else "plate"
    b.do(
        "place-devices",
        enclosure_id=b.enclosure,
        surface=surface,
        device_ids=[one(p.devices, i), one(p.devices, j)][: 1 + k % 2],
        x=at[0],
        y=at[1],
        gap_mm=k,
    )


@act("shift")
def _shift(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    layout = [*p.placings, *p.rails, *p.ducts]
    b.do("move-in-layout", ids=[one(layout, i)], dx=x - 400, dy=k * 20 - 90)


@act("out")
def _out(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    layout = [*p.placings, *p.rails, *p.ducts]
    b.do("remove-from-layout", ids=[one(layout, i)])


@act("node")
def _node(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    connectors = {s.device_id for s in p.symbols.values() if s.definition == "connector"}
    b.do(
        "add-node",
        harness_id=b.harness,
        device_id=one(connectors, i) if k else "",
        from_id=one(p.nodes, j) if p.nodes else "",
        length_mm=100 + k * 50,
    )


@act("split")
def _split(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("split-segment", segment_id=one(p.segments, i), at_mm=50 + k * 20)


@act("segment")
def _segment(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("set-segment", segment_id=one(p.segments, i), length_mm=100 + 10 * (j % 40))


@act("unnode")
def _unnode(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("remove-node", node_id=one(p.nodes, i))


@act("delete")
def _delete(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("delete-selection", ids=[one([*p.symbols, *p.bands, *p.wires], i)])


@act("move")
def _move(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("move-selection", ids=[one([*p.symbols, *p.bands], i)], dx=j % 7 - 3, dy=k - 4, allow_join=bool(k % 2))


@act("place")
def _place(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    place = one(b.places, k) if k else ""
    b.do("set-place", device_id=one(p.devices, i), function_id="", location_id=place)


def perform(b: Base, act: tuple[Any, ...]) -> None:
    """Do one random act."""
    name, *numbers = act
    ACTS[name](b, *numbers)


class RandomBuilding(TestCase):
    @settings(max_examples=45, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts, min_size=3, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        run_sequence(self, sequence, ACTS)


def run_sequence(case: TestCase, sequence: list[tuple[Any, ...]], known: Mapping[str, Act]) -> None:
    """Do random acts: refused ones leave nothing behind, what is there is stored and computed, all is taken back."""
    bench = Base()
    project = bench.project
    first = list(project.entities())
    for name, *numbers in sequence:
        before = list(project.entities())
        try:
            known[name](bench, *numbers)
        except (CoreError, ValidationError):
            case.assertEqual(list(project.entities()), before, f"refused {name} left something behind")
    case.assertTrue(bench.canonical())
    # What is stored can be read back: every reference holds.
    case.assertEqual(list(read_project(write_project(project)).entities()), list(project.entities()))
    everything_can_be_computed(case, bench)
    stored = [changes_from_json(changes_to_json(o.changes)) for o in bench.done]
    for changes in reversed(stored):
        project.apply(take_back(project, changes))
    case.assertEqual(list(project.entities()), first, "undo of all is not the first model")


def everything_can_be_computed(case: TestCase, bench: Base) -> None:
    """Run every report, check and generated page; each conductor runs in exactly one thing."""
    project = bench.project
    for key in REPORTS:
        run_report(project, key)
    all_snags(project)
    for page in generated_pages(project):
        case.assertTrue(page_scene(project, page.id).items)
    for d in dossiers(project).values():
        case.assertEqual(d.length_mm is None, bool(d.missing) or d.runs in ("cable", "direct"), d.key)
