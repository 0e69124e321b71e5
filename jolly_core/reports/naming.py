"""Things of a project in words a person knows: for the journal, where they may be gone already."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from jolly_core.drawing import place_in
from jolly_core.library import definition, is_known
from jolly_core.model import KINDS, ON_SHEET, REFERENCES, Change, ChangeSet, Device, Entity, Project, to_record
from jolly_core.tagging import full_tag, path_of, tag_on

FIELD_NAMES = {
    "definition": "symbol",
    "x": "across",
    "y": "down",
    "fixed_tag": "fixed tag",
    "function_id": "function",
    "location_id": "location",
    "part_id": "part",
    "type_id": "wire type",
    "parent_id": "within",
    "device_id": "device",
    "title_block_id": "title block",
}
LONGEST = 80


@dataclass(slots=True, frozen=True)
class Named:
    """A thing by its kind, its name for people, its id, and the sheet it lies on."""

    kind: str
    name: str
    id: str
    sheet_id: str


def kind_name(kind: str) -> str:
    """Return a kind of thing in words.

    Example:
        >>> kind_name("io_point")
        'point'
    """
    return KINDS[kind].words


def named(project: Project, change: Change) -> Named:
    """Return what a change concerned, named as it was or is."""
    record: Entity = change.after or change.before
    sheet_id = record.sheet_id if change.kind in ON_SHEET else change.id if change.kind == "sheet" else ""
    return Named(kind_name(change.kind), _name(project, change.kind, record), change.id, sheet_id)


def _name(project: Project, kind: str, record: Entity) -> str:
    if kind == "settings":
        return "project"
    if kind == "device":
        if record.id in project.devices:
            return full_tag(project, project.devices[record.id])
        return _gone_device(project, record)
    if kind == "symbol":
        device = project.devices.get(record.device_id)
        sheet = project.sheets.get(record.sheet_id)
        if device is not None and sheet is not None:
            return tag_on(project, device, sheet)
        return _shape_name(record.definition)
    if kind in ("function", "location"):
        mark = "=" if kind == "function" else "+"
        table = project.tables[kind]
        return path_of(table, record.id, mark) if record.id in table else f"{mark}{record.code}"
    if kind == "wire":
        sheet = project.sheets.get(record.sheet_id)
        return f"wire {record.number}".strip() + (f" at {place_in(sheet, record.x1, record.y1)}" if sheet else "")
    if kind == "sheet":
        return f"sheet {record.number}"
    device_id = getattr(record, "device_id", "") or getattr(record, "strip_id", "")
    if device_id in project.devices:
        return f"{kind_name(kind)} of {full_tag(project, project.devices[device_id])}"
    for field in ("number", "name", "code", "tag", "heading", "text", "words", "kind"):
        value = getattr(record, field, "")
        if value:
            return f"{kind_name(kind)} {value}"[:LONGEST]
    return kind_name(kind)


def _gone_device(project: Project, device: Device) -> str:
    """Return the name of a device that is no more: the line habit made its tag of its place, which is gone, too."""
    if device.fixed_tag or project.settings.tag_habit != "line":
        return full_tag(project, device)
    return f"{device.letters} “{device.text}”" if device.text else f"{device.letters} without a text"


def _shape_name(key: str) -> str:
    """Return a symbol's name; its key where nothing of that key is known any more."""
    return definition(key).name if is_known(key) else key


def objects_of(project: Project, changes: ChangeSet, limit: int = 6) -> list[Named]:
    """Return the things an edit concerned, those a person knows by name first, each name once."""
    first = ("sheet", "device", "function", "location", "title_block", "settings", "io_point", "harness", "part")
    ordered = sorted(changes, key=lambda c: (first.index(c.kind) if c.kind in first else len(first), c.id))
    found: dict[str, Named] = {}
    for change in ordered:
        thing = named(project, change)
        found.setdefault(thing.name, thing)
        if len(found) >= limit:
            break
    return list(found.values())


def differences(project: Project, change: Change) -> list[tuple[str, str, str]]:
    """Return (field, before, after) in words of what a change did to an entity that stayed."""
    if change.before is None or change.after is None:
        return []
    before, after = to_record(change.before), to_record(change.after)
    rows = []
    for field in KINDS[change.kind].fields:
        if before[field] != after[field]:
            words = FIELD_NAMES.get(field, field.removesuffix("_id").replace("_", " "))
            target = REFERENCES.get(change.kind, {}).get(field, "")
            rows.append((words, _value(project, before[field], target), _value(project, after[field], target)))
    return rows


def _value(project: Project, value: Any, target: str) -> str:
    if target:
        entity = project.tables[target].get(value)
        return _name(project, target, entity) if entity is not None else ("none" if not value else "gone")
    if isinstance(value, dict):
        return ", ".join(f"{k}: {v}" for k, v in value.items())[:LONGEST] or "none"
    if isinstance(value, list):
        return ", ".join(str(v) for v in value)[:LONGEST] or "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    return (f"{value:g}" if isinstance(value, float) else str(value))[:LONGEST] or "empty"
