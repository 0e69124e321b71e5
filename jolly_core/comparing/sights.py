"""What people see of a project, so that two states of it can be told apart: each thing with its name and facts."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace

from jolly_core.cabinet import passage_words, passages_for, placing_of, routes_from, run_names
from jolly_core.cables import cable_cores, cable_length_m
from jolly_core.harness import nodes_at, strand_of
from jolly_core.library import definition
from jolly_core.making import Dossier, dossiers_from, plate_of
from jolly_core.model import Cable, Project, derived, shown_in
from jolly_core.plc import card_of, channel_address
from jolly_core.tagging import device_at, full_tag, lead_of, natural, path_of, pin_name, pins_of

from . import builtsights as built
from . import papersights as papers
from .thing import KINDS, NOTHING_ELSE, Same, Sight, Sights, cable_length, wire_length

# Where a wire is that runs in no panel, cable or harness.
IN_NO_CABLE, NOWHERE_YET = "in no cable yet", "place not known yet"


def sights(project: Project, same: Same = NOTHING_ELSE, kinds: Iterable[str] = KINDS) -> Sights:
    """Return all that people see of a project, by kind and key, or of some kinds."""
    found: Sights = {}
    for kind in kinds:
        of_kind = found[kind] = {}
        for sight in _SEEN[kind](project, same):
            of_kind.setdefault(sight.key, sight)
    return found


def _devices(project: Project, same: Same) -> Iterator[Sight]:
    for id in project.devices:
        sight = _device(project, id)
        if same is NOTHING_ELSE:
            yield sight
        else:
            inside, *place = sight.same_by["position"] or ("",)
            harnesses = tuple(same.built.get(str(h), h) for h in sight.same_by["harness"])
            here = {"sheet": (same.sheet(sight.sheet_id),), "position": (same.device(str(inside)), *place)}
            here["harness"] = harnesses
            rack, *slot = sight.same_by["slot"] or ("",)
            here["slot"] = (same.device(str(rack)), *slot)
            yield replace(sight, key=same.device(id), same_by={**sight.same_by, **here})


@derived
def _device(project: Project, id: str) -> Sight:
    device, lead = project.devices[id], lead_of(project, id)
    part, tag = project.part_of(device), full_tag(project, device)
    facts = {
        "tag": tag,
        "text": device.text,
        "part": part.number if part else "",
        "nameplate": ", ".join(plate_of(project, device)),
        "further parts": ", ".join(sorted((p.number for p in project.add_ons_to(id)), key=natural)),
        "sheet": project.sheets[lead.sheet_id].number if lead else "",
    }
    units = tuple(s.id for s in project.units_of(id)) or (id,)
    place = path_of(project.locations, device.location_id, "+")
    sheet = lead.sheet_id if lead else ""
    facts["position"], stands = _position(project, id)
    metres = _metres(project, id)
    facts["length"] = cable_length(project, metres)
    nodes = nodes_at(project, id)
    facts["harness"] = ", ".join(project.harnesses[n.harness_id].code for n in nodes)
    facts["variants"], scope = built.variant_facts(project, nodes[0].harness_id, nodes[0].id) if nodes else ("", ())
    inside = tuple(n.harness_id for n in nodes)
    facts |= _attached(project, id)
    facts["slot"], slot = _slot(project, id)
    same_by = {"sheet": (sheet,), "position": stands, "length": (metres,), "variants": scope, "harness": inside}
    same_by["slot"] = slot
    return Sight("device", id, tag, facts, sheet, units, place, same_by)


def _attached(project: Project, id: str) -> dict[str, str]:
    """Return what a device says as a card or as a cable, "" where it is none."""
    card = card_of(project, id)
    cable = next((project.cables[i] for i in project.attached.get(id) if i in project.cables), None)
    return {
        "first address": card.start if card else "",
        "shield landed": cable.shield_landed if cable else "",
        "turned": "yes" if cable and cable.turned else "",
        "laid": cable.laid if cable else "",
        "carries": _carried(cable) if cable else "",
    }


def _carried(cable: Cable) -> str:
    """Return what is typed of the load of a cable, "" where all is taken from the part at its far end."""
    typed = ((f"{cable.load_a:g} A", cable.load_a), (f"{cable.voltage_v:g} V", cable.voltage_v))
    factor = (f"power factor {cable.power_factor:g}", cable.power_factor)
    return ", ".join(words for words, value in (*typed, factor) if value)


def _slot(project: Project, id: str) -> tuple[str, tuple[object, ...]]:
    """Return the rack and slot that a card is put into, in words and by what they go by; "" and () for none."""
    card = card_of(project, id)
    rack = project.racks.get(card.rack_id) if card else None
    if card is None or not (rack or card.slot):
        return "", ()
    within = f" of {full_tag(project, project.devices[rack.device_id])}" if rack else ""
    return f"{card.slot or 'none yet'}{within}", (rack.device_id if rack else "", card.slot)


def _metres(project: Project, device_id: str) -> float:
    """Return how long a cable is; 0 while that is not known, and of what is no cable."""
    cable = next((project.cables[i] for i in project.attached.get(device_id) if i in project.cables), None)
    return cable_length_m(project, cable)[0] if cable is not None else 0.0


def _position(project: Project, device_id: str) -> tuple[str, tuple[object, ...]]:
    """Return where a device stands in an enclosure, in words and by what it goes by; "" and () for nowhere."""
    placing = placing_of(project, device_id)
    if placing is None:
        return "", ()
    inside = project.enclosures[placing.enclosure_id].device_id
    unit = project.settings.length_unit
    x, y = (shown_in(unit, v) for v in (placing.x, placing.y))
    rail = run_names(project, placing.enclosure_id).get(placing.rail_id, "")
    on = f" on rail {rail}" if rail else ""
    words = f"{placing.surface} {x}, {y} {unit}{on} in {full_tag(project, project.devices[inside])}"
    return words, (inside, placing.surface, placing.x, placing.y, bool(rail))


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
        # What a core is made of is said of its cable.
        facts["colour"], facts["size"] = ("", "") if d.cable_id else (d.colour, d.size)
        through = passages_for(project, d.key) if d.runs == "panel" else ()
        facts["led through"] = ", ".join(passage_words(project, name) for name in through)
        # How long a wire of a panel is follows from where its devices stand, and those are told.
        length = d.length_mm if d.runs == "harness" else None
        facts["length"] = wire_length(project, length or 0.0)
        name = d.number or f"{one[1]} to {other[1]}"
        ids = (d.conductor.wire_id or d.start.pin[0],)
        enclosure = project.enclosures.get(ways[d.key].enclosure_id) if d.runs == "panel" else None
        inside = same.device(enclosure.device_id) if enclosure else ""
        run_by = same.device(d.cable_id) or same.built.get(d.harness_id, d.harness_id)
        runs_in = (f"{d.runs} {run_by}".strip(), d.core, inside)
        key, place = f"{one[0]}|{other[0]}", d.run or _between(project, d)
        if d.cable_id:
            place = full_tag(project, project.devices[d.cable_id])
        said, scope = _said_of(project, d)
        same_by = {"runs in": runs_in, "length": (length,), "variants": scope, "led through": through}
        yield Sight("wire", key, name, {**facts, **said}, d.conductor.sheet_id, ids, place, same_by)


def _between(project: Project, d: Dossier) -> str:
    """Return the places between which a wire is that runs in nothing yet, as far as they are known."""
    ids = [project.devices[e.device_id].location_id for e in (d.start, d.end) if e.device_id]
    places = " to ".join(sorted({path_of(project.locations, id, "+") for id in ids if id}))
    return f"{places}, {IN_NO_CABLE}" if places else NOWHERE_YET


def _said_of(project: Project, d: Dossier) -> tuple[dict[str, str], tuple[str, ...]]:
    """Return what a person said of a wire of a harness, and the variants it is in by name."""
    strand = strand_of(project, d.harness_id, d.key) if d.runs == "harness" else None
    named, scope = built.variant_facts(project, d.harness_id, d.key) if d.runs == "harness" else ("", ())
    twisted, shield = (strand.twisted, strand.shield) if strand else ("", "")
    return {"twisted": twisted, "shield": shield, "variants": named}, scope


def _cores(project: Project, same: Same) -> Iterator[Sight]:
    for cable in project.cables.values():
        tag = full_tag(project, project.devices[cable.device_id])
        for row in cable_cores(project, cable.device_id):
            pins = (row.conductor.start, row.conductor.end) if row.conductor else ()
            facts = {
                "core": row.called,
                "serves": " to ".join(sorted((pin_name(project, pin) for pin in pins), key=natural)),
            }
            key = f"{same.device(cable.device_id)}:{row.ordinal}:{row.name}"
            serves = tuple(sorted(pin_key(project, pin, same) for pin in pins))
            yield Sight("core", key, f"{tag} {row.called}", facts, "", (cable.device_id,), tag, {"serves": serves})


def _points(project: Project, same: Same) -> Iterator[Sight]:
    for point in project.io_points.values():
        card = project.devices.get(point.device_id)
        facts = {
            "tag": point.tag,
            "text": point.text,
            "kind": point.io_type,
            "second text": point.text2,
            "signal": point.signal,
            "range": " ".join(filter(None, (point.span, point.unit))),
            "device": point.device,
            "at rest": point.normal,
            "connected": point.connected,
            "sort": point.sort,
            "remark": point.remark,
            "channel": f"{full_tag(project, card)}:{point.channel}" if card else "",
            "address": channel_address(project, point.device_id, point.io_type, point.channel),
        }
        key, same_by = same.points.get(point.id, point.id), {"channel": (same.device(point.device_id), point.channel)}
        yield Sight("point", key, point.tag or point.text, facts, ids=(point.id,), same_by=same_by)


_SEEN: dict[str, Callable[[Project, Same], Iterator[Sight]]] = {
    "project": papers.project_sights,
    "place": papers.place_sights,
    "sheet": papers.sheet_sights,
    "device": _devices,
    "wire": _wires,
    "terminal": built.terminal_sights,
    "accessory": built.accessory_sights,
    "bridge": built.bridge_sights,
    "core": _cores,
    "point": _points,
    "rail": built.rail_sights,
    "duct": built.duct_sights,
    "lane": built.lane_sights,
    "crossing": built.crossing_sights,
    "harness": built.harness_sights,
    "segment": built.segment_sights,
    "fitting": built.fitting_sights,
    "wire type": papers.wire_type_sights,
    "part": papers.part_sights,
    "text": papers.text_sights,
}
