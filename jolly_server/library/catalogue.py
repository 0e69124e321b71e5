"""The makers' catalogue: a service outside that gives parts in the format of library files, with pictures."""

from __future__ import annotations

from dataclasses import replace
from typing import Any
from urllib.parse import quote, urlencode

from django.conf import settings
from django.db import transaction

from jolly_core.library import check_part
from jolly_core.model import Part, RuleError, from_record
from jolly_server.config.outside import Away, ask, ask_json

from .filing import keep_file
from .models import LibraryPart, Shelf
from .storing import free_id, store_parts

NAME = "The catalogue"
PAGE = 40
MOST = 200


def away(error: Away) -> RuleError:
    """Return the refusal that says what to do when the catalogue cannot be asked."""
    return RuleError(f"{error} Look whether it runs at {settings.JOLLY.catalogue}, then try again.", field="catalogue")


def _ask(path: str) -> dict[str, Any] | None:
    try:
        return ask_json(f"{settings.JOLLY.catalogue}{path}", NAME)
    except Away as error:
        raise away(error) from error


def find(words: str, part_class: str, maker: str, start: int) -> dict[str, Any]:
    """Return a page of what the catalogue has: parts, how many there are, and counts by maker and class.

    Raises:
        RuleError: the catalogue does not answer.
    """
    query = urlencode({"q": words, "class": part_class, "maker": maker, "from": start, "count": PAGE})
    found = _ask(f"/parts?{query}") or {}
    parts = [_part(raw) for raw in found.get("parts", [])]
    return {
        "parts": parts,
        "total": int(found.get("total", 0)),
        "makers": dict(found.get("makers", {})),
        "classes": dict(found.get("classes", {})),
    }


def part(id: str) -> Part:
    """Return a part of the catalogue.

    Raises:
        RuleError: it has none of that id, or does not answer.
    """
    raw = _ask(f"/parts/{quote(id, safe='')}")
    if raw is None:
        raise RuleError("This part is no longer in the catalogue.", ids=(id,))
    return _part(raw)


def picture(id: str) -> bytes | None:
    """Return a part's picture as SVG, None when there is none.

    Raises:
        RuleError: the catalogue does not answer.
    """
    try:
        return ask(f"{settings.JOLLY.catalogue}/pictures/{quote(id, safe='')}.svg", NAME)
    except Away as error:
        raise away(error) from error


def _part(raw: dict[str, Any]) -> Part:
    return check_part(from_record("part", raw))


def take(ids: list[str], shelf: Shelf, by: str) -> int:
    """Take parts of the catalogue onto a shelf with their pictures, and return how many were not there as they are.

    A part that the shelf has under its maker and number is brought up to the catalogue's.

    Raises:
        RuleError: one is not in the catalogue, too many are asked for, or it does not answer; nothing is taken then.
    """
    if not 1 <= len(ids) <= MOST:
        raise RuleError(f"Choose 1 to {MOST} parts to take in.", field="ids")
    wanted = [part(id) for id in dict.fromkeys(ids)]
    pictures = {p.picture: picture(p.id) for p in wanted if p.picture}
    taken: list[Part] = []
    for offered in wanted:
        twin = LibraryPart.objects.filter(
            shelf=shelf, maker__iexact=offered.maker, number__iexact=offered.number
        ).first()
        if twin is None:
            taken.append(replace(offered, id=free_id(offered.maker, offered.number), version=1))
        else:
            taken.append(replace(offered, id=twin.pk, version=twin.version + 1))
    with transaction.atomic():
        kept = {name: keep_file(name, content) for name, content in pictures.items() if content is not None}
        taken = [replace(p, picture=kept.get(p.picture, p.picture)) for p in taken]
        store_parts(taken, shelf, by=by, act="taken from the makers' catalogue")
    return len(taken)
