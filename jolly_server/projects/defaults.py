"""What a new project starts with."""

from __future__ import annotations

from jolly_core.edits import compute, parse_edit
from jolly_core.model import Project

WIRE_TYPES: dict[str, list[dict[str, object]]] = {
    "iec": [
        {"name": "Control DC", "colour": "BU", "cross_section_mm2": 1.0, "category": "control-dc"},
        {"name": "24 V DC", "colour": "RD", "cross_section_mm2": 1.0, "category": "control-dc"},
        {"name": "0 V DC", "colour": "WHBU", "cross_section_mm2": 1.0, "category": "control-dc"},
        {"name": "Power", "colour": "BK", "cross_section_mm2": 2.5, "category": "power"},
        {"name": "Neutral", "colour": "BU", "cross_section_mm2": 2.5, "category": "power"},
        {"name": "Protective", "colour": "GNYE", "cross_section_mm2": 2.5, "category": "pe"},
    ],
    "na": [
        {"name": "Control AC", "colour": "RD", "awg": "16", "category": "control-ac"},
        {"name": "Control neutral", "colour": "WH", "awg": "16", "category": "control-ac"},
        {"name": "Control DC", "colour": "BU", "awg": "16", "category": "control-dc"},
        {"name": "Power", "colour": "BK", "awg": "14", "category": "power"},
        {"name": "Ground", "colour": "GN", "awg": "14", "category": "pe"},
    ],
}
# A panel, its door and what is outside, so that terminals know their sides and wires their ways from the first day.
LOCATIONS = (("P1", "Control panel", "panel"), ("D1", "Panel door", "door"), ("F1", "Field", "field"))
RAILS = {"iec": ("24 V DC", "0 V DC"), "na": ("Control AC", "Control neutral")}


def new_project(name: str, number: str, standard: str) -> Project:
    """Return a project with the habits and wire types of a standard and one ladder sheet."""
    standard = standard if standard in WIRE_TYPES else "iec"
    project = Project()

    def do(kind: str, **values: object) -> str:
        outcome = compute(project, parse_edit({"kind": kind, **values}))
        project.apply(outcome.changes)
        return outcome.placed[0] if outcome.placed else ""

    habit = "line" if standard == "na" else "iec"
    do("change-settings", name=name, number=number or "1", standard=standard, tag_habit=habit)
    places = [do("add-location", code=code, text=text, side=side) for code, text, side in LOCATIONS]
    types = {str(t["name"]): do("add-wire-type", **t) for t in WIRE_TYPES[standard]}
    left, right = RAILS[standard]
    size = "A3" if standard == "iec" else "ANSI B"
    do(
        "add-sheet",
        number="1",
        title="Control",
        size=size,
        location_id=places[0],
        left_rail_type_id=types[left],
        right_rail_type_id=types[right],
    )
    return project
