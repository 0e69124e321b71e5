"""Wires of a harness from a table: what the rows say is drawn, so that table and sheet are the same wires.

Cavities that are drawn nowhere are put onto the harness's own sheets, one row of the table a row of the sheet: those
the wires come from on the left, those they go to on the right. A row whose wire is drawn already gives it its type and
number.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import Point, pin_points
from jolly_core.harness import (
    ENDS,
    harness_wires,
    is_end,
    is_splice,
    mate_of,
    node_of,
    nodes_of,
    owner_of,
    strand_of,
)
from jolly_core.library import definition, is_colour
from jolly_core.model import Device, Harness, Project, RuleError, Sheet, Strand, Symbol, WireType, counted
from jolly_core.tagging import full_tag, product_tag
from jolly_core.wiring import conductor_key, conductors_at

from ..base.edit import Id, Payload, Text, Work, edit
from ..draw.marking import join_by_marks
from ..draw.place import put_symbol, shape_named
from ..draw.wires import FixWireNumber, fix_wire_number
from ..project.wiretypes import SetWireType, set_wire_type
from ..sheets.adding import NewSheet, make_sheets
from .nodes import DEFAULT_SEGMENT_MM, AddNode, add_node

LEFT, RIGHT = 40, 100
TOP, BOTTOM, PITCH = 16, 92, 4
LANES = range(46, 96, 2)


class WireRow(Payload):
    """A wire: its signal, colour (IEC 60757), size ("0.5" mm² or "AWG 20"), and the pins it joins ("-XD1:3").

    Attributes:
        twisted: name of the group it is twisted with.
        shield: name of the shield it lies in.
    """

    signal: Text = ""
    colour: Text = ""
    size: Text = ""
    start: Text
    end: Text
    twisted: Text = ""
    shield: Text = ""


class DrawHarnessWires(Payload):
    """Draw the wires of a table between connectors and splices of a harness; connectors that lack are added to it."""

    kind: Literal["draw-harness-wires"] = "draw-harness-wires"
    harness_id: Id
    rows: list[WireRow] = Field(min_length=1, max_length=2000)


@dataclass(slots=True, frozen=True)
class WireEnd:
    """A pin a row names: the device, and the number of its unit."""

    device: Device
    unit: int

    def drawn(self, project: Project) -> Symbol | None:
        """Return its symbol, None while it is drawn nowhere."""
        units = project.units_of(self.device.id)
        return next((s for s in units if definition(s.definition).unit in ENDS and self.unit in s.units), None)


Ends = tuple[WireEnd, WireEnd]


@edit(DrawHarnessWires, {"harness_id": "h1", "rows": [{"signal": "S1", "start": "-XD1:1", "end": "-XD2:1"}]})
def draw_harness_wires(work: Work, payload: DrawHarnessWires) -> str:
    """Work out DrawHarnessWires."""
    harness: Harness = work.project.get("harness", payload.harness_id)
    # What rows name is what is called so now: a tag by the line it is drawn on becomes another one on the way.
    named = [known_ends(work.project, harness, row) for row in payload.rows]
    for n, (row, ends) in enumerate(zip(payload.rows, named, strict=True), start=1):
        try:
            draw_row(work, harness, row, ends)
        except RuleError as error:
            raise RuleError(f"Row {n}: {error.message}", field=f"rows.{n - 1}", ids=error.ids) from error
    return f"{counted(len(payload.rows), 'wire')} of {harness.code}"


def ends_of(project: Project, harness: Harness, row: WireRow) -> Ends:
    """Return the pins that a row names.

    Raises:
        RuleError: as `end_named`.
    """
    return end_named(project, harness, row.start), end_named(project, harness, row.end)


def known_ends(project: Project, harness: Harness, row: WireRow) -> Ends | None:
    """Return the pins that a row names, None where that is not known before its turn."""
    try:
        return ends_of(project, harness, row)
    except RuleError:
        return None


def draw_row(work: Work, harness: Harness, row: WireRow, ends: Ends | None = None) -> None:
    """Draw the wire of a row, with those of its ends that are not drawn yet; one that is drawn is brought to the row.

    Args:
        ends: the pins it names, where they are known.

    Raises:
        RuleError: a pin, colour or size is none, or there is no room for it.
    """
    ends = ends or ends_of(work.project, harness, row)
    if (ends[0].device.id, ends[0].unit) == (ends[1].device.id, ends[1].unit):
        raise RuleError(f"{row.start} is at both ends.", ids=(ends[0].device.id,))
    for end in ends:
        _join(work, harness, end.device)
    wanted = type_for(work, row)
    if not _same_wire(work, ends, wanted.id, row):
        sheet, pin = _connect(work, harness, ends, wanted.id, row.signal.strip())
        if row.signal.strip():
            _name(work, sheet, pin, row.signal.strip())
    a, b = ((symbol.id, 0) for end in ends if (symbol := end.drawn(work.project)) is not None)
    key = conductor_key(a, b)
    if row.twisted.strip() or row.shield.strip():
        say_of_wire(work, harness.id, key, row.twisted, row.shield)
    wire = harness_wires(work.project).get(key)
    if wire is not None and wire.harness_id != harness.id:
        run_here(work, harness.id, key)


def run_here(work: Work, harness_id: str, conductor: str) -> None:
    """Let a wire run in one harness of several that join its ends; what was said of it goes along."""
    said = [work.project.strands[id] for id in work.project.strands_of.get(conductor)]
    for strand in said:
        work.remove("strand", strand.id)
    twisted, shield = (said[0].twisted, said[0].shield) if said else ("", "")
    work.put("strand", Strand(work.ids.new(), harness_id, conductor, twisted, shield, here=True))


def say_of_wire(
    work: Work, harness_id: str, conductor: str, twisted: str | None = None, shield: str | None = None
) -> None:
    """Say with what a wire is twisted and in which shield it lies; None leaves it; what says nothing goes."""
    strand = strand_of(work.project, harness_id, conductor)
    made = strand or Strand(work.ids.new(), harness_id, conductor)
    made = replace(
        made,
        twisted=made.twisted if twisted is None else twisted.strip(),
        shield=made.shield if shield is None else shield.strip(),
    )
    if made.twisted or made.shield or made.here:
        work.put("strand", made)
    elif strand is not None:
        work.remove("strand", strand.id)


def end_named(project: Project, harness: Harness, text: str) -> WireEnd:
    """Return the pin that a text names: the tag, then a colon, point or space and the cavity; a splice has no cavity.

    Of several of that tag it is the one in the harness, else the one whose whole tag it is.

    Raises:
        RuleError: there is no such connector, it is not the only one of that tag, or it has no such cavity.
    """
    wanted = text.strip()
    found = re.fullmatch(r"(.+?)(?:\s*[:.\s]\s*([^\s:.]+))?", wanted)
    if not found:
        raise RuleError("A wire has two ends: type the connector and its cavity, as -XD1:3.")
    tag, cavity = found[1].lstrip("-").lower(), found[2] or ""
    devices = [d for d in project.devices.values() if is_end(project, d) and tag in _names(project, d)]
    if not devices:
        raise RuleError(f"There is no connector or splice {found[1]} in this project. Add it, or correct the row.")
    whole = [d for d in devices if full_tag(project, d).lower() == found[1].strip().lower()]
    inside = {n.device_id for n in nodes_of(project, harness.id)}
    mine = [d for d in devices if _plugged(project, d).id in inside]
    devices = next((some for some in (mine, whole) if len(some) == 1), devices)
    if len(devices) > 1:
        names = ", ".join(full_tag(project, d) for d in devices[:3])
        raise RuleError(f"{found[1]} may be {names}. Type the whole tag.", ids=tuple(d.id for d in devices))
    device = _plugged(project, devices[0])
    unit = 1 if is_splice(project, device.id) else _unit(project, device, cavity)
    return WireEnd(device, unit)


def _plugged(project: Project, device: Device) -> Device:
    """Return the plug of a connector that sits on a device, where it has one: wires end in that."""
    mate = mate_of(project, device.id) if owner_of(project, device.id) else None
    return mate if mate is not None and owner_of(project, mate.id) is None else device


def _names(project: Project, device: Device) -> set[str]:
    return {product_tag(project, device).lower(), full_tag(project, device).lower().lstrip("-")}


def _unit(project: Project, device: Device, cavity: str) -> int:
    part = project.part_of(device)
    tag = full_tag(project, device)
    if not cavity:
        raise RuleError(f"Say which cavity of {tag} it is, as {tag}:1.", ids=(device.id,))
    names = [pins[0] for kind, pins in part.units if kind == "cavity"] if part else []
    if cavity in names:
        return names.index(cavity) + 1
    if part is None and cavity.isdecimal() and 0 < int(cavity) < 1000:
        return int(cavity)
    have = f"it has {names[0]} to {names[-1]}" if names else "its cavities are numbers until it has a part"
    raise RuleError(f"{tag} has no cavity {cavity}: {have}.", ids=(device.id,))


def _join(work: Work, harness: Harness, device: Device) -> None:
    """Add a connector to the harness where it is in none yet; the length to it is to be said."""
    project = work.project
    there = node_of(project, device.id)
    if there is None:
        first = next(iter(nodes_of(project, harness.id)), None)
        new = AddNode(
            harness_id=harness.id,
            device_id=device.id,
            from_id=first.id if first else "",
            length_mm=DEFAULT_SEGMENT_MM,
        )
        add_node(work, new)
    elif node_of(project, device.id, harness.id) is None:
        code, tag = project.harnesses[there.harness_id].code, full_tag(project, device)
        advice = f"Add it to {harness.code}, too, or correct the row."
        raise RuleError(f"{tag} is in harness {code}. {advice}", ids=(device.id,))


def type_for(work: Work, row: WireRow) -> WireType:
    """Return the wire type of a colour and size, made where the project has none.

    Raises:
        RuleError: the colour or size is none.
    """
    colour, size = row.colour.strip().upper(), row.size.strip().upper().replace(",", ".")
    if colour and not is_colour(colour):
        raise RuleError(f"“{row.colour}” is no colour of IEC 60757, such as BU, or GNYE for two.")
    gauge = re.sub(r"\s*AWG\s*", "", size) if "AWG" in size else ""
    area = 0.0
    if not gauge and size:
        found = re.fullmatch(r"(\d+(?:\.\d+)?)\s*(?:MM²|MM2)?", size)
        if not found or not float(found[1]):
            raise RuleError(f"“{row.size}” is no size. Type mm², as 0.5, or AWG 20.")
        area = float(found[1])
    types = sorted(work.project.wire_types.values(), key=lambda t: (t.category != "signal", t.id))
    for t in types:
        if (not colour or t.colour == colour) and (
            not size or (t.awg == gauge if gauge else t.cross_section_mm2 == area)
        ):
            return t
    shown = f"AWG {gauge}" if gauge else f"{area or 0.5:g} mm²"
    made = WireType(
        work.ids.new(),
        _free_name(work.project, f"Harness {shown} {colour or 'BK'}"),
        colour or "BK",
        0.0 if gauge else area or 0.5,
        gauge,
        "signal",
    )
    work.put("wire_type", made)
    return made


def _free_name(project: Project, name: str) -> str:
    taken = {t.name for t in project.wire_types.values()}
    return next(n for n in (name, *(f"{name} ({k})" for k in range(2, 10_000))) if n not in taken)


def _same_wire(work: Work, ends: Ends, type_id: str, row: WireRow) -> bool:
    """Give a wire that is drawn already its type and number; return whether there is one."""
    one, other = (end.drawn(work.project) for end in ends)
    if one is None or other is None:
        return False
    a, b = (one.id, 0), (other.id, 0)
    wire = next((c for c in conductors_at(work.project, a) if b in (c.start, c.end)), None)
    if wire is None or not wire.wire_id:
        return False
    if row.colour.strip() or row.size.strip():
        set_wire_type(work, SetWireType(ids=[wire.wire_id], wire_type_id=type_id))
    if row.signal.strip():
        fix_wire_number(work, FixWireNumber(wire_id=wire.wire_id, number=row.signal.strip()))
    return True


def _connect(work: Work, harness: Harness, ends: Ends, type_id: str, signal: str) -> tuple[Sheet, Point]:
    """Draw a wire between two ends, with those that are not drawn yet; return the sheet and pin it begins at.

    Ends on one of the harness's own sheets are joined by a stroke, others by a mark on either sheet; so are those where
    a stroke would lie along one of another type, whose type it would take.
    """
    project = work.project
    own = [s.id for s in _own_sheets(project, harness)]
    drawn = {n: symbol for n, end in enumerate(ends) if (symbol := end.drawn(project)) is not None}
    beside = next((s for s in drawn.values() if s.sheet_id in own), None)
    sheet = project.sheets[beside.sheet_id] if beside else _sheet_with_room(work, harness)
    if len(drawn) < 2 and _free_row(project, sheet) > BOTTOM:
        sheet = _sheet_with_room(work, harness)
    symbols: list[Symbol] = []
    y = _free_row(project, sheet)
    for n, end in enumerate(ends):
        # What is new stands across from what is there.
        left = n == 0 if beside is None else pin_points(beside)[0][0] >= RIGHT
        symbols.append(drawn[n] if n in drawn else _put(work, sheet, end, (LEFT if left else RIGHT, y), left))
    start, end_symbol = symbols
    points = pin_points(start)[0], pin_points(end_symbol)[0]
    together = start.sheet_id == end_symbol.sheet_id and start.sheet_id in [s.id for s in _own_sheets(project, harness)]
    alone = all(_types_at(project, s) <= {type_id} for s in symbols)
    if not (together and alone) or not _stroke(work, project.sheets[start.sheet_id], points, type_id):
        join_by_marks(work, symbols, type_id, signal or harness.code)
    return project.sheets[start.sheet_id], points[0]


def _types_at(project: Project, symbol: Symbol) -> set[str]:
    """Return the types of the wires that are drawn to a symbol's first pin."""
    pin = pin_points(symbol)[0]
    return {w.type_id for w in project.wires_on(symbol.sheet_id) if pin in ((w.x1, w.y1), (w.x2, w.y2))}


def _stroke(work: Work, sheet: Sheet, points: tuple[Point, Point], type_id: str) -> bool:
    """Draw a wire between two pins of a sheet, along a lane where they are not level; return whether there was one."""
    (x1, y1), (x2, y2) = points
    corners = [(x1, y1), (x2, y2)]
    if y1 != y2:
        taken = {w.x1 for w in work.project.wires_on(sheet.id) if w.x1 == w.x2}
        lane = next((x for x in LANES if x not in taken), None)
        if lane is None:
            return False
        corners = [(x1, y1), (lane, y1), (lane, y2), (x2, y2)]
    draft = work.draft(sheet.id)
    for a, b in zip(corners, corners[1:], strict=False):
        draft.stroke(a, b, type_id)
    work.close(draft)
    return True


def _own_sheets(project: Project, harness: Harness) -> list[Sheet]:
    found = [s for s in project.sheets.values() if s.harness_id == harness.id and s.kind == "schematic"]
    return sorted(found, key=lambda s: s.order)


def _sheet_with_room(work: Work, harness: Harness) -> Sheet:
    project = work.project
    sheets = _own_sheets(project, harness)
    if sheets and _free_row(project, sheets[-1]) <= BOTTOM:
        return sheets[-1]
    title = f"Harness {harness.code}" + (f" ({len(sheets) + 1})" if sheets else "")
    device = next((project.devices[n.device_id] for n in nodes_of(project, harness.id) if n.device_id), None)
    function_id, location_id = (device.function_id, device.location_id) if device else ("", "")
    new = NewSheet(sheet_kind="schematic", size="A3", frame="zones", title=title, harness_id=harness.id)
    new = new.model_copy(update={"function_id": function_id, "location_id": location_id})
    (made,) = make_sheets(work, [new], sheets[-1].id if sheets else "")
    return made


def _free_row(project: Project, sheet: Sheet) -> int:
    rows = [s.y for s in project.symbols_on(sheet.id)]
    return max(rows) + PITCH if rows else TOP


def _put(work: Work, sheet: Sheet, end: WireEnd, at: Point, left: bool) -> Symbol:
    """Put a cavity or splice onto the sheet and return it."""
    first = not any(definition(s.definition).unit in ENDS for s in work.project.units_of(end.device.id))
    key = "splice" if is_splice(work.project, end.device.id) else "connector" if first else "cavity"
    draft = work.draft(sheet.id)
    symbol = put_symbol(
        work, draft, shape_named(key), at, (180 if left else 0, False), 1, end.device.id, "", unit=end.unit
    )
    work.close(draft)
    return symbol


def _name(work: Work, sheet: Sheet, pin: Point, signal: str) -> None:
    wires = work.project.wires_on(sheet.id)
    wire = next((w for w in wires if pin in ((w.x1, w.y1), (w.x2, w.y2))), None)
    if wire is not None:
        fix_wire_number(work, FixWireNumber(wire_id=wire.id, number=signal))
