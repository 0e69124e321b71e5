"""What the browser shows of a sheet as JSON values, in two parts: the drawing, and what is found on it.

What is found, wires and snags, costs as much to work out as the drawing; so an edit is answered with the drawing, and
the browser asks for what is found when that is painted.
"""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from jolly_core.checks import Snag, snags_on
from jolly_core.drawing import GRID_MM, ladder_lines, place_on
from jolly_core.edits import parse_edit
from jolly_core.library import definition
from jolly_core.model import Project, Symbol, derived, derived_few
from jolly_core.reports import WireRow, sheet_wires
from jolly_core.scenes import Item, Scene, generated_pages, is_generated, made, page_of, page_scene, sheet_scene
from jolly_core.tagging import lead_of, tag_on
from jolly_server.shapes.sceneshapes import item_value

from .store import Loaded
from .versions import KEEP_SUBJECTS, View, difference
from .viewshapes import DeviceRowValue, SheetFacts, SnagAct, SnagRowValue, WireRowValue


@derived_few(KEEP_SUBJECTS)
def drawing_view(project: Project, sheet_id: str) -> View:
    """Return what is drawn on a sheet as sections of values by id: items, devices, and the sheet's own facts."""
    if made(project, sheet_id):
        return _made_view(project, sheet_id)
    project.get("sheet", sheet_id)
    return {
        "items": _items_of(project, sheet_id),
        "devices": _devices_on(project, sheet_id),
        "sheet": {"sheet": _facts(project, sheet_id)},
    }


@derived_few(KEEP_SUBJECTS)
def findings_view(project: Project, sheet_id: str) -> View:
    """Return what is found on a sheet as sections of values by id: wires and snags; none on what is made."""
    if made(project, sheet_id):
        return {"wires": {}, "snags": {}}
    return {
        "wires": {f"{r.start}>{r.end}": _wire_value(r) for r in sheet_wires(project, sheet_id)},
        "snags": _snags_on(project, sheet_id),
    }


def _items_of(project: Project, sheet_id: str) -> dict[str, Any]:
    """Return the values of the items of a scene; those of items that are the same as the last time are the same."""
    known: dict[str, dict[str, tuple[Item, Any]]] = project.kept.setdefault("item values", {})
    before = known.get(sheet_id, {})
    if sheet_id not in known and len(known) >= KEEP_SUBJECTS:
        known.pop(next(iter(known)))
    now = known[sheet_id] = {}
    for id, item in sheet_scene(project, sheet_id).items.items():
        same = before.get(id)
        now[id] = same if same is not None and same[0] is item else (item, item_value(item))
    return {id: value for id, (_, value) in now.items()}


def _wire_value(row: WireRow) -> WireRowValue:
    return {
        "id": f"{row.start}>{row.end}",
        "number": row.number,
        "from": row.start,
        "to": row.end,
        "type": row.type_name,
        "colour": row.colour,
        "size": row.cross_section,
        "place": row.place,
        "wire_id": row.wire_id,
        "wires": list(row.wires),
        "pins": row.pins,
        "own": row.own,
    }


@derived
def _devices_on(project: Project, sheet_id: str) -> dict[str, DeviceRowValue]:
    found: dict[str, list[Symbol]] = {}
    for symbol in project.symbols_on(sheet_id):
        if symbol.device_id in project.devices:
            found.setdefault(symbol.device_id, []).append(symbol)
    return {id: _device_value(project, sheet_id, id, tuple(s.id for s in symbols)) for id, symbols in found.items()}


@derived
def _device_value(project: Project, sheet_id: str, device_id: str, symbols: tuple[str, ...]) -> DeviceRowValue:
    sheet, device = project.sheets[sheet_id], project.devices[device_id]
    first = project.symbols[symbols[0]]
    part = project.part_of(device)
    return {
        "id": device_id,
        "tag": tag_on(project, device, sheet),
        "text": device.text,
        "part": part.number if part else "",
        "what": definition((lead_of(project, device_id) or first).definition).name,
        "place": place_on(sheet, first.x, first.y),
        "symbols": list(symbols),
    }


@derived
def _snags_on(project: Project, sheet_id: str) -> dict[str, SnagRowValue]:
    sheet = project.sheets[sheet_id]
    return {
        f"{s.code}:{','.join(s.ids)}:{s.x},{s.y}": {
            "order": number,
            "key": s.key,
            "code": s.code,
            "severity": s.severity,
            "message": s.message,
            "ids": list(s.ids),
            "at": (s.x * GRID_MM, s.y * GRID_MM),
            "place": place_on(sheet, s.x, s.y),
            "mend": s.mend,
            "device_id": s.device_id,
            "act": act_of(s),
        }
        for number, s in enumerate(snags_on(project, sheet_id))
    }


@derived
def _facts(project: Project, sheet_id: str) -> SheetFacts:
    sheet, scene = project.sheets[sheet_id], sheet_scene(project, sheet_id)
    return {
        "id": sheet.id,
        "number": sheet.number,
        "title": sheet.title,
        "kind": sheet.kind,
        "made": False,
        "frame": sheet.frame,
        "function_id": sheet.function_id,
        "location_id": sheet.location_id,
        "width": scene.width,
        "height": scene.height,
        "lines": ladder_lines(sheet),
        "rails": (sheet.rail_left, sheet.rail_right),
        "standard": project.settings.standard,
    }


def act_of(snag: Snag) -> SnagAct | None:
    """Return the edit that puts a snag right, with the word for its button.

    None where there is no single one, or where a check of a package of somebody's own names one that cannot be read.
    """
    if snag.act is None:
        return None
    try:
        return {"label": snag.act.label, "edit": parse_edit(snag.act.payload())}
    except ValidationError:
        return None


def _items(scene: Scene) -> dict[str, Any]:
    return {i.id: item_value(i) for i in scene.items.values()}


def _made_view(project: Project, page_id: str) -> View:
    """Return what is made from the project as sections; nothing is drawn on it, so only items and facts are filled."""
    page = page_of(project, page_id) if is_generated(page_id) else project.get("sheet", page_id)
    scene = page_scene(project, page_id)
    facts: SheetFacts = {
        "id": page.id,
        "number": page.number,
        "title": page.title,
        "kind": page.kind,
        "made": True,
        "frame": "plan",
        "function_id": getattr(page, "function_id", ""),
        "location_id": getattr(page, "location_id", ""),
        "width": scene.width,
        "height": scene.height,
        "lines": [],
        "rails": (0, 0),
        "standard": project.settings.standard,
    }
    return {"items": _items(scene), "devices": {}, "sheet": {"sheet": facts}}


def has_page(project: Project, id: str) -> bool:
    """Return whether a sheet or generated page of an id is in the project."""
    return id in project.sheets or (is_generated(id) and any(p.id == id for p in generated_pages(project)))


def current_drawing(held: Loaded, sheet_id: str) -> View:
    """Return what is drawn on a sheet at the loaded revision, noted for the differences asked for next."""
    return _noted(held, sheet_id, drawing_view(held.project, sheet_id))


def drawing_at(held: Loaded, sheet_id: str, revision: int) -> View | None:
    """Return what was drawn on a sheet at a revision, None when that is not known any more."""
    return held.shown.at(sheet_id, revision)


def news_of(held: Loaded, sheet_id: str, since: int, found: int) -> dict[str, Any]:
    """Return what changed on a sheet since revisions, or all of it when one of them is no longer known.

    Args:
        since: the revision at which the browser has what is drawn.
        found: the revision at which it has what is found, -1 when it has nothing of that yet.
    """
    drawing = current_drawing(held, sheet_id)
    subject = f"found on {sheet_id}"
    findings = _noted(held, subject, findings_view(held.project, sheet_id))
    was, had = drawing_at(held, sheet_id, since), held.shown.at(subject, found) if found >= 0 else {}
    if was is None or had is None:
        return difference(None, {**drawing, **findings})
    parts = difference(was, drawing), difference(had, findings)
    return {"whole": False, **{key: {**parts[0][key], **parts[1][key]} for key in ("put", "drop")}}


def _noted(held: Loaded, subject: str, view: View) -> View:
    held.shown.note(subject, held.revision, view)
    return view
