"""A set of papers: the leaves of chosen sheets and pages in order, each saying which of how many it is."""

from __future__ import annotations

from collections.abc import Container, Iterator, Sequence
from dataclasses import replace

from jolly_core.model import Project

from ..base.frames import frame_item, with_changed
from ..base.primitives import Scene
from ..sheet.layers import on_paper
from ..sheet.whole import sheet_scene
from .made import made, page_leaves


def paper_set(project: Project, ids: Sequence[str], changed: Container[str] = ()) -> Iterator[tuple[str, Scene]]:
    """Yield id and scene of each paper of a set; title blocks count the papers, a contents sheet lists the set.

    A sheet alone is no set: it keeps its place among all.

    Args:
        project, ids: what the papers are made of.
        changed: ids of the sheets that are other than in the last frozen revision, which is said on them.

    Raises:
        GoneError: a sheet is not in the project.
    """
    if len(ids) == 1:
        alone = page_leaves(project, ids[0]) if made(project, ids[0]) else [paper_of(project, ids[0])]
        yield from ((ids[0], with_changed(project, leaf, changed)) for leaf in alone)
        return
    leaves: dict[
        str, list[Scene]
    ] = {}  # of what is made; drawn sheets are one paper each, painted when it is asked for
    numbers: list[str] = []
    for id in ids:
        if made(project, id):
            leaves[id] = page_leaves(project, id, ids)
            numbers += [leaf.sheet.number if leaf.sheet else "" for leaf in leaves[id]]
        else:
            numbers.append(project.get("sheet", id).number)
    at = 0
    for id in ids:
        for leaf in leaves.get(id) or [paper_of(project, id)]:
            yield id, with_changed(project, _counted(project, leaf, at, numbers), changed)
            at += 1


def paper_of(project: Project, sheet_id: str) -> Scene:
    """Return a drawn sheet as it is on paper: without the layers that are not printed.

    Raises:
        GoneError: the sheet is not in the project.
    """
    return on_paper(project, sheet_scene(project, sheet_id))


def counted_leaves(project: Project, leaves: Sequence[Scene]) -> list[Scene]:
    """Return leaves that are a set of their own: each title block says which of how many it is."""
    numbers = [leaf.sheet.number if leaf.sheet else "" for leaf in leaves]
    return [_counted(project, leaf, n, numbers) for n, leaf in enumerate(leaves)]


def _counted(project: Project, leaf: Scene, at: int, numbers: list[str]) -> Scene:
    """Return a leaf whose title block counts the papers of its set."""
    if leaf.sheet is None:
        return leaf
    given = {
        "n": str(at + 1),
        "count": str(len(numbers)),
        "next": numbers[at + 1] if at + 1 < len(numbers) else "-",
        "previous": numbers[at - 1] if at else "-",
    }
    return replace(leaf, items={**leaf.items, "frame": frame_item(project, leaf.sheet, given)})
