"""Recipes of lists, and packs of files that are issued together."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field

from jolly_core.model import Pack, Recipe, RuleError, in_language
from jolly_core.model.entities.issuing import DECIMALS, ENCODINGS, HEADS, SEPARATORS
from jolly_core.reports import check_recipe
from jolly_core.tagging import check_fields, natural

from ..base.edit import ConductorKey, Id, Payload, Text, Work, edit

Strings = Annotated[list[Text], Field(max_length=60)]


def _facts(most: int) -> Any:
    return Field(max_length=most, default_factory=list)


def _one_of(words: tuple[str, ...]) -> Any:
    def check(value: str) -> str:
        if value not in words:
            raise ValueError(f"It should be one of {', '.join(words)}.")
        return value

    return AfterValidator(check)


class KeepRecipe(Payload):
    """Keep a recipe of a list: a new one without an id, else in place of the one there is."""

    kind: Literal["keep-recipe"] = "keep-recipe"
    recipe_id: Id = ""
    name: Text
    report: Text
    columns: Annotated[list[dict[str, ConductorKey]], _facts(60)]
    filters: Annotated[list[dict[str, ConductorKey]], _facts(20)]
    groups: Annotated[list[Text], _facts(4)]
    sums: Annotated[list[Text], _facts(60)]
    sort: Annotated[list[Text], _facts(8)]
    merged: bool = False
    breaks: bool = False
    head: ConductorKey = "{project number} {project}, revision {project revision}"
    head_on: Annotated[str, _one_of(HEADS)] = "all"
    separator: Annotated[str, _one_of(SEPARATORS)] = ","
    decimal: Annotated[str, _one_of(DECIMALS)] = "."
    encoding: Annotated[str, _one_of(ENCODINGS)] = "utf-8 with mark"


def recipe_of(payload: KeepRecipe, id: str) -> Recipe:
    """Return the recipe that a payload describes."""
    values = payload.model_dump(exclude={"kind", "recipe_id"})
    for name in ("columns", "filters", "groups", "sums", "sort"):
        values[name] = tuple(values[name])
    return Recipe(id, **{**values, "name": payload.name.strip()})


@edit(
    KeepRecipe,
    {
        "name": "Panel devices by supplier",
        "report": "devices",
        "columns": [{"key": "tag"}, {"key": "number"}, {"key": "sum", "heading": "Price"}],
        "groups": ["supplier"],
        "sums": ["sum"],
    },
)
def keep_recipe(work: Work, payload: KeepRecipe) -> str:
    """Work out KeepRecipe."""
    project = work.project
    if payload.recipe_id:
        project.get("recipe", payload.recipe_id)
    made = recipe_of(payload, payload.recipe_id or work.ids.new())
    _named(made.name, {r.name: r.id for r in project.recipes.values()}, made.id, "recipe")
    check_recipe(project, made)
    check_fields(project, made.head)
    work.put("recipe", made)
    if not payload.recipe_id:
        work.outcome.placed.append(made.id)
    return f"recipe {made.name}"


def _named(name: str, taken: dict[str, str], id: str, what: str) -> None:
    if not name:
        raise RuleError(f"Give the {what} a name.", field="name")
    if taken.get(name, id) != id:
        raise RuleError(f"There is a {what} “{name}” already. Choose another name.", field="name")


class RemoveRecipe(Payload):
    """Remove a recipe that no pack and no sheet uses."""

    kind: Literal["remove-recipe"] = "remove-recipe"
    recipe_id: Id


@edit(RemoveRecipe, {"recipe_id": "r1"})
def remove_recipe(work: Work, payload: RemoveRecipe) -> str:
    """Work out RemoveRecipe."""
    project = work.project
    recipe: Recipe = project.get("recipe", payload.recipe_id)
    sheets = [s.number for s in project.sheets_in_order() if s.report == recipe.id]
    tables = [f.sheet_id for f in project.figures.values() if f.kind == "table" and f.text == recipe.id]
    sheets += [project.sheets[id].number for id in tables]
    if sheets:
        shown = ", ".join(sorted(set(sheets), key=natural))
        raise RuleError(f"Sheet {shown} shows “{recipe.name}”. Choose another list there first.", field="recipe_id")
    for pack in list(project.packs.values()):
        if any(f.get("what") == f"list:{recipe.id}" for f in pack.files):
            raise RuleError(f"The pack “{pack.name}” has “{recipe.name}” in it. Take it out first.", field="recipe_id")
    work.remove("recipe", recipe.id)
    return f"remove recipe {recipe.name}"


class KeepPack(Payload):
    """Keep a pack: a new one without an id, else in place of the one there is."""

    kind: Literal["keep-pack"] = "keep-pack"
    pack_id: Id = ""
    name: Text
    files: Annotated[list[dict[str, Text]], _facts(200)]
    pattern: ConductorKey = "{project number}-{project revision}-{kind}"
    language: Text = ""


@edit(KeepPack, {"name": "For the shop", "files": [{"what": "drawings", "format": "pdf"}]})
def keep_pack(work: Work, payload: KeepPack) -> str:
    """Work out KeepPack."""
    project = work.project
    if payload.pack_id:
        project.get("pack", payload.pack_id)
    in_language(project, payload.language)
    id, pattern = payload.pack_id or work.ids.new(), payload.pattern.strip()
    made = Pack(id, payload.name.strip(), tuple(payload.files), pattern, payload.language)
    _named(made.name, {p.name: p.id for p in project.packs.values()}, made.id, "pack")
    for file in made.files:
        if not file.get("what"):
            raise RuleError("Each file of a pack says what it is.", field="files")
        kind, _, subject = file["what"].partition(":")
        if kind == "list" and subject not in project.recipes:
            raise RuleError("A list in this pack is no recipe of the project.", field="files")
    work.put("pack", made)
    if not payload.pack_id:
        work.outcome.placed.append(made.id)
    return f"pack {made.name}"


class RemovePack(Payload):
    """Remove a pack; what was issued with it stays."""

    kind: Literal["remove-pack"] = "remove-pack"
    pack_id: Id


@edit(RemovePack, {"pack_id": "k1"})
def remove_pack(work: Work, payload: RemovePack) -> str:
    """Work out RemovePack."""
    pack: Pack = work.project.get("pack", payload.pack_id)
    work.remove("pack", pack.id)
    return f"remove pack {pack.name}"
