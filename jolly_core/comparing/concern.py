"""Which drawings the changes from one state of a project to another concern.

To paint every drawing of a large project twice takes long, and most changes concern few of them. So it is asked the
other way round: what drawings does a record stand on, or what of it do they say? Those drawings may look otherwise,
and all others look the same. What is worked out from much of the project is not followed but compared in both states:
tags, terminal numbers and wire numbers. A kind that does not say where it is seen may be seen on every drawing.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, fields
from typing import Any

from jolly_core.library import definition
from jolly_core.model import KINDS, Change, ChangeSet, Project, kind_of
from jolly_core.plc import TYPES_OF_UNITS
from jolly_core.tagging import lies_in

# What of the settings stands in title blocks and lists only, or concerns lengths, checks and how new things begin.
_SAID = {"number", "name", "customer", "site", "drawn_by", "revision", "drawn_on", "checked_by", "checked_on"} | {
    *("issued_on", "supply", "supply_system", "control_voltages", "protection", "standards", "own_fields"),
    *("end_allowance_mm", "door_allowance_mm", "free_run_mm", "harness_allowance_mm", "length_step_mm", "spool_m"),
    *("cable_allowance_m", "spare_share_percent", "drop_warn_percent", "drop_limit_percent", "fill_warn_percent"),
}


@dataclass(slots=True)
class _Concern:
    """What is concerned: sheets, those of them that are other themselves, devices, names of continuations, ids."""

    sheets: set[str] = field(default_factory=set)
    other: set[str] = field(default_factory=set)
    devices: set[str] = field(default_factory=set)
    names: set[str] = field(default_factory=set)
    places: set[str] = field(default_factory=set)
    parts: set[str] = field(default_factory=set)
    types: set[str] = field(default_factory=set)


def sheets_concerned(project: Project, changes: ChangeSet, devices: Iterable[str]) -> set[str] | None:
    """Return the ids of the sheets that may look otherwise in another state, None when any may.

    Wire numbers are left out, see `states`.

    Args:
        project: one of the states; that of the other is not needed, as what differs is in the changes.
        changes: what would make one state the other.
        devices: ids of devices that are known to differ, by their tags, their places or the numbers of their terminals.
    """
    found = _Concern(devices=set(devices))
    for change in changes:
        if not _note(found, change):
            return None
    if len(changes):
        _follow(project, found)
        found.sheets |= _restless(project)
    return found.sheets


def _note(found: _Concern, change: Change) -> bool:
    """Note what a change concerns; return False when that may be any sheet."""
    kind, both = change.kind, [r for r in (change.before, change.after) if r is not None]
    if kind == "settings":
        return len(both) == 2 and all(
            getattr(both[0], f.name) == getattr(both[1], f.name) for f in fields(both[0]) if f.name not in _SAID
        )
    if kind in ("function", "location"):
        found.places.add(change.id)
    elif kind == "part":
        found.parts.add(change.id)
    elif kind == "wire_type":
        found.types.add(change.id)
    elif kind == "sheet":
        found.other.add(change.id)
    elif KINDS[kind].seen == "here":
        for record in both:
            _note_record(found, change, record)
    else:
        return KINDS[kind].seen == "nowhere"
    return True


def _note_record(found: _Concern, change: Change, record: Any) -> None:
    if change.kind == "device":
        found.devices.add(change.id)
    if change.kind == "continuation":
        found.names.add(record.name)
    for name, names in kind_of(record).names.items():
        if names.kind == "device":
            found.devices.add(getattr(record, name))
        elif name == "sheet_id":
            found.sheets.add(getattr(record, name))


def _follow(project: Project, found: _Concern) -> None:
    """Add the sheets on which something is said of what is concerned."""
    for place in found.places:
        found.devices |= {
            d.id
            for d in project.devices.values()
            if lies_in(project.functions, d.function_id, place) or lies_in(project.locations, d.location_id, place)
        }
    if found.parts:
        found.devices |= {d.id for d in project.devices.values() if d.part_id in found.parts}
        found.devices |= {a.device_id for a in project.add_ons.values() if a.part_id in found.parts}
    if found.types:
        found.sheets |= {w.sheet_id for w in project.wires.values() if w.type_id in found.types}
    found.sheets |= found.other
    for sheet_id in found.other:  # where a thing stands is said elsewhere by the number of its sheet
        found.devices |= {s.device_id for s in project.symbols_on(sheet_id)}
        found.names |= {c.name for c in project.continuations_on(sheet_id)}
    for device_id in found.devices - {""}:
        found.sheets |= {s.sheet_id for s in project.units_of(device_id)}
    for name in found.names:
        found.sheets |= {project.continuations[i].sheet_id for i in project.continuations_named.get(name)}


def _restless(project: Project) -> set[str]:
    """Return the sheets on which something is shown of much else: cores, addresses, lists, places."""
    found = {b.sheet_id for b in project.bands.values()}
    found |= {f.sheet_id for f in project.figures.values() if f.kind == "table" or f.location_id}
    found |= {s.sheet_id for s in project.symbols.values() if definition(s.definition).unit in TYPES_OF_UNITS}
    return found
