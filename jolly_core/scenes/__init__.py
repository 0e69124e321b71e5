"""Sheets and generated drawings as primitives in mm, for any painter."""

from jolly_core.model import Project

from .base.frames import frame_look, with_changed
from .base.graphics import art_of, drawn, kept
from .base.lettering import fit, lay
from .base.primitives import (
    Arc,
    Art,
    Circle,
    Dot,
    Facts,
    Image,
    Item,
    Line,
    Poly,
    Prim,
    Rect,
    Scene,
    Strand,
    Text,
    legible,
    text_at,
    texts_in,
)
from .base.titleblocks import EDGE_MM, block_scene
from .faces.cables import cable_scene
from .faces.clips import clip_scene
from .faces.outlines import outline_prims
from .faces.strips import strip_scene
from .harness.blocks import block_places, blocks_scene
from .harness.board import board_places
from .harness.leaves import sheet_places
from .layout.leaves import surface_leaves
from .layout.surfaces import MARGIN_MM, door_back_scene, surface_scene
from .lists.pages import BLOCKS, PREFIX, Page, generated_pages, is_generated, page_of, plan_ids, plan_of, split
from .lists.reports import list_leaves, place_to_show
from .set.made import made, page_leaves, page_scene
from .set.papers import counted_leaves, paper_of, paper_set
from .sheet import leaving as leaving  # its check is known as soon as there are scenes
from .sheet.whole import sheet_look, sheet_scene

__all__ = [
    "clip_scene",
    "door_back_scene",
    "Arc",
    "Art",
    "Circle",
    "Facts",
    "Dot",
    "Image",
    "Line",
    "Poly",
    "Rect",
    "Strand",
    "Text",
    "EDGE_MM",
    "text_at",
    "texts_in",
    "MARGIN_MM",
    "Item",
    "Page",
    "Prim",
    "Scene",
    "art_of",
    "block_scene",
    "cable_scene",
    "drawn",
    "fit",
    "frame_look",
    "kept",
    "BLOCKS",
    "PREFIX",
    "block_places",
    "blocks_scene",
    "board_places",
    "sheet_places",
    "generated_pages",
    "is_generated",
    "lay",
    "leaves_of",
    "legible",
    "outline_prims",
    "page_leaves",
    "paper_set",
    "made",
    "page_of",
    "counted_leaves",
    "list_leaves",
    "place_to_show",
    "page_scene",
    "plan_ids",
    "plan_of",
    "scene_of",
    "sheet_look",
    "sheet_scene",
    "split",
    "strip_scene",
    "surface_leaves",
    "surface_scene",
    "with_changed",
]


def leaves_of(project: Project, id: str) -> list[Scene]:
    """Return the leaves of a drawn sheet (one) or of what is made from the project (one or more), as on paper.

    Raises:
        GoneError: it is not in the project.
    """
    return page_leaves(project, id) if made(project, id) else [paper_of(project, id)]


def scene_of(project: Project, id: str) -> Scene:
    """Return a sheet or page as one scene as it is on paper, its leaves below each other.

    Raises:
        GoneError: it is not in the project.
    """
    return page_scene(project, id) if made(project, id) else paper_of(project, id)
