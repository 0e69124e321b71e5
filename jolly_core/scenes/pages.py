"""The pages of a project: its sheets, then those generated from the model: terminal plans, core plans, form boards.

A generated page is not stored: it is there as long as its strip, cable or harness is. Its id is "plan:", the kind and
the id of its subject. On paper it may take several leaves; which pages there are does not depend on how many, so that
listing them costs little in a large project.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.harness import harnesses, segments_of
from jolly_core.model import GoneError, Project
from jolly_core.tagging import full_tag
from jolly_core.terminals import strip_rows, strips

PREFIX = "plan:"
ROWS_A_PAGE = 22
KINDS = {"terminals": "T", "cores": "C", "board": "F"}
TITLES = {"terminals": "Terminal plan", "cores": "Core plan", "board": "Form board"}


@dataclass(slots=True, frozen=True)
class Page:
    """A generated page: number as shown ("T1"), title, kind, and its subject's id."""

    id: str
    number: str
    title: str
    kind: str
    subject: str


def strip_height(project: Project, strip_id: str) -> list[int]:
    """Return for each place of a strip how many lines it takes in the plan."""
    return [max(1, len(r.panel) + len(r.unknown), len(r.field)) for r in strip_rows(project, strip_id)]


def split(heights: list[int], room: int = ROWS_A_PAGE) -> list[tuple[int, int]]:
    """Return (first, after last) of the places on each leaf, so that no leaf has more lines than there is room.

    Example:
        >>> split([1, 1, 2], room=2)
        [(0, 2), (2, 3)]
    """
    pages: list[tuple[int, int]] = []
    start, used = 0, 0
    for n, height in enumerate(heights):
        if used and used + height > room:
            pages.append((start, n))
            start, used = n, 0
        used += height
    return [*pages, (start, len(heights))]


def generated_pages(project: Project) -> list[Page]:
    """Return the generated pages in order; kept until the next change."""
    kept = project.derived("pages")
    if "all" not in kept:
        subjects = [("terminals", d.id, full_tag(project, d)) for d in strips(project)]
        cables = sorted((full_tag(project, project.devices[c.device_id]), c.device_id) for c in project.cables.values())
        subjects += [("cores", id, tag) for tag, id in cables]
        subjects += [("board", h.id, h.code) for h in harnesses(project) if segments_of(project, h.id)]
        counts = dict.fromkeys(KINDS, 0)
        pages = []
        for kind, id, name in subjects:
            counts[kind] += 1
            title = f"{TITLES[kind]} {name}"
            pages.append(Page(f"{PREFIX}{kind}:{id}", f"{KINDS[kind]}{counts[kind]}", title, kind, id))
        kept["all"] = pages
    found: list[Page] = kept["all"]
    return found


def page_of(project: Project, page_id: str) -> Page:
    """Return a generated page.

    Raises:
        GoneError: there is none of that id (any more).
    """
    page = next((p for p in generated_pages(project) if p.id == page_id), None)
    if page is None:
        raise GoneError("This page is gone: what it was made of is no longer in the project.", ids=(page_id,))
    return page


def is_generated(page_id: str) -> bool:
    """Return whether an id is that of a generated page."""
    return page_id.startswith(PREFIX)


def page_numbers(project: Project) -> list[tuple[str, str]]:
    """Return (id, number) of the generated pages in order."""
    return [(p.id, p.number) for p in generated_pages(project)]
