"""The open project file, `.spool.json`: a whole project as JSON in canonical order.

Layout: {"format": "jolly-spool-project", "version": 5, "entities": {kind: [records by id]}}. Kinds without records are
left out. `docs/formats/project-14.schema.json` describes it; files of older versions are read too (`versions.py`).
"""

from __future__ import annotations

import json
from typing import Any

from jolly_core.drawing import is_canonical, pin_points, through_spans
from jolly_core.library import definition, is_class, is_known
from jolly_core.library.pictures import read_picture
from jolly_core.model import (
    KINDS,
    SETTINGS_ID,
    CoreError,
    FileError,
    Project,
    RuleError,
    circles,
    from_record,
    to_record,
    uncollected,
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


@uncollected
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
        table = {e.id: e for e in loaded}
        if len(table) != len(loaded):
            raise FileError(f"Two {kind} entries have the same id.", field="id")
        for id, field in circles(KINDS[kind], table):
            raise FileError(f"The {kind} {id} names itself by its “{field}”, over others or at once.", field=field)
        project.load(kind, loaded)
    _check(project)
    counts = {kind: len(table) for kind, table in project.tables.items() if table}
    return project, raw["version"], counts


def _check(project: Project) -> None:
    if set(project.tables["settings"]) != {SETTINGS_ID}:
        raise FileError("The project file must have exactly one settings entry.", field="settings")
    for kind, spec in KINDS.items():
        for id, entity in project.tables[kind].items():
            for field, mark in spec.names.items():
                named = getattr(entity, field)
                if named and named not in project.tables[mark.kind]:
                    words = f"names a {mark.kind} {named} that is not in the file"
                    raise FileError(f"The {kind} {id} {words}.", field=field)
                if not named and mark.needed:
                    raise FileError(f"The {kind} {id} names no {mark.kind}.", field=field)
    for id, symbol in project.symbols.items():
        if not is_known(symbol.definition):
            raise FileError(f"The symbol {id} is a “{symbol.definition}”, which is not known here.", field="definition")
        definition(symbol.definition)
        if not symbol.units:
            raise FileError(f"The symbol {id} stands for no unit.", field="units")
    for id, part in project.parts.items():
        if not is_class(part.part_class):
            raise FileError(f"The part {id} is of the class “{part.part_class}”, which is not known here.")
    for id, picture in project.pictures.items():
        try:
            found = read_picture(picture.data)
        except RuleError as error:
            raise FileError(f"The picture {id}: {error.message}", field="data") from None
        if found != (picture.media_type, picture.width_px, picture.height_px):
            raise FileError(f"The picture {id} is not of the type and size it says.", field="media_type")
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
