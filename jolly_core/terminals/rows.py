"""The places of a strip in order, with what lands on each side of a terminal."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.cables import cored
from jolly_core.library import definition
from jolly_core.model import Part, Project, StripItem, Symbol, derived
from jolly_core.tagging import device_at, full_tag, is_inside, pin_name, place_side, terminal_number
from jolly_core.wiring import Conductor, conductors_at, own_panel, panel_of, part_of_kind

from .bridging import bridges_of
from .items import TERMINAL, item_records, kind_of, terminal_symbols

ACCESSORY_WIDTH_MM = {"end-bracket": 8.0, "plate": 2.0, "marker": 0.0}
ACCESSORY_NAMES = {"end-bracket": "End bracket", "plate": "Partition plate", "marker": "Marker"}


@dataclass(slots=True, frozen=True)
class Target:
    """What lands on one side of a terminal.

    Attributes:
        name: designation:pin of the far end.
        pin: the far pin.
        conductor: the conductor that comes from there.
        cable: tag of the cable it is a core of, "".
        core: name of that core, "".
        cable_id: the cable's device, "".
    """

    name: str
    pin: tuple[str, int]
    conductor: Conductor
    cable: str = ""
    core: str = ""
    cable_id: str = ""


@dataclass(slots=True)
class StripRow:
    """A place on a strip.

    Attributes:
        item_id: its record, "" for a terminal without one.
        unit: the terminal's unit, 0 for an accessory.
        number: terminal number, or the accessory's name.
        symbol_ids: where the terminal is drawn.
        panel, field: what lands on either side.
        unknown: what lands there from devices without a location; the plan says which.
        bridges: ids of the bridges it is part of.
        width_mm: room it takes on the rail; 0 for a higher level, which stands on the block before it.
        terminal_kind: what the terminal is drawn or planned as, a key of TERMINAL_WORDS; "" for an accessory.
        part: its part, None while it has none of its kind.
        record: what a person gave.
    """

    item_id: str
    kind: str
    unit: int
    number: str
    symbol_ids: list[str]
    panel: list[Target]
    field: list[Target]
    unknown: list[Target]
    bridges: list[str]
    width_mm: float
    terminal_kind: str
    part: Part | None
    record: StripItem

    @property
    def level(self) -> int:
        """Level of its block, from 1."""
        return self.record.level

    @property
    def drawn(self) -> bool:
        """Whether it is on a sheet."""
        return bool(self.symbol_ids)

    @property
    def free(self) -> bool:
        """Whether it is a terminal on which nothing lands."""
        return self.kind == TERMINAL and not (self.panel or self.field or self.unknown)

    @property
    def counted(self) -> bool:
        """Whether its part is had for it: an accessory, or a terminal that begins a block."""
        return self.kind != TERMINAL or self.level == 1

    @property
    def targets(self) -> list[Target]:
        """All that lands on it."""
        return [*self.field, *self.panel, *self.unknown]


@derived
def strip_rows(project: Project, strip_id: str) -> list[StripRow]:
    """Return the places of a strip in order, with what lands on each."""
    symbols = terminal_symbols(project, strip_id)
    bridged: dict[int, list[str]] = {}
    for bridge in bridges_of(project, strip_id):
        for unit in bridge.units:
            bridged.setdefault(unit, []).append(bridge.id)
    rows: list[StripRow] = []
    for record in item_records(project, strip_id):
        if record.kind != TERMINAL:
            rows.append(_accessory(project, record))
            continue
        row = _terminal(project, record, symbols.get(record.unit, []))
        row.bridges = bridged.get(record.unit, [])
        rows.append(row)
    return rows


@derived
def strip_widths(project: Project, strip_id: str) -> list[tuple[int, float]]:
    """Return what stands on a strip in order: the unit of each terminal, 0 for an accessory, and its width, mm.

    Notes:
        Nothing of what lands there is asked for: conductors may be ordered by layouts, which stand on this.
    """
    symbols = terminal_symbols(project, strip_id)
    return [
        (r.unit, _width_mm(project, r, _part_of(project, r, symbols.get(r.unit, []))[1]))
        if r.kind == TERMINAL
        else (0, _width_mm(project, r, project.parts.get(r.part_id)))
        for r in item_records(project, strip_id)
    ]


def _part_of(project: Project, record: StripItem, symbols: list[Symbol]) -> tuple[str, Part | None]:
    """Return the kind of a terminal, and the part it is by that."""
    kind = kind_of(project, record, symbols)
    return kind, part_of_kind(project, record.strip_id, record.unit, kind)


def _width_mm(project: Project, record: StripItem, part: Part | None) -> float:
    """Return how much of the rail something on a strip takes, given the part it is."""
    if record.kind != TERMINAL:
        return part.width_mm if part else ACCESSORY_WIDTH_MM[record.kind]
    outline = part or project.part_of(project.devices[record.strip_id])
    return round(outline.width_mm / in_one_piece(outline), 3) if outline and record.level == 1 else 0.0


def _accessory(project: Project, record: StripItem) -> StripRow:
    part = project.parts.get(record.part_id)
    width = _width_mm(project, record, part)
    name = ACCESSORY_NAMES[record.kind]
    return StripRow(record.id, record.kind, 0, name, [], [], [], [], [], width, "", part, record)


def in_one_piece(part: Part) -> int:
    """Return how many terminals stand side by side in one piece of a part: 1 unless it is a block of several.

    Levels lie above each other: a part of two levels with two terminals is one piece wide.
    """
    levels = part.ratings.get("levels", "").strip()
    return max(1, part.count(TERMINAL) // (int(levels) if levels.isdecimal() and int(levels) else 1))


def _terminal(project: Project, record: StripItem, symbols: list[Symbol]) -> StripRow:
    strip_id, unit = record.strip_id, record.unit
    kind, part = _part_of(project, record, symbols)
    width = _width_mm(project, record, part)
    number = terminal_number(project, strip_id, unit)
    ids = [s.id for s in symbols]
    row = StripRow(record.id, TERMINAL, unit, number, ids, [], [], [], [], width, kind, part, record)
    cores = cored(project)
    for symbol in symbols:
        for index in range(len(definition(symbol.definition).pins)):
            for c in conductors_at(project, (symbol.id, index)):
                far = c.other((symbol.id, index))
                cable_id, core = cores.get(c.key, ("", None))
                cable = full_tag(project, project.devices[cable_id]) if cable_id else ""
                target = Target(pin_name(project, far), far, c, cable, core.name if core else "", cable_id)
                _side(project, row, strip_id, index, far).append(target)
    return row


def _side(project: Project, row: StripRow, strip_id: str, pin: int, far: tuple[str, int]) -> list[Target]:
    """Return the side on which a far end counts: by hand, else panel side is the strip's own panel, all else field."""
    if row.record.facing:
        return row.panel if (pin == 0) == (row.record.facing == "first") else row.field
    device, strip = device_at(project, far), project.devices[strip_id]
    if device is None or not (place_side(project, device) or panel_of(project, device)):
        return row.unknown
    if not (place_side(project, strip) or panel_of(project, strip)):
        return row.panel if is_inside(project, device) else row.field
    return row.panel if own_panel(project, strip, device) else row.field


def placed_sides(row: StripRow) -> tuple[list[tuple[Target, str]], list[tuple[Target, str]]]:
    """Return what stands on field side and panel side of a plan, each with its words.

    What comes from a device without a location stands on the side that has less, and says so: it is on neither yet.
    """
    fields = [(t, t.name) for t in row.field]
    panels = [(t, t.name) for t in row.panel]
    for target in row.unknown:
        side = fields if len(fields) <= len(panels) and panels else panels if fields else fields
        side.append((target, f"{target.name} (no location)"))
    return fields, panels


def wire_numbers_at(row: StripRow) -> list[str]:
    """Return the wire numbers at a terminal, each once: two where it parts its potentials, field side first."""
    return list(dict.fromkeys(t.conductor.number for t in row.targets if t.conductor.number))


def strip_width_mm(project: Project, strip_id: str) -> float:
    """Return the length a strip takes on its rail, mm: its blocks and accessories side by side."""
    return round(sum(width for _, width in strip_widths(project, strip_id)), 2)
