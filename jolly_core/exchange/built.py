"""Papers of what is built: surfaces of enclosures in the project's frame, form boards at true scale."""

from __future__ import annotations

from pathlib import Path

from jolly_core.cabinet import SURFACE_WORDS
from jolly_core.model import Project, RuleError
from jolly_core.scenes import Scene, generated_pages, page_scene, surface_leaves

from .scenedxf import scenes_dxf
from .sheetpdf import page_title, scaled_pdf, tiled_pdf


def surface_pdf(project: Project, enclosure_id: str, surface: str, fonts: Path) -> bytes:
    """Return a surface of an enclosure as PDF in the project's frame: dimensions and balloons, holes, their table.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    leaves = surface_leaves(project, enclosure_id, surface)
    words = SURFACE_WORDS[surface]
    return scaled_pdf(project, [(f"{words} {n}", leaf) for n, leaf in enumerate(leaves, start=1)], fonts)


def board_pdf(project: Project, harness_id: str, fonts: Path, *, tiled: bool = False, variant_id: str = "") -> bytes:
    """Return the form board of a harness or variant as PDF at true scale, on one page or tiled on A4.

    Raises:
        RuleError: the harness has no segments yet.
    """
    title, scene = _board(project, harness_id, variant_id)
    return tiled_pdf(project, title, scene, fonts) if tiled else scaled_pdf(project, [(title, scene)], fonts)


def board_dxf(project: Project, harness_id: str, variant_id: str = "") -> bytes:
    """Return the form board of a harness or variant as DXF at true scale, in mm.

    Raises:
        RuleError: the harness has no segments yet.
    """
    return scenes_dxf(project, [_board(project, harness_id, variant_id)[1]])


def _board(project: Project, harness_id: str, variant_id: str = "") -> tuple[str, Scene]:
    wanted = ("board", harness_id, variant_id)
    page = next((p for p in generated_pages(project) if (p.kind, p.subject, p.variant) == wanted), None)
    if page is None:
        code = project.get("harness", harness_id).code
        raise RuleError(f"{code} has no segments yet. Add its connectors first.", ids=(harness_id,))
    return page_title(project, page.id), page_scene(project, page.id)
