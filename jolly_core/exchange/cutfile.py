"""The cut list as JSON, for machines: format "jolly-spool-cut-list", described by `cut_schema`."""

from __future__ import annotations

import dataclasses
import json
from typing import Any

from jolly_core.making import CutWire, cut_list
from jolly_core.model import Project

CUT_FORMAT = "jolly-spool-cut-list"
CUT_VERSION = 1
_MEANINGS = {
    "id": "Name of the piece; the same piece always has the same one.",
    "key": "The conductor it is, by its two pins.",
    "number": "Wire number.",
    "type_name": "Wire type.",
    "colour": "Colour, IEC 60757.",
    "size": "Cross-section or gauge, for people.",
    "area_mm2": "Conductor area, mm².",
    "length_mm": "Cut length, mm.",
    "start": "Designation and pin of the first end.",
    "start_strip_mm": "Strip length at the first end, mm.",
    "start_termination": "Ferrule or contact at the first end.",
    "end": "Designation and pin of the second end.",
    "end_strip_mm": "Strip length at the second end, mm.",
    "end_termination": "Ferrule or contact at the second end.",
    "print_start": "Text to print at the first end.",
    "print_end": "Text to print at the second end.",
    "run": "Enclosure or harness it is for.",
}


def wire_record(wire: CutWire) -> dict[str, Any]:
    """Return a wire of the cut list as JSON values."""
    return dataclasses.asdict(wire)


def cut_json(project: Project) -> bytes:
    """Return the cut list as JSON."""
    settings = project.settings
    content = {
        "format": CUT_FORMAT,
        "version": CUT_VERSION,
        "project": settings.number,
        "revision": settings.revision,
        "wires": [wire_record(w) for w in cut_list(project)],
    }
    return (json.dumps(content, ensure_ascii=False, indent=1) + "\n").encode()


def cut_schema() -> dict[str, Any]:
    """Return the JSON Schema (draft 2020-12) of the cut list."""
    fields = {
        f.name: {
            "type": "number" if f.type == "float" else "string",
            "description": _MEANINGS[f.name],
            **({"minimum": 0} if f.type == "float" else {}),
        }
        for f in dataclasses.fields(CutWire)
    }
    wire = {"type": "object", "properties": fields, "required": list(fields), "additionalProperties": False}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Jolly Spool cut list",
        "type": "object",
        "properties": {
            "format": {"const": CUT_FORMAT},
            "version": {"const": CUT_VERSION},
            "project": {"type": "string"},
            "revision": {"type": "string"},
            "wires": {"type": "array", "items": wire},
        },
        "required": ["format", "version", "project", "revision", "wires"],
        "additionalProperties": False,
    }
