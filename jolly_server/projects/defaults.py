"""What a new project starts with: a preset of habits, or the habits of a project that is kept for that."""

from __future__ import annotations

from jolly_core.edits import compute, parse_edit
from jolly_core.library import usual_wire_types
from jolly_core.model import DRAWN, SHEET_SUBJECTS, Project

SETTINGS: dict[str, dict[str, object]] = {
    "iec": {
        "standard": "iec",
        "tag_habit": "iec",
        "supply": "400 V 3~ 50 Hz",
        "supply_system": "TN-S",
        "control_voltages": "24 V DC",
        "standards": "IEC 60204-1, IEC 61439-1",
    },
    "na": {
        "standard": "na",
        "tag_habit": "line",
        "length_unit": "in",
        # Round in inches and feet: 2 1/2, 18, 6, 6, 3/4 and 1/4 in, 500 ft.
        "end_allowance_mm": 63.5,
        "door_allowance_mm": 457.2,
        "free_run_mm": 152.4,
        "eyelet_reach_mm": 152.4,
        "harness_allowance_mm": 19.05,
        "length_step_mm": 6.35,
        "spool_m": 152.4,
        "supply": "480 V 3~ 60 Hz",
        "control_voltages": "120 V AC",
        "standards": "NFPA 79, UL 508A",
    },
}
PAPERS = ("cover", "contents", "data", "terminal-plan", "cable-plan", "card-plan", "report")
# Kind of sheet -> how it begins, beside the two rails of a schematic.
HABITS: dict[str, dict[str, dict[str, object]]] = {
    "iec": {
        "schematic": {"size": "A3", "frame": "ladder"},
        **{kind: {"size": "A4"} for kind in PAPERS},
    },
    "na": {
        "schematic": {"size": "ANSI B", "frame": "ladder", "line_count": 9, "ladders": 2},
        **{kind: {"size": "ANSI B"} for kind in PAPERS},
    },
}
# A panel, its door and what is outside, so that terminals know their sides and wires their ways from the first day.
LOCATIONS = (("P1", "Control panel", "panel"), ("D1", "Panel door", "door"), ("F1", "Field", "field"))
RAILS = {"iec": ("24 V DC", "0 V DC"), "na": ("Control AC", "Control neutral")}
# What belongs to a project's habits and not to what was drawn or built in it.
KEPT = (
    "picture",
    "title_block",
    "title_cell",
    "wire_type",
    "number_rule",
    "tag_rule",
    "stamp",
    "sheet_habit",
    "function",
    "location",
    "recipe",
    "pack",
)


def new_project(name: str, number: str = "", customer: str = "", standard: str = "iec") -> Project:
    """Return a project with the habits and wire types of a standard and one ladder sheet."""
    project = Project()

    def do(kind: str, **values: object) -> str:
        outcome = compute(project, parse_edit({"kind": kind, **values}))
        project.apply(outcome.changes)
        return outcome.placed[0] if outcome.placed else ""

    do("change-settings", name=name, number=number or "1", customer=customer, **SETTINGS[standard])
    places = [do("add-location", code=code, text=text, side=side) for code, text, side in LOCATIONS]
    types = {str(t["name"]): do("add-wire-type", **t) for t in usual_wire_types(standard)}
    left, right = RAILS[standard]
    for kind, habit in HABITS[standard].items():
        rails = {"left_rail_type_id": types[left], "right_rail_type_id": types[right]} if kind == "schematic" else {}
        do("set-sheet-habit", sheet_kind=kind, **habit, **rails)
    do("add-sheet", number="1", title="Control", location_id=places[0])
    return project


def start_from(source: Project) -> Project:
    """Return a new project with the habits of another: settings, structure, wire types, title blocks, made sheets.

    What is drawn and built is left out; so are sheets that show a strip, cable, enclosure or harness.
    """
    fresh = Project()
    fresh.load("settings", [source.settings])
    for kind in KEPT:
        fresh.load(kind, list(source.tables[kind].values()))
    sheets = [s for s in source.sheets.values() if s.kind not in DRAWN]
    fresh.load("sheet", [s for s in sheets if SHEET_SUBJECTS.get(s.kind, "report") == "report"])
    drawn = next((s for s in source.sheets_in_order() if s.kind == "schematic"), None)
    if drawn is not None:
        begin = {"kind": "add-sheet", "number": drawn.number, "location_id": drawn.location_id}
        fresh.apply(compute(fresh, parse_edit(begin)).changes)
    return fresh
