"""What a project consists of, apart from what is on its sheets, as sections of values by id."""

from __future__ import annotations

from typing import Any

from typing_extensions import TypedDict

from jolly_core.drawing import habit_of
from jolly_core.edits.project.revisions import next_index
from jolly_core.model import DRAWN, SHEET_KINDS, Project, derived, to_record
from jolly_core.scenes import generated_pages
from jolly_core.tagging import DOCUMENTS, path_of
from jolly_core.wiring import usual_buses

from .inspect import SheetKindValue, sheet_kinds
from .store import Loaded
from .versions import View


class SheetLine(TypedDict):
    """A sheet in the outline: what it is called, where it belongs, and in which order it stands."""

    id: str
    number: str
    title: str
    subtitle: str
    kind: str
    document: str
    drawn: bool
    size: str
    frame: str
    function_id: str
    location_id: str
    function: str
    function_text: str
    location: str
    order: int


class PageLine(TypedDict):
    """A generated page that is no sheet of the project."""

    id: str
    number: str
    title: str
    kind: str
    order: int


class BusLine(TypedDict):
    """Wire types that usually run together."""

    label: str
    types: list[str]
    order: int


class KindLine(SheetKindValue):
    """A kind of sheet with its place in the list."""

    order: int


SUBJECT = "outline"  # among the versions of what browsers show; no sheet has such an id
LISTS = ("sheets", "pages", "wire_types", "buses", "habits", "kinds")


@derived
def outline_view(project: Project) -> View:
    """Return the sections; rows of lists say by `order` where they stand."""
    return {
        "settings": {"settings": {**to_record(project.settings), "working_on": next_index(project)}},
        "sheets": {s.id: _sheet(project, s.id) for s in project.sheets_in_order()},
        "pages": _pages(project),
        "wire_types": _wire_types(project),
        "buses": {
            str(n): {"label": b.label, "types": list(b.type_ids), "order": n}
            for n, b in enumerate(usual_buses(project))
        },
        "habits": {k: {**to_record(habit_of(project, k)), "order": n} for n, k in enumerate(SHEET_KINDS)},
        "kinds": {k["id"]: {**k, "order": n} for n, k in enumerate(sheet_kinds())},
    }


def outline_of(held: Loaded) -> View:
    """Return the outline at the loaded revision, noted for the differences asked for next."""
    view = outline_view(held.project)
    held.shown.note(SUBJECT, held.revision, view)
    return view


def in_lists(view: View) -> dict[str, Any]:
    """Return the sections as they stand: settings, and the rows of each list in order."""
    return {"settings": view["settings"]["settings"], **{name: list(view[name].values()) for name in LISTS}}


@derived
def _pages(project: Project) -> dict[str, Any]:
    pages = enumerate(generated_pages(project))
    return {g.id: {"id": g.id, "number": g.number, "title": g.title, "kind": g.kind, "order": n} for n, g in pages}


@derived
def _wire_types(project: Project) -> dict[str, Any]:
    types = enumerate(project.types_in_order())
    return {t.id: {**{name: getattr(t, name) for name in t.__slots__}, "order": n} for n, t in types}


@derived
def _sheet(project: Project, sheet_id: str) -> SheetLine:
    sheet = project.sheets[sheet_id]
    function = project.functions.get(sheet.function_id)
    return {
        "id": sheet.id,
        "number": sheet.number,
        "title": sheet.title,
        "subtitle": sheet.subtitle,
        "kind": sheet.kind,
        "document": DOCUMENTS[sheet.kind],
        "drawn": sheet.kind in DRAWN,
        "size": sheet.size,
        "frame": sheet.frame,
        "function_id": sheet.function_id,
        "location_id": sheet.location_id,
        "function": path_of(project.functions, sheet.function_id, "="),
        "function_text": function.text if function else "",
        "location": path_of(project.locations, sheet.location_id, "+"),
        "order": sheet.order,
    }
