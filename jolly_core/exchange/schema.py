"""The JSON Schemas of project and library files, made from the entities so that they cannot part."""

from __future__ import annotations

import dataclasses
from typing import Any

from jolly_core.model import CHOICES, KINDS, LONG_TEXTS, MAX_BASE64, fields_of

from .projectfile import FORMAT
from .versions import VERSION

_TYPES: dict[str, dict[str, Any]] = {
    "str": {"type": "string", "maxLength": 2000},
    "int": {"type": "integer"},
    "float": {"type": "number"},
    "bool": {"type": "boolean"},
    "Document": {"type": "string", "maxLength": MAX_BASE64, "contentMediaType": "application/json"},
    "Base64": {"type": "string", "maxLength": MAX_BASE64, "contentEncoding": "base64"},
}


def _type(declared: str) -> dict[str, Any]:
    if declared in _TYPES:
        return _TYPES[declared]
    if declared.startswith("tuple[int"):
        return {"type": "array", "items": {"type": "integer"}}
    if declared.startswith("tuple[str"):
        return {"type": "array", "items": {"type": "string"}}
    if declared.startswith("tuple[dict"):
        return {"type": "array", "items": _type("dict")}
    if declared.startswith("dict"):
        return {"type": "object", "additionalProperties": {"type": "string"}}
    pins = {"type": "array", "items": {"type": "string"}}
    return {"type": "array", "items": {"type": "array", "prefixItems": [{"type": "string"}, pins], "minItems": 2}}


def _property(kind: str, name: str, declared: str) -> dict[str, Any]:
    words = CHOICES.get(kind, {}).get(name)
    if words:
        return {"enum": list(words)}
    made = _type(declared)
    return {**made, "maxLength": LONG_TEXTS[name]} if made.get("type") == "string" and name in LONG_TEXTS else made


def _record(kind: str) -> dict[str, Any]:
    missing, entity = dataclasses.MISSING, KINDS[kind]
    required = [f.name for f in dataclasses.fields(entity) if f.default is missing and f.default_factory is missing]
    return {
        "type": "object",
        "description": (entity.__doc__ or "").strip().splitlines()[0],
        "properties": {name: _property(kind, name, declared) for name, declared in fields_of(kind).items()},
        "required": required,
        "additionalProperties": False,
    }


def library_schema() -> dict[str, Any]:
    """Return the JSON Schema (draft 2020-12) of the library file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Jolly Spool library file",
        "type": "object",
        "properties": {
            "format": {"const": "jolly-spool-library"},
            "version": {"const": 1},
            "parts": {"type": "array", "items": _record("part")},
        },
        "required": ["format", "version", "parts"],
        "additionalProperties": False,
    }


def project_schema() -> dict[str, Any]:
    """Return the JSON Schema (draft 2020-12) of the current version of the project file."""
    kinds: dict[str, Any] = {}
    for kind in KINDS:
        kinds[kind] = {"type": "array", "items": _record(kind)}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Jolly Spool project file",
        "type": "object",
        "properties": {
            "format": {"const": FORMAT},
            "version": {"const": VERSION},
            "entities": {"type": "object", "properties": kinds, "additionalProperties": False},
        },
        "required": ["format", "version", "entities"],
        "additionalProperties": False,
    }
