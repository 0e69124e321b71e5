"""What the Terminals bench shows: the strips in short, what waits, and one strip with all that is known of it."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.cabinet import placing_of, rail_is_level, run_length
from jolly_core.checks import Snag, strip_snags
from jolly_core.circuits import consumers_on, potential_of
from jolly_core.exchange import read_cells
from jolly_core.library import Library, definition, symbol_of_kind
from jolly_core.model import Device, Project, derived, listed
from jolly_core.reports import Column, Table
from jolly_core.scenes import plan_of, strip_scene
from jolly_core.tagging import called_on, device_at, full_tag, path_of
from jolly_core.terminals import (
    LAYOUT_COLUMNS,
    TERMINAL,
    StripRow,
    Target,
    TerminalGroup,
    groups_of,
    is_strip,
    laid_bridges,
    layout_rows,
    place_key,
    proposals,
    read_layout,
    strip_record,
    strip_rows,
    strip_sum,
    strips,
    waiting_rows,
    wire_numbers_at,
)
from jolly_server.shapes.sceneshapes import SceneValue, scene_value

from .shapes import DeviceName, PartName, Place, device_value, part_name, symbol_place

MOST_LOOSE = 200


class TargetValue(Place):
    """What a terminal leads to on one side."""

    name: str
    device_id: str
    function_id: str
    symbol_id: str
    cable: str
    cable_id: str
    core: str
    number: str
    type: str
    conductor: str


class StripRowValue(Place):
    """A place on a strip, with what lands on each side; `unknown` are those whose side nothing says.

    `load` sums what its potential feeds, for bridged terminals; `number` is shown, `own_number` was fixed by hand;
    `wire` has two numbers where the terminal parts its potentials.
    """

    key: str
    item_id: str
    kind: str
    unit: int
    number: str
    own_number: str
    level: int
    symbol_id: str
    panel: list[TargetValue]
    field: list[TargetValue]
    unknown: list[TargetValue]
    bridges: list[str]
    width_mm: float
    terminal_kind: str
    part: PartName | None
    planned: bool
    spare: bool
    remark: str
    joint: str
    facing: str
    wire: list[str]
    type: str
    colour: str
    snags: list[str]
    load: str


class TerminalGroupValue(TypedDict):
    """Terminals of a strip that are ordered alike."""

    kind: str
    words: str
    units: list[int]
    part: PartName | None


class BridgeValue(TypedDict):
    """A bridge as it lies: its slot from 1, how many blocks it reaches over, its part."""

    id: str
    units: list[int]
    slot: int
    reach: int
    part: PartName | None


class ProposalValue(TypedDict):
    """What a strip could be given, and why."""

    key: str
    what: str
    title: str
    reason: str
    part: str


class StripSnag(TypedDict):
    """A snag of a strip in words."""

    key: str
    code: str
    severity: str
    message: str


class StripLine(DeviceName):
    """A strip in the list.

    Attributes:
        place: its location, "" for none.
        room_mm: length of the rail it is placed on, 0 while it is on none; `rail` names it by its enclosure.
        upright: that rail stands upright.
    """

    place: str
    location_id: str
    function_id: str
    count: int
    free: int
    spare: int
    waiting: int
    width_mm: float
    room_mm: float
    rail: str
    upright: bool
    snags: int


class StripValue(StripLine):
    """A strip with its places in order, its picture, and what may be done; `plan_id` is the page that shows it.

    `laid` are its bridges; `lies_upright` says how the picture lies.
    """

    lies_upright: bool

    plan_id: str
    numbering: str
    start: int
    step: int
    backward: bool
    field_heading: str
    panel_heading: str
    show_row: bool
    plan_style: str
    groups: list[TerminalGroupValue]
    rows: list[StripRowValue]
    laid: list[BridgeValue]
    proposed: list[ProposalValue]
    found: list[StripSnag]
    scene: SceneValue


class LooseTerminal(Place):
    """A terminal on a sheet that belongs to no strip."""

    symbol_id: str
    name: str


class TerminalsView(TypedDict):
    """What the Terminals bench shows beside one strip: the list, and what waits."""

    strips: list[StripLine]
    loose: list[LooseTerminal]
    waiting: int


class PlannedTerminal(TypedDict):
    """A terminal that waits to be drawn, and the symbol it is drawn as."""

    unit: int
    number: str
    kind: str
    symbol: str


class PlannedStrip(DeviceName):
    """A strip with the terminals that wait to be drawn, in order."""

    terminals: list[PlannedTerminal]


def planned_terminals(project: Project) -> list[PlannedStrip]:
    """Return the strips with terminals that wait to be drawn."""
    return [
        {
            **device_value(project, strip),
            "terminals": [
                {
                    "unit": row.unit,
                    "number": row.number,
                    "kind": row.terminal_kind,
                    "symbol": symbol_of_kind(row.terminal_kind),
                }
                for row in waiting_rows(project, strip.id)
            ],
        }
        for strip in strips(project)
        if waiting_rows(project, strip.id)
    ]


def terminals_bench(project: Project) -> TerminalsView:
    """Return the strips in short, and the tray."""
    lines = [_line(project, strip) for strip in strips(project)]
    loose = _loose_terminals(project)[:MOST_LOOSE]
    return {"strips": lines, "loose": loose, "waiting": sum(line["waiting"] for line in lines)}


def strip_view(project: Project, library: Library, strip_id: str, *, upright: bool, spare_percent: int) -> StripValue:
    """Return one strip.

    Raises:
        GoneError: there is no such strip any more.
    """
    strip: Device = project.get("device", strip_id)
    record = strip_record(project, strip.id)
    found = _open_snags(project, strip.id)
    return {
        **_line(project, strip),
        "lies_upright": upright,
        "plan_id": plan_of(project, "terminals", strip.id),
        "numbering": record.numbering,
        "start": record.start,
        "step": record.step,
        "backward": record.backward,
        "field_heading": record.field_heading,
        "panel_heading": record.panel_heading,
        "show_row": record.show_row,
        "plan_style": record.plan_style,
        "groups": [_group(g) for g in groups_of(project, strip.id)],
        "rows": [_row(project, row, found) for row in strip_rows(project, strip.id)],
        "laid": [
            {
                "id": b.bridge.id,
                "units": list(b.bridge.units),
                "slot": b.lane + 1,
                "reach": b.reach,
                "part": part_name(project.parts.get(b.bridge.part_id)),
            }
            for b in laid_bridges(project, strip.id)
        ],
        "proposed": [
            {
                "key": p.key,
                "what": p.what,
                "title": p.title,
                "reason": p.reason,
                "part": _number(project, library, p.part_id),
            }
            for p in proposals(project, library, strip.id, spare_percent)
        ],
        "found": [{"key": s.key, "code": s.code, "severity": s.severity, "message": s.message} for s in found],
        "scene": scene_value(strip_scene(project, strip.id, upright=upright)),
    }


def _open_snags(project: Project, strip_id: str) -> list[Snag]:
    muted = {m.key for m in project.mutes.values()}
    return [s for s in strip_snags(project, strip_id) if s.key not in muted]


def _number(project: Project, library: Library, part_id: str) -> str:
    part = project.parts.get(part_id) or library.part(part_id) if part_id else None
    return part.number if part else ""


@derived
def _line_of(project: Project, strip_id: str) -> StripLine:
    strip = project.devices[strip_id]
    counted = strip_sum(project, strip_id)
    placing = placing_of(project, strip_id)
    rail = project.rails.get(placing.rail_id) if placing else None
    enclosure = project.enclosures[placing.enclosure_id] if placing else None
    return {
        **device_value(project, strip),
        "place": path_of(project.locations, strip.location_id, "+"),
        "location_id": strip.location_id,
        "function_id": strip.function_id,
        "count": counted.count,
        "free": counted.free,
        "spare": counted.spare,
        "waiting": counted.waiting,
        "width_mm": counted.length_mm,
        "room_mm": run_length(rail) if rail else 0.0,
        "rail": full_tag(project, project.devices[enclosure.device_id]) if enclosure else "",
        "upright": rail is not None and not rail_is_level(rail),
        "snags": len(_open_snags(project, strip_id)),
    }


def _line(project: Project, strip: Device) -> StripLine:
    return _line_of(project, strip.id)


@derived
def _loose_on(project: Project, sheet_id: str) -> list[LooseTerminal]:
    found: list[LooseTerminal] = []
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit == TERMINAL:
            device = project.devices.get(symbol.device_id)
            if device is None or not is_strip(project, device):
                name = called_on(project, symbol, project.sheets[sheet_id])
                found.append({"symbol_id": symbol.id, "name": name, **symbol_place(project, symbol.id)})
    return found


_loose_terminals = listed(_loose_on)


def _group(group: TerminalGroup) -> TerminalGroupValue:
    return {
        "kind": group.kind,
        "words": f"{len(group.rows)} {group.words}",
        "units": [r.unit for r in group.rows],
        "part": part_name(group.part),
    }


def _row(project: Project, row: StripRow, found: list[Snag]) -> StripRowValue:
    symbol_id = row.symbol_ids[0] if row.symbol_ids else ""
    types = [t for target in row.targets if (t := target.conductor.wire_type(project)) is not None]
    return {
        "key": place_key(row.record),
        "item_id": row.item_id,
        "kind": row.kind,
        "unit": row.unit,
        "number": row.number,
        "own_number": row.record.number,
        "level": row.level,
        "symbol_id": symbol_id,
        "panel": [_target(project, t) for t in row.panel],
        "field": [_target(project, t) for t in row.field],
        "unknown": [_target(project, t) for t in row.unknown],
        "bridges": list(row.bridges),
        "width_mm": row.width_mm,
        "terminal_kind": row.terminal_kind,
        "part": part_name(row.part),
        "planned": row.kind == TERMINAL and not row.drawn,
        "spare": row.record.spare,
        "remark": row.record.remark,
        "joint": row.record.joint,
        "facing": row.record.facing,
        "wire": wire_numbers_at(row),
        "type": ", ".join(dict.fromkeys(t.name for t in types)),
        "colour": ", ".join(dict.fromkeys(t.colour for t in types)),
        "snags": [s.message for s in found if symbol_id and symbol_id in s.ids],
        "load": _load(project, row) if row.bridges and symbol_id else "",
        **symbol_place(project, symbol_id),
    }


def _load(project: Project, row: StripRow) -> str:
    """Return what hangs on the potential of a bridged terminal and takes a current, "" while nothing is known."""
    found = consumers_on(project, potential_of(project, (row.symbol_ids[0], 0)))
    if not found:
        return ""
    named = ", ".join(f"{full_tag(project, c.device)} {c.amps:g} A" for c in found[:6]) + (" ..." if found[6:] else "")
    return f"{sum(c.amps for c in found):g} A: {named}"


def _target(project: Project, target: Target) -> TargetValue:
    device = device_at(project, target.pin)
    wire_type = target.conductor.wire_type(project)
    return {
        "name": target.name,
        "device_id": device.id if device else "",
        "function_id": device.function_id if device else "",
        "symbol_id": target.pin[0],
        "cable": target.cable,
        "cable_id": target.cable_id,
        "core": target.core,
        "number": target.conductor.number,
        "type": wire_type.name if wire_type else "",
        "conductor": target.conductor.key,
        **symbol_place(project, target.pin[0]),
    }


class LaidLineValue(TypedDict):
    """A line of a layout as the edit that lays a strip out takes it."""

    number: str
    kind: str
    level: int
    bridge: str
    part: str
    spare: bool
    remark: str


class LayoutValue(TypedDict):
    """A strip's layout as it was read: good lines, faults in words, the heading found for each column."""

    lines: list[LaidLineValue]
    faults: list[str]
    headings: dict[str, str]


def read_strip(content: bytes, name: str) -> LayoutValue:
    """Return what a layout of a strip holds; nothing is taken in.

    Raises:
        FileError: it cannot be read, or lacks the heading of the number.
    """
    found = read_layout(read_cells(content, name))
    return {
        "lines": [
            {
                "number": line.number,
                "kind": line.kind,
                "level": line.level,
                "bridge": line.bridge,
                "part": line.part,
                "spare": line.spare,
                "remark": line.remark,
            }
            for line in found.lines
        ],
        "faults": found.faults,
        "headings": found.headings,
    }


def strip_table(project: Project, strip_id: str) -> Table:
    """Return a strip's layout as a table for a spreadsheet.

    Raises:
        GoneError: there is no such strip any more.
    """
    strip: Device = project.get("device", strip_id)
    widths = {"number": 10, "kind": 16, "level": 7, "bridge": 9, "part": 18, "spare": 7, "remark": 30}
    columns = tuple(Column(key, key.capitalize(), widths[key]) for key in LAYOUT_COLUMNS)
    return Table(f"Strip {full_tag(project, strip)}", columns, list(layout_rows(project, strip.id)))
