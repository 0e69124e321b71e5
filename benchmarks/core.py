"""Budgets of the core: nets, PDF, XLSX."""

from __future__ import annotations

import io
from copy import copy
from typing import Any

import xlsxwriter
from reportlab.pdfbase.pdfdoc import LinkAnnotation

from benchmarks.generate import synthetic
from benchmarks.measure import Result, compare, from_sheets, timed
from jolly_core.drawing import pin_points
from jolly_core.edits import compute, parse_edit
from jolly_core.exchange import fonts, sheets_pdf, table_xlsx
from jolly_core.exchange.fonts import use_fonts
from jolly_core.model import Project
from jolly_core.reports import Column, Table, find_in
from jolly_core.tagging import full_tag
from jolly_core.testing import FONTS
from jolly_core.wiring import all_nets, nets_of_sheet


def edges_of(project: Project) -> tuple[int, list[tuple[int, int]]]:
    """Return the number of points and the edges between them, ready for a union-find."""
    numbers: dict[tuple[str, int, int], int] = {}

    def number(sheet_id: str, x: int, y: int) -> int:
        return numbers.setdefault((sheet_id, x, y), len(numbers))

    edges = [(number(w.sheet_id, w.x1, w.y1), number(w.sheet_id, w.x2, w.y2)) for w in project.wires.values()]
    for s in project.symbols.values():
        for x, y in pin_points(s):
            point = number(s.sheet_id, x, y)
            edges.append((point, point))
    marks: dict[str, int] = {}
    for c in project.continuations.values():
        point = number(c.sheet_id, c.x, c.y)
        edges.append((marks.setdefault(c.name, point), point))
    return len(numbers), edges


def finding(sheets: int, rounds: int) -> list[Result]:
    """Measure finding by a few letters against one look at each text of the project, as it is after an edit."""
    project = synthetic(sheets)
    texts = [
        f"{full_tag(project, project.devices[s.device_id])} {project.devices[s.device_id].text}".lower()
        for s in project.symbols.values()
        if s.device_id
    ]
    find_in(project, "first")
    name, limit = next(iter(project.sheets)), from_sheets(200, sheets, 8.0)
    note = {"kind": "place-note", "sheet_id": name, "x": 10, "y": 12, "text": "note"}

    def edit() -> None:
        project.apply(compute(project, parse_edit(note)).changes)

    return [
        compare(
            f"finding “{words}” in {sheets} sheets / a look at each text",
            lambda words=words: [t for t in texts if words in t],  # type: ignore[misc]
            lambda words=words: find_in(project, words),  # type: ignore[misc]
            limit,
            rounds,
            edit,
        )
        for words in ("qa7", "no such thing", "101")
    ]


def union_find(count: int, edges: list[tuple[int, int]]) -> list[list[int]]:
    """Return the groups of points that edges join."""
    parent = list(range(count))

    def find(a: int) -> int:
        while parent[a] != a:
            parent[a] = a = parent[parent[a]]
        return a

    for a, b in edges:
        parent[find(a)] = find(b)
    groups: dict[int, list[int]] = {}
    for a in range(count):
        groups.setdefault(find(a), []).append(a)
    return list(groups.values())


def nets(sheets: int, rounds: int) -> list[Result]:
    """Measure nets from cold, and after one edit in a small and in the large project."""
    large = synthetic(sheets)
    count, edges = edges_of(large)
    cold = compare(
        f"nets of {sheets} sheets from cold / union-find",
        lambda: union_find(count, edges),
        lambda: all_nets(large),
        from_sheets(1000, sheets, 2.3),
        rounds,
        before=large.memo.clear,
    )
    small = synthetic(20)

    def after_edit(project: Project) -> list[float]:
        all_nets(project)
        sheet = project.sheets_in_order()[5].id
        symbol = next(s for s in project.symbols_on(sheet) if s.definition == "lamp")
        times = []
        for turn in range(10 * rounds):
            edit = {"kind": "move-selection", "ids": [symbol.id], "dx": 1 if turn % 2 else -1, "dy": 0}
            project.apply(compute(project, parse_edit(edit)).changes)
            times.append(timed(nets_of_sheet, project, sheet))
        return sorted(times)

    few, many = after_edit(small), after_edit(large)
    flat = Result(f"nets after one edit, {sheets} sheets / 20 sheets", few[len(few) // 2], many[len(many) // 2], 1.2)
    return [cold, flat]


class Recorder:
    """Notes what is asked of a canvas, so that it can be asked again with nothing else around."""

    def __init__(self, canvas: Any) -> None:
        self.canvas = canvas
        self.calls: list[tuple[str, tuple[Any, ...], dict[str, Any]]] = []

    def __getattr__(self, name: str) -> Any:
        method = getattr(self.canvas, name)

        def call(*args: Any, **kwargs: Any) -> Any:
            self.calls.append((name, _fresh(args), kwargs))
            return method(*args, **kwargs)

        return call


def _fresh(args: tuple[Any, ...]) -> tuple[Any, ...]:
    """Return arguments with copies of the links: a file takes hold of those it is given."""
    return tuple(copy(a) if isinstance(a, LinkAnnotation) else a for a in args)


def pdf(sheets: int, rounds: int) -> Result:
    """Measure a PDF of many sheets against the bare calls of the PDF writer that make the same file."""
    project = synthetic(sheets)
    ids = [s.id for s in project.sheets_in_order()]
    use_fonts(FONTS)
    recorders: list[Recorder] = []
    paper = fonts.Paper

    def recording(*args: Any, **kwargs: Any) -> Any:
        recorders.append(Recorder(paper(*args, **kwargs)))
        return recorders[-1]

    fonts.Paper = recording  # type: ignore[assignment,misc]  # only while the calls are recorded
    try:
        sheets_pdf(project, ids, FONTS)
    finally:
        fonts.Paper = paper  # type: ignore[misc]  # as it was
    calls = recorders[0].calls

    def bare() -> None:
        canvas = paper(io.BytesIO(), pageCompression=1)
        for name, args, kwargs in calls:
            getattr(canvas, name)(*_fresh(args), **kwargs)

    return compare(
        f"PDF of {sheets} sheets / bare canvas calls", bare, lambda: sheets_pdf(project, ids, FONTS), 1.2, rounds
    )


def xlsx(rows: int, rounds: int) -> Result:
    """Measure an XLSX of many rows by 12 columns against the bare writer."""
    data: list[tuple[str | int | float, ...]] = [(i, *(f"value {i} {c}" for c in range(11))) for i in range(rows)]
    table = Table("Rows", tuple(Column(f"c{i}", f"Column {i}") for i in range(12)), data)

    def bare() -> None:
        book = xlsxwriter.Workbook(io.BytesIO(), {"constant_memory": True})
        page = book.add_worksheet()
        for line, row in enumerate(data):
            page.write_number(line, 0, row[0])
            for column in range(1, 12):
                page.write_string(line, column, row[column])
        book.close()

    return compare(f"XLSX of {rows} x 12 / bare writer", bare, lambda: table_xlsx(table), 1.2, rounds)
