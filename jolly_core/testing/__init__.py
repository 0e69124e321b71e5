"""Help for tests: a bench on which edits are applied to a project as the server would."""

from __future__ import annotations

import json
import random
from functools import cache
from pathlib import Path
from typing import Any

import jolly_core.assembly  # noqa: F401  # tests work on projects as programs do
from jolly_core.cabinet import Network
from jolly_core.drawing import is_canonical, pin_points, through_spans
from jolly_core.edits import Outcome, parse_edit, perform
from jolly_core.exchange import read_project
from jolly_core.library import BlockPattern, KeptStamp, is_like
from jolly_core.model import (
    REFERENCES,
    ChangeSet,
    CoreError,
    IdSource,
    Part,
    Project,
    Symbol,
    changes_to,
    copied,
    from_record,
    users_of,
)
from jolly_core.tagging import product_tag

# Numbers of the sheets of the demo project, in order.
DEMO_SHEETS = [
    str(n) for n in (1, 2, 3, 10, 11, 12, 13, 14, 20, 30, 31, 32, 33, 34, *range(50, 60), 80, 81, 90, 91, 92, 95, 96)
]
DEMO = Path(__file__).resolve().parent.parent.parent / "demo"
HANGS_S = 600.0  # what has not ended by then never will; a slow machine is no fault
FONTS = DEMO.parent / "build" / "faces"  # where scripts/prepare puts the faces of the papers


@cache
def _demo_parts() -> dict[str, Part]:
    raw = json.loads((DEMO / "library.json").read_text(encoding="utf-8"))
    return {r["id"]: from_record("part", r) for r in raw["parts"]}


class DemoLibrary:
    """The demo's parts, without a database."""

    def __init__(self) -> None:
        self.parts: dict[str, Part] = dict(_demo_parts())

    def part(self, id: str) -> Part | None:
        """Return a part by id or number."""
        return self.parts.get(id) or next((p for p in self.parts.values() if p.number == id), None)

    def title_block(self, id: str) -> BlockPattern | None:
        """Return None: the demo's library keeps no title blocks."""
        return None

    def stamp(self, id: str) -> KeptStamp | None:
        """Return None: the demo's library keeps no stamps."""
        return None

    def parts_of(self, part_class: str) -> list[Part]:
        """Return the parts of a class, by number."""
        return sorted((p for p in self.parts.values() if is_like(p.part_class, part_class)), key=lambda p: p.number)


class Workbench:
    """A project with one ladder sheet and three wire types, and short names for common edits."""

    def __init__(self, *, rails: bool = False, frame: str = "ladder", **settings: Any) -> None:
        self.project = Project()
        self.ids = IdSource(start_ms=1)
        self.library = DemoLibrary()
        self.done: list[Outcome] = []
        if settings:
            self.do("change-settings", **settings)
        self.blue = self.new("add-wire-type", name="Control", colour="BU", cross_section_mm2=1.0)
        self.red = self.new("add-wire-type", name="Supply", colour="RD", cross_section_mm2=1.0)
        self.pe = self.new("add-wire-type", name="PE", colour="GNYE", cross_section_mm2=2.5, category="pe")
        ends = {"left_rail_type_id": self.red, "right_rail_type_id": self.blue} if rails else {}
        self.sheet = self.new("add-sheet", number="30", frame=frame, **ends)
        self.done.clear()

    def do(self, kind: str, **values: Any) -> Outcome:
        """Do an edit and return the outcome."""
        outcome = perform(self.project, parse_edit({"kind": kind, **values}), ids=self.ids, library=self.library)
        if found := dangling(self.project, outcome.changes):
            raise AssertionError(f"{kind} leaves {', '.join(found)}")
        self.done.append(outcome)
        return outcome

    def new(self, kind: str, **values: Any) -> str:
        """Do an edit and return the id of the first thing it placed."""
        return self.do(kind, **values).placed[0]

    def place(self, definition: str, x: int, y: int, **values: Any) -> str:
        """Place a symbol and return its id."""
        return self.new(
            "place-symbol", sheet_id=values.pop("sheet_id", self.sheet), definition=definition, x=x, y=y, **values
        )

    def wire(self, *points: tuple[int, int], type_id: str = "", sheet_id: str = "") -> None:
        """Draw a wire along points."""
        self.do(
            "draw-wire",
            sheet_id=sheet_id or self.sheet,
            points=[list(p) for p in points],
            wire_type_id=type_id or self.blue,
        )

    def spans(self, sheet_id: str = "") -> list[tuple[int, int, int, int]]:
        """Return the wires of a sheet as sorted coordinates."""
        wires = self.project.wires_on(sheet_id or self.sheet)
        return sorted((w.x1, w.y1, w.x2, w.y2) for w in wires)

    def device(self, symbol_id: str) -> str:
        """Return the device id of a symbol."""
        return self.project.symbols[symbol_id].device_id

    def tag(self, symbol_id: str) -> str:
        """Return the tag of a symbol's device."""
        return product_tag(self.project, self.project.devices[self.device(symbol_id)])

    def symbol(self, symbol_id: str) -> Symbol:
        """Return a symbol."""
        return self.project.symbols[symbol_id]

    def canonical(self) -> bool:
        """Return whether the wires of all sheets are canonical."""
        for sheet_id in self.project.sheets:
            symbols = self.project.symbols_on(sheet_id)
            pins = [p for s in symbols for p in pin_points(s)]
            pins += [(c.x, c.y) for c in self.project.continuations_on(sheet_id)]
            spans = [span for s in symbols for span in through_spans(s)]
            if not is_canonical(self.project.wires_on(sheet_id), pins, spans):
                return False
        return True


def dangling(project: Project, changes: ChangeSet) -> list[str]:
    """Return, as "kind id.field", what names nothing that is there since some changes: no file of it could be read."""
    found: list[str] = []
    for change in changes:
        for field, kind in REFERENCES.get(change.kind, {}).items():
            named = getattr(change.after, field, "")
            if named and named not in project.tables[kind]:
                found.append(f"{change.kind} {change.id}.{field}")
        if change.after is None:
            for user, field in users_of(change.kind):
                found += [f"{user} {record.id}.{field}" for record in project.naming(user, field, change.id)]
    return found


KILN, DRYER = "pellwick-kiln-2", "sample-store-dehumidifier"
_kept: dict[str, tuple[Project, Project]] = {}


def demo(name: str = KILN) -> Project:
    """Return a demo project as its file has it, the same one in every test: what was done to it is taken back.

    So what was worked out of it stays, as after any step back. Who needs two of them, or one of which nothing is known
    yet, uses `demo_anew`.
    """
    if name not in _kept:
        project = demo_anew(name)
        _kept[name] = project, copied(project)
    project, first = _kept[name]
    project.apply(changes_to(project, first))
    return project


def demo_anew(name: str = KILN) -> Project:
    """Return a demo project that was read from its file just now."""
    return read_project((DEMO / f"{name}.spool.json").read_bytes())


def rebuilt(project: Project) -> Project:
    """Return a project loaded from the entities of another, that knows nothing derived yet."""
    fresh = Project()
    for kind, table in project.tables.items():
        fresh.load(kind, list(table.values()))
    return fresh


def reordered(project: Project, seed: int) -> Project:
    """Return a project loaded from the entities of another in a random order, as after many steps back and forth."""
    chance, fresh = random.Random(seed), Project()
    for kind, table in project.tables.items():
        entities = list(table.values())
        chance.shuffle(entities)
        fresh.load(kind, entities)
    return fresh


def untrue(project: Project) -> list[str]:
    """Return the derived values of a project that are not what working them out anew gives, by name and key."""
    fresh = rebuilt(project)
    found = []
    for node in [n for table in list(project.memo.tables.values()) for n in list(table.values())]:
        try:
            expected = node.function(fresh, *node.key)
        except (CoreError, LookupError, StopIteration, RuntimeError):
            continue  # what it was about is gone
        value = project.memo.value_of(project, node)
        if value != expected and not isinstance(expected, Network):
            found.append(f"{node.name}{node.key}: {value!r}, not {expected!r}")
    return found
