"""Entities to and from plain JSON values, with every field checked on the way in."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import cache
from typing import Any

from .changes import Change, ChangeSet, Entity
from .errors import FileError
from .fields import MAX_TEXT, Field
from .kinds import kind_of
from .registry import KINDS
from .shapes import Unreadable, bounds_of, mended, reader, text_fault, value_fault


def to_record(entity: Entity) -> dict[str, Any]:
    """Return an entity as a dict of JSON values, fields in declared order."""
    return {name: _plain(getattr(entity, name)) for name in entity.__slots__}


def _plain(value: Any) -> Any:
    if isinstance(value, tuple):
        return [_plain(v) for v in value]
    return dict(sorted(value.items())) if isinstance(value, dict) else value


@cache
def _readers(kind: str) -> list[tuple[Field, Callable[[Any, Field], Any], tuple[Callable[[Any], str], ...]]]:
    """Return the fields of a kind, each with what reads its values and what tells that they break a bound."""
    return [(field, reader(field), bounds_of(field)) for field in KINDS[kind].fields.values()]


def from_record(kind: str, record: object, *, mend: bool = False) -> Entity:
    """Make an entity of `kind` from a dict of JSON values.

    Args:
        mend: take what breaks a bound as the nearest that does not, as for what was written before there were bounds.

    Raises:
        FileError: the kind is unknown, a field is missing, unknown, of the wrong type or out of bounds, or a text
            holds control characters. The message names kind, id and field.
    """
    if kind not in KINDS:
        raise FileError(f"“{kind}” is not a kind of thing a project holds.")
    if not isinstance(record, dict):
        raise FileError(f"A {kind} should be an object with named fields.")
    spec = KINDS[kind]
    name = f"{kind} {record.get('id', '?')}"
    if not record.keys() <= spec.fields.keys() | spec.retired:
        unknown = sorted(set(record) - set(spec.fields) - spec.retired)
        raise FileError(f"The {name} has a field “{unknown[0]}” that is not known here.", field=unknown[0])
    values: dict[str, Any] = {}
    for field, read, bounds in _readers(kind):
        if field.name not in record:
            if field.required:
                raise FileError(f"The {name} lacks the field “{field.name}”.", field=field.name)
            continue
        try:
            value = read(record[field.name], field)
        except Unreadable as error:
            raise FileError(f"In the {name}, “{field.name}” {error}.", field=field.name) from None
        fault = ""
        for bound in bounds:
            fault = fault or bound(value)
        if fault and not mend:
            raise FileError(f"In the {name}, “{field.name}” {fault}.", field=field.name)
        values[field.name] = mended(value, field) if fault else value
    return spec.entity(**values)


def faults_of(entity: Entity, before: Entity | None = None) -> dict[str, str]:
    """Return for each field of an entity that breaks its bounds in what; only those that differ from before.

    Example:
        {"columns": "should be from 1 to 40"}
    """
    found = {}
    for name, field in kind_of(entity).fields.items():
        value = getattr(entity, name)
        if field.marks and (before is None or value != getattr(before, name)):
            fault = value_fault(value, field)
            if fault:
                found[name] = fault
    return found


def within_bounds(entity: Entity) -> tuple[Entity, dict[str, str]]:
    """Return an entity with what breaks a bound put right, and what that was, by field; long texts stay as they are."""
    fields, found, values = kind_of(entity).fields, dict[str, str](), dict[str, Any]()
    for name, fault in faults_of(entity).items():
        old = getattr(entity, name)
        new = mended(old, fields[name])
        if new != old:
            values[name], found[name] = new, f"{fault}, not {_short(old)}"
    return (replace(entity, **values) if values else entity), found


def _short(value: Any) -> str:
    if isinstance(value, (tuple, dict)):
        return str(len(value))
    words = f"{value:g}" if isinstance(value, float) else str(value)
    return words if len(words) <= 40 else f"{words[:40]}…"


def check_text(value: str, field: str, name: str, most: int = MAX_TEXT) -> None:
    """Refuse a text with control characters or of absurd length.

    Raises:
        FileError: with the field and what is wrong.
    """
    fault = text_fault(value, most)
    if fault:
        raise FileError(f"In the {name}, “{field}” {fault}.", field=field)


def changes_to_json(changes: ChangeSet) -> list[dict[str, Any]]:
    """Return a change set as JSON values: kind, id, before, after."""
    return [
        {
            "kind": c.kind,
            "id": c.id,
            "before": None if c.before is None else to_record(c.before),
            "after": None if c.after is None else to_record(c.after),
        }
        for c in changes
    ]


def changes_from_json(rows: list[dict[str, Any]]) -> ChangeSet:
    """Read what `changes_to_json` wrote, also where it was written before there were bounds."""

    def read(kind: str, record: Any) -> Entity | None:
        return None if record is None else from_record(kind, record, mend=True)

    return ChangeSet(
        Change(r["kind"], r["id"], read(r["kind"], r["before"]), read(r["kind"], r["after"])) for r in rows
    )
