"""What the browser shows of a sheet: its scene and ledger as JSON values."""

from __future__ import annotations

from typing import Any

from jolly_core.checks import Snag, snags_on
from jolly_core.drawing import GRID_MM, ladder_lines, place_on
from jolly_core.library import definition
from jolly_core.model import Project, derived_few
from jolly_core.reports import sheet_wires
from jolly_core.scenes import Scene, generated_pages, is_generated, made, page_of, page_scene, sheet_scene
from jolly_core.tagging import lead_of, tag_on

from .store import Loaded
from .versions import KEEP_SUBJECTS, View


@derived_few(KEEP_SUBJECTS)
def sheet_view(project: Project, sheet_id: str) -> View:
    """Return the sheet as sections of values by id: items, wires, devices, snags, and the sheet's own facts."""
    if made(project, sheet_id):
        return _made_view(project, sheet_id)
    sheet = project.get("sheet", sheet_id)
    scene = sheet_scene(project, sheet_id)
    items = _items(scene)
    wires = {
        f"{c.start}>{c.end}": {
            "id": f"{c.start}>{c.end}",
            "number": c.number,
            "from": c.start,
            "to": c.end,
            "type": c.type_name,
            "colour": c.colour,
            "size": c.cross_section,
            "place": c.place,
            "wire_id": c.wire_id,
            "wires": list(c.wires),
            "pins": list(c.pins),
            "own": c.own,
        }
        for c in sheet_wires(project, sheet_id)
    }
    devices: dict[str, Any] = {}
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if device is None:
            continue
        lead = lead_of(project, device.id)
        row = devices.setdefault(
            device.id,
            {
                "id": device.id,
                "tag": tag_on(project, device, sheet),
                "text": device.text,
                "part": "",
                "what": definition((lead or symbol).definition).name,
                "place": place_on(sheet, symbol.x, symbol.y),
                "symbols": [],
            },
        )
        part = project.part_of(device)
        row["part"] = part.number if part else ""
        row["symbols"].append(symbol.id)
    snags = {}
    for number, s in enumerate(snags_on(project, sheet_id)):
        snags[f"{s.code}:{','.join(s.ids)}:{s.x},{s.y}"] = {
            "order": number,
            "key": s.key,
            "code": s.code,
            "severity": s.severity,
            "message": s.message,
            "ids": list(s.ids),
            "at": [s.x * GRID_MM, s.y * GRID_MM],
            "place": place_on(sheet, s.x, s.y),
            "mend": s.mend,
            "device_id": s.device_id,
            "act": act_of(s),
        }
    facts = {
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
        "lines": [list(line) for line in ladder_lines(sheet)],
        "rails": [sheet.rail_left, sheet.rail_right],
        "standard": project.settings.standard,
    }
    return {"items": items, "wires": wires, "devices": devices, "snags": snags, "sheet": {"sheet": facts}}


def act_of(snag: Snag) -> dict[str, Any] | None:
    """Return the edit that puts a snag right, with the word for its button, None where there is no single one."""
    return {"label": snag.act.label, "edit": snag.act.payload()} if snag.act else None


def _items(scene: Scene) -> dict[str, Any]:
    return {
        i.id: {"id": i.id, "kind": i.kind, "prims": i.prims, "box": list(i.box), "facts": i.facts}
        for i in scene.items.values()
    }


def _made_view(project: Project, page_id: str) -> View:
    """Return what is made from the project as sections; nothing is drawn on it, so only items and facts are filled."""
    page = page_of(project, page_id) if is_generated(page_id) else project.get("sheet", page_id)
    scene = page_scene(project, page_id)
    facts = {
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
        "rails": [0, 0],
        "standard": project.settings.standard,
    }
    return {"items": _items(scene), "wires": {}, "devices": {}, "snags": {}, "sheet": {"sheet": facts}}


def has_page(project: Project, id: str) -> bool:
    """Return whether a sheet or generated page of an id is in the project."""
    return id in project.sheets or (is_generated(id) and any(p.id == id for p in generated_pages(project)))


def current_view(held: Loaded, sheet_id: str) -> View:
    """Return the sheet's view at the loaded revision, noted for the differences asked for next."""
    view = sheet_view(held.project, sheet_id)
    held.shown.note(sheet_id, held.revision, view)
    return view
