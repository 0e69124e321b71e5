"""Lists by recipe: to look at while they are made, as files, kept for all, and taken in again."""

from __future__ import annotations

import json
from dataclasses import replace

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import File, Router
from ninja.errors import HttpError
from ninja.files import UploadedFile
from typing_extensions import TypedDict

from jolly_core.edits.project.recipes import KeepRecipe, recipe_of
from jolly_core.exchange import LIST_FORMATS, read_list, read_recipe, unwritable, write_list, write_recipe
from jolly_core.model import IdSource, Project, Recipe, from_record, to_record
from jolly_core.reports import BACK, MONEY, TESTS, WITHOUT_VALUE, Cooked, Row, cook, grouped_reports, recipe_called
from jolly_core.tagging import natural
from jolly_server.library.shelves import User
from jolly_server.projects.access import role_in
from jolly_server.projects.addresses import address_of
from jolly_server.projects.parts_api import stale_lines
from jolly_server.projects.store import loaded
from jolly_server.projects.turns import prepared
from jolly_server.shapes.recordshapes import RecipeRecord

from .files import TYPES, file_answer
from .models import SharedRecipe

router = Router(tags=["lists"])
MOST_SHOWN = 5000  # rows of a list that are sent to be looked at
# Reports that say at their foot which copies of parts differ from the library.
OF_PARTS = ("parts", "parts-by-place", "devices")
_ids = IdSource()


class ReportColumn(TypedDict):
    """A column that a recipe can have; `extra` are shown only when asked for."""

    key: str
    heading: str
    number: bool
    extra: bool


class ReportKind(TypedDict):
    """A report that recipes are built on, and whether an edited list of it is taken in again."""

    key: str
    title: str
    help: str
    columns: list[ReportColumn]
    back: bool
    group: str


class SharedName(TypedDict):
    """A recipe kept for all."""

    id: str
    name: str


class Recipes(TypedDict):
    """The recipes of a project, those kept for all, what they can be built on, and what filters can ask."""

    recipes: list[RecipeRecord]
    shared: list[SharedName]
    reports: list[ReportKind]
    tests: list[str]
    without_value: list[str]


class ListColumn(TypedDict):
    """A column of a list; `width` in letters."""

    heading: str
    width: int
    number: bool
    money: bool


class ListRow(TypedDict):
    """A row: its cells, the address that shows its object, and why cells are blank, by column."""

    cells: list[str | int | float]
    to: str
    whys: dict[int, str]


class ListGroup(TypedDict):
    """Rows that stand together, with their sums."""

    title: str
    rows: list[ListRow]
    sums: list[str | int | float]


class ListValue(TypedDict):
    """A list to look at; `count` is of all rows, of which the first are sent."""

    title: str
    head: str
    columns: list[ListColumn]
    groups: list[ListGroup]
    sums: list[str | int | float]
    count: int
    foot: list[str]
    lacking: str


class CellEdited(TypedDict):
    """A cell of an edited list that says something else than the project."""

    id: str
    name: str
    column: str
    heading: str
    before: str
    after: str
    mark: str


class ListBackRead(TypedDict):
    """What an edited list would change, what is refused, and what is passed over."""

    report: str
    cells: list[CellEdited]
    refused: list[str]
    ignored: list[str]


@router.get("/{project_id}/recipes", response=Recipes)
def recipes(request: HttpRequest, project_id: str) -> Recipes:
    """Give the recipes there are and what they can be made of."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        mine = sorted(held.project.recipes.values(), key=lambda r: (natural(r.name), r.id))
        kept = [to_record(r) for r in mine]
    shared: list[SharedName] = [{"id": s.pk, "name": s.name} for s in SharedRecipe.objects.order_by("name")]
    kinds: list[ReportKind] = [
        {
            "key": r.key,
            "title": r.title,
            "help": r.help,
            "columns": [{"key": c.key, "heading": c.heading, "number": c.number, "extra": c.extra} for c in r.columns],
            "back": r.key in BACK,
            "group": group,
        }
        for group, r in grouped_reports()
    ]
    tests, bare = list(TESTS), list(WITHOUT_VALUE)
    return {"recipes": kept, "shared": shared, "reports": kinds, "tests": tests, "without_value": bare}


@router.post("/{project_id}/lists/rows", response=ListValue)
def rows_of_recipe(request: HttpRequest, project_id: str, payload: KeepRecipe) -> ListValue:
    """Give the rows that a recipe would have, while it is made; nothing is kept."""
    role_in(request, project_id)
    return _looked_at(request, project_id, recipe_of(payload, payload.recipe_id or "new"))


@router.get("/{project_id}/lists/{list_id}/rows", response=ListValue)
def rows_of_list(request: HttpRequest, project_id: str, list_id: str) -> ListValue:
    """Give the rows of a recipe of the project, or of a report as it is."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        recipe = recipe_called(held.project, list_id)
    return _looked_at(request, project_id, recipe)


@router.get("/{project_id}/lists/{list_id}/file.{format}")
def list_file(request: HttpRequest, project_id: str, list_id: str, format: str) -> HttpResponse:
    """Give a list as a file."""
    role_in(request, project_id)
    if format not in LIST_FORMATS:
        raise HttpError(404, f"Lists come as {', '.join(LIST_FORMATS)}.")
    held = prepared(project_id)
    with held.lock:
        recipe = recipe_called(held.project, list_id)
        foot = foot_of(held.project, recipe.report, request.user)
        content = write_list(held.project, recipe, format, settings.JOLLY.fonts, foot)
        number = held.project.settings.number
    name = recipe.report if recipe.id == recipe.report else recipe.name
    return file_answer(content, TYPES[format], f"{number}-{name}.{format}")


@router.post("/{project_id}/list-back", response=ListBackRead)
def list_back(request: HttpRequest, project_id: str, file: File[UploadedFile]) -> ListBackRead:
    """Say what an edited list would change; nothing is taken in yet."""
    role_in(request, project_id, "editor")
    limit = settings.JOLLY.upload_limit_bytes
    if file.size is None or file.size > limit:
        raise HttpError(413, f"The file is larger than {limit // 1_000_000} MB. A list is smaller.")
    content = file.read()
    held = prepared(project_id)
    with held.lock:
        found = read_list(held.project, content)
    cells: list[CellEdited] = [
        {
            "id": c.id,
            "name": c.name,
            "column": c.column,
            "heading": c.heading,
            "before": c.before,
            "after": c.after,
            "mark": c.mark,
        }
        for c in found.cells
    ]
    return {"report": found.report, "cells": cells, "refused": found.refused, "ignored": found.ignored}


@router.post("/{project_id}/recipes/{recipe_id}/share", response=Recipes)
def share_recipe(request: HttpRequest, project_id: str, recipe_id: str) -> Recipes:
    """Keep a recipe for all projects, in place of one of its name."""
    role_in(request, project_id, "editor")
    held = loaded(project_id)
    with held.lock:
        recipe: Recipe = held.project.get("recipe", recipe_id)
        record = to_record(recipe)
    record["id"] = ""
    row = SharedRecipe.objects.filter(name=recipe.name).first() or SharedRecipe(pk=_ids.new(), name=recipe.name)
    row.data = json.dumps(record, ensure_ascii=False, sort_keys=True)
    row.save()
    return recipes(request, project_id)


@router.get("/{project_id}/recipes/{recipe_id}/recipe.json")
def recipe_file(request: HttpRequest, project_id: str, recipe_id: str) -> HttpResponse:
    """Give a recipe as a file, to be taken into another project."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        recipe: Recipe = held.project.get("recipe", recipe_id)
    return file_answer(write_recipe(recipe).encode("utf-8"), TYPES["json"], f"{recipe.name}.recipe.json")


@router.post("/{project_id}/recipe-file", response=RecipeRecord)
def recipe_from_file(request: HttpRequest, project_id: str, file: File[UploadedFile]) -> dict[str, object]:
    """Give the recipe of a file, to be looked at and kept; nothing is kept yet."""
    role_in(request, project_id, "editor")
    if file.size is None or file.size > settings.JOLLY.upload_limit_bytes:
        raise HttpError(413, "The file is too large for a recipe.")
    held = loaded(project_id)
    with held.lock:
        recipe = read_recipe(held.project, file.read())
    return to_record(recipe)


@router.get("/{project_id}/shared-recipes/{shared_id}", response=RecipeRecord)
def shared_recipe(request: HttpRequest, project_id: str, shared_id: str) -> dict[str, object]:
    """Give a recipe that is kept for all, to be taken over."""
    role_in(request, project_id)
    row = SharedRecipe.objects.filter(pk=shared_id).first()
    if row is None:
        raise HttpError(404, "This recipe is kept no more.")
    recipe: Recipe = from_record("recipe", json.loads(row.data), mend=True)
    return to_record(replace(recipe, id=""))


@router.post("/{project_id}/shared-recipes/{shared_id}/forget", response=Recipes)
def forget_recipe(request: HttpRequest, project_id: str, shared_id: str) -> Recipes:
    """Keep a recipe for all no longer; those that projects have taken stay."""
    role_in(request, project_id, "editor")
    SharedRecipe.objects.filter(pk=shared_id).delete()
    return recipes(request, project_id)


def _looked_at(request: HttpRequest, project_id: str, recipe: Recipe) -> ListValue:
    held = prepared(project_id)
    with held.lock:
        cooked = cook(held.project, recipe)
        foot = [*cooked.foot, *foot_of(held.project, recipe.report, request.user)]
        left = MOST_SHOWN
        groups: list[ListGroup] = []
        for group in cooked.groups:
            rows = [_row(held.project, cooked, row) for row in group.rows[:left]]
            groups.append({"title": group.title, "rows": rows, "sums": list(group.sums)})
            left -= len(rows)
            if left <= 0:
                break
    columns: list[ListColumn] = [
        {"heading": c.heading, "width": c.width, "number": c.number, "money": c.key in MONEY} for c in cooked.columns
    ]
    return {
        "title": cooked.title,
        "head": cooked.head,
        "columns": columns,
        "groups": groups,
        "sums": list(cooked.sums),
        "count": len(cooked.rows),
        "foot": foot,
        "lacking": unwritable(recipe, cooked),
    }


def _row(project: Project, cooked: Cooked, row: Row) -> ListRow:
    whys = {n: row.whys[name] for n, name in enumerate(cooked.names) if name in row.whys and row[n] == ""}
    return {"cells": list(row), "to": address_of(project, row.lead), "whys": whys}


def foot_of(project: Project, report: str, user: User) -> tuple[str, ...]:
    """Return which copies of parts differ from the library, below lists of parts."""
    return tuple(stale_lines(project, user)) if report in OF_PARTS else ()
