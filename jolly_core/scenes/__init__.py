"""Sheets and generated drawings as primitives in mm, for any painter."""

from jolly_core.model import Project

from .cabinet import MARGIN_MM, surface_scene
from .pages import Page, generated_pages, is_generated, page_numbers, page_of
from .plans import page_leaves, page_scene
from .primitives import ADVANCE, PENS_MM, ROLES, TONES, Item, Prim, Scene, art_of, fit, moved
from .sheet import sheet_scene

__all__ = [
    "ADVANCE",
    "MARGIN_MM",
    "PENS_MM",
    "ROLES",
    "TONES",
    "Item",
    "Page",
    "Prim",
    "Scene",
    "art_of",
    "fit",
    "generated_pages",
    "is_generated",
    "leaves_of",
    "moved",
    "page_leaves",
    "page_numbers",
    "page_of",
    "page_scene",
    "sheet_scene",
    "surface_scene",
]


def leaves_of(project: Project, id: str) -> list[Scene]:
    """Return the leaves of a sheet (one) or of a generated page (one or more).

    Raises:
        GoneError: it is not in the project.
    """
    return page_leaves(project, id) if is_generated(id) else [sheet_scene(project, id)]
