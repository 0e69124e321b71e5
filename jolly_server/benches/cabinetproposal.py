"""A layout proposed by the core: its figures beside those of what is there, and what it would look like."""

from __future__ import annotations

from typing import NotRequired

from typing_extensions import TypedDict

from jolly_core.edits import compute, parse_edit
from jolly_core.library import Library
from jolly_core.model import Project, RuleError
from jolly_core.scenes import surface_scene
from jolly_server.shapes.sceneshapes import SceneValue, scene_value


class LayoutFigure(TypedDict):
    """A figure of the layout as it is and as it would be."""

    name: str
    before: str
    after: str


class LayoutProposal(TypedDict):
    """A proposed layout; with a `problem` there is none."""

    problem: str
    rows: list[LayoutFigure]
    remarks: list[str]
    scene: NotRequired[SceneValue]


def proposal(project: Project, library: Library, enclosure_id: str, rail: str, duct: str) -> LayoutProposal:
    """Return what laying an enclosure out would give; nothing is changed.

    Raises:
        GoneError: there is no such enclosure.
    """
    project.get("enclosure", enclosure_id)
    edit = {"kind": "lay-out", "enclosure_id": enclosure_id, "rail_part_id": rail, "duct_part_id": duct}
    try:
        outcome = compute(project, parse_edit(edit), library=library)
    except RuleError as error:
        return {"problem": error.message, "rows": [], "remarks": []}
    with project.trial() as tried:
        project.commit(tried, outcome.changes)
        scene = scene_value(surface_scene(project, enclosure_id, "plate"))
    return {
        "problem": "",
        "rows": [{"name": name, "before": before, "after": after} for name, before, after in outcome.table],
        "remarks": outcome.remarks,
        "scene": scene,
    }
