"""Looking parts up: words anywhere, and fields by value, quickly among many thousands."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from django.db import connection

from jolly_core.library import OWN, is_like, number_in, part_class
from jolly_core.model import KINDS, FileError, Part

from .models import LibraryPart

FIELDS = tuple(KINDS["part"].fields)
# The trigram index finds three letters and more; shorter words are compared one by one.
SHORTEST = 3
OPERATORS = {"=": "=", ">=": ">=", "<=": "<="}
_FILTER = re.compile(r"([a-z0-9_.-]+)(>=|<=|=)(.*)")
_COUNTED = re.compile(r"(\d+)(no|nc|co|p)")
_COUNTED_KINDS = {"no": "no", "nc": "nc", "co": "co", "p": "pole"}


@dataclass(slots=True, frozen=True)
class Match:
    """A part found, and for each field that matched the words that did: {"number": "C09"}."""

    part: Part
    shelf: str
    why: dict[str, str]


@dataclass(slots=True, frozen=True)
class Filter:
    """A field that must have a value: "units.no" counts the units of a kind."""

    field: str
    operator: str
    value: str


def filters_in(texts: Iterable[str]) -> list[Filter]:
    """Return filters from their texts, like "ac3_a>=9", "coil_kind=DC", "units.no>=2".

    Raises:
        FileError: a text is no filter.
    """
    found = []
    for text in texts:
        match = _FILTER.fullmatch(text.strip())
        if match is None or not match[3].strip():
            raise FileError(f"“{text}” is no filter: write field, then =, >= or <=, then a value.", field="filter")
        found.append(Filter(match[1], match[2], match[3].strip()))
    return found


def classes_like(key: str) -> list[str]:
    """Return a class and the own classes of the library's parts that are like it."""
    own = LibraryPart.objects.filter(part_class__gte=OWN, part_class__lt=f"{OWN}\uffff")
    return [key, *(k for k in own.values_list("part_class", flat=True).distinct() if k != key and is_like(k, key))]


def search(
    words: str = "",
    *,
    part_class_key: str = "",
    maker: str = "",
    rating: str = "",
    needs: dict[str, int] | None = None,
    filters: Iterable[Filter] = (),
    shelves: Iterable[str] | None = None,
    limit: int = 40,
) -> list[Match]:
    """Return the parts that have all words somewhere, those whose number begins so first, then by shelf.

    Args:
        words: free text; each word must occur in number, maker, text, class or a rating. A word like 2NO, 1NC or 3P
            asks for at least so many units.
        rating: a rating's value, for example "24".
        needs: for each kind of unit how many the part must have at least; parts with the fewest units come first.
        shelves: ids of the shelves looked into, all when None.
    """
    tokens = words.lower().split()[:8]
    asked = list(filters)
    for token in list(tokens):
        counted = _COUNTED.fullmatch(token)
        if counted is not None:
            tokens.remove(token)
            asked.append(Filter(f"units.{_COUNTED_KINDS[counted[2]]}", ">=", counted[1]))
    asked += [Filter(f"units.{kind}", ">=", str(n)) for kind, n in (needs or {}).items()]
    conditions = [_condition(one) for one in asked]
    by_word = any(len(t) >= SHORTEST for t in tokens)
    sql = ["SELECT p.id FROM library_librarypart p JOIN library_shelf f ON f.id = p.shelf_id"]
    if by_word:
        sql.append("JOIN library_search s ON s.rowid = p.rowid")
    where, args = _wanted(tokens, part_class_key, maker, rating, shelves)
    if conditions and by_word:  # the words leave few: each of them is looked at
        where += [_has("p.id", condition) for condition, _ in conditions]
        args += [value for _, values in conditions for value in values]
    elif conditions:
        first, values = _by_values(conditions)
        sql = [first, *sql, "JOIN fitting w ON w.part_id = p.id"]
        args = [*values, *args]
    if where:
        sql.append("WHERE " + " AND ".join(where))
    first = "json_array_length(p.units), " if needs else ""
    sql.append(
        f"ORDER BY (p.number LIKE %s ESCAPE '\\') DESC, {first}f.\"order\", p.part_class, p.maker, p.number LIMIT %s"
    )
    args += [f"{_escaped(tokens[0])}%" if tokens else "", limit]
    with connection.cursor() as cursor:
        cursor.execute(" ".join(sql), args)
        ids = [row[0] for row in cursor.fetchall()]
    found = {row[0]: row for row in LibraryPart.objects.filter(pk__in=ids).values_list(*FIELDS, "shelf_id")}
    ordered = [found[i] for i in ids if i in found]
    return [Match(part, shelf, _why(part, tokens)) for *values, shelf in ordered for part in [Part(*values)]]


def _wanted(
    tokens: list[str], part_class_key: str, maker: str, rating: str, shelves: Iterable[str] | None
) -> tuple[list[str], list[Any]]:
    """Return the conditions of a search in SQL with their values: words, class, maker, rating, shelves."""
    where: list[str] = []
    args: list[Any] = []
    long = [t for t in tokens if len(t) >= SHORTEST]
    if long:
        where.append("library_search MATCH %s")
        args.append(" AND ".join('"' + t.replace('"', '""') + '"' for t in long))
    for token in (t for t in tokens if len(t) < SHORTEST):
        where.append("(p.number || ' ' || p.maker || ' ' || p.text || ' ' || p.ratings) LIKE %s ESCAPE '\\'")
        args.append(f"%{_escaped(token)}%")
    if part_class_key:
        likes = classes_like(part_class_key)
        where.append(f"p.part_class IN ({', '.join(['%s'] * len(likes))})")
        args += likes
    if maker:
        where.append("p.maker = %s")
        args.append(maker)
    if rating:
        where.append("p.ratings LIKE %s ESCAPE '\\'")
        args.append(f'%"{_escaped(rating)}"%')
    if shelves is not None:
        ids = list(shelves)
        where.append(f"p.shelf_id IN ({', '.join(['%s'] * len(ids))})")
        args += ids
    return where, args


def _condition(one: Filter) -> tuple[str, list[Any]]:
    """Return the SQL of a filter on a row of values; several values parted by commas are alternatives."""
    number = number_in(one.value)
    if one.operator != "=":
        if number is None:
            raise FileError(f"“{one.value}” is no number to compare with.", field=one.field)
        return f"field = %s AND number {OPERATORS[one.operator]} %s", [one.field, number]
    words = [w.strip().lower() for w in one.value.split(",") if w.strip()]
    return f"field = %s AND text IN ({', '.join(['%s'] * len(words))})", [one.field, *words]


def _has(part_id: str, condition: str) -> str:
    return f"EXISTS (SELECT 1 FROM library_partvalue WHERE part_id = {part_id} AND {condition})"


def _by_values(conditions: list[tuple[str, list[Any]]]) -> tuple[str, list[Any]]:
    """Return a common table of the parts that meet all: what the fewest have is found, the rest looked up."""
    count = "SELECT count(*) FROM library_partvalue WHERE "
    with connection.cursor() as cursor:
        met = [cursor.execute(count + condition, values).fetchone()[0] for condition, values in conditions]
    (fewest, values), *rest = [conditions[n] for n in sorted(range(len(met)), key=met.__getitem__)]
    inner = f"SELECT DISTINCT one.part_id FROM library_partvalue one WHERE {fewest}"
    for condition, more in rest:
        inner += f" AND {_has('one.part_id', condition)}"
        values = values + more
    return f"WITH fitting AS MATERIALIZED ({inner})", values


def makers_of(part_class_key: str, shelf_ids: Iterable[str]) -> list[str]:
    """Return the makers of the parts on some shelves, of one class or of all, by name."""
    rows = LibraryPart.objects.filter(shelf_id__in=list(shelf_ids))
    rows = rows.filter(part_class__in=classes_like(part_class_key)) if part_class_key else rows
    return sorted(rows.values_list("maker", flat=True).distinct())


def _escaped(text: str) -> str:
    return text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")


def _why(part: Part, tokens: list[str]) -> dict[str, str]:
    places = {
        "number": part.number,
        "maker": part.maker,
        "text": part.text,
        "class": part_class(part.part_class).name,
        **part.ratings,
    }
    why: dict[str, str] = {}
    for token in tokens:
        for name, value in places.items():
            if token in value.lower():
                why[name] = value
                break
    return why
