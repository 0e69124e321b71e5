"""The makers' catalogue in the browser: looked through, compared, taken in."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from jolly_core.library import compared, part_class, part_fields, units_line
from jolly_core.model import GoneError, Part

from . import catalogue
from .files_api import inert
from .models import LibraryPart
from .shelves import shelf_to_change

router = Router(tags=["catalogue"])
SAID = 4  # ratings that a card shows


class IdsIn(Schema):
    """Parts of the catalogue, by id."""

    ids: list[str]


class TakeIn(IdsIn):
    """Parts of the catalogue, and the library they go into."""

    shelf: str


@router.get("", response=dict[str, Any])
def look_through(
    request: HttpRequest, q: str = "", part_class_key: str = "", maker: str = "", start: int = 0
) -> dict[str, Any]:
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


def _card(part: Part) -> dict[str, Any]:
    specs = part_fields()
    said = [(specs[k].name, f"{v} {specs[k].unit}".strip()) for k, v in part.ratings.items() if k in specs][:SAID]
    return {
        "id": part.id,
        "maker": part.maker,
        "number": part.number,
        "class_name": part_class(part.part_class).name,
        "text": part.text,
        "units": units_line(part),
        "said": [list(pair) for pair in said],
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


@router.post("/compare", response=dict[str, Any])
def compare(request: HttpRequest, body: IdsIn) -> dict[str, Any]:
    """Put two to four parts beside each other."""
    parts = [catalogue.part(id) for id in body.ids[:8]]
    return {"parts": [_card(p) for p in parts], "rows": [asdict(row) for row in compared(parts)]}


@router.post("/take", response=int)
def take(request: HttpRequest, body: TakeIn) -> int:
    """Take parts into a library with their pictures, and give how many."""
    shelf = shelf_to_change(body.shelf, request.user)
    return catalogue.take(body.ids, shelf, request.user.get_username())
