"""Putting parts into the library: checked, with what they are looked up by, and their history."""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from itertools import islice

from django.db import transaction
from django.db.models import Q
from typing_extensions import TypedDict

from jolly_core.library import Difference, check_part, differences, flat_members, values_of
from jolly_core.model import ConflictError, IdSource, Part, RuleError, from_record, to_record

from .models import LibraryPart, PartValue, PartVersion, Shelf
from .search import FIELDS

BATCH = 500
_ids = IdSource()


def row_of(part: Part, shelf: Shelf) -> LibraryPart:
    """Return the row of a part on a shelf."""
    return LibraryPart(shelf=shelf, **{n: getattr(part, n) for n in FIELDS})


def _batches(parts: Iterable[Part]) -> Iterator[list[Part]]:
    source = iter(parts)
    while batch := list(islice(source, BATCH)):
        yield batch


def store_parts(
    parts: Iterable[Part],
    shelf: Shelf,
    *,
    by: str = "",
    act: str = "taken in",
    told: Callable[[int], None] = lambda done: None,
) -> int:
    """Insert or replace parts on a shelf by id, a batch at a time, and return how many there were.

    Args:
        by: who does it; with a name, each part gets a line in its history.
        told: is told after each batch how many are stored.
    """
    count = 0
    with transaction.atomic():
        for batch in _batches(parts):
            count += len(batch)
            LibraryPart.objects.bulk_create(
                [row_of(p, shelf) for p in batch],
                update_conflicts=True,
                unique_fields=["id"],
                update_fields=[*(n for n in FIELDS if n != "id"), "shelf"],
            )
            PartValue.objects.filter(part_id__in=[p.id for p in batch]).delete()
            PartValue.objects.bulk_create(
                PartValue(part_id=p.id, field=field, text=text, number=number)
                for p in batch
                for field, text, number in values_of(p)
            )
            if by:
                PartVersion.objects.bulk_create(_version(p, shelf, by, act) for p in batch)
            told(count)
    return count


def _version(part: Part, shelf: Shelf, by: str, act: str, *, gone: bool = False) -> PartVersion:
    record = "{}" if gone else json.dumps(to_record(part), ensure_ascii=False)
    return PartVersion(part_id=part.id, shelf_name=shelf.name, version=part.version, act=act, by=by, record=record)


def usual_id(maker: str, number: str) -> str:
    """Return the id a new part gets: maker and number in small letters, so that files can be read.

    Example:
        >>> usual_id("Tamwick", "TW-L22 G")
        'tamwick-tw-l22-g'
    """
    slug = re.sub(r"[^a-z0-9]+", "-", f"{maker} {number}".lower()).strip("-")[:36]
    return slug or _ids.new()


def free_id(maker: str, number: str) -> str:
    """Return the usual id of a new part, or another one where that is taken."""
    usual = usual_id(maker, number)
    return _ids.new() if LibraryPart.objects.filter(pk=usual).exists() else usual


def stored(part_id: str) -> tuple[Part, Shelf]:
    """Return a part and its shelf.

    Raises:
        RuleError: it is not in the library.
    """
    row = LibraryPart.objects.select_related("shelf").filter(pk=part_id).first()
    if row is None:
        raise RuleError("This part is no longer in the library.", ids=(part_id,))
    return part_of_row(row), row.shelf


def part_of_row(row: LibraryPart) -> Part:
    """Return the part of a row that was read."""
    return Part(*(getattr(row, n) for n in FIELDS))


def save_part(part: Part, shelf: Shelf, by: str) -> Part:
    """Put a new or changed part onto a shelf, with the next version and a line in its history.

    Raises:
        FileError: the part is wrong in itself.
        RuleError: it has no maker or number, or the shelf has another part of its maker and number.
    """
    part = replace(part, maker=" ".join(part.maker.split()), number=" ".join(part.number.split()))
    if not part.number:
        raise RuleError("Give the part its number.", field="number")
    part = check_part(part)
    twin = shelf.parts.filter(maker__iexact=part.maker, number__iexact=part.number).exclude(pk=part.id).first()
    if twin is not None:
        raise RuleError(f"{shelf.name} has {part.maker} {part.number} already.", field="number", ids=(twin.pk,))
    flat_members(part, lambda name: part if name in (part.id, part.number) else _named(name))
    before = LibraryPart.objects.filter(pk=part.id).first()
    if before is None:
        made = replace(part, id=part.id or free_id(part.maker, part.number), version=1)
        store_parts([made], shelf, by=by, act="made")
        return made
    old = part_of_row(before)
    if part.version and part.version != old.version:
        _changed_since(part, old)
    changed = differences(old, part)
    if not changed and before.shelf_id == shelf.pk:
        return old
    made = replace(part, version=old.version + 1)
    words = ", ".join(d.field for d in changed[:4]) or f"moved to {shelf.name}"
    store_parts([made], shelf, by=by, act=f"changed {words}" if changed else words)
    return made


def _named(name: str) -> Part | None:
    row = LibraryPart.objects.filter(Q(pk=name) | Q(number=name)).first()
    return part_of_row(row) if row else None


def _changed_since(part: Part, old: Part) -> None:
    """Refuse to write over what somebody else has changed since a record was read, and say what that is.

    Raises:
        ConflictError: always, but when it makes no difference.
    """
    then = PartVersion.objects.filter(part_id=part.id, version=part.version).first()
    record = json.loads(then.record) if then else None
    since = differences(from_record("part", record), old) if record else []
    last = PartVersion.objects.filter(part_id=part.id, version=old.version).first()
    who = f"{last.by} changed" if last and last.by else "Somebody changed"
    # A version from before there was a history: what the record and the library differ in.
    since = since or differences(part, old)
    what = ", ".join(f"{d.field} is {d.after or 'empty'} now" for d in since[:4]) or "its library"
    raise ConflictError(
        f"{who} {old.number} while you were at it: {what}. Nothing is written over: open it again to see that, then "
        "change what you meant to.",
        ids=(part.id,),
    )


def remove_parts(ids: Iterable[str], shelf: Shelf, by: str) -> int:
    """Take parts off a shelf and return how many; projects keep their copies."""
    rows = list(shelf.parts.filter(pk__in=list(ids)))
    with transaction.atomic():
        PartVersion.objects.bulk_create(
            _version(part_of_row(r), shelf, by, "taken out of the library", gone=True) for r in rows
        )
        shelf.parts.filter(pk__in=[r.pk for r in rows]).delete()
    return len(rows)


class VersionLine(TypedDict):
    """A change of a part: who made it when, and in what it differs from the version before."""

    version: int
    act: str
    by: str
    at: str
    library: str
    changed: list[Difference]


def history(part_id: str) -> list[VersionLine]:
    """Return who changed a part when, the youngest first, with the fields that differ from the version before."""
    rows = list(PartVersion.objects.filter(part_id=part_id).order_by("pk"))
    lines: list[VersionLine] = []
    before: Part | None = None
    for row in rows:
        record = json.loads(row.record)
        after: Part | None = from_record("part", record, mend=True) if record else None
        changed: list[Difference] = differences(before, after) if before is not None and after is not None else []
        lines.append(
            {
                "version": row.version,
                "act": row.act,
                "by": row.by,
                "at": row.at.isoformat(),
                "library": row.shelf_name,
                "changed": changed,
            }
        )
        before = after
    return lines[::-1]
