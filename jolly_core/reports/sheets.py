"""The sheet list and the list of snags."""

from __future__ import annotations

from jolly_core.checks import Snag, cause_in_words, causes, muted_snags, place_in_words
from jolly_core.model import Project, Sheet
from jolly_core.tagging import DOCUMENTS, index_of, path_of

from .registry import Cell, Column, Row, report

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
        Column("revision", "Revision", 8, extra=True),
    ),
)
def sheet_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the sheet list in sheet order."""
    rows: list[tuple[Cell, ...]] = []
    for s in project.sheets_in_order():
        title = whole_title(s)
        paths = (path_of(project.functions, s.function_id, "="), path_of(project.locations, s.location_id, "+"))
        fields = ", ".join(f"{name}: {text}" for name, text in s.fields.items())
        cells = (s.number, title, *paths, s.size, DOCUMENTS[s.kind], fields, index_of(project, s.id))
        rows.append(Row.of(cells, s.id, {"title": "" if title else "The sheet has no title."}))
    return rows


def whole_title(sheet: Sheet) -> str:
    """Return title and subtitle of a sheet in one line."""
    return " ".join(t for t in (sheet.title, sheet.subtitle) if t)


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
    return [Row.of((words, text), s.id) for words, text in (*facts, *s.own_fields.items()) if text]


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
    for s, after in causes(project):
        place = _where(project, s)
        cells = (s.severity, place, cause_in_words(s, after), s.code, s.bench, s.subject or s.sheet_id)
        rows.append(Row.of(cells, s.ids[0] if s.ids else s.device_id))
    return rows


def _where(project: Project, snag: Snag) -> str:
    return place_in_words(project, snag) if snag.place else BENCH_NAMES.get(snag.bench, "")


@report(
    "muted",
    "Muted snags",
    "Findings that somebody looked at and accepts, each with the reason.",
    (
        Column("severity", "Severity", 9),
        Column("place", "Sheet.line", 11),
        Column("message", "Message", 56),
        Column("reason", "Accepted because", 40),
        Column("code", "Check", 20),
    ),
)
def muted_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the snags that are muted and still there."""
    return [
        Row.of((s.severity, _where(project, s), s.message, mute.reason, s.code), s.ids[0] if s.ids else s.device_id)
        for s, mute in muted_snags(project)
    ]
