"""Checks of cables: cores, conductors that leave a panel without a cable or terminal."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.cables import (
    PE,
    POWER,
    PROTECTIVE,
    cable_conductors,
    cable_cores,
    cable_drop,
    capacity_a,
    choices_of,
    core_area_mm2,
    core_list,
    ends_of,
    laying_of,
    load_a,
    misfit,
    one_core_area_mm2,
    pair_names,
    places_of,
    protection_of,
    role_of,
    use_of,
)
from jolly_core.making import dossiers_from
from jolly_core.model import Project, RuleError, counted
from jolly_core.sizing import carried_a
from jolly_core.tagging import device_at, full_tag, path_of, place_side
from jolly_core.wiring import gates_missing, panel_of, site_of

from .registry import Act, Snag, built, built_check, project_check


@project_check("cable-cores", "A cable has fewer cores than conductors, or no part.")
def cores(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable without a part, and for each whose cores do not suffice."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        tag = full_tag(project, device)
        where = ("cables", device.id, (device.id,), device.id)
        if not core_list(project.part_of(device)):
            yield built("cable-cores", "warning", f"{tag} has no cable part, so its cores are not known.", *where)
            continue
        left = [r for r in cable_cores(project, device.id) if not r.ordinal]
        if left:
            message = f"{tag} has {counted(len(left), 'conductor')} more than cores. Choose a larger cable."
            yield built("cable-cores", "error", message, *where)


@project_check("cable-capacity", "A cable whose load is more than its cores carry.")
def capacities(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable with a load above what its cores carry by IEC 60204-1, saying both."""
    for cable in project.cables.values():
        load, carried = load_a(project, cable), capacity_a(project, cable)
        area = core_area_mm2(project, cable.device_id)
        if load and not carried and area:
            device = project.devices[cable.device_id]
            message = (
                f"What {area:g} mm² carry is not known, but {full_tag(project, device)} is loaded with {load:g} A."
            )
            message = f"{message} Choose a cable with a cross-section of the table."
            yield built("cable-capacity", "warning", message, "cables", device.id, (device.id,), device.id)
        if 0 < carried < load:
            device = project.devices[cable.device_id]
            message = f"{full_tag(project, device)} is loaded with {load:g} A and its cores carry {carried:g} A"
            message = f"{message} {laying_of(project, cable).words} (IEC 60204-1). Choose a larger cable."
            yield built("cable-capacity", "error", message, "cables", device.id, (device.id,), device.id)


@project_check("cable-drop", "A cable whose voltage drop is above what the project allows.")
def drops(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable above the project's warning or limit; what is not known is told on the bench."""
    warn, limit = project.settings.drop_warn_percent, project.settings.drop_limit_percent
    for cable in project.cables.values():
        try:
            percent = cable_drop(project, cable).percent
        except RuleError:
            continue
        above = limit if percent > limit > 0 else warn if percent > warn > 0 else 0.0
        if above:
            device = project.devices[cable.device_id]
            severity = "error" if above == limit else "warning"
            message = (
                f"{full_tag(project, device)} drops {percent:.2f} %, more than {above:g} %. Choose a larger cable."
            )
            yield built("cable-drop", severity, message, "cables", device.id, (device.id,), device.id)


@project_check("cable-protection", "A cable core too thin for the protective device in front of it.")
def protections(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable with a power core that carries less than its protective device lets through."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        part = project.part_of(device)
        for row in cable_cores(project, device.id):
            if row.conductor is None or not row.ordinal or use_of(project, row.conductor) != POWER:
                continue
            found = protection_of(project, row.conductor)
            laying = laying_of(project, cable)
            carried = carried_a(one_core_area_mm2(part, row.ordinal), laying)
            if found is not None and 0 < carried < found.amps:
                front = full_tag(project, found.device)
                message = f"{full_tag(project, device)}: core {row.name} carries {carried:g} A {laying.words}"
                message += f", and {front} in front of it lets {found.amps:g} A through (IEC 60204-1, 7.2)."
                yield built("cable-protection", "error", message, "cables", device.id, (device.id,), device.id)
                break


@project_check("shield-unlanded", "A shield of a cable that is landed at neither end.")
def shields(project: Project) -> Iterator[Snag]:
    """Yield a snag for each shielded cable whose shield is landed nowhere."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        part = project.part_of(device)
        if part is not None and any(kind == "shield" for kind, _ in part.units) and not cable.shield_landed:
            message = f"The shield of {full_tag(project, device)} is landed nowhere. Say at which end."
            act = Act("Land it at the source", "set-cable", (("device_id", device.id), ("shield_landed", "source")))
            yield built("shield-unlanded", "warning", message, "cables", device.id, (device.id,), device.id, act)


@project_check("cable-one-place", "A cable with both ends in one location.")
def one_place(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable that leads from a location to the same one."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        sources, ends = places_of(project, device.id)
        if len(sources) == 1 and sources == ends and sources[0]:
            place = path_of(project.locations, sources[0], "+")
            message = f"{full_tag(project, device)} has both ends in {place}. Say where its devices are."
            yield built("cable-one-place", "warning", message, "cables", device.id, (device.id,), device.id)


@project_check("cable-mixed", "Power, control and signals in one cable.")
def mixed(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable whose conductors are for more than one of power, control and signal."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        found = dict.fromkeys(use_of(project, c) for c in cable_conductors(project, device.id))
        uses = [use for use in found if use]
        if len(uses) > 1:
            message = f"{full_tag(project, device)} leads {' and '.join(sorted(uses))} together. Use a cable for each."
            yield built("cable-mixed", "warning", message, "cables", device.id, (device.id,), device.id)


@project_check("pair-parted", "The conductors of one loop in more twisted pairs than they need.")
def parted_pairs(project: Project) -> Iterator[Snag]:
    """Yield a snag for each device whose conductors lie in more pairs of a cable than they would fill."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        names = pair_names(project.part_of(device))
        used: dict[str, list[str]] = {}
        for row in cable_cores(project, device.id) if names else ():
            far = device_at(project, ends_of(project, device.id, row.conductor)[1]) if row.conductor else None
            if far is not None and row.ordinal in names:
                used.setdefault(far.id, []).append(names[row.ordinal])
        for far_id, pairs in used.items():
            there = list(dict.fromkeys(pairs))
            if len(there) > -(-len(pairs) // 2):
                end = full_tag(project, project.devices[far_id])
                message = f"{full_tag(project, device)} leads to {end} in the pairs {' and '.join(there)} where"
                message = f"{message} {-(-len(pairs) // 2)} would do. Keep its wires in one twisted pair."
                act = Act("Usual cores", "default-cores", (("device_id", device.id),))
                yield built("pair-parted", "warning", message, "cables", device.id, (device.id, far_id), device.id, act)


@project_check("core-choice", "A chosen core that cannot serve its conductor, such as a live one on green-yellow.")
def core_choices(project: Project) -> Iterator[Snag]:
    """Yield a snag for each stored choice of a core that is passed over, saying why."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        there = {c.key for c in cable_conductors(project, device.id)}
        taken: dict[int, str] = {}
        for choice in choices_of(project, device.id):
            why = misfit(project, choice)
            first = taken.setdefault(choice.ordinal, choice.conductor) if choice.conductor in there else ""
            if not why and first not in ("", choice.conductor):
                why = f"core {choice.ordinal} is in another connection already"
            if why:
                message = f"A core chosen for {full_tag(project, device)} does not count: {why}."
                act = Act("Usual cores", "default-cores", (("device_id", device.id),))
                yield built("core-choice", "error", message, "cables", device.id, (device.id,), device.id, act)


@project_check("protective-core", "A protective conductor in a core that is not green-yellow.")
def protective_cores(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable that leads a protective conductor without having a green-yellow core for it."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        for row in cable_cores(project, device.id):
            if row.conductor and row.ordinal and row.name != PROTECTIVE and role_of(project, row.conductor) == PE:
                message = (
                    f"{full_tag(project, device)} leads a protective conductor in core {row.name}, not in green-yellow."
                )
                message = f"{message} Choose a cable with such a core."
                yield built("protective-core", "error", message, "cables", device.id, (device.id,), device.id)
                break


@project_check("two-cables", "A conductor that is in two cables.")
def two_cables(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable that shares a conductor with one before it."""
    owner: dict[str, str] = {}
    for cable in sorted(project.cables.values(), key=lambda c: c.id):
        shared = {
            owner[c.key]
            for c in cable_conductors(project, cable.device_id)
            if owner.setdefault(c.key, cable.device_id) != cable.device_id
        }
        for other in sorted(shared):
            device = project.devices[cable.device_id]
            names = f"{full_tag(project, device)} and {full_tag(project, project.devices[other])}"
            message = f"{names} are on one conductor. Take it out of one of the bands."
            yield built("two-cables", "error", message, "cables", device.id, (device.id,), device.id)


@built_check("field-wire", "A conductor outside the panels that is in no cable and no harness.")
def field_wires(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each conductor that runs in nothing yet, saying what is missing.

    Notes:
        Where an end belongs to no device it is not known where the wire runs; the end has a snag of its own.
    """
    for d in dossiers_from(project, sheet_id).values():
        ends = [device_at(project, d.start.pin), device_at(project, d.end.pin)]
        if d.runs != "open" or None in ends:
            continue
        name = f"{d.number} {d.start.name} to {d.end.name}".strip()
        panels = [panel_of(project, e) if e is not None else "" for e in ends]
        lost = [e for e in ends if e is not None and not place_side(project, e)]
        ids = (d.conductor.wire_id,) if d.conductor.wire_id else ()
        if lost:
            message = f"{name}: {full_tag(project, lost[0])} has no location. Say where it is."
        elif panels[0] and panels[1] and panels[0] != panels[1]:
            places = [path_of(project.locations, e.location_id, "+") for e in ends if e is not None]
            message = f"{name} goes from {' to '.join(places)} in no cable. Draw a band across it."
        else:
            message = f"{name} is outside the panel and in no cable. Draw a band across it."
        snag = built("field-wire", "warning", message, "draw", d.conductor.sheet_id, ids, lost[0].id if lost else "")
        yield snag


@built_check("jumps-wall", "A conductor that goes through a panel's wall without a terminal or connector.")
def jumps(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each conductor that lacks a terminal or connector where it leaves a panel."""
    for d in dossiers_from(project, sheet_id).values():
        missing = gates_missing(site_of(project, d.start.pin), site_of(project, d.end.pin))
        if missing:
            words = "leaves the panel without a terminal"
            ends = [device_at(project, d.start.pin), device_at(project, d.end.pin)]
            if all(e is not None and panel_of(project, e) for e in ends):
                words = f"goes to another panel and lacks a terminal at {'each end' if missing > 1 else 'one end'}"
            message = f"{d.number} {d.start.name} to {d.end.name} {words}.".strip()
            yield built("jumps-wall", "error", message, "draw", d.conductor.sheet_id, (d.conductor.wire_id,))
