"""The makers' catalogue in the browser: looked through, compared, taken in."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from typing_extensions import TypedDict

from jolly_core.library import Comparison, compared, part_class, part_fields, units_line
from jolly_core.model import GoneError, Part

from . import catalogue
from .files_api import inert
from .models import LibraryPart
from .shelves import shelf_to_change

router = Router(tags=["catalogue"])
SAID = 4  # ratings that a card shows


class CountLine(TypedDict):
    """How many parts there are of a maker or class."""

    key: str
    name: str
    count: int


class PartCardValue(TypedDict):
    """A part of the catalogue as a card shows it: some of its ratings as pairs (name, value)."""

    id: str
    maker: str
    number: str
    class_name: str
    text: str
    units: str
    said: list[tuple[str, str]]
    price: str
    picture: bool


class FoundCard(PartCardValue):
    """A part found in the catalogue, and whether a library has it already."""

    there: bool


class CataloguePage(TypedDict):
    """A page of the catalogue with counts of makers and classes."""

    total: int
    start: int
    makers: list[CountLine]
    classes: list[CountLine]
    parts: list[FoundCard]


class Compared(TypedDict):
    """Parts beside each other, field by field."""

    parts: list[PartCardValue]
    rows: list[Comparison]


class IdsIn(Schema):
    """Parts of the catalogue, by id."""

    ids: list[str]


class TakeIn(IdsIn):
    """Parts of the catalogue, and the library they go into."""

    shelf: str


@router.get("", response=CataloguePage)
def look_through(
    request: HttpRequest, q: str = "", part_class_key: str = "", maker: str = "", start: int = 0
) -> CataloguePage:
    """Give a page of the catalogue with how many parts there are of each maker and class."""
    found = catalogue.find(q, part_class_key, maker, max(0, start))
    numbers = [p.number for p in found["parts"]]
    there = {
        (m.lower(), n.lower()) for m, n in LibraryPart.objects.filter(number__in=numbers).values_list("maker", "number")
    }
    return {
        "total": found["total"],
        "start": max(0, start),
        "makers": [{"key": m, "name": m, "count": n} for m, n in found["makers"].items()],
        "classes": [{"key": k, "name": part_class(k).name, "count": n} for k, n in found["classes"].items()],
        "parts": [{**_card(p), "there": (p.maker.lower(), p.number.lower()) in there} for p in found["parts"]],
    }


def _card(part: Part) -> PartCardValue:
    specs = part_fields()
    said = [(specs[k].name, f"{v} {specs[k].unit}".strip()) for k, v in part.ratings.items() if k in specs][:SAID]
    return {
        "id": part.id,
        "maker": part.maker,
        "number": part.number,
        "class_name": part_class(part.part_class).name,
        "text": part.text,
        "units": units_line(part),
        "said": said,
        "price": f"{part.price:.2f} {part.currency}" if part.price else "",
        "picture": bool(part.picture),
    }


@router.get("/picture/{id}")
def picture(request: HttpRequest, id: str) -> HttpResponse:
    """Give a part's picture; what is in it cannot run."""
    content = catalogue.picture(id)
    if content is None:
        raise GoneError("The catalogue has no such picture.", ids=(id,))
    return inert(HttpResponse(content, content_type="image/svg+xml"))


@router.post("/compare", response=Compared)
def compare(request: HttpRequest, body: IdsIn) -> Compared:
    """Put two to four parts beside each other."""
    parts = [catalogue.part(id) for id in body.ids[:8]]
    return {"parts": [_card(p) for p in parts], "rows": compared(parts)}


@router.post("/take", response=int)
def take(request: HttpRequest, body: TakeIn) -> int:
    """Take parts into a library with their pictures, and give how many."""
    shelf = shelf_to_change(body.shelf, request.user)
    return catalogue.take(body.ids, shelf, request.user.get_username())
