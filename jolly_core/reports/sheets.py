"""The sheet list and the list of snags."""

from __future__ import annotations

from jolly_core.checks import all_snags, place_in_words
from jolly_core.model import Project
from jolly_core.tagging import DOCUMENTS, path_of

from .registry import Cell, Column, report

FACTS = {
    "number": "Project number",
    "name": "Project",
    "customer": "Customer",
    "site": "Site",
    "revision": "Revision",
    "issued_on": "Date of issue",
    "drawn_by": "Drawn by",
    "drawn_on": "Drawn on",
    "checked_by": "Approved by",
    "checked_on": "Approved on",
    "supply": "Supply voltage",
    "supply_system": "System of the supply",
    "control_voltages": "Control voltages",
    "protection": "Degree of protection",
    "standards": "Standards",
}
BENCH_NAMES = {
    "draw": "Draw",
    "terminals": "Terminals",
    "cables": "Cables",
    "io": "I/O",
    "cabinet": "Cabinet",
    "harness": "Harness",
}


@report(
    "sheets",
    "Sheet list",
    "Every sheet with its title and structure.",
    (
        Column("number", "Sheet", 8),
        Column("title", "Title", 40),
        Column("function", "Function", 14),
        Column("location", "Location", 14),
        Column("size", "Size", 7),
        Column("document", "Document", 16),
        Column("fields", "Own fields", 30),
    ),
)
def sheet_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the sheet list in sheet order."""
    return [
        (
            s.number,
            " ".join(t for t in (s.title, s.subtitle) if t),
            path_of(project.functions, s.function_id, "="),
            path_of(project.locations, s.location_id, "+"),
            s.size,
            DOCUMENTS[s.kind],
            ", ".join(f"{name}: {text}" for name, text in s.fields.items()),
        )
        for s in project.sheets_in_order()
    ]


@report(
    "project",
    "Project data",
    "The project's own facts, technical data and own fields.",
    (Column("what", "What", 30), Column("text", "Text", 60)),
)
def project_data(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each fact of the project; those that are empty are left out."""
    s = project.settings
    facts = [(words, str(getattr(s, name))) for name, words in FACTS.items()]
    return [(words, text) for words, text in (*facts, *s.own_fields.items()) if text]


@report(
    "snags",
    "Snags",
    "What the checks found.",
    (
        Column("severity", "Severity", 9),
        Column("place", "Sheet.line", 11),
        Column("message", "Message", 60),
        Column("code", "Check", 22),
        Column("bench", "Bench", 10),
        Column("subject", "Subject", 14),
    ),
)
def snag_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of all snags."""
    rows: list[tuple[Cell, ...]] = []
    for s in all_snags(project):
        place = place_in_words(project, s) if s.place else BENCH_NAMES.get(s.bench, "")
        rows.append((s.severity, place, s.message, s.code, s.bench, s.subject or s.sheet_id))
    return rows
