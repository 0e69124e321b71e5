"""Terminal strips: what stands on them in which order, what lands on each side, bridges.

A strip is a device of the terminal class. Its terminals are the terminal symbols that belong to it; a `StripItem`
record keeps the order and number that a person gave, and the accessories.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.cables import cored
from jolly_core.library import FEED_THROUGH, definition, kind_drawn, part_class
from jolly_core.model import STANDARDS, Bridge, Device, Part, Project, StripItem, derived
from jolly_core.tagging import class_letters, device_at, full_tag, is_inside, pin_name, place_side, terminal_number
from jolly_core.wiring import Conductor, conductors_at, own_panel, panel_of, terminal_part

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
    """

    name: str
    pin: tuple[str, int]
    conductor: Conductor
    cable: str = ""
    core: str = ""


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
        width_mm: room it takes on the rail.
        terminal_kind: what the terminal is drawn as, a key of TERMINAL_WORDS; "" for an accessory.
        part: its part, None while it has none of its kind.
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
    terminal_kind: str = ""
    part: Part | None = None


def is_strip(project: Project, device: Device) -> bool:
    """Return whether a device is a terminal strip: a terminal of it is drawn, or it has strip items."""
    if project.items_of_strip.has(device.id):
        return True
    return any(definition(s.definition).unit == "terminal" for s in project.units_of(device.id))


@derived
def strips(project: Project) -> list[Device]:
    """Return the terminal strips of the project, by tag."""
    kind = part_class("terminal")
    letters = (
        {kind.letters(standard) for standard in STANDARDS}
        | {class_letters(project, kind.key)}
        | {r.letters for r in project.tag_rules.values() if r.letters and r.part_class == kind.key}
    )
    # By the letters first: there are many devices in a large project, and few of them are strips.
    ids = [id for name in letters for id in project.devices_lettered.get(name)]
    found = [d for d in map(project.devices.__getitem__, ids) if is_strip(project, d)]
    return sorted(found, key=lambda d: (full_tag(project, d), d.id))


def item_records(project: Project, strip_id: str) -> list[StripItem]:
    """Return what stands on a strip in its order; terminals without a record get one that is not stored."""
    records = [project.strip_items[i] for i in project.items_of_strip.get(strip_id)]
    drawn = {s.units[0] for s in project.units_of(strip_id) if definition(s.definition).unit == "terminal"}
    known = {r.unit for r in records if r.kind == "terminal"}
    shown = [r for r in records if r.kind != "terminal" or r.unit in drawn]
    last = max((r.order for r in shown), default=0)
    shown.sort(key=lambda r: (r.order, r.unit, r.id))
    return shown + [StripItem("", strip_id, "terminal", last + 1, unit) for unit in sorted(drawn - known)]


@derived
def strip_rows(project: Project, strip_id: str) -> list[StripRow]:
    """Return the places of a strip in order, with what lands on each; kept until the next change."""
    return [_row(project, strip_id, record) for record in item_records(project, strip_id)]


def _row(project: Project, strip_id: str, record: StripItem) -> StripRow:
    if record.kind != "terminal":
        part = project.parts.get(record.part_id)
        width = part.width_mm if part else ACCESSORY_WIDTH_MM[record.kind]
        return StripRow(record.id, record.kind, 0, ACCESSORY_NAMES[record.kind], [], [], [], [], [], width, part=part)
    symbols = [
        s
        for s in project.units_of(strip_id)
        if s.units[0] == record.unit and definition(s.definition).unit == "terminal"
    ]
    part = terminal_part(project, symbols[0]) if symbols else None
    outline = part or project.part_of(project.devices[strip_id])
    row = StripRow(
        record.id,
        "terminal",
        record.unit,
        terminal_number(project, strip_id, record.unit),
        [s.id for s in symbols],
        [],
        [],
        [],
        [b.id for b in bridges_of(project, strip_id) if record.unit in b.units],
        outline.width_mm if outline else 0.0,
        kind_drawn(symbols[0].definition) if symbols else FEED_THROUGH,
        part,
    )
    cores = cored(project)
    for symbol in symbols:
        for index in range(len(definition(symbol.definition).pins)):
            for c in conductors_at(project, (symbol.id, index)):
                far = c.other((symbol.id, index))
                cable_id, core = cores.get(c.key, ("", None))
                cable = full_tag(project, project.devices[cable_id]) if cable_id else ""
                target = Target(pin_name(project, far), far, c, cable, core.name if core else "")
                _side(project, row, strip_id, far).append(target)
    return row


def _side(project: Project, row: StripRow, strip_id: str, far: tuple[str, int]) -> list[Target]:
    """Return the side on which a far end counts: panel side is the strip's own panel, all else is field side."""
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


def bridges_of(project: Project, strip_id: str) -> list[Bridge]:
    """Return the bridges of a strip by id."""
    return sorted((b for b in project.bridges.values() if b.strip_id == strip_id), key=lambda b: b.id)


def strip_width_mm(project: Project, strip_id: str) -> float:
    """Return the length a strip takes on its rail, mm: its terminals and accessories side by side."""
    return round(sum(r.width_mm for r in strip_rows(project, strip_id)), 2)
