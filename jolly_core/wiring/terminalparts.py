"""Which part a terminal of a strip is: its own, else that of the whole strip when it is of the terminal's kind."""

from __future__ import annotations

from jolly_core.library import definition, kind_drawn, terminal_kind
from jolly_core.model import Part, Project, Symbol, derived


@derived
def own_parts(project: Project, strip_id: str) -> dict[int, str]:
    """Return the ids of the parts that single terminals of a strip were given, by unit."""
    records = (project.strip_items[id] for id in project.items_of_strip.get(strip_id))
    return {r.unit: r.part_id for r in records if r.kind == "terminal" and r.part_id}


@derived
def joints(project: Project) -> dict[tuple[str, int], str]:
    """Return by strip and unit which terminals carry or part a wire number otherwise than their symbol does."""
    return {(r.strip_id, r.unit): r.joint for r in project.strip_items.values() if r.joint and r.kind == "terminal"}


def joint_of(project: Project, symbol: Symbol) -> str:
    """Return whether a terminal carries or parts its wire number by hand, "" when it does as its symbol does."""
    if definition(symbol.definition).unit != "terminal":
        return ""
    return joints(project).get((symbol.device_id, symbol.units[0]), "")


def part_at(project: Project, symbol: Symbol) -> Part | None:
    """Return the part that a symbol's pins are on: that of the terminal on a strip, else that of the device."""
    if definition(symbol.definition).unit == "terminal":
        return terminal_part(project, symbol)
    device = project.devices.get(symbol.device_id)
    return project.part_of(device) if device else None


def terminal_part(project: Project, symbol: Symbol) -> Part | None:
    """Return the part of a terminal, None while it has none of its kind.

    The part of a strip counts for the terminals of its kind only: a fuse terminal is not ordered as a feed-through one.
    """
    if symbol.device_id not in project.devices:
        return None
    return part_of_kind(project, symbol.device_id, symbol.units[0], kind_drawn(symbol.definition))


def part_of_kind(project: Project, strip_id: str, unit: int, kind: str) -> Part | None:
    """Return the part of a terminal of a strip that is of a kind, drawn or not: its own, else the strip's."""
    own = project.parts.get(own_parts(project, strip_id).get(unit, ""))
    parts = (own, project.part_of(project.devices[strip_id]))
    return next((p for p in parts if p is not None and terminal_kind(p) == kind), None)


def serves(part: Part, symbol: Symbol) -> bool:
    """Return whether a part is of the kind that a terminal is drawn as."""
    return terminal_kind(part) == kind_drawn(symbol.definition)
