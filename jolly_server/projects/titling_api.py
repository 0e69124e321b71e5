"""Sheets as a table, title blocks, their fields and pictures."""

import base64

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from typing_extensions import TypedDict

from jolly_core.drawing import habit_of
from jolly_core.harness import harnesses
from jolly_core.library import BlockPattern, block_of, built_in_blocks, pattern_of
from jolly_core.model import (
    SHEET_KINDS,
    SHEET_SIZES_MM,
    SHEET_SUBJECTS,
    GoneError,
    Project,
    RuleError,
    Sheet,
    TitleBlock,
    to_record,
)
from jolly_core.model.entities.structure import SheetSubject
from jolly_core.plc import cards
from jolly_core.reports import grouped_reports
from jolly_core.scenes import block_scene
from jolly_core.tagging import FIELDS, full_tag, natural, own_names
from jolly_core.terminals import strips
from jolly_server.library.services import keep_title_block, kept_title_blocks
from jolly_server.shapes.recordshapes import HabitRecord, SheetRecord, TitleBlockRecord, TitleCellRecord
from jolly_server.shapes.sceneshapes import SceneValue, scene_value

from .access import role_in
from .inspect import SheetKindValue, sheet_kinds
from .store import loaded

router = Router(tags=["sheets and title blocks"])


class Named(TypedDict):
    """A thing by id and name."""

    id: str
    name: str


class BlockName(Named):
    """A title block of the project, and what uses it, in words."""

    used: str


class PictureName(Named):
    """A picture by name, with its size in pixels."""

    width_px: int
    height_px: int


class FieldValue(TypedDict):
    """A field of title blocks: its name, what it is, and what it says on the sheet."""

    name: str
    help: str
    text: str


class SheetKindSubject(SheetKindValue):
    """A kind of sheet, and the field that names what it shows, "" where it shows nothing of the kind."""

    subject: SheetSubject


class Sheets(TypedDict):
    """All sheets with all that is said of them, and what the choices are; `subjects` by kind of sheet."""

    sheets: list[SheetRecord]
    habits: list[HabitRecord]
    kinds: list[SheetKindSubject]
    sizes: list[str]
    blocks: list[Named]
    own_fields: list[str]
    subjects: dict[str, list[Named]]


class TitleBlocks(TypedDict):
    """The title blocks of project, application and library, and one of them with its cells as it looks on a sheet."""

    project: list[BlockName]
    built_in: list[Named]
    library: list[Named]
    block: TitleBlockRecord
    cells: list[TitleCellRecord]
    scene: SceneValue
    fields: list[FieldValue]
    pictures: list[PictureName]


class Keep(Schema):
    """A title block of the project to be kept in the library, under its name."""

    block_id: str


def _by_tag(named: tuple[str, str]) -> tuple[object, ...]:
    return natural(named[0]), named[1]


@router.get("/{project_id}/sheets", response=Sheets)
def sheets(request: HttpRequest, project_id: str) -> Sheets:
    """Give all sheets with all that is said of them, and what the choices are."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        p = held.project
        cables = sorted(((full_tag(p, p.devices[c.device_id]), c.device_id) for c in p.cables.values()), key=_by_tag)
        enclosures = sorted(((full_tag(p, p.devices[e.device_id]), e.id) for e in p.enclosures.values()), key=_by_tag)
        return {
            "sheets": [to_record(s) for s in p.sheets_in_order()],
            "habits": [to_record(habit_of(p, k)) for k in SHEET_KINDS],
            "kinds": [{**k, "subject": SHEET_SUBJECTS.get(k["id"], "")} for k in sheet_kinds()],
            "sizes": list(SHEET_SIZES_MM),
            "blocks": [{"id": b.id, "name": b.name} for b in _blocks(p)],
            "own_fields": own_names(p),
            "subjects": {
                "terminal-plan": [{"id": d.id, "name": full_tag(p, d)} for d in strips(p)],
                "cable-plan": [{"id": id, "name": tag} for tag, id in cables],
                "card-plan": [{"id": c.device_id, "name": full_tag(p, p.devices[c.device_id])} for c in cards(p)],
                "panel-layout": [{"id": id, "name": tag} for tag, id in enclosures],
                "form-board": [{"id": h.id, "name": h.code} for h in harnesses(p)],
                "report": _lists(p),
            },
        }


def _blocks(project: Project) -> list[TitleBlock]:
    """Return the title blocks of a project by name."""
    return sorted(project.title_blocks.values(), key=lambda b: (natural(b.name), b.id))


def _lists(project: Project) -> list[Named]:
    """Return what a made sheet can list: the project's recipes, then the reports."""
    recipes = sorted(project.recipes.values(), key=lambda r: (natural(r.name), r.id))
    found: list[Named] = [{"id": r.id, "name": r.name} for r in recipes]
    return found + [{"id": r.key, "name": r.title} for _, r in grouped_reports()]


@router.get("/{project_id}/title-blocks", response=TitleBlocks)
def title_blocks(request: HttpRequest, project_id: str, block: str = "", sheet_id: str = "") -> TitleBlocks:
    """Give the title blocks there are, and one of them with its cells as it looks on a sheet."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        p = held.project
        sheet = p.sheets.get(sheet_id) or next(iter(p.sheets_in_order()), Sheet("", "1", "Title of the sheet"))
        pattern = _pattern(p, block) if block else block_of(p, sheet)
        return {
            "project": [{"id": b.id, "name": b.name, "used": _used(p, b.id)} for b in _blocks(p)],
            "built_in": [{"id": b.block.id, "name": b.block.name} for b in built_in_blocks().values()],
            "library": _kept(),
            "block": to_record(pattern.block),
            "cells": [to_record(c) for c in sorted(pattern.cells, key=lambda c: (c.y, c.x, c.id))],
            "scene": scene_value(block_scene(p, sheet, pattern)),
            "fields": [*_fields(p, sheet), *_own_fields(p, sheet)],
            "pictures": [
                {"id": i.id, "name": i.name, "width_px": i.width_px, "height_px": i.height_px}
                for i in sorted(p.pictures.values(), key=lambda i: (natural(i.name), i.id))
            ],
        }


def _fields(project: Project, sheet: Sheet) -> list[FieldValue]:
    return [{"name": f.name, "help": f.help, "text": f.of(project, sheet)} for f in FIELDS.values()]


def _own_fields(project: Project, sheet: Sheet) -> list[FieldValue]:
    texts = {**project.settings.own_fields, **{name: text for name, text in sheet.fields.items() if text}}
    return [{"name": name, "help": "own field", "text": texts.get(name, "")} for name in own_names(project)]


def _pattern(project: Project, block: str) -> BlockPattern:
    found = pattern_of(project, block) or built_in_blocks().get(block)
    if found is None:
        raise GoneError("This title block is no longer in the project.", ids=(block,))
    return found


def _used(project: Project, block_id: str) -> str:
    count = sum(s.title_block_id == block_id for s in project.sheets.values())
    words = ["the project"] if project.settings.title_block_id == block_id else []
    words += [f"{count} {'sheet' if count == 1 else 'sheets'}"] if count else []
    return " and ".join(words)


@router.post("/{project_id}/title-blocks/keep", response=list[Named])
def keep(request: HttpRequest, project_id: str, payload: Keep) -> list[Named]:
    """Keep a title block of the project in the library, in place of one of the same name."""
    role_in(request, project_id, "editor")
    held = loaded(project_id)
    with held.lock:
        pattern = pattern_of(held.project, payload.block_id)
    if pattern is None:
        raise RuleError("Only a title block of the project can be kept. Take it into the project first.")
    keep_title_block(pattern)
    return _kept()


def _kept() -> list[Named]:
    return [{"id": id, "name": name} for id, name in kept_title_blocks()]


@router.get("/{project_id}/pictures/{picture_id}")
def picture(request: HttpRequest, project_id: str, picture_id: str) -> HttpResponse:
    """Give a picture of the project."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        found = held.project.get("picture", picture_id)
    response = HttpResponse(base64.b64decode(found.data), content_type=found.media_type)
    response.headers["Cache-Control"] = "private, max-age=86400, immutable"
    response.headers["X-Content-Type-Options"] = "nosniff"
    return response
