"""The JSON Schemas of project and library files, made from the kinds so that they cannot part."""

from __future__ import annotations

from typing import Any

from jolly_core.model import KINDS
from jolly_core.model.shapes import described

from .projectfile import FORMAT
from .versions import VERSION


def _record(kind: str) -> dict[str, Any]:
    spec = KINDS[kind]
    return {
        "type": "object",
        "description": (spec.entity.__doc__ or "").strip().splitlines()[0],
        "properties": {field.name: described(field) for field in spec.fields.values()},
        "required": [field.name for field in spec.fields.values() if field.required],
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
