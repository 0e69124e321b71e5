"""What the Draw bench asks beside editing: stamps, copies, places to jump to, wire types and rules, muted snags."""

from collections import Counter
from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema
from typing_extensions import TypedDict

from jolly_core.checks import Snag, all_snags, muted_snags, place_in_words
from jolly_core.edits.draw.blocks import free_pins
from jolly_core.edits.draw.selecting import sheet_of
from jolly_core.edits.pieces.pieces import piece_of, piece_to_json
from jolly_core.library import is_block, part_classes, sides_of
from jolly_core.model import WIRE_CATEGORIES, GoneError, Project, to_record
from jolly_core.model.entities.circuit import NUMBER_PLACES
from jolly_core.reports import TraceMember, places_of, traced
from jolly_core.tagging import class_letters
from jolly_core.wiring import rules_in_order
from jolly_server.library.services import drop_stamp, keep_stamp
from jolly_server.shapes.recordshapes import NumberRuleRecord, TagRuleRecord, WireTypeRecord

from .access import role_in
from .stamps import StampLine, StampPicture, body_of, picture, stamps_of
from .store import loaded
from .turns import PATIENCE_S, count_snags
from .views import act_of
from .viewshapes import SnagAct

router = Router(tags=["drawing"])


class Sides(TypedDict):
    """The pins of a block by side."""

    left: list[str]
    right: list[str]
    top: list[str]
    bottom: list[str]


class BlockPins(TypedDict):
    """The pins of a block by side, "" for a place that is free, and those of its part that are on no block yet."""

    sides: Sides
    free: list[str]


class PlaceLine(TypedDict):
    """A place where a thing is drawn."""

    id: str
    sheet_id: str
    sheet: str
    place: str


class ClassLetters(TypedDict):
    """The letters of a part class: those in use, the usual ones, and the project's own, with their first number."""

    id: str
    name: str
    letters: str
    usual: str
    own: str
    start: int


class WiringHabits(TypedDict):
    """Wire types with how much they are used, rules in order, letters, and how much there is to number."""

    types: list[WireTypeRecord]
    categories: list[str]
    number_places: list[str]
    rules: list[NumberRuleRecord]
    own_pattern: str
    potentials: list[str]
    letters: list[ClassLetters]
    tag_rules: list[TagRuleRecord]
    fixed_numbers: int
    wires: int


class SnagLine(TypedDict):
    """A snag of the project: where it lies, the bench and subject where it is mended, and the edit that mends it."""

    key: str
    code: str
    severity: str
    message: str
    place: str
    bench: str
    subject: str
    ids: list[str]
    act: SnagAct | None
    cause: str


class MutedLine(SnagLine):
    """A snag that somebody muted, with the reason."""

    mute_id: str
    reason: str


class Snags(TypedDict):
    """The snags of a project, and those that were muted."""

    open: list[SnagLine]
    muted: list[MutedLine]


class TraceLine(TypedDict):
    """A thing on the way from the source to a load: what it is there for, what it is, where; or what is missing.

    `by` says size and length of the wires that lead to it, `so_far` the voltage drop from the source to it.
    """

    role: str
    name: str
    symbol_id: str
    sheet_id: str
    place: str
    facts: str
    missing: bool
    by: str
    so_far: str


class LitSheet(TypedDict):
    """What of a sheet is on a way, to be lit."""

    sheet_id: str
    number: str
    ids: list[str]


class TraceView(TypedDict):
    """The way of a load: in order, its protective conductor, what has to be on, and what is lit."""

    name: str
    facts: str
    members: list[TraceLine]
    back: list[TraceLine]
    earth: str
    earthed: bool
    closed: list[str]
    lit: list[LitSheet]


class SnagCount(TypedDict):
    """How many snags a project has; none when it was changed while they were counted."""

    count: int | None


class PieceValue(TypedDict):
    """A piece of circuit (docs/formats/stamp.md)."""

    format: str
    version: int
    function_id: str
    location_id: str
    leads: list[str]
    entities: dict[str, list[dict[str, Any]]]


class Selected(Schema):
    """What is selected on a sheet."""

    ids: list[str]


@router.post("/{project_id}/piece", response=PieceValue)
def piece(request: HttpRequest, project_id: str, payload: Selected) -> dict[str, Any]:
    """Give what is selected as a piece of circuit, for the clipboard."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return piece_to_json(piece_of(held.project, sheet_of(held.project, payload.ids), payload.ids))


@router.get("/{project_id}/places/{entity_id}", response=list[PlaceLine])
def places(request: HttpRequest, project_id: str, entity_id: str) -> list[dict[str, str]]:
    """Say where else a thing is drawn, itself included, in reading order."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return places_of(held.project, entity_id)


@router.get("/{project_id}/blocks/{symbol_id}", response=BlockPins)
def block(request: HttpRequest, project_id: str, symbol_id: str) -> BlockPins:
    """Give the pins of a block by side, and those of its device's part that are on no block yet."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        p = held.project
        symbol = p.symbols.get(symbol_id)
        if symbol is None or not is_block(symbol.definition):
            raise GoneError("This block is no longer there.", ids=(symbol_id,))
        device = p.devices[symbol.device_id]
        free = [name for group in free_pins(p, device) for name in group]
        sides = sides_of(symbol.definition)
        return {
            "sides": {
                "left": sides["left"],
                "right": sides["right"],
                "top": sides["top"],
                "bottom": sides["bottom"],
            },
            "free": free,
        }


@router.get("/{project_id}/stamps", response=list[StampLine])
def stamps(request: HttpRequest, project_id: str) -> list[StampLine]:
    """List the stamps one can put down."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return stamps_of(held.project)


@router.get("/{project_id}/stamps/{stamp_id}/picture", response=StampPicture)
def stamp_picture(request: HttpRequest, project_id: str, stamp_id: str) -> StampPicture:
    """Give a stamp's picture."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        body, standard = body_of(held.project, stamp_id), held.project.settings.standard
    return picture(body, standard)


@router.post("/{project_id}/stamps/{stamp_id}/keep", response=list[StampLine])
def stamp_keep(request: HttpRequest, project_id: str, stamp_id: str) -> list[StampLine]:
    """Keep a stamp of the project in the library, in place of one of the same name."""
    role_in(request, project_id, "editor")
    held = loaded(project_id)
    with held.lock:
        keep_stamp(held.project.get("stamp", stamp_id))
        return stamps_of(held.project)


@router.delete("/{project_id}/stamps/{stamp_id}", response=list[StampLine])
def stamp_drop(request: HttpRequest, project_id: str, stamp_id: str) -> list[StampLine]:
    """Take a stamp out of the library."""
    role_in(request, project_id, "editor")
    if not drop_stamp(stamp_id):
        raise GoneError("This stamp is not in the library.", ids=(stamp_id,))
    held = loaded(project_id)
    with held.lock:
        return stamps_of(held.project)


@router.get("/{project_id}/wiring-habits", response=WiringHabits)
def wiring_habits(request: HttpRequest, project_id: str) -> WiringHabits:
    """Give wire types with how much they are used, numbering rules in order, and the letters of part classes."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        p = held.project
        used = Counter(w.type_id for w in p.wires.values())
        return {
            "types": [{**to_record(t), "used": used[t.id]} for t in p.types_in_order()],
            "categories": list(WIRE_CATEGORIES),
            "number_places": list(NUMBER_PLACES),
            "rules": [to_record(r) for r in rules_in_order(p)],
            "own_pattern": p.settings.wire_pattern,
            "potentials": sorted(p.continuations_named.keys()),
            "letters": _letters(p),
            "tag_rules": [to_record(r) for r in p.tag_rules.values() if r.function_id or r.location_id or r.start],
            "fixed_numbers": len(list(p.numbered_wires.keys())),
            "wires": len(p.wires),
        }


def _letters(project: Project) -> list[ClassLetters]:
    """Return the letters of each part class of which the project has a device or whose letters were changed."""
    own = {r.part_class: r for r in project.tag_rules.values() if not r.function_id and not r.location_id}
    return [
        {
            "id": key,
            "name": kind.name,
            "letters": class_letters(project, key),
            "usual": kind.letters(project.settings.standard),
            "own": own[key].letters if key in own else "",
            "start": own[key].start if key in own else 0,
        }
        for key, kind in part_classes().items()
    ]


@router.get("/{project_id}/snags", response=Snags)
def snags(request: HttpRequest, project_id: str) -> Snags:
    """Give the snags of the whole project, and those that were muted, with the reasons."""
    role_in(request, project_id)
    held = loaded(project_id)
    count_snags(held)  # so that little is left to do at once
    with held.lock:
        p = held.project
        return {
            "open": [_snag(p, s) for s in all_snags(p)],
            "muted": [{**_snag(p, s), "mute_id": m.id, "reason": m.reason} for s, m in muted_snags(p)],
        }


def _member(m: TraceMember) -> TraceLine:
    return {
        "role": m.role,
        "name": m.name,
        "symbol_id": m.symbol_id,
        "sheet_id": m.sheet_id,
        "place": m.place,
        "facts": m.facts,
        "missing": m.missing,
        "by": m.by,
        "so_far": m.so_far,
    }


@router.get("/{project_id}/trace", response=TraceView)
def trace(request: HttpRequest, project_id: str, id: str) -> TraceView:
    """Give the way from its source to a load, to the load behind a pole, or to that on a wire or terminal.

    Raises:
        GoneError: there is nothing of this id.
        RuleError: nothing there takes a current.
    """
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        p = held.project
        found = traced(p, id)
        return {
            "name": found.name,
            "facts": found.facts,
            "members": [_member(m) for m in found.members],
            "back": [_member(m) for m in found.back],
            "earth": found.earth,
            "earthed": found.earthed,
            "closed": found.closed,
            "lit": [{"sheet_id": s, "number": p.sheets[s].number, "ids": ids} for s, ids in found.lit.items()],
        }


@router.get("/{project_id}/snags/count", response=SnagCount)
def snag_count(request: HttpRequest, project_id: str) -> SnagCount:
    """Give how many snags the whole project has that nobody muted; none when it was changed meanwhile.

    No edit waits for all of it, and it waits for who opens sheets.
    """
    role_in(request, project_id)
    return {"count": count_snags(loaded(project_id), patience_s=PATIENCE_S)}


def _snag(project: Project, snag: Snag) -> SnagLine:
    return {
        "key": snag.key,
        "code": snag.code,
        "severity": snag.severity,
        "message": snag.message,
        "place": place_in_words(project, snag),
        "bench": snag.bench,
        "subject": snag.subject or snag.sheet_id,
        "ids": list(snag.ids),
        "act": act_of(snag),
        "cause": snag.cause,
    }
