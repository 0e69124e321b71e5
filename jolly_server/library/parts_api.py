"""Parts of the library for the browser: read, drafted, saved, with their history; libraries and own fields."""

from __future__ import annotations

from typing import Any, Literal, NotRequired

from django.http import HttpRequest
from ninja import Router, Schema
from typing_extensions import TypedDict

from jolly_core.library import (
    FieldSpec,
    PartClass,
    UnitKind,
    base_of,
    core_orders,
    is_class,
    like,
    missing,
    new_part,
    own_class_key,
    part_class,
    part_classes,
    part_fields,
    part_from_text,
    unit_facts,
    unit_kinds,
    with_cores,
    with_units,
)
from jolly_core.model import MOUNTINGS, CoreError, Part, RuleError, from_record, to_record
from jolly_server.shapes.recordshapes import PartRecord

from .models import PartVersion, Shelf
from .ownfields import OwnFieldValue, add_own_field, own_classes, own_fields, remove_own_field
from .search import makers_of
from .shelves import (
    ShelfLine,
    add_shelf,
    order_shelves,
    remove_shelf,
    rename_shelf,
    shelf_rows,
    shelf_to_change,
    shelves_for,
)
from .storing import remove_parts, save_part, stored

router = Router(tags=["parts"])
POSITIONS_FACT = "closed"  # is said of contacts of switches with positions only


class ClassValue(TypedDict):
    """A class with its fields, those of the class it is like, and facts that may be said of units of each kind."""

    key: str
    name: str
    units: list[str]
    fields: list[str]
    add_on: bool
    details: dict[str, list[str]]


class Kinds(TypedDict):
    """Classes with their fields, kinds of unit with theirs, and what else a part's form offers."""

    classes: list[ClassValue]
    fields: dict[str, FieldSpec]
    facts: dict[str, FieldSpec]
    units: dict[str, UnitKind]
    core_orders: list[str]
    mountings: list[str]


class Draft(TypedDict):
    """A part in the making: its record, what it lacks, what cannot be, and its class; read from a text, which lines."""

    record: PartRecord
    missing: dict[str, list[str]]
    problem: str
    spec: ClassValue | None
    understood: NotRequired[list[tuple[str, str]]]
    left: NotRequired[list[str]]


class ChangeLine(TypedDict):
    """A change in a library."""

    part_id: str
    library: str
    act: str
    by: str
    at: str


class ShelfIn(Schema):
    """A new library."""

    name: str
    text: str = ""
    own: bool = False
    read_only: bool = False


class NameIn(Schema):
    """A new name."""

    name: str


class OrderIn(Schema):
    """Ids in their new order."""

    ids: list[str]


class PartIn(Schema):
    """A part to keep on a shelf; a record with an id replaces that part."""

    shelf: str
    record: dict[str, Any]


class RemoveIn(Schema):
    """Parts to take off a shelf."""

    shelf: str
    ids: list[str]


class OwnFieldIn(Schema):
    """A field that a class of parts gets beside its own."""

    part_class: str
    name: str
    unit: str = ""
    kind: Literal["number", "text", "choice", "flag"] = "text"
    choices: list[str] = []


class DraftIn(Schema):
    """One step in making a part: nothing is kept by it.

    `act` is "new" (of part_class), "like" (of part_id), "text" (pasted), "units" (count of kind more), "cores" (a
    cable's cores anew) or "check" (only what it lacks). With a `class_name` the part is of a class of one's own that is
    `like` another, with letters `iec` and `na`.
    """

    act: Literal["new", "like", "text", "units", "cores", "check"]
    record: dict[str, Any] = {}
    part_class: str = ""
    part_id: str = ""
    text: str = ""
    kind: str = ""
    count: int = 1
    order: str = "numbered"
    protective: bool = False
    section: str = ""
    shields: int = 0
    class_name: str = ""
    like: str = ""
    iec: str = ""
    na: str = ""


@router.get("/kinds", response=Kinds)
def kinds(request: HttpRequest) -> Kinds:
    """Give the classes with their fields, the kinds of unit with theirs, and what else a part's form offers."""
    own = own_fields()
    return {
        "classes": [_class_out(c, own) for c in [*part_classes().values(), *own_classes()]],
        "fields": {
            **{f["key"]: FieldSpec(f["key"], f["name"], f["unit"], f["kind"], tuple(f["choices"])) for f in own},
            **part_fields(),
        },
        "facts": unit_facts(),
        "units": unit_kinds(),
        "core_orders": list(core_orders()),
        "mountings": [m for m in MOUNTINGS if m],
    }


def _class_out(of: PartClass, own: list[OwnFieldValue]) -> ClassValue:
    """Return a class with its fields, those of the class it is like, and those that people added to either."""
    added = [f["key"] for f in own if f["part_class"] in (of.key, base_of(of.key))]
    return {
        "key": of.key,
        "name": of.name,
        "units": list(of.units),
        "fields": [*of.ratings, *added],
        "add_on": of.add_on,
        "details": {
            kind: [d for d in unit_kinds()[kind].details if d != POSITIONS_FACT or "positions" in of.ratings]
            for kind in of.units
        },
    }


@router.get("/makers", response=list[str])
def makers(request: HttpRequest, part_class_key: str = "") -> list[str]:
    """List the makers of the parts in the libraries a person sees."""
    return makers_of(part_class_key, shelves_for(request.user).values_list("pk", flat=True))


@router.get("/shelves", response=list[ShelfLine])
def shelves(request: HttpRequest) -> list[ShelfLine]:
    """List the libraries a person sees, in their order."""
    return shelf_rows(request.user)


@router.post("/shelves", response=list[ShelfLine])
def make_shelf(request: HttpRequest, body: ShelfIn) -> list[ShelfLine]:
    """Add a library."""
    add_shelf(body.name, request.user, own=body.own, text=body.text, read_only=body.read_only)
    return shelf_rows(request.user)


@router.post("/shelves/order", response=list[ShelfLine])
def put_shelves_in_order(request: HttpRequest, body: OrderIn) -> list[ShelfLine]:
    """Put the libraries in an order; where two have a number, the part of the first is taken."""
    order_shelves(body.ids, request.user)
    return shelf_rows(request.user)


@router.post("/shelves/{shelf_id}/name", response=list[ShelfLine])
def name_shelf(request: HttpRequest, shelf_id: str, body: NameIn) -> list[ShelfLine]:
    """Give a library another name."""
    rename_shelf(shelf_id, body.name, request.user)
    return shelf_rows(request.user)


@router.delete("/shelves/{shelf_id}", response=list[ShelfLine])
def drop_shelf(request: HttpRequest, shelf_id: str) -> list[ShelfLine]:
    """Take a library away with its parts."""
    remove_shelf(shelf_id, request.user)
    return shelf_rows(request.user)


def seen_part(part_id: str, request: HttpRequest) -> tuple[Part, Shelf]:
    """Return a part and its library, when the person may see it.

    Raises:
        RuleError: it is gone, or in somebody else's library.
    """
    found, shelf = stored(part_id)
    if not shelves_for(request.user).filter(pk=shelf.pk).exists():
        raise RuleError("This part is in a library that is not yours.", ids=(part_id,))
    return found, shelf


@router.post("/part", response=Draft)
def keep_part(request: HttpRequest, body: PartIn) -> Draft:
    """Put a new or changed part onto a shelf."""
    shelf = shelf_to_change(body.shelf, request.user)
    return draft_of(save_part(_part(body.record), shelf, request.user.get_username()))


@router.post("/parts/remove", response=int)
def take_out(request: HttpRequest, body: RemoveIn) -> int:
    """Take parts out of a library; projects keep their copies."""
    shelf = shelf_to_change(body.shelf, request.user)
    return remove_parts(body.ids, shelf, request.user.get_username())


@router.post("/draft", response=Draft)
def draft(request: HttpRequest, body: DraftIn) -> Draft:
    """Take one step in making a part and give it with what it still lacks."""
    of = own_class_key(body.class_name, body.like, body.iec, body.na) if body.class_name else body.part_class
    if body.act == "new":
        return draft_of(new_part(of))
    if body.act == "like":
        return draft_of(like(seen_part(body.part_id, request)[0]))
    if body.act == "text":
        reading = part_from_text(body.text, of)
        made = draft_of(reading.part)
        made["understood"], made["left"] = reading.understood, reading.left
        return made
    before = _part(body.record)
    if body.act == "units":
        return draft_of(with_units(before, body.kind, body.count))
    if body.act == "cores":
        cored = with_cores(
            before,
            body.count,
            body.order,
            protective=body.protective,
            section=body.section.strip(),
            shields=body.shields,
        )
        return draft_of(cored)
    return draft_of(before)


@router.post("/own-fields", response=list[OwnFieldValue])
def make_own_field(request: HttpRequest, body: OwnFieldIn) -> list[OwnFieldValue]:
    """Add a field to a class of parts."""
    add_own_field(body.part_class, body.name, body.unit, body.kind, body.choices)
    return own_fields()


@router.delete("/own-fields/{part_class_key}/{key}", response=list[OwnFieldValue])
def drop_own_field(request: HttpRequest, part_class_key: str, key: str) -> list[OwnFieldValue]:
    """Take an own field away; what parts say there stays with them."""
    remove_own_field(part_class_key, key)
    return own_fields()


@router.get("/changes", response=list[ChangeLine])
def changes(request: HttpRequest, limit: int = 100) -> list[ChangeLine]:
    """List who changed what in the libraries a person sees, the youngest first."""
    seen = list(shelves_for(request.user).values_list("name", flat=True))
    rows = PartVersion.objects.filter(shelf_name__in=seen).order_by("-pk")[: max(1, min(limit, 500))]
    return [
        {"part_id": r.part_id, "library": r.shelf_name, "act": r.act, "by": r.by, "at": r.at.isoformat()} for r in rows
    ]


def _part(record: dict[str, Any]) -> Part:
    made: Part = from_record("part", {"id": "", "maker": "", "number": "", **record})
    return made


def draft_of(found: Part) -> Draft:
    """Return a part as its form shows it: with what it lacks, and what is wrong with it."""
    try:
        lacks, problem = missing(found), ""
    except CoreError as error:
        lacks, problem = {}, error.message
    spec = _class_out(part_class(found.part_class), own_fields()) if is_class(found.part_class) else None
    return {"record": to_record(found), "missing": lacks, "problem": problem, "spec": spec}
