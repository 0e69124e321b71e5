"""Ways about a PDF: links that lead to the place, and bookmarks by structure."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from reportlab.lib.units import mm
from reportlab.pdfbase.pdfdoc import LinkAnnotation, PDFArray, PDFObject, PDFObjectReference
from reportlab.pdfgen.canvas import Canvas

from jolly_core.drawing import GRID_MM, pin_points
from jolly_core.harness import nodes_at
from jolly_core.model import Project
from jolly_core.scenes import BLOCKS, PREFIX, block_places, board_places, is_generated, page_of, sheet_places

NEAR = 1.6  # the scale at which a place is shown
ASIDE_MM = 40.0  # how far left of it and above it the view begins
GROUPS = {
    "terminals": "Terminal plans",
    "cores": "Core plans",
    "cards": "Card plans",
    "board": "Form boards",
    "blocks": "Blocks",
}


class _LinkedPlace(PDFObject):
    """A place on a page that may not be painted yet: it is looked up when the file is written."""

    def __init__(self, pages: Mapping[str, tuple[str, float]], sheet_id: str, at: tuple[float, float] | None) -> None:
        self.pages, self.sheet_id, self.at = pages, sheet_id, at

    def format(self, document: Any) -> Any:
        """Return the place as the file has it: the page, and the point that is shown."""
        name, height = self.pages[self.sheet_id]
        page = PDFObjectReference(name)
        if self.at is None:
            return PDFArray([page, "/Fit"]).format(document)
        x, y = self.at
        left, top = max(0.0, x - ASIDE_MM) * mm, min(height, height - y + ASIDE_MM) * mm
        return PDFArray([page, "/XYZ", round(left, 2), round(top, 2), NEAR]).format(document)


@dataclass(slots=True, frozen=True)
class Bookmark:
    """A line of the bookmarks: its key in the file, how deep it lies, what it says, and the page it leads to."""

    key: str
    level: int
    title: str
    sheet_id: str


class Places:
    """Where the pages of a file are, and what leads to them."""

    def __init__(self, project: Project, sheets: Sequence[str], marks: Sequence[Bookmark] = ()) -> None:
        self.project = project
        self.sheets = set(sheets)
        self.marks = marks
        self.pages: dict[str, tuple[str, float]] = {}  # name of the page in the file, height in mm

    def begin(self, canvas: Canvas, sheet_id: str, height: float) -> None:
        """Note that the page which is about to be painted is that of a sheet."""
        if sheet_id not in self.pages:
            for mark in self.marks:
                if mark.sheet_id == sheet_id:
                    canvas.bookmarkPage(mark.key)
            self.pages[sheet_id] = (f"Page{canvas.getPageNumber()}", height)

    def link(self, canvas: Canvas, link: str, box: tuple[float, float, float, float]) -> None:
        """Make a box on the page lead to what a link names, if that is in the file; points."""
        sheet_id, at = self._target(link)
        if sheet_id:
            place = _LinkedPlace(self.pages, sheet_id, at)
            annotation = LinkAnnotation([round(v, 2) for v in box], "", place, "[0 0 0]")
            canvas._addAnnotation(annotation)  # type: ignore[attr-defined]  # the public way knows pages only

    def _target(self, link: str) -> tuple[str, tuple[float, float] | None]:
        """Return the sheet and the point in mm of an entity, or of a pin given as "symbol.pin"."""
        if link in self.sheets:
            return link, None
        kind, colon, named = link.partition(":")
        if colon:
            return self._harness_target(kind, named)
        id, _, pin = link.partition(".")
        symbol = self.project.symbols.get(id)
        if symbol is not None and symbol.sheet_id in self.sheets:
            points = pin_points(symbol)
            x, y = points[int(pin)] if pin and int(pin) < len(points) else (symbol.x, symbol.y)
            return symbol.sheet_id, (x * GRID_MM, y * GRID_MM)
        mark = self.project.continuations.get(id)
        if mark is not None and mark.sheet_id in self.sheets:
            return mark.sheet_id, (mark.x * GRID_MM, mark.y * GRID_MM)
        return "", None

    def _harness_target(self, kind: str, id: str) -> tuple[str, tuple[float, float] | None]:
        """Return where a connector is on its form board ("node"), a device among blocks, or the board of a harness."""
        if kind == "block":
            at = block_places(self.project).get(id) if BLOCKS in self.sheets else None
            return (BLOCKS, at) if at else ("", None)
        nodes = nodes_at(self.project, id) if kind == "node" else []
        boards = [n for n in nodes if f"{PREFIX}board:{n.harness_id}" in self.sheets]
        node = next(iter(boards or nodes), None)
        harness_id = node.harness_id if node else id
        page = f"{PREFIX}board:{harness_id}"
        if page in self.sheets:
            places = board_places(self.project, harness_id)
            return page, places.get(id) if node else next(iter(places.values()), None)
        own = (s.id for s in self.project.sheets_in_order() if s.harness_id == harness_id and s.kind == "form-board")
        sheet = next((sheet for sheet in own if sheet in self.sheets), "")
        places = sheet_places(self.project, sheet) if sheet else {}
        return sheet, places.get(id) if node else None


def bookmarks(project: Project, ids: Sequence[str], title: Callable[[str], str]) -> list[Bookmark]:
    """Return bookmarks for pages by structure: those without a function, then function by function, made ones last.

    Functions stand in the order in which the pages come to them.

    Args:
        ids: of the sheets and generated pages in the file, in order.
        title: gives the title of one.
    """
    children: dict[str, list[str]] = {}
    for function in project.functions.values():
        children.setdefault(function.parent_id, []).append(function.id)
    sheets: dict[str, list[str]] = {}
    groups: dict[str, list[str]] = {}
    for id in dict.fromkeys(ids):
        if is_generated(id):
            groups.setdefault(GROUPS[page_of(project, id).kind], []).append(id)
        else:
            owner = project.get("sheet", id).function_id
            sheets.setdefault(owner if owner in project.functions else "", []).append(id)
    found: list[Bookmark] = []

    def add(level: int, words: str, sheet_id: str) -> None:
        found.append(Bookmark(f"bookmark{len(found)}", level, words, sheet_id))

    def first(function_id: str) -> str:
        """Return the first sheet of a function or of one below it, "" when it has none here."""
        below = (first(child) for child in children.get(function_id, ()))
        return next((id for id in (*sheets.get(function_id, ())[:1], *below) if id), "")

    turn = {id: n for n, id in enumerate(ids)}

    def come_to(function_id: str) -> tuple[int, str]:
        """Return the turn of the first page of a function or of one below it, after all turns where there is none."""
        own = [turn[id] for id in sheets.get(function_id, ())]
        return min(
            [*own, *(come_to(child)[0] for child in children.get(function_id, ()))], default=len(ids)
        ), function_id

    def under(function_id: str, level: int) -> None:
        function = project.functions[function_id]
        if leads := first(function_id):
            add(level, f"={function.code} {function.text}".strip(), leads)
            for id in sheets.get(function_id, ()):
                add(level + 1, title(id), id)
            for child in sorted(children.get(function_id, ()), key=come_to):
                under(child, level + 1)

    for id in sheets.get("", ()):
        add(0, title(id), id)
    for function_id in sorted(children.get("", ()), key=come_to):
        under(function_id, 0)
    for name, pages in groups.items():
        add(0, name, pages[0])
        for id in pages:
            add(1, title(id), id)
    return found
