"""Layers of drawings; the languages of a project, its texts in them, and a sheet as it looks in one."""

from django.http import HttpRequest
from ninja import Router
from typing_extensions import TypedDict

from jolly_core.edits.draw.layers import IN_LAYERS
from jolly_core.model import Project, in_language, said_texts
from jolly_core.model.languages import SaidText
from jolly_core.reports import kind_name, where_drawn
from jolly_core.scenes import made as is_made
from jolly_core.scenes import scene_of, sheet_scene
from jolly_server.shapes.sceneshapes import SceneItem, item_value

from .access import role_in
from .store import loaded

router = Router(tags=["layers and languages"])


class LayerLine(TypedDict):
    """A layer, whether it is on papers, and how many things are in it."""

    id: str
    name: str
    printed: bool
    used: int


class SaidLine(TypedDict):
    """A text of the project: the kinds of thing that say it, how many, where one is drawn, what it is by language."""

    id: str
    words: str
    kinds: list[str]
    count: int
    sheet_id: str
    symbol_id: str
    said: dict[str, str]


class SaidTexts(TypedDict):
    """The languages of a project, and its texts in them."""

    languages: list[str]
    texts: list[SaidLine]


class SaidSheet(TypedDict):
    """What looks otherwise on a sheet in a language, by id, at a revision of the project."""

    revision: int
    items: dict[str, SceneItem]


@router.get("/{project_id}/layers", response=list[LayerLine])
def layers(request: HttpRequest, project_id: str) -> list[LayerLine]:
    """Give the layers in their order."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        project = held.project
        ordered = sorted(project.layers.values(), key=lambda layer: (layer.order, layer.name, layer.id))
        return [{"id": la.id, "name": la.name, "printed": la.printed, "used": _used(project, la.id)} for la in ordered]


def _used(project: Project, layer_id: str) -> int:
    return sum(thing.layer_id == layer_id for kind in IN_LAYERS for thing in project.tables[kind].values())


@router.get("/{project_id}/wordings", response=SaidTexts)
def wordings(request: HttpRequest, project_id: str) -> SaidTexts:
    """Give all texts of the project with what they are in its other languages."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        project = held.project
        languages = list(project.settings.languages)
        return {"languages": languages, "texts": [_line(project, text) for text in said_texts(project)]}


def _line(project: Project, text: SaidText) -> SaidLine:
    places = (where_drawn(project, id) for _, id in text.where)
    sheet_id, symbol_id = next((place for place in places if place[0]), ("", ""))
    return {
        "id": text.words,
        "words": text.words,
        "kinds": list(dict.fromkeys(kind_name(kind) for kind, _ in text.where)),
        "count": len(text.where),
        "sheet_id": sheet_id,
        "symbol_id": symbol_id,
        "said": text.said,
    }


@router.get("/{project_id}/sheets/{sheet_id}/said/{language}", response=SaidSheet)
def said_sheet(request: HttpRequest, project_id: str, sheet_id: str, language: str) -> SaidSheet:
    """Give what looks otherwise on a sheet in a language.

    Raises:
        RuleError: the project is not in that language.
        GoneError: there is no such sheet.
    """
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        scene_in = scene_of if is_made(held.project, sheet_id) else sheet_scene
        usual = scene_in(held.project, sheet_id).items
        said = scene_in(in_language(held.project, language), sheet_id).items
        other = {id: item_value(item) for id, item in said.items() if usual.get(id) != item}
        return {"revision": held.revision, "items": other}
