"""Any random sequence of acts over several sheets: canonical wires, true indexes, own tags, contact ties, undo."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.checks import all_snags
from jolly_core.exchange import read_project, write_project
from jolly_core.library import definition, drawn_key, sketch_from
from jolly_core.model import CoreError, Project, changes_from_json, changes_to_json
from jolly_core.scenes import sheet_scene
from jolly_core.tagging import full_tag, terminal_number
from jolly_core.terminals import is_strip
from jolly_core.testing import Workbench
from jolly_core.wiring import wire_numbers

from ..base.history import take_back
from ..pieces.pieces import piece_of, piece_to_json

pick = st.integers(0, 10_000)
grid = st.integers(8, 70)
step = st.integers(-12, 12)
# Two drawn symbols: one that comes along with other graphics, one of poles that are repeated.
BEACON = drawn_key({**sketch_from(definition("lamp")), "name": "Beacon"})
SWITCH = drawn_key({**sketch_from(definition("breaker")), "name": "House breaker", "places": {"tag": [2, -2]}})
SYMBOLS = (
    "coil",
    "contact-no",
    "contact-nc",
    "breaker",
    "contactor-pole",
    "terminal",
    "terminal-fuse",
    "lamp",
    "motor",
    BEACON,
    SWITCH,
)
MOST = 600  # things on sheets
HOW = ("left", "right", "top", "bottom", "column", "row")


def chosen(values: Any, number: int) -> Any:
    """Return one of some values in order, "" when there are none."""
    values = sorted(values)
    return values[number % len(values)] if values else ""


class Acts:
    """What a person may do, each act with some random numbers: n picks things, the others say where and how far."""

    def __init__(self, bench: Workbench, n: int, at: tuple[int, int], by: tuple[int, int]) -> None:
        self.bench, self.p, self.n, self.at, self.by = bench, bench.project, n, at, by
        self.sheet = chosen(self.p.sheets, n)
        kinds = ("symbol", "wire", "continuation", "note", "figure")
        here = sorted(i for kind in kinds for i in self.p.on_sheet[kind].get(self.sheet))
        self.some = here[n % 3 :: 2]
        self.symbol = chosen(self.p.symbols, n)

    def draw(self) -> None:
        x, y = self.at
        self.bench.wire((x, y), (min(80, x + 20), y), type_id=chosen(self.p.wire_types, self.n), sheet_id=self.sheet)

    def place(self) -> None:
        self.bench.place(SYMBOLS[self.n % len(SYMBOLS)], *self.at, sheet_id=self.sheet)

    def follow(self) -> None:
        device = chosen(self.p.devices, self.n)
        self.bench.place(SYMBOLS[self.n % 5], *self.at, sheet_id=self.sheet, device_id=device)

    def repeat(self) -> None:
        dx, dy = self.by
        self.bench.do("repeat-selection", ids=self.some[:6], count=1 + self.n % 3, dx=dx, dy=dy)

    def paste(self) -> None:
        x, y = self.at
        raw = piece_to_json(piece_of(self.p, self.sheet, self.some[:8]))
        to = chosen(self.p.sheets, self.n + 1)
        self.bench.do("paste-piece", sheet_id=to, x=x, y=y, piece=raw, keep_fixed=self.n % 2 == 0)

    def to_sheet(self) -> None:
        dx, dy = self.by
        self.bench.do("move-to-sheet", ids=self.some[:6], sheet_id=chosen(self.p.sheets, self.n + 1), dx=dx, dy=dy)

    def copy_sheet(self) -> None:
        if len(self.p.sheets) < 4:
            self.bench.do("duplicate-sheet", sheet_id=self.sheet, number=f"{50 + len(self.p.sheets)}")

    def poles(self) -> None:
        values = {"without": 1 + self.n % 3} if self.n % 2 else {"poles": 1 + self.n % 4}
        self.bench.do("set-poles", symbol_id=self.symbol, **values)

    def split(self) -> None:
        self.bench.do("split-poles", symbol_id=self.symbol)

    def swap(self) -> None:
        self.bench.do("swap-symbol", symbol_id=self.symbol, definition=SYMBOLS[self.at[0] % len(SYMBOLS)])

    def align(self) -> None:
        self.bench.do("align-selection", ids=self.some, how=HOW[self.n % 6])

    def spread(self) -> None:
        self.bench.do("distribute-selection", ids=self.some, along="across" if self.n % 2 else "down")

    def lock(self) -> None:
        self.bench.do("set-lock", ids=self.some[:2], locked=self.n % 2 == 0)

    def text(self) -> None:
        self.bench.do("move-text", ids=[self.symbol], text="tag", dx_mm=self.by[0], dy_mm=self.by[1])

    def figure(self) -> None:
        (x, y), place = self.at, chosen(self.p.locations, self.n)
        self.bench.do("draw-figure", sheet_id=self.sheet, x1=x, y1=y, x2=x + 10, y2=y + 10, location_id=place)

    def rung(self) -> None:
        kind = "insert-rung" if self.n % 2 else "remove-rung"
        self.bench.do(kind, sheet_id=self.sheet, line=self.p.sheets[self.sheet].first_line + self.n % 8)

    def marks(self) -> None:
        (x, y), names = self.at, [f"M{self.n % 3}"]
        self.bench.do("place-continuations", sheet_id=self.sheet, x1=x, y1=y, x2=x, y2=y + 20, names=names)

    def rename(self) -> None:
        mark = chosen(self.p.continuations, self.n)
        self.bench.do("rename-continuation", mark_id=mark, name=f"R{self.at[0] % 4}", alone=self.n % 2 == 0)

    def stamp(self) -> None:
        x, y = self.at
        if not self.p.stamps:
            self.bench.do("keep-stamp", ids=self.some[:8], name="Some")
        else:
            stamp = chosen(self.p.stamps, 0)
            self.bench.do("put-stamp", sheet_id=self.sheet, stamp_id=stamp, x=x, y=y, rows=[{}, {}], dx=30, dy=0)

    def rule(self) -> None:
        pieces = [{"piece": ("sheet", "line", "column")[self.n % 3]}, {"piece": "running", "start": self.n % 5}]
        scope = "net" if self.n % 4 == 0 else "potential"
        self.bench.do("put-number-rule", name=f"R{self.n % 3}", pieces=pieces[self.n % 2 :], scope=scope)

    def fix(self) -> None:
        self.bench.do("fix-numbers", sheet_ids=[self.sheet], fixed=self.n % 2 == 0)

    def tags(self) -> None:
        self.bench.do("number-tags", sheet_ids=[self.sheet], start=1 + self.n % 5)

    def letters(self) -> None:
        self.bench.do("put-tag-rule", part_class="relay", letters="K" if self.n % 2 else "", start=self.n % 3 * 50)

    def retype(self) -> None:
        wire, to = chosen(self.p.wires, self.n), chosen(self.p.wire_types, self.at[0])
        self.bench.do("set-wire-type", ids=[wire], wire_type_id=to, whole_net=self.n % 2 == 0)

    def drop_type(self) -> None:
        if len(self.p.wire_types) > 2:
            one, other = (chosen(self.p.wire_types, n) for n in (self.n, self.n + 1))
            self.bench.do("remove-wire-type", wire_type_id=one, goes_to=other)

    def strip(self) -> None:
        strips = [d for d in self.p.devices if is_strip(self.p, self.p.devices[d])]
        self.bench.do("set-strip", strip_id=chosen(strips, self.n), numbering="wire" if self.n % 2 else "order")

    def mute(self) -> None:
        snags = all_snags(self.p)
        self.bench.do("mute-snag", key=chosen([s.key for s in snags], self.n) or "none", reason="known")

    def change_text(self) -> None:
        self.bench.do("replace-texts", find="M", replace="N", where=["continuations", "texts"])

    def delete(self) -> None:
        self.bench.do("delete-selection", ids=self.some[:3])

    def move(self) -> None:
        dx, dy = self.by
        self.bench.do("move-selection", ids=self.some[:5], dx=dx, dy=dy, allow_join=self.n % 2 == 0)


NAMES = sorted(name for name in vars(Acts) if not name.startswith("_"))
acts = st.tuples(st.sampled_from(NAMES), pick, st.tuples(grid, grid), st.tuples(step, step))


def perform(bench: Workbench, act: tuple[Any, ...]) -> None:
    """Do one random act."""
    name, n, at, by = act
    getattr(Acts(bench, n, at, by), name)()


def rebuilt(project: Project) -> Project:
    """Return a project loaded from the entities of another."""
    fresh = Project()
    for kind, table in project.tables.items():
        fresh.load(kind, list(table.values()))
    return fresh


class OverSheets(TestCase):
    @settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts, min_size=4, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        bench = Workbench(rails=True)
        bench.new("add-sheet", number="40", frame="zones")
        bench.new("add-location", code="D", side="door")
        # Something to act on, or most acts would find nothing.
        bench.wire((14, 16), (82, 16))
        bench.place("button-no", 24, 16)
        bench.place("contact-no", 24, 25, device_id=bench.device(bench.place("coil", 60, 16)))
        for n in range(3):
            bench.wire((20 + 4 * n, 40), (20 + 4 * n, 80))
        bench.place("breaker", 20, 50)
        bench.done.clear()
        project = bench.project
        first = list(project.entities())
        for act in sequence:
            if len(project.symbols) + len(project.wires) > MOST:
                break  # copies of copies: more of the same only takes long
            before, stamp = list(project.entities()), project.stamp
            try:
                perform(bench, act)
            except (CoreError, ValidationError):
                self.assertEqual(list(project.entities()), before, f"refused {act[0]} left something behind")
                self.assertEqual(project.stamp, stamp)
        self.assertTrue(bench.canonical())
        self.devices_are_whole(project)
        fresh = rebuilt(project)
        for sheet_id in project.sheets:
            self.assertTrue(sheet_scene(project, sheet_id).items)
            self.assertEqual(wire_numbers(project, sheet_id), wire_numbers(fresh, sheet_id))
        self.assertEqual(list(read_project(write_project(project)).entities()), list(project.entities()))
        last = list(project.entities())
        stored = [changes_from_json(changes_to_json(o.changes)) for o in bench.done]
        for changes in reversed(stored):
            project.apply(take_back(project, changes))
        self.assertEqual(list(project.entities()), first, "undo of all is not the first model")
        for changes in stored:
            project.apply(take_back(project, changes.inverse()))
        self.assertEqual(list(project.entities()), last, "redo of all is not the last model")

    def devices_are_whole(self, project: Project) -> None:
        """Compare tags, units and what keeps a device in the project."""
        tags = [full_tag(project, d) for d in project.devices.values() if not d.fixed_tag]
        tags = [t for t in tags if not t.endswith("?")]
        self.assertEqual(len(tags), len(set(tags)), "two devices have one running tag")
        for device in project.devices.values():
            units = project.units_of(device.id)
            self.assertTrue(units or project.attached.get(device.id), "a device is left over")
            taken: set[tuple[str, int]] = set()
            for symbol in units:
                kind = definition(symbol.definition).unit
                for number in symbol.units:
                    self.assertNotIn((kind, number), taken, "one unit is drawn twice")
                    taken.add((kind, number) if number else (kind, -len(taken) - 1))
                if kind == "terminal":
                    self.assertTrue(terminal_number(project, device.id, symbol.units[0]))
