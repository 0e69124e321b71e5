"""The pages of a project: its sheets, then those generated from the model: terminal, core and card plans, form boards,
harnesses as blocks.

A generated page is not stored: it is there as long as its strip, cable, card or harness is. Its id is "plan:", the kind
and the id of its subject. On paper it may take several leaves; which pages there are does not depend on how many, so
that listing them costs little in a large project.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from jolly_core.harness import harnesses, has_blocks, segments_of, variants_of
from jolly_core.model import SHEET_SUBJECTS, GoneError, Project, Sheet, derived
from jolly_core.plc import cards as plc_cards
from jolly_core.tagging import full_tag, natural
from jolly_core.terminals import strip_rows, strips

PREFIX = "plan:"
KINDS = {"terminals": "T", "cores": "C", "cards": "P", "board": "F", "blocks": "B"}
SHEET_KIND = {"terminals": "terminal-plan", "cores": "cable-plan", "cards": "card-plan", "board": "form-board"}
TITLES = {
    "terminals": "Terminal plan",
    "cores": "Core plan",
    "cards": "Card plan",
    "board": "Form board",
    "blocks": "Harnesses as blocks",
}
BLOCKS = f"{PREFIX}blocks:"


@dataclass(slots=True, frozen=True)
class Page:
    """A generated page: number as shown ("T1"), title, kind, its subject's id, and which variant of that."""

    id: str
    number: str
    title: str
    kind: str
    subject: str
    variant: str = ""  # of a harness


def strip_height(project: Project, strip_id: str) -> list[int]:
    """Return for each place of a strip how many lines it takes in the plan."""
    return [max(1, len(r.panel) + len(r.unknown), len(r.field)) for r in strip_rows(project, strip_id)]


def split(heights: Sequence[float], room: float) -> list[tuple[int, int]]:
    """Return (first, after last) of the places on each leaf, so that no leaf has more lines than there is room.

    Example:
        >>> split([1, 1, 2], room=2)
        [(0, 2), (2, 3)]
    """
    pages: list[tuple[int, int]] = []
    start, used = 0, 0.0
    for n, height in enumerate(heights):
        if used and used + height > room:
            pages.append((start, n))
            start, used = n, 0.0
        used += height
    return [*pages, (start, len(heights))]


@derived
def generated_pages(project: Project) -> list[Page]:
    """Return the generated pages in order; kept until the next change."""
    subjects = [("terminals", d.id, full_tag(project, d)) for d in strips(project)]
    # A strip, cable or card that has a sheet of its own is shown there.
    shown = {s.device_id for s in project.sheets.values() if SHEET_SUBJECTS.get(s.kind) == "device_id"}
    subjects = [s for s in subjects if s[1] not in shown]
    named = [(full_tag(project, project.devices[c.device_id]), c.device_id) for c in project.cables.values()]
    cables = sorted(named, key=lambda c: (natural(c[0]), c[1]))
    subjects += [("cores", id, tag) for tag, id in cables if id not in shown]
    tagged = [(c.device_id, full_tag(project, project.devices[c.device_id])) for c in plc_cards(project)]
    subjects += [("cards", id, tag) for id, tag in tagged if id not in shown]
    variant = {f"{h.id}~{v.id}": (h, v) for h in harnesses(project) for v in variants_of(project, h.id)}
    for harness in harnesses(project):
        if segments_of(project, harness.id):
            subjects.append(("board", harness.id, harness.code))
            subjects += [("board", k, f"{h.code} {v.name}") for k, (h, v) in variant.items() if h.id == harness.id]
    subjects += [("blocks", "", "")] if has_blocks(project) else []
    counts = dict.fromkeys(KINDS, 0)
    pages = []
    for kind, id, name in subjects:
        counts[kind] += 1
        title = f"{TITLES[kind]} {name}".strip()
        harness_id, _, variant_id = id.partition("~")
        number = f"{KINDS[kind]}{counts[kind]}"
        pages.append(Page(f"{PREFIX}{kind}:{id}", number, title, kind, harness_id, variant_id))
    return pages


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


def plan_ids(project: Project, kind: str) -> list[str]:
    """Return the ids of all plans of a kind: the sheets that show one, in sheet order, then the generated pages."""
    sheets = [s.id for s in project.sheets_in_order() if s.kind == SHEET_KIND[kind] and s.device_id]
    return sheets + [p.id for p in generated_pages(project) if p.kind == kind]


def plan_of(project: Project, kind: str, subject: str) -> str:
    """Return the id of what shows a strip ("terminals"), cable ("cores") or card ("cards"): a sheet, else its page."""
    shown = (s.id for s in project.sheets_in_order() if s.kind == SHEET_KIND[kind] and s.device_id == subject)
    return next(shown, f"{PREFIX}{kind}:{subject}")


def sheet_of_page(project: Project, page: Page) -> Sheet:
    """Return a sheet as which a generated page is made; it is not one of the project's."""
    kind = SHEET_KIND.get(page.kind, "form-board")
    size = next((h.size for h in project.sheet_habits.values() if h.kind == kind), "A4")
    sheet = Sheet(page.id, page.number, page.title, kind=kind, size=size, frame="plan")
    if page.kind == "board":
        return replace(sheet, harness_id=page.subject)
    if page.kind == "blocks":
        return sheet
    device = project.devices[page.subject]
    return replace(sheet, device_id=device.id, function_id=device.function_id, location_id=device.location_id)


def page_fields(project: Project, page: Page) -> dict[str, str]:
    """Return the title block fields of a generated page that count pages: they count for themselves.

    How many there are depends on the whole project, so drawn sheets do not count them.
    """
    pages = generated_pages(project)
    at = next(n for n, p in enumerate(pages) if p.id == page.id)
    following = pages[at + 1].number if at + 1 < len(pages) else "-"
    previous = pages[at - 1].number if at else "-"
    return {"n": str(at + 1), "count": str(len(pages)), "next": following, "previous": previous}
