"""The sheet list and the list of snags."""

from __future__ import annotations

from jolly_core.checks import all_snags
from jolly_core.drawing import place_in
from jolly_core.model import Project
from jolly_core.tagging import path_of

from .registry import Cell, Column, report

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
    ),
)
def sheet_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the sheet list in sheet order."""
    return [
        (
            s.number,
            s.title,
            path_of(project.functions, s.function_id, "="),
            path_of(project.locations, s.location_id, "+"),
            s.size,
        )
        for s in project.sheets_in_order()
    ]


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
        place = place_in(project.sheets[s.sheet_id], s.x, s.y) if s.sheet_id else BENCH_NAMES.get(s.bench, "")
        rows.append((s.severity, place, s.message, s.code, s.bench, s.subject or s.sheet_id))
    return rows
