"""What the Cables bench shows."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.cables import (
    POWER,
    CoreRow,
    bands_of,
    cable_conductors,
    cable_cores,
    cable_drop,
    cable_length_m,
    cable_of,
    capacity_a,
    ends_of,
    larger_of_family,
    laying_of,
    load_a,
    need_of,
    pair_names,
    parts_for,
    places_of,
    protection_of,
    source_first,
    use_of,
    way_between_places,
)
from jolly_core.checks import project_snags
from jolly_core.library import Library
from jolly_core.making import FieldGroup, field_groups
from jolly_core.model import Cable, GoneError, Part, Project, RuleError
from jolly_core.scenes import cable_scene, plan_of
from jolly_core.tagging import full_tag, path_of, pin_name, tag_order
from jolly_server.shapes.sceneshapes import SceneValue, scene_value

from .shapes import DeviceName, FromTo, PartName, conductor_place, device_value, part_name


class CoreValue(FromTo):
    """A core of a cable and the conductor it serves; ends and place are "" for a spare one."""

    ordinal: int
    name: str
    kind: str
    pair: str
    chosen: bool
    number: str
    type: str
    sheet_id: str
    place: str
    wire_id: str


class Drop(TypedDict):
    """A voltage drop, with its sum."""

    volts: float
    percent: float
    why: str


class Capacity(TypedDict):
    """What a cable carries and what it must carry, amperes."""

    carried_a: float
    load_a: float
    enough: bool
    why: str


class SheetName(TypedDict):
    """A sheet by id and number."""

    id: str
    number: str


class CableValue(DeviceName):
    """A cable with its cores; `plan_id` is the sheet or page that shows them.

    Attributes:
        source, destination: where its ends are, in words.
        used, spare: cores with a conductor, and without.
        length_m: as it was typed, 0 for none; `length` is what counts, and `length_how` how it is known.
        shielded: its part has a shield.
        snags: what is wrong with it, in words.
    """

    plan_id: str
    source: str
    destination: str
    used: int
    spare: int
    length_m: float
    length: float
    length_how: str
    load_a: float
    voltage_v: float
    power_factor: float
    shielded: bool
    shield_landed: str
    turned: bool
    numbered: bool
    laid: str
    grouped: int
    drop: Drop | None
    drop_missing: str
    capacity: Capacity | None
    protection: str
    cores: list[CoreValue]
    sheets: list[SheetName]
    snags: list[str]


class CablePicture(TypedDict):
    """A cable with both of its ends, and larger cables of its family while it lacks cores."""

    id: str
    scene: SceneValue
    larger: list[PartName]


class FieldWire(TypedDict):
    """A field wire in no cable."""

    key: str
    name: str
    number: str


class FieldGroupValue(TypedDict):
    """Field wires that could be one cable: where they run, what for, what a cable for them needs, which parts fit."""

    key: str
    use: str
    source: str
    destination: str
    need: str
    wires: list[FieldWire]
    parts: list[PartName]


class WayValue(TypedDict):
    """How long cables are between two locations; 0 where nobody said."""

    a_id: str
    b_id: str
    a: str
    b: str
    length_m: float


class CablesView(TypedDict):
    """What the Cables bench shows."""

    cables: list[CableValue]
    tray: list[FieldGroupValue]
    ways: list[WayValue]


MOST_PARTS = 8


def cables_bench(project: Project, library: Library) -> CablesView:
    """Return the cables with their cores, field wires in no cable, and the lengths between locations."""
    cables = sorted(project.cables.values(), key=lambda c: tag_order(project, project.devices[c.device_id]))
    snags = _snags_by_cable(project)
    groups = field_groups(project)
    parts = library.parts_of("cable") if groups else []
    used = {project.devices[c.device_id].part_id for c in cables}
    return {
        "cables": [_cable(project, c, snags.get(c.device_id, [])) for c in cables],
        "tray": [_group(project, group, parts, used) for group in groups],
        "ways": _ways(project),
    }


def cable_picture(project: Project, library: Library, device_id: str) -> CablePicture:
    """Return a cable with both of its ends.

    Raises:
        GoneError: there is no such cable any more.
    """
    device = project.get("device", device_id)
    if not cable_of(project, device.id):
        raise GoneError("This is no cable any more.", ids=(device_id,))
    larger: list[Part] = []
    part = project.part_of(device)
    if part is not None and any(not r.ordinal for r in cable_cores(project, device.id)):
        need = need_of(project, cable_conductors(project, device.id))
        larger = larger_of_family(part, need, library.parts_of("cable"))[:MOST_PARTS]
    names = [name for p in larger if (name := part_name(p)) is not None]
    return {"id": device.id, "scene": scene_value(cable_scene(project, device.id)), "larger": names}


def _snags_by_cable(project: Project) -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for snag in project_snags(project):
        if snag.bench == "cables":
            found.setdefault(snag.subject, []).append(snag.message)
    return found


def _group(project: Project, group: FieldGroup, parts: list[Part], used: set[str]) -> FieldGroupValue:
    need = need_of(project, group.conductors)
    fitting = parts_for(need, parts, used)[:MOST_PARTS]
    return {
        "key": group.key,
        "use": group.use,
        "source": group.source,
        "destination": group.destination,
        "need": need.words,
        "wires": [
            {
                "key": c.key,
                "name": " to ".join(pin_name(project, p) for p in source_first(project, c)),
                "number": c.number,
            }
            for c in group.conductors
        ],
        "parts": [name for p in fitting if (name := part_name(p)) is not None],
    }


def _ways(project: Project) -> list[WayValue]:
    """Return the ways that cables run, and those in the table, by name."""
    pairs: dict[frozenset[str], tuple[str, str]] = {
        frozenset((w.a_id, w.b_id)): (w.a_id, w.b_id) for w in project.cable_ways.values()
    }
    for cable in project.cables.values():
        sources, ends = places_of(project, cable.device_id)
        for a, b in ((a, b) for a in sources for b in ends if a and b and a != b):
            pairs.setdefault(frozenset((a, b)), (a, b))
    found: list[WayValue] = []
    for a, b in pairs.values():
        way = way_between_places(project, a, b)
        names = [path_of(project.locations, id, "+") for id in (a, b)]
        found.append({"a_id": a, "b_id": b, "a": names[0], "b": names[1], "length_m": way.length_m if way else 0.0})
    return sorted(found, key=lambda w: (w["a"], w["b"]))


def _cable(project: Project, cable: Cable, snags: list[str]) -> CableValue:
    device = project.devices[cable.device_id]
    part = project.part_of(device)
    drop: Drop | None = None
    missing = ""
    try:
        found = cable_drop(project, cable)
        drop = {"volts": round(found.volts, 3), "percent": round(found.percent, 3), "why": found.why}
    except RuleError as error:
        missing = error.message
    sheets = {b.sheet_id: project.sheets[b.sheet_id].number for b in bands_of(project, device.id)}
    rows = cable_cores(project, device.id)
    pairs = pair_names(part)
    length, how = cable_length_m(project, cable)
    places = [
        ", ".join(path_of(project.locations, id, "+") for id in side if id) for side in places_of(project, device.id)
    ]
    return {
        **device_value(project, device),
        "plan_id": plan_of(project, "cores", device.id),
        "source": places[0],
        "destination": places[1],
        "used": sum(1 for r in rows if r.conductor is not None),
        "spare": sum(1 for r in rows if r.kind == "core" and r.conductor is None),
        "length_m": cable.length_m,
        "length": length,
        "length_how": how,
        "load_a": cable.load_a,
        "voltage_v": cable.voltage_v,
        "power_factor": cable.power_factor,
        "shielded": part is not None and any(kind == "shield" for kind, _ in part.units),
        "shield_landed": cable.shield_landed,
        "turned": cable.turned,
        "numbered": cable.numbered,
        "laid": cable.laid,
        "grouped": cable.grouped,
        "drop": drop,
        "drop_missing": missing,
        "capacity": _capacity(project, cable),
        "protection": _protection(project, rows),
        "cores": [_core(project, device.id, row, pairs.get(row.ordinal, "")) for row in rows],
        "sheets": [{"id": id, "number": number} for id, number in sheets.items()],
        "snags": snags,
    }


def _protection(project: Project, rows: list[CoreRow]) -> str:
    """Return what protects the power cores of a cable, "" where nothing is met."""
    for row in rows:
        if row.conductor is not None and use_of(project, row.conductor) == POWER:
            found = protection_of(project, row.conductor)
            if found is not None:
                return f"{full_tag(project, found.device)}, {found.amps:g} A"
    return ""


def _core(project: Project, device_id: str, row: CoreRow, pair: str) -> CoreValue:
    value: CoreValue = {
        "ordinal": row.ordinal,
        "name": row.name,
        "kind": row.kind,
        "pair": pair,
        "chosen": row.chosen,
        "from": "",
        "to": "",
        "number": "",
        "type": "",
        "sheet_id": "",
        "place": "",
        "wire_id": "",
    }
    c = row.conductor
    if c is None:
        return value
    a, b = ends_of(project, device_id, c)
    wire_type = c.wire_type(project)
    return {
        **value,
        "from": pin_name(project, a),
        "to": pin_name(project, b),
        "number": c.number,
        "type": wire_type.name if wire_type else "",
        "wire_id": c.wire_id,
        **conductor_place(project, c),
    }


def _capacity(project: Project, cable: Cable) -> Capacity | None:
    carried, load = capacity_a(project, cable), load_a(project, cable)
    if not carried:
        return None
    laid = laying_of(project, cable).words
    why = f"by the smallest core that leads the load, {laid} (IEC 60204-1, table 6 and annex D)"
    return {"carried_a": carried, "load_a": load, "enough": load <= carried, "why": why}
