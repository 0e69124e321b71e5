"""The wire list: every conductor once, with its ends, number, type, cable core and length."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection
from dataclasses import dataclass

from jolly_core.cabinet import lane_name, routes_from
from jolly_core.cables import copper_of
from jolly_core.drawing import place_in, protective_types
from jolly_core.making import Dossier, counted, dossiers
from jolly_core.model import Project, derived
from jolly_core.tagging import natural, path_of, pin_name
from jolly_core.wiring import Conductor, conductors_of_sheet, own_order, point_of

from .registry import Cell, Column, Row, report


@dataclass(slots=True, frozen=True)
class WireRow:
    """A conductor as a sheet's ledger shows it; `own` when a person decided the order of its net."""

    key: str
    number: str
    start: str
    end: str
    start_symbol: str
    end_symbol: str
    colour: str
    cross_section: str
    type_name: str
    place: str
    wire_id: str
    wires: tuple[str, ...]
    pins: tuple[str, str]
    own: bool


@derived
def _by_key(project: Project, sheet_id: str) -> dict[str, Conductor]:
    types = protective_types(project)
    return {c.key: c for c in conductors_of_sheet(project, sheet_id) if _concerns(project, sheet_id, c, types)}


def _concerns(project: Project, sheet_id: str, c: Conductor, protective: Collection[str]) -> bool:
    """Return whether a conductor of a net that touches a sheet is of what is drawn there.

    Where a return is bonded the protective conductors are in its net, and are no matter of sheets that show none.
    """
    if c.type_id not in protective:
        return True
    here = (id for group in c.net if group.sheet_id == sheet_id for id in group.wires)
    return any(project.wires[id].type_id in protective for id in here) or sheet_id in (
        project.symbols[c.start[0]].sheet_id,
        project.symbols[c.end[0]].sheet_id,
    )


@derived
def _conductor(project: Project, sheet_id: str, key: str) -> Conductor:
    """Return a conductor of a sheet; what is said of it outlives changes of others."""
    return _by_key(project, sheet_id)[key]


@derived
def _row(project: Project, sheet_id: str, key: str) -> WireRow:
    c = _conductor(project, sheet_id, key)
    x, y = point_of(project, c.start)
    wire_type, copper = c.wire_type(project), copper_of(project, c)
    return WireRow(
        c.key,
        c.number,
        pin_name(project, c.start, sheet_id),
        pin_name(project, c.end, sheet_id),
        c.start[0],
        c.end[0],
        copper.colour,
        copper.size,
        wire_type.name if wire_type else "",
        place_in(project.sheets[c.sheet_id], x, y),
        c.wire_id,
        tuple(w for g in c.net for w in g.wires),
        (f"{c.start[0]}.{c.start[1]}", f"{c.end[0]}.{c.end[1]}"),
        own_order(project, [c.start, c.end]) is not None,
    )


@derived
def sheet_wires(project: Project, sheet_id: str) -> list[WireRow]:
    """Return the conductors of the nets that touch a sheet, named as seen from it, in reading order."""
    rows = [_row(project, sheet_id, key) for key in _by_key(project, sheet_id)]
    return sorted(rows, key=lambda r: (natural(r.number), natural(r.start), natural(r.end)))


@dataclass(slots=True, frozen=True)
class Landed:
    """A conductor at a device, seen from it: the pin, the wire's number, and where the other end is."""

    pin: str
    number: str
    to: str
    symbol: str


def landed_at(project: Project, device_id: str) -> list[Landed]:
    """Return the conductors at a device, as seen from the sheets it is drawn on, by pin on each."""
    symbols = project.units_of(device_id)
    mine = {s.id for s in symbols}
    rows: list[Landed] = []
    for sheet_id in dict.fromkeys(s.sheet_id for s in symbols):
        found = []
        for c in sheet_wires(project, sheet_id):
            if c.start_symbol in mine:
                found.append(Landed(c.start.rsplit(":", 1)[-1], c.number, c.end, c.end_symbol))
            if c.end_symbol in mine:
                found.append(Landed(c.end.rsplit(":", 1)[-1], c.number, c.start, c.start_symbol))
        rows += sorted(found, key=lambda row: natural(row.pin))
    return rows


@report(
    "wires",
    "Wire list",
    "Every conductor with its ends, number, type, cable core and length.",
    (
        Column("number", "Number", 9),
        Column("from", "From", 20),
        Column("to", "To", 20),
        Column("type", "Type", 14),
        Column("colour", "Colour", 8),
        Column("cross_section", "Cross-section", 12),
        Column("run", "Runs in", 18),
        Column("length_mm", "Length mm", 10, number=True),
        Column("place", "Sheet.line", 10),
        Column("core", "Core", 10, extra=True),
        Column("from_place", "From location", 14, extra=True),
        Column("to_place", "To location", 14, extra=True),
        Column("bundle", "Bundle", 24, extra=True),
        Column("from_end", "From end", 12, extra=True),
        Column("to_end", "To end", 12, extra=True),
    ),
)
def wire_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the wire list, by number as a person counts, then in reading order."""
    rows = [_of_wire(project, d) for d in dossiers(project).values()]
    return sorted(rows, key=lambda row: counted(str(row[0])))


def _of_wire(project: Project, d: Dossier) -> Row:
    start, end = (_location(project, e.device_id) for e in (d.start, d.end))
    core = d.core if d.runs == "cable" else ""
    wire_type = d.conductor.wire_type(project)
    whys = {
        "length_mm": _no_length(d),
        "run": d.missing if d.runs == "open" else "",
        "number": "" if d.number or wire_type is None or not wire_type.numbered else "It has got no number yet.",
        "from_place": "" if start else f"{d.start.name} has no location.",
        "to_place": "" if end else f"{d.end.name} has no location.",
    }
    length: Cell = d.length_mm if d.length_mm is not None else ""
    shown = (d.number, d.start.name, d.end.name, d.type_name, d.colour, d.size, d.run, length, d.place)
    ends = (d.start.termination, d.end.termination)
    bundle = bundle_of(project, d)
    return Row.of((*shown, core, start, end, bundle, *ends), d.conductor.wire_id or d.start.pin[0], whys)


def _no_length(d: Dossier) -> str:
    """Return why a conductor has no cut length, "" for one that has."""
    if d.length_mm is not None:
        return ""
    if d.runs == "cable":
        return "It is a core: the cable is cut, not its cores."
    return "The pins touch: there is no wire." if d.runs == "direct" else d.missing


def _location(project: Project, device_id: str) -> str:
    device = project.devices.get(device_id)
    return path_of(project.locations, device.location_id, "+") if device else ""


def bundle_of(project: Project, d: Dossier) -> str:
    """Return what a conductor is wired together with: cable, harness, or the lanes of its way through the panel."""
    if d.runs != "panel":
        return d.run.removesuffix(f" {d.core}") if d.runs == "cable" else d.run
    route = routes_from(project, d.conductor.sheet_id).get(d.key)
    if route is None or not route.stretches:
        return d.run
    lanes = list(dict.fromkeys(lane_name(project, id) for id, _, _ in route.stretches))
    return f"{d.run} {' '.join(min(lanes, lanes[::-1]))}"


@report(
    "wiring",
    "Wiring list",
    "Wires in the order in which they are laid: place by place, bundle by bundle, from device to device.",
    (
        Column("from_place", "Location", 12),
        Column("bundle", "Bundle", 24),
        Column("number", "Number", 9),
        Column("from", "From", 20),
        Column("to", "To", 20),
        Column("type", "Type", 14),
        Column("colour", "Colour", 8),
        Column("cross_section", "Cross-section", 12),
        Column("length_mm", "Length mm", 10, number=True),
        Column("from_end", "From end", 12),
        Column("to_end", "To end", 12),
        Column("place", "Sheet.line", 10),
    ),
)
def wiring_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the wires that are laid, so that one bundle after the other is; what has no way yet stands last."""
    found = [d for d in dossiers(project).values() if d.runs != "direct"]
    rows = []
    for d in found:
        row = _of_wire(project, d)
        start, bundle = str(row[10]), str(row[12])
        cells = (start, bundle, *row[:6], row[7], row[13], row[14], row[8])
        rows.append(row.with_cells(cells))

    def order(row: tuple[Cell, ...]) -> tuple[object, ...]:
        place, bundle, number, start, end = (natural(str(row[n])) for n in (0, 1, 2, 3, 4))
        return not row[1], place, bundle, start, end, number

    return sorted(rows, key=order)


@report(
    "wire-types",
    "Wire legend",
    "Wire types in use with colour, size and how their numbers are shown.",
    (
        Column("name", "Wire type", 22),
        Column("colour", "Colour", 8),
        Column("size", "Size", 12),
        Column("category", "Category", 14),
        Column("numbered", "Numbered", 10),
        Column("laid", "Laid", 12),
        Column("strokes", "Strokes", 9, number=True),
    ),
)
def wire_legend(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each wire type that a wire is of, by category, then name."""
    used = Counter(w.type_id for w in project.wires.values())
    types = sorted((project.wire_types[id] for id in used), key=lambda t: (t.category, natural(t.name)))
    return [
        Row.of(
            (
                t.name,
                t.colour,
                t.size(),
                t.category,
                "yes" if t.numbered else "no",
                "outside" if t.outside else "in the panel",
                used[t.id],
            ),
            t.id,
        )
        for t in types
    ]
