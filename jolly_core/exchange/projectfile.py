"""The open project file, `.spool.json`: a whole project as JSON in canonical order.

Layout: {"format": "jolly-spool-project", "version": 3, "entities": {kind: [records by id]}}. Kinds without records are
left out. `docs/formats/project-4.schema.json` describes it; files of older versions are read too (`versions.py`).
"""

from __future__ import annotations

import json
from typing import Any

from jolly_core.drawing import is_canonical, pin_points, through_spans
from jolly_core.library import definition, is_class, is_known
from jolly_core.model import (
    CHOICES,
    KINDS,
    NEEDED,
    REFERENCES,
    SETTINGS_ID,
    CoreError,
    FileError,
    Project,
    from_record,
    to_record,
)

from .versions import VERSION, bring_up

FORMAT = "jolly-spool-project"


def write_project(project: Project) -> str:
    """Return the project file; the same project always gives the same text."""
    entities: dict[str, list[dict[str, Any]]] = {}
    for kind, entity in project.entities():
        entities.setdefault(kind, []).append(to_record(entity))
    return json.dumps({"format": FORMAT, "version": VERSION, "entities": entities}, ensure_ascii=False, indent=1) + "\n"


def read_project(text: str | bytes) -> Project:
    """Return the project a file holds, checked throughout.

    Raises:
        FileError: see `read_summary`.
    """
    return read_summary(text)[0]


def read_summary(text: str | bytes) -> tuple[Project, int, dict[str, int]]:
    """Return the project a file holds, checked throughout, the version of the file, and how many of each kind it has.

    Raises:
        FileError: it is not a project file, of a newer version, or something in it is wrong; the message names the
            entity and field, so that the file can be mended.
    """
    try:
        raw = json.loads(text)
    except (ValueError, RecursionError):
        raise FileError("This is not a project file: it is not JSON. Choose a .spool.json file.") from None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT:
        raise FileError("This is not a Jolly Spool project file. Choose a .spool.json file.")
    entities = raw.get("entities")
    if not isinstance(entities, dict):
        raise FileError("The project file has no entities.", field="entities")
    bring_up(raw.get("version"), entities)
    project = Project()
    for kind in entities:
        if kind not in KINDS:
            raise FileError(f"“{kind}” is not a kind of thing a project holds.")
    for kind in KINDS:
        records = entities.get(kind, [])
        if not isinstance(records, list):
            raise FileError(f"The {kind} entries should be a list.", field=kind)
        loaded = [from_record(kind, record) for record in records]
        if len({e.id for e in loaded}) != len(loaded):
            raise FileError(f"Two {kind} entries have the same id.", field="id")
        project.load(kind, loaded)
    _check(project)
    counts = {kind: len(table) for kind, table in project.tables.items() if table}
    return project, raw["version"], counts


def _check(project: Project) -> None:
    if set(project.tables["settings"]) != {SETTINGS_ID}:
        raise FileError("The project file must have exactly one settings entry.", field="settings")
    for kind, references in REFERENCES.items():
        for id, entity in project.tables[kind].items():
            for field, target in references.items():
                named = getattr(entity, field)
                if named and named not in project.tables[target]:
                    raise FileError(f"The {kind} {id} names a {target} {named} that is not in the file.", field=field)
                if not named and field in NEEDED.get(kind, ()):
                    raise FileError(f"The {kind} {id} names no {target}.", field=field)
    for kind, choices in CHOICES.items():
        for id, entity in project.tables[kind].items():
            for field, allowed in choices.items():
                if getattr(entity, field) not in allowed:
                    words = ", ".join(allowed)
                    raise FileError(f"In the {kind} {id}, “{field}” should be one of {words}.", field=field)
    for id, symbol in project.symbols.items():
        if not is_known(symbol.definition):
            raise FileError(f"The symbol {id} is a “{symbol.definition}”, which is not known here.", field="definition")
        definition(symbol.definition)
        if symbol.rotation not in (0, 90, 180, 270) or not symbol.units:
            raise FileError(f"The symbol {id} has a rotation or units that cannot be.", field="rotation")
    for id, part in project.parts.items():
        if not is_class(part.part_class):
            raise FileError(f"The part {id} is of the class “{part.part_class}”, which is not known here.")
    for like in [*project.tables["sheet"].values(), *project.tables["sheet_habit"].values()]:
        if min(like.columns, like.rows, like.line_count, like.line_spacing) < 1 or like.ladders not in (1, 2):
            raise FileError(f"The sheet {like.id} has zones or ladder lines that cannot be.", field="sheet")
    for cell in project.title_cells.values():
        if min(cell.x, cell.y, cell.width, cell.height, cell.size_mm) < 0:
            raise FileError(f"The title cell {cell.id} has a place or size that cannot be.", field="title_cell")
    for sheet in project.sheets.values():
        symbols = project.symbols_on(sheet.id)
        pins = [p for s in symbols for p in pin_points(s)]
        pins += [(c.x, c.y) for c in project.continuations_on(sheet.id)]
        spans = [span for s in symbols for span in through_spans(s)]
        try:
            good = is_canonical(project.wires_on(sheet.id), pins, spans)
        except CoreError as error:
            raise FileError(f"Sheet {sheet.number}: {error.message}", field="wire") from None
        if not good:
            raise FileError(f"The wires of sheet {sheet.number} are not in canonical form.", field="wire")
