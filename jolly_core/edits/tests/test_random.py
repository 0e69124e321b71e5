"""Any random sequence of edits: wires stay canonical, indexes true, and undo of all gives the first model again."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.model import CoreError, Project, changes_from_json, changes_to_json
from jolly_core.scenes import sheet_scene
from jolly_core.testing import Workbench
from jolly_core.wiring import all_nets, nets_of_sheet

from ..base.history import take_back

SYMBOLS = ("coil", "contact-no", "contact-nc", "button-nc", "lamp", "breaker", "terminal", "contact-co", "motor")
grid = st.integers(8, 60)
step = st.integers(-9, 9)
pick = st.integers(0, 10_000)

acts = st.one_of(
    st.tuples(st.just("wire"), grid, grid, grid, st.integers(0, 2)),
    st.tuples(st.just("place"), st.sampled_from(SYMBOLS), grid, grid, pick),
    st.tuples(st.just("on-wire"), st.sampled_from(SYMBOLS), pick, st.integers(0, 20), pick),
    st.tuples(st.just("move"), pick, step, step, st.booleans()),
    st.tuples(st.just("move-many"), pick, step, step, st.booleans()),
    st.tuples(st.just("delete"), pick, pick, st.none(), st.none()),
    st.tuples(st.just("turn"), pick, st.booleans(), st.none(), st.none()),
    st.tuples(st.just("swap"), pick, st.none(), st.none(), st.none()),
    st.tuples(st.just("copy"), pick, step, step, pick),
    st.tuples(st.just("part"), pick, pick, st.none(), st.none()),
    st.tuples(st.just("number"), pick, st.integers(0, 4), st.none(), st.none()),
    st.tuples(st.just("type"), pick, pick, st.none(), st.none()),
    st.tuples(st.just("belong"), pick, pick, st.none(), st.none()),
    st.tuples(st.just("mark"), grid, grid, st.integers(0, 2), st.none()),
)


def chosen(values: Any, number: int) -> Any:
    """Return one of some sorted values, "" when there are none."""
    values = sorted(values)
    return values[number % len(values)] if values else ""


def perform(bench: Workbench, act: tuple[Any, ...]) -> None:
    """Do one random act."""
    name, a, b, c, d = act
    p = bench.project
    drawn = [*p.symbols, *p.wires, *p.continuations]
    types = (bench.blue, bench.red, bench.pe)
    if name == "wire":
        bench.wire((a, b), (c, b), (c, min(60, b + 6)), type_id=types[d])
    elif name == "place":
        bench.place(a, b, c, device_id=chosen(p.devices, d) if d % 3 == 0 else "")
    elif name == "on-wire":
        wire = p.wires.get(chosen(p.wires, b))
        if wire is not None:
            horizontal = wire.y1 == wire.y2
            x, y = (wire.x1 + c, wire.y1) if horizontal else (wire.x1, wire.y1 + c)
            bench.place(a, x, y, device_id=chosen(p.devices, d) if d % 3 == 0 else "")
    elif name == "move":
        bench.do("move-selection", ids=[chosen(drawn, a)], dx=b, dy=c, allow_join=d)
    elif name == "move-many":
        bench.do("move-selection", ids=sorted(drawn)[a % 3 :: 2], dx=b, dy=c, allow_join=d)
    elif name == "delete":
        bench.do("delete-selection", ids=sorted({chosen(drawn, a), chosen(drawn, b)}))
    elif name == "turn":
        bench.do("turn-selection", ids=[chosen(p.symbols, a)], how="turn" if b else "flip")
    elif name == "swap":
        bench.do("swap-contact", symbol_id=chosen(p.symbols, a))
    elif name == "copy":
        bench.do("duplicate-selection", ids=sorted(drawn)[d % 3 :: 3], dx=b, dy=c)
    elif name == "part":
        bench.do("assign-part", device_id=chosen(p.devices, a), part_id=chosen(bench.library.parts, b))
    elif name == "number":
        bench.do("fix-wire-number", wire_id=chosen(p.wires, a), number=f"{b}" if b else "")
    elif name == "type":
        bench.do("set-wire-type", ids=[chosen(p.wires, a)], wire_type_id=types[b % 3])
    elif name == "belong":
        bench.do("belong-to", symbol_id=chosen(p.symbols, a), device_id=chosen(p.devices, b))
    elif name == "mark":
        bench.do("place-continuation", sheet_id=bench.sheet, x=a, y=b, name=f"M{c}")


def rebuilt(project: Project) -> Project:
    """Return a project loaded from the entities of another."""
    fresh = Project()
    for kind, table in project.tables.items():
        fresh.load(kind, list(table.values()))
    return fresh


class RandomEdits(TestCase):
    @settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts, min_size=1, max_size=14))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        bench = Workbench(rails=True)
        project = bench.project
        first = list(project.entities())
        for act in sequence:
            before, stamp = list(project.entities()), project.stamp
            try:
                perform(bench, act)
            except (CoreError, ValidationError):
                self.assertEqual(list(project.entities()), before, f"refused {act[0]} left something behind")
                self.assertEqual(project.stamp, stamp)
                continue
            self.assertTrue(bench.canonical(), f"wires are not canonical after {act[0]}")
            self.nets_are_right(project, bench.sheet)
        fresh = rebuilt(project)
        for name in ("on_sheet", "symbols_of_device", "devices_of_part", "devices_tagged", "continuations_named"):
            self.assertEqual(getattr(project, name), getattr(fresh, name), f"index {name} is not true")
        self.assertEqual(project.numbered_wires, fresh.numbered_wires)
        self.assertTrue(sheet_scene(project, bench.sheet).items)
        self.undo_all_and_redo(bench, first)

    def undo_all_and_redo(self, bench: Workbench, first: list[Any]) -> None:
        project = bench.project
        last = list(project.entities())
        stored = [changes_from_json(changes_to_json(o.changes)) for o in bench.done]
        for changes in reversed(stored):
            project.apply(take_back(project, changes))
        self.assertEqual(list(project.entities()), first, "undo of all is not the first model")
        for changes in stored:
            project.apply(take_back(project, changes.inverse()))
        self.assertEqual(list(project.entities()), last, "redo of all is not the last model")

    def nets_are_right(self, project: Project, sheet_id: str) -> None:
        """Compare nets kept over edits with nets from cold, and with what touches by plain walking."""
        kept = [(g.pins, g.wires) for net in nets_of_sheet(project, sheet_id) for g in net]
        cold = [(g.pins, g.wires) for net in nets_of_sheet(rebuilt(project), sheet_id) for g in net]
        self.assertEqual(kept, cold)
        pins = [pin for net in all_nets(project) for g in net for pin in g.pins]
        self.assertEqual(len(pins), len(set(pins)), "a pin is in two nets")
        where = {w: i for i, net in enumerate(all_nets(project)) for g in net for w in g.wires}
        wires = list(project.wires.values())
        for a in wires:
            for b in wires:
                if {(a.x1, a.y1), (a.x2, a.y2)} & {(b.x1, b.y1), (b.x2, b.y2)}:
                    self.assertEqual(where[a.id], where[b.id], "wires that meet are in two nets")
