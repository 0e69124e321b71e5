"""What a project consists of, and finding things in it."""

from dataclasses import asdict, dataclass, replace

from django.http import HttpRequest
from ninja import Router, Schema
from typing_extensions import TypedDict

from jolly_core.edits.draw.offers import Offer, offers
from jolly_core.library import is_drawn
from jolly_core.model import ON_SHEET, GoneError, Project
from jolly_core.reports import Found, find_in
from jolly_core.scenes import art_of
from jolly_server.library.drawn import drawn_definitions
from jolly_server.library.search import SHORTEST, search
from jolly_server.shapes.recordshapes import HabitLine, SettingsRecord, WireTypeLine
from jolly_server.shapes.sceneshapes import AnyPrim

from .access import role_in
from .addresses import address_as
from .inspect import CandidateValue, DeviceCard, candidates, device_card
from .live import Person, people_in
from .models import JournalEntry, ProjectRow
from .outlines import SUBJECT, BusLine, KindLine, PageLine, SheetLine, in_lists, outline_of
from .services import redo_entry, undo_entry
from .store import loaded
from .versions import difference
from .views import has_page

router = Router(tags=["projects"])


@dataclass(slots=True, frozen=True)
class OfferValue(Offer):
    """A line of the list at the caret, with the graphics of a symbol that somebody drew."""

    art: list[AnyPrim] | None = None


class Where(TypedDict):
    """The sheet something is drawn on."""

    sheet_id: str


class Outline(Schema):
    """What a project consists of, apart from what is on its sheets."""

    id: str
    revision: int
    role: str
    state: str
    settings: SettingsRecord
    sheets: list[SheetLine]
    pages: list[PageLine]
    wire_types: list[WireTypeLine]
    buses: list[BusLine]
    habits: list[HabitLine]
    kinds: list[KindLine]
    undo: str
    redo: str
    people: list[Person]


@router.get("/{project_id}", response=Outline)
def outline(request: HttpRequest, project_id: str) -> Outline:
    """Say what the project consists of."""
    user, role = role_in(request, project_id)
    held = loaded(project_id)
    undo, redo = undo_entry(project_id, user), redo_entry(project_id, user)
    with held.lock:
        return Outline(
            id=project_id,
            revision=held.revision,
            role=role,
            state=_state(project_id),
            **in_lists(outline_of(held)),
            undo=undo.label if undo else "",
            redo=_redo_label(redo),
            people=people_in(held, project_id, user),
        )


class OutlineSections(TypedDict, total=False):
    """The sections of the outline, or what is to be put into them, by id."""

    settings: dict[str, SettingsRecord]
    sheets: dict[str, SheetLine]
    pages: dict[str, PageLine]
    wire_types: dict[str, WireTypeLine]
    buses: dict[str, BusLine]
    habits: dict[str, HabitLine]
    kinds: dict[str, KindLine]


class OutlineView(Schema):
    """What to put into and drop from the outline, by section and id; all of it when `whole`."""

    whole: bool
    put: OutlineSections
    drop: dict[str, list[str]]


class OutlineChange(Schema):
    """What changed of the outline since a revision, by section and id; all of it when `whole`."""

    id: str
    revision: int
    role: str
    state: str
    view: OutlineView
    undo: str
    redo: str
    people: list[Person]


@router.get("/{project_id}/outline", response=OutlineChange)
def outline_since(request: HttpRequest, project_id: str, since: int = -1) -> OutlineChange:
    """Say what the project consists of, as far as that has changed since a revision."""
    user, role = role_in(request, project_id)
    held = loaded(project_id)
    undo, redo = undo_entry(project_id, user), redo_entry(project_id, user)
    with held.lock:
        before = held.shown.at(SUBJECT, since)
        return OutlineChange(
            id=project_id,
            revision=held.revision,
            role=role,
            state=_state(project_id),
            view=OutlineView(**difference(before, outline_of(held))),
            undo=undo.label if undo else "",
            redo=_redo_label(redo),
            people=people_in(held, project_id, user),
        )


def _state(project_id: str) -> str:
    state: str = ProjectRow.objects.values_list("state", flat=True).get(pk=project_id)
    return state


def _redo_label(entry: JournalEntry | None) -> str:
    if entry is None:
        return ""
    return entry.target.label if entry.target else entry.label


@router.get("/{project_id}/devices/{device_id}", response=DeviceCard)
def device(request: HttpRequest, project_id: str, device_id: str) -> DeviceCard:
    """Say all about a device: texts, part, units, what it is wired to, its snags."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return device_card(held.project, device_id, request.user)


@router.get("/{project_id}/candidates", response=list[CandidateValue])
def belongs_to(request: HttpRequest, project_id: str, definition: str, sheet_id: str) -> list[CandidateValue]:
    """List the devices a unit of this kind may belong to, likeliest first."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return candidates(held.project, definition, sheet_id)


@router.get("/{project_id}/offers", response=list[OfferValue])
def offered(request: HttpRequest, project_id: str, q: str, sheet_id: str) -> list[OfferValue]:
    """List what may be placed for the words typed at the caret."""
    role_in(request, project_id)
    parts = [m.part for m in search(q, limit=5) if "number" in m.why] if len(q.strip()) >= SHORTEST else []
    held = loaded(project_id)
    with held.lock:
        standard = held.project.settings.standard
        found = offers(held.project, q, sheet_id, parts, drawn_definitions())[:40]
        # The browser has the graphics of the symbols of the data; those that people drew come with the offer.
        return [
            OfferValue(**asdict(o), art=art_of(o.definition, 1, standard) if is_drawn(o.definition) else None)
            for o in found
        ]


@router.get("/{project_id}/where/{entity_id}", response=Where)
def where(request: HttpRequest, project_id: str, entity_id: str) -> Where:
    """Say on which sheet something is drawn."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        if has_page(held.project, entity_id):
            return {"sheet_id": entity_id}
        for kind in ON_SHEET:
            entity = held.project.tables[kind].get(entity_id)
            if entity is not None:
                return {"sheet_id": entity.sheet_id}
    raise GoneError("It is not drawn on any sheet.", ids=(entity_id,))


def _led(project: Project, found: Found) -> Found:
    """Return what was found with the address of its bench, where it is on no sheet."""
    if found.sheet_id or not found.id:
        return found
    return replace(found, bench=address_as(project, found.kind, found.id) or found.bench)


@router.get("/{project_id}/find", response=list[Found])
def find(request: HttpRequest, project_id: str, q: str) -> list[Found]:
    """Find sheets, tags, wire numbers, texts and parts of the project, and parts of the library."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        found = [_led(held.project, one) for one in find_in(held.project, q)]
    parts = search(q, limit=4) if len(q.strip()) >= SHORTEST else []
    known = {f.label for f in found}
    for match in parts:
        label = f"{match.part.number}  {match.part.text}"
        if label not in known:
            found.append(Found("library", label, bench="parts"))
    return found
