"""Drawn symbols in the library: kept by name, with the parts that are drawn with them following when they change."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from django.db import transaction

from jolly_core.library import Definition, definition, drawn_key
from jolly_core.model import IdSource, RuleError

from .models import LibraryPart, LibrarySymbol
from .storing import part_of_row, store_parts

_ids = IdSource()


def drawn_symbols() -> list[LibrarySymbol]:
    """Return the drawn symbols, by name."""
    return list(LibrarySymbol.objects.order_by("name"))


def drawn_definitions() -> list[Definition]:
    """Return the definitions of the drawn symbols, by name."""
    return [definition(key) for key in LibrarySymbol.objects.order_by("name").values_list("key", flat=True)]


def keep_symbol(sketch: Mapping[str, Any], by: str, id: str = "") -> LibrarySymbol:
    """Keep a new or changed symbol; parts that were drawn with it as it was are drawn with it as it is.

    Raises:
        FileError: something of the sketch cannot be.
        RuleError: another symbol has its name, or the symbol to change is gone.
    """
    key = drawn_key(sketch)
    name = definition(key).name
    twin = LibrarySymbol.objects.filter(name__iexact=name).exclude(pk=id).first()
    if twin is not None:
        raise RuleError(f"There is a symbol “{twin.name}” already. Give this one another name.", field="name")
    if not id:
        return LibrarySymbol.objects.create(pk=_ids.new(), name=name, key=key, by=by)
    row = LibrarySymbol.objects.filter(pk=id).first()
    if row is None:
        raise RuleError("This symbol is no longer in the library.", ids=(id,))
    with transaction.atomic():
        _follow(row.key, key, by, name)
        row.name, row.key, row.by = name, key, by
        row.save()
    return row


def _follow(old: str, new: str, by: str, name: str) -> None:
    if old == new:
        return
    drawn = [r for r in LibraryPart.objects.select_related("shelf").exclude(symbols="{}") if old in r.symbols.values()]
    for row in drawn:
        part = part_of_row(row)
        symbols = {place: new if key == old else key for place, key in part.symbols.items()}
        made = replace(part, symbols=symbols, version=part.version + 1)
        store_parts([made], row.shelf, by=by, act=f"symbol {name} drawn anew")


def drop_symbol(id: str) -> bool:
    """Take a symbol out of the library; what is drawn with it stays. False when there is none of that id."""
    return LibrarySymbol.objects.filter(pk=id).delete()[0] > 0
