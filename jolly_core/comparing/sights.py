"""What people see of a project, so that two states of it can be told apart: each thing with its name and facts.

A thing of one state is the same as one of the other by its id; what is in both under other ids, as in files that were
not copied from each other, by what people call it: a device or point by its tag, a sheet by its number, a note by its
place and words. A wire is known by the two pins it joins.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field, replace

from jolly_core.cabinet import placing_of, routes_from, run_length
from jolly_core.cables import cable_cores, cable_length_m
from jolly_core.harness import shown_in
from jolly_core.library import definition
from jolly_core.making import dossiers_from
from jolly_core.model import Duct, Project, Rail, derived
from jolly_core.plc import channel_address
from jolly_core.reports import INCHES, needs
from jolly_core.tagging import device_at, full_tag, lead_of, path_of, pin_name, pins_of, terminal_number
from jolly_core.terminals import strip_rows, strips

BEGIN = "the strip's begin"  # what the first terminal of a strip stands after
# The kinds of things, in the order in which they are listed.
KINDS = (
    "sheet",
    "device",
    "wire",
    "terminal",
    "accessory",
    "bridge",
    "core",
    "point",
    "rail",
    "duct",
    "part",
    "text",
)


@dataclass(slots=True, frozen=True)
class Sight:
    """A thing as people see it.

    Attributes:
        kind: one of KINDS.
        key: what it is the same by in another state.
        name: what people call it.
        facts: what is known of it, by names that are shown.
        sheet_id: where it is drawn, "" for nowhere.
        ids: of what is drawn of it there, its own where nothing is.
        place: the panel, cable or harness it is in, "" for none.
        same_by: of facts that name other things, what those go by: while it is the same, so is the fact. Of a wire's
            "runs in" what that is by kind and id, the core there, and the enclosure.
    """

    kind: str
    key: str
    name: str
    facts: Mapping[str, str]
    sheet_id: str = ""
    ids: tuple[str, ...] = ()
    place: str = ""
    same_by: Mapping[str, tuple[object, ...]] = field(default_factory=dict)


Sights = dict[str, dict[str, Sight]]


@dataclass(slots=True, frozen=True)
class Same:
    """By which ids of the earlier state the things of a later one go, where those are other ones."""

    devices: Mapping[str, str]
    sheets: Mapping[str, str]
    notes: Mapping[str, str]
    points: Mapping[str, str]
    runs: Mapping[str, str]

    def device(self, id: str) -> str:
        """Return what a device goes by."""
        return self.devices.get(id, id)

    def sheet(self, id: str) -> str:
        """Return what a sheet goes by."""
        return self.sheets.get(id, id)


NOTHING_ELSE = Same({}, {}, {}, {}, {})


def same_things(before: Project, after: Project) -> Same:
    """Return which things of a later state are those of an earlier one though their ids differ."""
    devices = _alike(before.devices, after.devices, lambda p, id: full_tag(p, p.devices[id]), (before, after))
    sheets = _alike(before.sheets, after.sheets, lambda p, id: p.sheets[id].number, (before, after))
    notes = _alike(before.notes, after.notes, _place_and_words, (before, after))
    points = _alike(before.io_points, after.io_points, lambda p, id: p.io_points[id].tag, (before, after))
    rails = _alike(before.rails, after.rails, lambda p, id: _run_words(p, p.rails[id]), (before, after))
    ducts = _alike(before.ducts, after.ducts, lambda p, id: _run_words(p, p.ducts[id]), (before, after))
    found = Same(devices, sheets, notes, points, rails | ducts)
    return NOTHING_ELSE if found == NOTHING_ELSE else found


def _run_words(project: Project, run: Rail | Duct) -> str:
    """Return what a rail or duct is told apart by from others: where it lies."""
    return f"{full_tag(project, project.devices[project.enclosures[run.enclosure_id].device_id])} {_lies(run)}"


def _lies(run: Rail | Duct) -> str:
    return f"{run.surface} {run.x1:g}, {run.y1:g} to {run.x2:g}, {run.y2:g} mm"


def _place_and_words(project: Project, id: str) -> str:
    """Return what a note is told apart by from others."""
    note = project.notes[id]
    return f"{project.sheets[note.sheet_id].number} {note.x} {note.y} {note.text}"


def _alike(
    before: Mapping[str, object],
    after: Mapping[str, object],
    called: Callable[[Project, str], str],
    projects: tuple[Project, Project],
) -> dict[str, str]:
    """Return for ids that only the later state has the id of the one of that name which only the earlier one has."""
    names: dict[str, list[str]] = {}
    for id in before:
        if id not in after:
            names.setdefault(called(projects[0], id), []).append(id)
    found: dict[str, str] = {}
    for id in after:
        there = names.get(called(projects[1], id), []) if id not in before else []
        if len(there) == 1 and there[0] not in found.values():
            found[id] = there[0]
    return found


def sights(project: Project, same: Same = NOTHING_ELSE, kinds: Iterable[str] = KINDS) -> Sights:
    """Return all that people see of a project, by kind and key, or of some kinds."""
    found: Sights = {}
    for kind in kinds:
        of_kind = found[kind] = {}
        for sight in _SEEN[kind](project, same):
            of_kind.setdefault(sight.key, sight)
    return found


def _sheets(project: Project, same: Same) -> Iterator[Sight]:
    for sheet in project.sheets_in_order():
        facts = {"number": sheet.number, "title": sheet.title}
        yield Sight("sheet", same.sheet(sheet.id), sheet.number, facts, sheet.id, (sheet.id,))


def _parts(project: Project, _: Same) -> Iterator[Sight]:
    for (part_id, unit), need in needs(project).items():
        part = project.parts[part_id]
        facts = {"quantity": f"{round(need.quantity, 3):g} {unit}"}
        yield Sight("part", f"{part.maker} {part.number} {unit}", part.number, facts, ids=(part_id,))


def _texts(project: Project, same: Same) -> Iterator[Sight]:
    for note in project.notes.values():
        key = same.notes.get(note.id, note.id)
        yield Sight("text", key, note.text, {"text": note.text}, note.sheet_id, (note.id,))


def _devices(project: Project, same: Same) -> Iterator[Sight]:
    for id in project.devices:
        sight = _device(project, id)
        if same is NOTHING_ELSE:
            yield sight
        else:
            inside, *place = sight.same_by["position"] or ("",)
            here = {"sheet": (same.sheet(sight.sheet_id),), "position": (same.device(str(inside)), *place)}
            yield replace(sight, key=same.device(id), same_by={**sight.same_by, **here})


@derived
def _device(project: Project, id: str) -> Sight:
    device, lead = project.devices[id], lead_of(project, id)
    part, tag = project.part_of(device), full_tag(project, device)
    facts = {
        "tag": tag,
        "text": device.text,
        "part": part.number if part else "",
        "further parts": ", ".join(sorted(p.number for p in project.add_ons_to(id))),
        "sheet": project.sheets[lead.sheet_id].number if lead else "",
    }
    units = tuple(s.id for s in project.units_of(id)) or (id,)
    place = path_of(project.locations, device.location_id, "+")
    sheet = lead.sheet_id if lead else ""
    facts["position"], stands = _position(project, id)
    metres = _metres(project, id)
    facts["length"] = cable_length(project, metres)
    card = next((project.cards[i] for i in project.attached.get(id) if i in project.cards), None)
    facts["first address"] = card.start if card else ""
    same_by = {"sheet": (sheet,), "position": stands, "length": (metres,)}
    return Sight("device", id, tag, facts, sheet, units, place, same_by)


def _metres(project: Project, device_id: str) -> float:
    """Return how long a cable is; 0 while that is not known, and of what is no cable."""
    cable = next((project.cables[i] for i in project.attached.get(device_id) if i in project.cables), None)
    return cable_length_m(project, cable)[0] if cable is not None else 0.0


def wire_length(project: Project, mm: float) -> str:
    """Return how long a wire, rail or duct is, in the project's unit; "" for none."""
    unit = project.settings.length_unit
    return f"{shown_in(unit, round(mm, 1))} {unit}" if mm else ""


def cable_length(project: Project, metres: float) -> str:
    """Return how long a cable is, in metres or feet; "" while that is not known."""
    unit, length = INCHES["m"]
    if project.settings.length_unit == "in":
        return f"{metres / length:.2f} {unit}" if metres else ""
    return f"{metres:g} m" if metres else ""


def _position(project: Project, device_id: str) -> tuple[str, tuple[object, ...]]:
    """Return where a device stands in an enclosure, in words and by what it goes by; "" and () for nowhere."""
    placing = placing_of(project, device_id)
    if placing is None:
        return "", ()
    inside = project.enclosures[placing.enclosure_id].device_id
    words = f"{placing.surface} {placing.x:g}, {placing.y:g} mm in {full_tag(project, project.devices[inside])}"
    return words, (inside, placing.surface, placing.x, placing.y)


def pin_key(project: Project, pin: tuple[str, int], same: Same) -> str:
    """Return what a pin is the same by: its device and name, of a terminal which one it is, else its symbol.

    A terminal's number is what it is called: another number is another label, and no wire goes elsewhere.
    """
    device, symbol = device_at(project, pin), project.symbols[pin[0]]
    if device is not None and definition(symbol.definition).unit == "terminal":
        return f"{same.device(device.id)}#{symbol.units[0]}"
    name = pins_of(project, symbol)[pin[1]]
    return f"{same.device(device.id)}:{name}" if device is not None and name else f"{pin[0]}.{pin[1]}"


def _wires(project: Project, same: Same) -> Iterator[Sight]:
    for sheet in project.sheets_in_order():
        yield from _wires_from(project, sheet.id) if same is NOTHING_ELSE else _wires_as(project, sheet.id, same)


@derived
def _wires_from(project: Project, sheet_id: str) -> list[Sight]:
    return list(_wires_as(project, sheet_id, NOTHING_ELSE))


def _wires_as(project: Project, sheet_id: str, same: Same) -> Iterator[Sight]:
    """Yield the wires of the nets that begin on a sheet."""
    ways = routes_from(project, sheet_id)
    for d in dossiers_from(project, sheet_id).values():
        if d.runs == "direct":
            continue
        one, other = sorted((pin_key(project, e.pin, same), e.name) for e in (d.start, d.end))
        facts = {"from": one[1], "to": other[1], "number": d.number, "type": d.type_name, "runs in": d.run}
        # How long a wire of a panel is follows from where its devices stand, and those are told.
        length = d.length_mm if d.runs == "harness" else None
        facts["length"] = wire_length(project, length or 0.0)
        name = d.number or f"{one[1]} to {other[1]}"
        ids = (d.conductor.wire_id or d.start.pin[0],)
        enclosure = project.enclosures.get(ways[d.key].enclosure_id) if d.runs == "panel" else None
        inside = same.device(enclosure.device_id) if enclosure else ""
        runs_in = (f"{d.runs} {same.device(d.cable_id) or d.harness_id}".strip(), d.core, inside)
        key, place = f"{one[0]}|{other[0]}", d.run
        if d.cable_id:
            place = full_tag(project, project.devices[d.cable_id])
        yield Sight(
            "wire", key, name, facts, d.conductor.sheet_id, ids, place, {"runs in": runs_in, "length": (length,)}
        )


def _terminals(project: Project, same: Same) -> Iterator[Sight]:
    for strip in strips(project):
        known = same.device(strip.id)
        for sight in _terminals_of(project, strip.id):
            yield sight if known == strip.id else replace(sight, key=sight.key.replace(strip.id, known))


@derived
def _terminals_of(project: Project, strip_id: str) -> list[Sight]:
    tag, found = full_tag(project, project.devices[strip_id]), []
    before = BEGIN
    for row in strip_rows(project, strip_id):
        if row.unit:
            sheet = project.symbols[row.symbol_ids[0]].sheet_id if row.symbol_ids else ""
            part = row.part.number if row.part else ""
            facts = {"number": row.number, "kind": row.terminal_kind, "part": part, "stands after": before}
            before = row.number
            ids = tuple(row.symbol_ids) or (strip_id,)
            found.append(Sight("terminal", f"{strip_id}:{row.unit}", f"{tag}:{row.number}", facts, sheet, ids, tag))
    return found


def _accessories(project: Project, same: Same) -> Iterator[Sight]:
    for strip in strips(project):
        tag, before, unit = full_tag(project, strip), BEGIN, 0
        for n, row in enumerate(strip_rows(project, strip.id)):
            if row.unit:
                before, unit = row.number, row.unit
                continue
            facts = {"part": row.part.number if row.part else "", "stands after": before}
            key = row.item_id if same is NOTHING_ELSE else f"{same.device(strip.id)} {n}"
            same_by = {"stands after": (f"{same.device(strip.id)}:{unit}",)}
            yield Sight("accessory", key, f"{tag} {row.number}", facts, "", (strip.id,), tag, same_by)


def _bridges(project: Project, same: Same) -> Iterator[Sight]:
    for bridge in project.bridges.values():
        tag = full_tag(project, project.devices[bridge.strip_id])
        numbers = (terminal_number(project, bridge.strip_id, unit) for unit in bridge.units)
        key = f"{same.device(bridge.strip_id)}:{bridge.units}"
        facts = {"part": project.parts[bridge.part_id].number if bridge.part_id else ""}
        yield Sight("bridge", key, f"{tag}:{' '.join(numbers)}", facts, "", (bridge.strip_id,), tag)


def _cores(project: Project, same: Same) -> Iterator[Sight]:
    for cable in project.cables.values():
        tag = full_tag(project, project.devices[cable.device_id])
        for row in cable_cores(project, cable.device_id):
            pins = (row.conductor.start, row.conductor.end) if row.conductor else ()
            facts = {"core": row.called, "serves": " to ".join(sorted(pin_name(project, pin) for pin in pins))}
            key = f"{same.device(cable.device_id)}:{row.ordinal}:{row.name}"
            serves = tuple(sorted(pin_key(project, pin, same) for pin in pins))
            yield Sight("core", key, f"{tag} {row.called}", facts, "", (cable.device_id,), tag, {"serves": serves})


def _points(project: Project, same: Same) -> Iterator[Sight]:
    for point in project.io_points.values():
        facts = {
            "tag": point.tag,
            "text": point.text,
            "kind": point.io_type,
            "address": channel_address(project, point.device_id, point.io_type, point.channel),
        }
        yield Sight("point", same.points.get(point.id, point.id), point.tag or point.text, facts, ids=(point.id,))


def _rails(project: Project, same: Same) -> Iterator[Sight]:
    yield from (_run(project, same, "rail", rail) for rail in project.rails.values())


def _ducts(project: Project, same: Same) -> Iterator[Sight]:
    yield from (_run(project, same, "duct", duct) for duct in project.ducts.values())


def _run(project: Project, same: Same, kind: str, run: Rail | Duct) -> Sight:
    number, length = project.parts[run.part_id].number, round(run_length(run), 1)
    facts = {"part": number, "length": wire_length(project, length), "position": _lies(run)}
    inside = full_tag(project, project.devices[project.enclosures[run.enclosure_id].device_id])
    key = same.runs.get(run.id, run.id)
    return Sight(kind, key, number, facts, "", (run.id,), inside, {"length": (length,)})


_SEEN: dict[str, Callable[[Project, Same], Iterator[Sight]]] = {
    "sheet": _sheets,
    "device": _devices,
    "wire": _wires,
    "terminal": _terminals,
    "accessory": _accessories,
    "bridge": _bridges,
    "core": _cores,
    "point": _points,
    "rail": _rails,
    "duct": _ducts,
    "part": _parts,
    "text": _texts,
}
