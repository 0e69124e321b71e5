"""Entities to and from plain JSON values, with every field checked on the way in."""

from __future__ import annotations

import dataclasses
import json
import re
from functools import cache
from typing import Any

from .changes import Change, ChangeSet, Entity
from .errors import FileError
from .project import KINDS

_SIMPLE: dict[str, type] = {"str": str, "int": int, "float": float, "bool": bool}
MAX_TEXT = 2000
# A drawn symbol's key says all of it; so does that of an outline.
LONG_TEXTS = {"definition": 16_000, "symbols": 16_000}
MAX_BASE64 = 300_000
_BASE64 = re.compile(r"[A-Za-z0-9+/]*={0,2}")
LARGEST = 10**9
# Fields that records in journals of earlier versions may still have; they are passed over.
RETIRED: dict[str, set[str]] = {"settings": {"class_letters"}}


@cache
def fields_of(kind: str) -> dict[str, str]:
    """Return the field names of a kind with their declared types, in order."""
    return {f.name: str(f.type) for f in dataclasses.fields(KINDS[kind])}


@cache
def _required(kind: str) -> frozenset[str]:
    missing = dataclasses.MISSING
    return frozenset(
        f.name for f in dataclasses.fields(KINDS[kind]) if f.default is missing and f.default_factory is missing
    )


def to_record(entity: Entity) -> dict[str, Any]:
    """Return an entity as a dict of JSON values, fields in declared order."""
    return {name: _plain(getattr(entity, name)) for name in entity.__slots__}


def _plain(value: Any) -> Any:
    if isinstance(value, tuple):
        return [_plain(v) for v in value]
    return dict(sorted(value.items())) if isinstance(value, dict) else value


def from_record(kind: str, record: object) -> Entity:
    """Make an entity of `kind` from a dict of JSON values.

    Raises:
        FileError: the kind is unknown, a field is missing, unknown, or of the wrong type, or a text holds
            control characters. The message names kind, id and field.
    """
    if kind not in KINDS:
        raise FileError(f"“{kind}” is not a kind of thing a project holds.")
    if not isinstance(record, dict):
        raise FileError(f"A {kind} should be an object with named fields.")
    name = f"{kind} {record.get('id', '?')}"
    known = fields_of(kind)
    unknown = sorted(set(record) - set(known) - RETIRED.get(kind, set()))
    if unknown:
        raise FileError(f"The {name} has a field “{unknown[0]}” that is not known here.", field=unknown[0])
    missing = sorted(_required(kind) - set(record))
    if missing:
        raise FileError(f"The {name} lacks the field “{missing[0]}”.", field=missing[0])
    values = {field: _read(known[field], value, field, name) for field, value in record.items() if field in known}
    return KINDS[kind](**values)


def _read(declared: str, value: Any, field: str, name: str) -> Any:
    wanted = _SIMPLE.get(declared)
    if wanted is float and isinstance(value, int) and not isinstance(value, bool):
        value = float(value)
    if wanted is not None:
        if type(value) is not wanted:
            raise FileError(f"In the {name}, “{field}” should be {_word(wanted)}.", field=field)
        if isinstance(value, str):
            check_text(value, field, name)
        elif isinstance(value, (int, float)) and not -LARGEST <= value <= LARGEST:  # not-a-number fails too
            raise FileError(f"In the {name}, “{field}” is out of all measure.", field=field)
        return value
    if declared == "Base64":
        if isinstance(value, str) and len(value) <= MAX_BASE64 and len(value) % 4 == 0 and _BASE64.fullmatch(value):
            return value
        words = f"should be base64 of at most {MAX_BASE64 // 1000} kB"
        raise FileError(f"In the {name}, “{field}” {words}.", field=field)
    if declared == "Document":
        return _document(value, field, name)
    if declared.startswith("tuple[int"):
        if isinstance(value, list) and all(type(v) is int and 0 <= v <= LARGEST for v in value):
            return tuple(value)
        raise FileError(f"In the {name}, “{field}” should be a list of whole numbers.", field=field)
    if declared.startswith("tuple[str"):
        if isinstance(value, list) and all(isinstance(v, str) for v in value):
            for text in value:
                check_text(text, field, name)
            return tuple(value)
        raise FileError(f"In the {name}, “{field}” should be a list of texts.", field=field)
    if declared.startswith("tuple[dict"):
        if isinstance(value, list):
            return tuple(_read("dict", facts, field, name) for facts in value)
        raise FileError(f"In the {name}, “{field}” should be a list of objects.", field=field)
    if declared.startswith("dict"):
        if isinstance(value, dict) and all(isinstance(v, str) for v in value.values()):
            for text in (*value.keys(), *value.values()):
                check_text(str(text), field, name)
            return dict(value)
        raise FileError(f"In the {name}, “{field}” should be an object of texts.", field=field)
    try:
        units = tuple((str(kind), tuple(str(pin) for pin in pins)) for kind, pins in value)
        for kind, pins in units:
            for text in (kind, *pins):
                check_text(text, field, name)
        return units
    except (TypeError, ValueError):
        raise FileError(f"In the {name}, “{field}” should list units as kind and pins.", field=field) from None


def _document(value: Any, field: str, name: str) -> str:
    """Return a JSON text as it is, when it is an object and of no absurd length."""
    try:
        if isinstance(value, str) and len(value) <= MAX_BASE64 and isinstance(json.loads(value), dict):
            return value
    except (ValueError, RecursionError):
        pass
    raise FileError(
        f"In the {name}, “{field}” should be a JSON object of at most {MAX_BASE64 // 1000} kB.", field=field
    )


def _word(wanted: type) -> str:
    return {str: "a text", int: "a whole number", float: "a number", bool: "true or false"}[wanted]


def check_text(value: str, field: str, name: str) -> None:
    """Refuse a text with control characters or of absurd length.

    Raises:
        FileError: with the field and what is wrong.
    """
    most = LONG_TEXTS.get(field, MAX_TEXT)
    if len(value) > most:
        raise FileError(f"In the {name}, “{field}” is longer than {most} characters.", field=field)
    if any(ord(c) < 32 or 0x7F <= ord(c) < 0xA0 or 0xD800 <= ord(c) < 0xE000 for c in value):
        raise FileError(f"In the {name}, “{field}” holds characters that cannot be printed.", field=field)


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
    """Read what `changes_to_json` wrote."""
    return ChangeSet(
        Change(
            r["kind"],
            r["id"],
            None if r["before"] is None else from_record(r["kind"], r["before"]),
            None if r["after"] is None else from_record(r["kind"], r["after"]),
        )
        for r in rows
    )
