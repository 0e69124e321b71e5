"""The library as files: out as JSON, XLSX or CSV; in from a table, checked cell by cell, or from JSON."""

from __future__ import annotations

import hashlib
import json
from collections import Counter
from dataclasses import replace
from typing import Literal

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Router
from ninja.errors import HttpError
from ninja.files import UploadedFile
from typing_extensions import TypedDict

from jolly_core.exchange import (
    COMMON,
    TOLD,
    BadCell,
    CheckedRow,
    check_rows,
    guessed_mapping,
    parts_table,
    read_cells,
    table_csv,
    table_xlsx,
)
from jolly_core.library import Difference, differences, part_fields
from jolly_core.model import FileError, Part, to_record

from .bundle import files_of, keep_files, open_bundle, pack_bundle
from .models import ColumnMapping, LibraryPart, Shelf
from .ownfields import own_fields
from .progress import Progress, stop, teller, told
from .search import FIELDS
from .services import FORMAT, checked_parts
from .shelves import shelf_to_change, shelves_for
from .storing import store_parts, usual_id


class RowChecked(TypedDict):
    """A row of a table of parts that was read, with what is wrong and what it would change."""

    line: int
    state: Literal["new", "changed", "same", "bad"]
    maker: str
    number: str
    problems: list[BadCell]
    changes: list[Difference]


class Counts(TypedDict):
    """How many rows there are of each state."""

    new: int
    changed: int
    same: int
    bad: int


class TableRead(TypedDict):
    """A table of parts that was read: headings, which field each is, how many rows of each state, the first rows."""

    headings: list[str]
    mapping: dict[str, str]
    fields: dict[str, str]
    counts: Counts
    problem: str
    files: int
    rows: list[RowChecked]


class Taken(TypedDict):
    """How many rows were taken in, and how many left."""

    taken: int
    left: int


router = Router(tags=["parts in and out"])
MOST_SHOWN = 500
TYPES = {
    "json": "application/json",
    "zip": "application/zip",
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}


@router.get("/export.{format}")
def export(request: HttpRequest, format: str, shelf: str = "", ids: str = "") -> HttpResponse:
    """Give a library, or the parts chosen of it by id, as a file."""
    if format not in TYPES:
        raise HttpError(404, f"Libraries come as {', '.join(TYPES)}.")
    seen = list(shelves_for(request.user).values_list("pk", flat=True))
    rows = LibraryPart.objects.filter(shelf_id__in=[s for s in seen if shelf in ("", s)])
    if ids:
        rows = rows.filter(pk__in=ids.split(","))
    parts = [Part(*row) for row in rows.order_by("shelf__order", "part_class", "number").values_list(*FIELDS)]
    if format in ("json", "zip"):
        records = ",\n".join(json.dumps(to_record(p), ensure_ascii=False) for p in parts)
        content = f'{{"format": "{FORMAT}", "version": 1, "parts": [\n{records}\n]}}\n'.encode()
        if format == "zip":
            content = pack_bundle(content, files_of(parts))
    else:
        table = parts_table(parts)
        content = table_xlsx(table) if format == "xlsx" else table_csv(table)
    response = HttpResponse(content, content_type=TYPES[format])
    response.headers["Content-Disposition"] = f'attachment; filename="parts.{format}"'
    return response


@router.post("/import/look", response=TableRead)
def look(
    request: HttpRequest, file: File[UploadedFile], shelf: Form[str], mapping: Form[str] = "", name: Form[str] = ""
) -> TableRead:
    """Read a table and say what is in it, row by row; nothing is taken in. The mapping is kept for the next time.

    Under `name` it can be asked how far it has come.
    """
    target = shelf_to_change(shelf, request.user)
    headings, chosen, rows, files, problem = _read(file, target, mapping, request.user.pk, name)
    count = Counter(r.state for r in rows)
    counts: Counts = {"new": count["new"], "changed": count["changed"], "same": count["same"], "bad": count["bad"]}
    shown = [r for r in rows if r.state == "bad"] + [r for r in rows if r.state not in ("bad", "same")]
    return {
        "headings": headings,
        "mapping": chosen,
        "fields": {
            **COMMON,
            **TOLD,
            **{k: f"{f.name} {f.unit}".strip() for k, f in part_fields().items()},
            **{f["key"]: f["name"] for f in own_fields()},
        },
        "counts": counts,
        "problem": problem,
        "files": len(set(files_of(r.part for r in rows if r.part)) & set(files)),
        "rows": [
            {
                "line": r.line,
                "state": r.state,
                "maker": r.part.maker if r.part else "",
                "number": r.part.number if r.part else "",
                "problems": r.problems,
                "changes": r.changes,
            }
            for r in sorted(shown[:MOST_SHOWN], key=lambda r: (r.state != "bad", r.line))
        ],
    }


@router.post("/import/take", response=Taken)
def take(
    request: HttpRequest, file: File[UploadedFile], shelf: Form[str], mapping: Form[str] = "", name: Form[str] = ""
) -> Taken:
    """Take the good rows of a table into a library: new parts, and those that change; with the files they name."""
    target = shelf_to_change(shelf, request.user)
    _, _, rows, files, _ = _read(file, target, mapping, request.user.pk, name)
    good = [r for r in rows if r.state in ("new", "changed") and r.part is not None]
    taken = set(LibraryPart.objects.values_list("pk", flat=True))
    parts: list[Part] = []
    for row in good:
        part: Part = row.part  # type: ignore[assignment]  # the good rows have one
        if row.state == "new":
            id = usual_id(part.maker, part.number)
            while id in taken:
                id = f"{id[:34]}-{len(taken) % 97}"
            taken.add(id)
            part = replace(part, id=id)
        else:
            part = replace(part, version=part.version + 1)
        parts.append(part)
    source = (file.name or "a file")[:120]
    tell = teller(request.user.pk, name, "Taking in", len(parts))
    with transaction.atomic():
        kept = keep_files(files, files_of(parts))
        parts = [
            replace(
                p,
                picture=kept.get(p.picture, p.picture),
                datasheet=kept.get(p.datasheet, p.datasheet),
                solid=kept.get(p.solid, p.solid),
            )
            for p in parts
        ]
        store_parts(parts, target, by=request.user.get_username(), act=f"taken in from {source}", told=tell)
    return {"taken": len(parts), "left": sum(1 for r in rows if r.state == "bad")}


@router.get("/import/progress", response=Progress)
def progress(request: HttpRequest, name: str) -> Progress:
    """Say how far the work of a name has come."""
    return told(request.user.pk, name)


@router.post("/import/stop", response=bool)
def stop_work(request: HttpRequest, name: str) -> bool:
    """Stop the work of a name; nothing is taken in by it."""
    stop(request.user.pk, name)
    return True


Read = tuple[list[str], dict[str, str], list[CheckedRow], dict[str, bytes], str]


def _read(file: UploadedFile, shelf: Shelf, mapping: str, user_id: int | None, work: str) -> Read:
    """Return a table's headings, what they mean, its rows, files that came with it, and what is still to be said."""
    name, content = file.name or "", file.read()
    files: dict[str, bytes] = {}
    if name.lower().endswith(".zip"):
        name, content, files = open_bundle(content, name)
    there = {
        (row[1].lower(), row[2].lower()): Part(*row)
        for row in LibraryPart.objects.filter(shelf=shelf).values_list(*FIELDS)
    }
    if name.lower().endswith(".json"):
        return [], {}, _from_json(content, there), files, ""
    cells = read_cells(content, name, formulas=True)
    headings = [h.strip() for h in cells[0]] if cells else []
    key = hashlib.sha256("\n".join(headings).encode()).hexdigest()
    kept = ColumnMapping.objects.filter(pk=key).first()
    chosen = guessed_mapping(headings, {f["key"]: f["name"] for f in own_fields()})
    if mapping:
        try:
            given = json.loads(mapping)
            chosen.update({h: str(given[h]) for h in headings if h in given})
        except (ValueError, TypeError):
            raise FileError("The mapping of the columns cannot be read.", field="mapping") from None
        ColumnMapping.objects.update_or_create(pk=key, defaults={"mapping": chosen})
    elif kept is not None:
        chosen.update({h: f for h, f in kept.mapping.items() if h in chosen})
    try:
        tell = teller(user_id, work, "Reading rows", max(0, len(cells) - 1))
        rows = check_rows(cells, chosen, lambda maker, number: there.get((maker.lower(), number.lower())), tell)
    except FileError as error:
        if error.field != "number":
            raise
        problem = error.message  # the person says it by hand, and the table is read again
        return headings, chosen, [], files, problem
    return headings, chosen, rows, files, ""


def _from_json(content: bytes, there: dict[tuple[str, str], Part]) -> list[CheckedRow]:
    try:
        raw = json.loads(content)
    except ValueError:
        raise FileError("This is not a library file: it cannot be read as JSON.") from None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT or raw.get("version") != 1:
        raise FileError("This is not a Jolly Spool library file of version 1.")
    rows = []
    for line, part in enumerate(checked_parts(raw.get("parts", [])), start=1):
        before = there.get((part.maker.lower(), part.number.lower()))
        if before is not None:
            part = replace(part, id=before.id, version=before.version)
        changes = differences(before, part) if before else []
        rows.append(CheckedRow(line, "changed" if changes else "same" if before else "new", part, [], changes))
    return rows
