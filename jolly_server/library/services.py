"""The library as edits see it; library files; title blocks and stamps that are kept."""

from __future__ import annotations

import json
from collections import Counter
from pathlib import Path

from django.db.models import Q, QuerySet

from jolly_core.library import BlockPattern, KeptStamp, check_part, pattern_from_json, pattern_to_json
from jolly_core.model import FileError, IdSource, Part, Stamp, from_record

from .models import LibraryPart, LibraryStamp, LibraryTitleBlock, Shelf
from .search import FIELDS, classes_like
from .shelves import User
from .storing import store_parts

FORMAT = "jolly-spool-library"
_ids = IdSource()


class StoredLibrary:
    """The library as edits see it: the company's parts and those of the person's own libraries.

    Args:
        user: who asks; None for the application itself, which sees all.
    """

    def __init__(self, user: User | None = None) -> None:
        self.user = user

    def _parts(self) -> QuerySet[LibraryPart]:
        if self.user is None:
            return LibraryPart.objects.all()
        return LibraryPart.objects.filter(Q(shelf__owner=None) | Q(shelf__owner_id=self.user.pk))

    def part(self, id: str) -> Part | None:
        """Return a part by id or by its whole number."""
        row = self._parts().filter(pk=id).values_list(*FIELDS).first()
        if row is None and id:
            named = self._parts().filter(number__iexact=id).order_by("shelf__order", "pk")
            row = named.values_list(*FIELDS).first()
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
        rows = self._parts().filter(part_class__in=classes_like(part_class)).order_by("number").values_list(*FIELDS)
        return [Part(*row) for row in rows]


def load_library(path: Path, shelf: Shelf) -> int:
    """Load the parts of a library file onto a shelf, replacing those of the same id, and return how many there were.

    The file is {"format": "jolly-spool-library", "version": 1, "parts": [part records]}.

    Raises:
        FileError: it is not a library file, or a part is wrong; nothing is loaded then.
    """
    try:
        raw = json.loads(path.read_text(encoding="utf-8"))
    except (OSError, ValueError):
        raise FileError(f"{path.name} is not a library file: it cannot be read as JSON.") from None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT or raw.get("version") != 1:
        raise FileError(f"{path.name} is not a Jolly Spool library file of version 1.")
    return store_parts(checked_parts(raw.get("parts", [])), shelf)


def checked_parts(records: object) -> list[Part]:
    """Return the parts of records.

    Raises:
        FileError: naming the part and what is wrong, or the id that two have.
    """
    if not isinstance(records, list):
        raise FileError("The parts of a library file should be a list.", field="parts")
    parts = [check_part(from_record("part", record)) for record in records]
    twice = next((id for id, n in Counter(p.id for p in parts).items() if n > 1), "")
    if twice:
        raise FileError(f"Two parts have the id {twice}.")
    named = Counter((p.maker.lower(), p.number.lower()) for p in parts)
    double = next((p for p in parts if named[p.maker.lower(), p.number.lower()] > 1), None)
    if double is not None:
        raise FileError(f"{double.maker} {double.number} is in the file twice.", field="number")
    return parts


def keep_title_block(pattern: BlockPattern) -> None:
    """Keep a title block in the library, in place of one of the same name."""
    data = json.dumps(pattern_to_json(pattern), ensure_ascii=False)
    row = LibraryTitleBlock.objects.filter(name=pattern.block.name).first()
    if row is None:
        row = LibraryTitleBlock(pk=f"kept-{_ids.new()}", name=pattern.block.name)
    row.data = data
    row.save()


def kept_title_blocks() -> list[tuple[str, str]]:
    """Return id and name of the title blocks in the library, by name."""
    return list(LibraryTitleBlock.objects.order_by("name").values_list("pk", "name"))


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
