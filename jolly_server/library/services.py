"""Looking parts up and loading them."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from django.db import connection, transaction

from jolly_core.library import BlockPattern, KeptStamp, part_class, part_classes, pattern_from_json, pattern_to_json
from jolly_core.model import FileError, IdSource, Part, Stamp, fields_of, from_record

from .models import LibraryPart, LibraryStamp, LibraryTitleBlock

FIELDS = tuple(fields_of("part"))
_ids = IdSource()
# The trigram index finds three letters and more; shorter words are compared one by one.
SHORTEST = 3


@dataclass(slots=True, frozen=True)
class Match:
    """A part found, and for each field that matched the words that did: {"number": "C09"}."""

    part: Part
    why: dict[str, str]


class StoredLibrary:
    """The library as edits see it."""

    def part(self, id: str) -> Part | None:
        """Return a part by id or by its whole number."""
        row = LibraryPart.objects.filter(pk=id).values_list(*FIELDS).first()
        if row is None:
            row = LibraryPart.objects.filter(number__iexact=id).values_list(*FIELDS).first()
        return Part(*row) if row else None

    def title_block(self, id: str) -> BlockPattern | None:
        """Return a title block kept in the library."""
        row = LibraryTitleBlock.objects.filter(pk=id).first()
        return pattern_from_json(json.loads(row.data)) if row else None

    def stamp(self, id: str) -> KeptStamp | None:
        """Return a stamp kept in the library."""
        row = LibraryStamp.objects.filter(pk=id).first()
        return KeptStamp(row.pk, row.name, row.text, row.body) if row else None

    def parts_of(self, part_class: str) -> list[Part]:
        """Return the library's parts of a class, by number."""
        rows = LibraryPart.objects.filter(part_class=part_class).order_by("number").values_list(*FIELDS)
        return [Part(*row) for row in rows]


def search(
    words: str = "",
    *,
    part_class_key: str = "",
    maker: str = "",
    rating: str = "",
    needs: dict[str, int] | None = None,
    limit: int = 40,
) -> list[Match]:
    """Return the parts that have all words somewhere, those whose number begins so first.

    Args:
        words: free text; each word must occur in number, maker, text, class or a rating.
        rating: a rating's value, for example "24".
        needs: for each kind of unit how many the part must have at least.
    """
    tokens = words.lower().split()[:8]
    sql = ["SELECT p.id FROM library_librarypart p"]
    where: list[str] = []
    args: list[Any] = []
    long = [t for t in tokens if len(t) >= SHORTEST]
    if long:
        sql.append("JOIN library_search s ON s.rowid = p.rowid")
        where.append("library_search MATCH %s")
        args.append(" AND ".join('"' + t.replace('"', '""') + '"' for t in long))
    for token in (t for t in tokens if len(t) < SHORTEST):
        where.append("(p.number || ' ' || p.maker || ' ' || p.text || ' ' || p.ratings) LIKE %s ESCAPE '\\'")
        args.append(f"%{_escaped(token)}%")
    if part_class_key:
        where.append("p.part_class = %s")
        args.append(part_class_key)
    if maker:
        where.append("p.maker = %s")
        args.append(maker)
    if rating:
        where.append("p.ratings LIKE %s ESCAPE '\\'")
        args.append(f'%"{_escaped(rating)}"%')
    if where:
        sql.append("WHERE " + " AND ".join(where))
    sql.append("ORDER BY (p.number LIKE %s ESCAPE '\\') DESC, p.part_class, p.maker, p.number LIMIT %s")
    args += [f"{_escaped(tokens[0])}%" if tokens else "", 2000 if needs else limit]
    with connection.cursor() as cursor:
        cursor.execute(" ".join(sql), args)
        ids = [row[0] for row in cursor.fetchall()]
    found = {p.id: p for p in parts_of(ids)}
    ordered = [found[i] for i in ids if i in found]
    if needs:
        ordered = [p for p in ordered if all(p.count(k) >= n for k, n in needs.items())]
        ordered.sort(key=lambda p: len(p.units))
    return [Match(p, _why(p, tokens)) for p in ordered[:limit]]


def parts_of(ids: list[str]) -> list[Part]:
    """Return library parts by id, in no order."""
    return [Part(*row) for row in LibraryPart.objects.filter(pk__in=ids).values_list(*FIELDS)]


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


def load_library(path: Path) -> int:
    """Load the parts of a library file, replacing those of the same id, and return how many there were.

    The file is {"format": "jolly-spool-library", "version": 1, "parts": [part records]}.

    Raises:
        FileError: it is not a library file, or a part is wrong; nothing is loaded then.
    """
    try:
        raw = json.loads(path.read_text(encoding="utf-8"))
    except (OSError, ValueError):
        raise FileError(f"{path.name} is not a library file: it cannot be read as JSON.") from None
    if not isinstance(raw, dict) or raw.get("format") != "jolly-spool-library" or raw.get("version") != 1:
        raise FileError(f"{path.name} is not a Jolly Spool library file of version 1.")
    parts = [from_record("part", record) for record in raw.get("parts", [])]
    check_parts(parts)
    store_parts(parts)
    return len(parts)


def check_parts(parts: Iterable[Part]) -> None:
    """Refuse parts of unknown classes, with units their class does not have, or of one id.

    Raises:
        FileError: naming the part and what is wrong.
    """
    counts = Counter(p.id for p in parts)
    for part in parts:
        if counts[part.id] > 1:
            raise FileError(f"Two parts have the id {part.id}.")
        allowed = part_class(part.part_class).units
        wrong = [kind for kind, _ in part.units if kind not in allowed]
        if wrong:
            name = part_classes()[part.part_class].name
            raise FileError(f"The part {part.number} has a unit “{wrong[0]}”, which a {name} does not have.")


def store_parts(parts: Iterable[Part]) -> None:
    """Insert or replace library parts."""
    rows = [LibraryPart(**{n: getattr(p, n) for n in FIELDS}) for p in parts]
    with transaction.atomic():
        LibraryPart.objects.bulk_create(
            rows,
            update_conflicts=True,
            unique_fields=["id"],
            update_fields=[n for n in FIELDS if n != "id"],
            batch_size=500,
        )


def keep_title_block(pattern: BlockPattern) -> None:
    """Keep a title block in the library, in place of one of the same name."""
    data = json.dumps(pattern_to_json(pattern), ensure_ascii=False)
    row = LibraryTitleBlock.objects.filter(name=pattern.block.name).first()
    if row is None:
        row = LibraryTitleBlock(pk=f"kept-{_ids.new()}", name=pattern.block.name)
    row.data = data
    row.save()


def kept_title_blocks() -> list[dict[str, str]]:
    """Return id and name of the title blocks in the library, by name."""
    rows = LibraryTitleBlock.objects.order_by("name").values_list("pk", "name")
    return [{"id": id, "name": name} for id, name in rows]


def keep_stamp(stamp: Stamp) -> None:
    """Keep a stamp of a project in the library, in place of one of the same name."""
    row = LibraryStamp.objects.filter(name=stamp.name).first()
    if row is None:
        row = LibraryStamp(pk=f"kept-{_ids.new()}", name=stamp.name)
    row.text, row.body = stamp.text, stamp.body
    row.save()


def kept_stamps() -> list[KeptStamp]:
    """Return the stamps of the library, by name."""
    return [KeptStamp(r.pk, r.name, r.text, r.body) for r in LibraryStamp.objects.order_by("name")]


def drop_stamp(id: str) -> bool:
    """Take a stamp out of the library; False when there is none of that id."""
    return LibraryStamp.objects.filter(pk=id).delete()[0] > 0
