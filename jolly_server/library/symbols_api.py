"""The symbol maker: drawn symbols kept and looked at on wires, graphics from files, outlines of parts."""

from __future__ import annotations

from typing import Any, Literal, NotRequired

from django.http import HttpRequest
from ninja import File, Form, Router, Schema
from ninja.files import UploadedFile
from typing_extensions import TypedDict

from jolly_core.edits import symbol_on_wires
from jolly_core.exchange import graphics_in
from jolly_core.library import (
    base_of,
    definition,
    definitions,
    drawn_key,
    is_drawn,
    outline_art,
    outline_key,
    part_class,
    sketch_from,
    unit_kinds,
)
from jolly_core.scenes import Prim, art_of, drawn, kept, sheet_scene
from jolly_server.shapes.sceneshapes import AnyPrim, SceneItem, item_value

from .drawn import drawn_symbols, drop_symbol, keep_symbol
from .models import LibrarySymbol

router = Router(tags=["symbols"])
STEP_MM = 2.5
MARGIN_MM = 8.0
STANDARDS = ("iec", "na")


class DrawnSymbol(TypedDict):
    """A symbol that somebody drew, with its graphics in mm."""

    id: str
    name: str
    key: str
    class_name: str
    unit: str
    nicknames: list[str]
    poles: int
    by: str
    at: str
    art: list[AnyPrim]


class SymbolLook(TypedDict):
    """A symbol as it stands on wires: its key, what is drawn, and the box around it in mm."""

    key: str
    items: list[SceneItem]
    box: tuple[float, float, float, float]


SketchValue = TypedDict(
    "SketchValue",
    {
        "name": str,
        "class": str,
        "unit": str,
        "leads": bool,
        "nicknames": list[str],
        "poles": int,
        "pins": list[tuple[int, int, str]],
        "through": list[tuple[int, int]],
        "iec": list[AnyPrim],
        "na": NotRequired[list[AnyPrim]],
        "places": NotRequired[dict[str, tuple[float, float]]],
    },
)


class FittingSymbol(TypedDict):
    """A symbol a unit may be drawn with."""

    key: str
    name: str
    art: list[AnyPrim]


class SketchIn(Schema):
    """A symbol as it is drawn, see jolly_core.library.drawn_key; `id` is the library's symbol it changes."""

    sketch: SketchValue
    id: str = ""
    standard: Literal["iec", "na"] = "iec"
    poles: int = 1


class ArtIn(Schema):
    """Graphics of an outline, mm."""

    art: list[AnyPrim]


class KeyIn(Schema):
    """A key of a symbol or outline."""

    key: str


@router.get("/drawn-symbols", response=list[DrawnSymbol])
def own_symbols(request: HttpRequest) -> list[DrawnSymbol]:
    """List the symbols that people drew."""
    return [_row(s) for s in drawn_symbols()]


@router.post("/drawn-symbols", response=DrawnSymbol)
def keep(request: HttpRequest, body: SketchIn) -> DrawnSymbol:
    """Keep a new or changed symbol."""
    return _row(keep_symbol(_kept_sketch(body.sketch), request.user.get_username(), body.id))


@router.delete("/drawn-symbols/{id}", response=bool)
def drop(request: HttpRequest, id: str) -> bool:
    """Take a symbol out of the library; what is drawn with it stays."""
    return drop_symbol(id)


@router.post("/symbol-look", response=SymbolLook)
def look(request: HttpRequest, body: SketchIn) -> SymbolLook:
    """Show a symbol as it would stand on wires, level and upright; nothing is kept."""
    key = drawn_key(_kept_sketch(body.sketch))
    project, sheet_id = symbol_on_wires(key, body.standard, body.poles)
    items = [i for i in sheet_scene(project, sheet_id).items.values() if i.kind in ("symbol", "wire", "dot", "number")]
    boxes = [i.box for i in items]
    return {
        "key": key,
        "items": list(map(item_value, items)),
        "box": (
            min(b[0] for b in boxes) - MARGIN_MM,
            min(b[1] for b in boxes) - MARGIN_MM,
            max(b[2] for b in boxes) + MARGIN_MM,
            max(b[3] for b in boxes) + MARGIN_MM,
        ),
    }


@router.get("/symbol-sketch", response=SketchValue)
def sketch(request: HttpRequest, key: str) -> Any:
    """Give a symbol as a sketch, to begin another one with; its graphics are in grid steps."""
    found = sketch_from(definition(key))
    return {**found, **{s: [drawn(p, "ink") for p in found[s]] for s in STANDARDS if s in found}}


@router.get("/symbols-for/{kind}", response=list[FittingSymbol])
def symbols_for(request: HttpRequest, kind: str, class_key: str = "", standard: str = "iec") -> list[FittingSymbol]:
    """List the symbols a unit of a kind may be drawn with, those of its class first."""
    wanted = "block" if kind == "pins" else kind
    shapes = [*definitions().values(), *(definition(s.key) for s in drawn_symbols())]
    fitting = [d for d in shapes if d.unit == wanted]
    fitting.sort(key=lambda d: (base_of(d.part_class) != base_of(class_key), d.name))
    return [{"key": d.key, "name": d.name, "art": art_of(d.key, 1, standard)} for d in fitting]


@router.post("/symbol-graphics", response=list[AnyPrim])
def graphics(
    request: HttpRequest, file: File[UploadedFile], unit: Form[str] = "steps", width: Form[float] = 0.0
) -> list[Prim]:
    """Read an SVG or DXF file as graphics, in grid steps or mm, true to scale or as wide as wished."""
    scale = 1 / STEP_MM if unit == "steps" else 1.0
    return [drawn(p, "ink") for p in graphics_in(file.read(), file.name or "", scale=scale, width=max(0.0, width))]


@router.post("/outline", response=str)
def outline(request: HttpRequest, body: ArtIn) -> str:
    """Give the key of an outline drawing."""
    return outline_key([kept(p) for p in body.art])


@router.post("/outline-art", response=list[AnyPrim])
def outline_graphics(request: HttpRequest, body: KeyIn) -> list[Prim]:
    """Give the graphics of an outline drawing, mm."""
    return [drawn(p, "ink") for p in outline_art(body.key)]


def _kept_sketch(sketch: SketchValue) -> dict[str, Any]:
    """Return a sketch with its graphics as files keep them."""
    art = {"iec": [kept(p) for p in sketch["iec"]], "na": [kept(p) for p in sketch.get("na", [])]}
    return {**sketch, **art}


def _row(row: LibrarySymbol) -> DrawnSymbol:
    shape = definition(row.key)
    return {
        "id": row.pk,
        "name": row.name,
        "key": row.key,
        "class_name": part_class(shape.part_class).name,
        "unit": unit_kinds()[shape.unit].name if shape.unit in unit_kinds() else shape.unit,
        "nicknames": list(shape.nicknames),
        "poles": shape.max_poles,
        "by": row.by,
        "at": row.at.isoformat(),
        "art": art_of(row.key, 1, "iec") if is_drawn(row.key) else [],
    }
