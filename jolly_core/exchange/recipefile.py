"""A recipe as a file of its own, `.recipe.json`, so that it can go to another project, machine or office.

Layout: {"format": "jolly-spool-recipe", "version": 1, "recipe": the record without its id}.
"""

from __future__ import annotations

import json
from dataclasses import replace

from jolly_core.model import FileError, Project, Recipe, from_record, to_record
from jolly_core.reports import check_recipe

FORMAT, VERSION = "jolly-spool-recipe", 1


def write_recipe(recipe: Recipe) -> str:
    """Return the file of a recipe; the same recipe always gives the same text."""
    record = to_record(recipe)
    del record["id"]
    return json.dumps({"format": FORMAT, "version": VERSION, "recipe": record}, ensure_ascii=False, indent=1) + "\n"


def read_recipe(project: Project, content: bytes) -> Recipe:
    """Return the recipe of a file, with no id: it is in no project yet.

    Raises:
        FileError: it is not the file of a recipe, of a newer version, or something in it is wrong.
        RuleError: the recipe cannot be followed here, as `check_recipe` says.
    """
    try:
        raw = json.loads(content)
    except (ValueError, RecursionError):
        raw = None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT or not isinstance(raw.get("recipe"), dict):
        raise FileError("This is not the file of a recipe. Choose a .recipe.json file.")
    if raw.get("version") != VERSION:
        raise FileError(f"This recipe is of version {raw.get('version')}; version {VERSION} can be read here.")
    recipe: Recipe = from_record("recipe", {**raw["recipe"], "id": "new"})
    check_recipe(project, recipe)
    return replace(recipe, id="")
