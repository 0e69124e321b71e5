"""Which part a terminal of a strip is: its own, else that of the whole strip when it is of the terminal's kind."""

from __future__ import annotations

from jolly_core.library import definition, kind_drawn, terminal_kind
from jolly_core.model import Part, Project, Symbol


def own_parts(project: Project, strip_id: str) -> dict[int, str]:
    """Return the ids of the parts that single terminals of a strip were given, by unit."""
    records = (project.strip_items[id] for id in project.items_of_strip.get(strip_id))
    return {r.unit: r.part_id for r in records if r.kind == "terminal" and r.part_id}


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
    device = project.devices.get(symbol.device_id)
    if device is None:
        return None
    own = project.parts.get(own_parts(project, device.id).get(symbol.units[0], ""))
    return next((p for p in (own, project.part_of(device)) if p is not None and serves(p, symbol)), None)


def serves(part: Part, symbol: Symbol) -> bool:
    """Return whether a part is of the kind that a terminal is drawn as."""
    return terminal_kind(part) == kind_drawn(symbol.definition)
