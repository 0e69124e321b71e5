"""Recipes: rows of a report chosen, gathered, ordered, summed and headed as somebody wants them."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import groupby

from jolly_core.model import Project, Recipe, RuleError, Sheet
from jolly_core.tagging import filled, natural

from .registry import REPORTS, Cell, Column, Row, Table, as_row, full_report, report_called

PIECE = re.compile(r"\{([^{}]*)\}")
MONEY = ("price", "sum")  # columns that are in the currency of their row


def _number(value: Cell) -> float | None:
    if isinstance(value, (int, float)):
        return float(value)
    try:
        return float(value.strip().replace(",", "."))
    except ValueError:
        return None


def _compared(more: bool) -> Callable[[Cell, str], bool]:
    def test(cell: Cell, value: str) -> bool:
        one, other = _number(cell), _number(value)
        return one is not None and other is not None and (one > other if more else one < other)

    return test


def _same(cell: Cell, value: str) -> bool:
    one, other = _number(cell), _number(value)
    if isinstance(cell, (int, float)) and other is not None:
        return one == other
    return str(cell).casefold() == value.strip().casefold()


def _one_of(cell: Cell, value: str) -> bool:
    return any(_same(cell, v) for v in value.split(";"))


def _within(cell: Cell, value: str) -> bool:
    """Whether a path is the one given or below it: "+KP2" holds "+KP2" and "+KP2+D", not "+KP21"."""
    path, above = str(cell), value.strip()
    return path == above or any(path.startswith(above + mark) for mark in "+=.")


# What a filter may ask of a cell, by the words it is shown with.
TESTS: dict[str, Callable[[Cell, str], bool]] = {
    "is": _same,
    "is not": lambda cell, value: not _same(cell, value),
    "is one of": _one_of,
    "is at or within": _within,
    "contains": lambda cell, value: value.casefold() in str(cell).casefold(),
    "does not contain": lambda cell, value: value.casefold() not in str(cell).casefold(),
    "begins with": lambda cell, value: str(cell).casefold().startswith(value.casefold()),
    "is more than": _compared(more=True),
    "is less than": _compared(more=False),
    "is empty": lambda cell, value: cell == "",
    "is not empty": lambda cell, value: cell != "",
}
WITHOUT_VALUE = ("is empty", "is not empty")


@dataclass(slots=True)
class Group:
    """Rows that stand together: what they have in common, in words, and their sums as a row of cells, () for none."""

    title: str
    rows: list[Row]
    sums: tuple[Cell, ...] = ()


@dataclass(slots=True)
class Cooked:
    """What a recipe gives: its columns, rows in groups, sums of all, the text above and the pages it stands on.

    `names` has what rows call their columns in `whys`: the report's key, an own column's heading.
    """

    title: str
    names: tuple[str, ...]
    columns: tuple[Column, ...]
    groups: list[Group]
    sums: tuple[Cell, ...]
    head: str
    head_on: str
    breaks: bool
    foot: tuple[str, ...] = ()
    machine: bool = False

    @property
    def rows(self) -> list[Row]:
        """All rows, group by group."""
        return [row for group in self.groups for row in group.rows]

    def table(self) -> Table:
        """Return the rows as a plain table, without headings of groups and sums."""
        return Table(self.title, self.columns, list(self.rows), self.foot, self.machine)


def check_recipe(project: Project, recipe: Recipe) -> None:
    """Refuse a recipe that cannot be followed.

    Raises:
        RuleError: it names a report, column or test there is not; the message says which and what there is.
    """
    report = REPORTS.get(recipe.report)
    if report is None:
        raise RuleError(f"There is no report “{recipe.report}”.", field="report")
    known = {c.key for c in report.columns}
    own = {heading(c) for c in recipe.columns if "join" in c}
    if not recipe.columns:
        raise RuleError("Choose at least one column.", field="columns")
    for column in recipe.columns:
        if "join" in column:
            if not heading(column).strip():
                raise RuleError("Give your own column a heading.", field="columns")
            if heading(column) in known:
                raise RuleError(
                    f"“{heading(column)}” is a column of the report. Choose another heading.", field="columns"
                )
            for piece in PIECE.findall(column["join"]):
                _known(piece, known, "columns")
        else:
            _known(column.get("key", ""), known, "columns")
    shown = {c["key"] for c in recipe.columns if "key" in c} | own
    called = _names(recipe)
    for name in called:
        if called.count(name) > 1:
            raise RuleError(f"“{name}” is among the columns twice. Take one out.", field="columns")
    for f in recipe.filters:
        _known(f.get("column", ""), known | own, "filters")
        if f.get("test") not in TESTS:
            raise RuleError(f"A filter cannot ask “{f.get('test', '')}”. It asks {', '.join(TESTS)}.", field="filters")
    for field, names in (("groups", recipe.groups), ("sort", [s.removeprefix("-") for s in recipe.sort])):
        for name in names:
            _known(name, known | own, field)
    for name in recipe.sums:
        if name not in shown:
            raise RuleError(f"“{name}” can be summed when it is among the columns.", field="sums")


def heading(column: dict[str, str]) -> str:
    """Return what a recipe calls a column, "" when it leaves that to the report."""
    return column.get("heading", "")


def _known(name: str, known: Iterable[str], field: str) -> None:
    if name not in known:
        raise RuleError(f"The report has no column “{name}”. It has {', '.join(sorted(known))}.", field=field)


def plain_recipe(key: str, id: str = "", name: str = "") -> Recipe:
    """Return the recipe that gives a report as it is.

    Raises:
        RuleError: there is no such report.
    """
    report = report_called(key)
    columns = tuple({"key": c.key} for c in report.columns if not c.extra)
    return Recipe(id or key, name or report.title, key, columns, head_on="none")


def recipe_called(project: Project, id: str) -> Recipe:
    """Return a recipe of the project by its id, or a report as it is by its key.

    Raises:
        RuleError: there is neither.
    """
    return project.recipes.get(id) or plain_recipe(id)


def cook(project: Project, recipe: Recipe, sheet: Sheet | None = None) -> Cooked:
    """Follow a recipe.

    Args:
        project: the project.
        recipe: what is wanted.
        sheet: on which it is printed, for the fields of its head.

    Raises:
        RuleError: as `check_recipe`, when the recipe was made for other reports.
    """
    check_recipe(project, recipe)
    table = full_report(project, recipe.report)
    keys = [c.key for c in REPORTS[recipe.report].columns]
    rows = [as_row(row) for row in table.rows]
    facts = [_facts(recipe, keys, row) for row in rows]
    kept = [(row, fact) for row, fact in zip(rows, facts, strict=True) if _passes(recipe, fact)]
    columns = _columns(recipe, dict(zip(keys, table.columns, strict=True)))
    cooked = [(_cells(recipe, row, fact), fact) for row, fact in kept]
    summed = [n for n, key in enumerate(_names(recipe)) if key in recipe.sums]
    if recipe.merged:
        cooked = _merged(recipe, cooked, summed)
    cooked = _sorted(recipe, cooked)
    groups = _groups(recipe, table, keys, cooked, summed)
    head = filled(project, sheet or Sheet("", ""), recipe.head) if recipe.head_on != "none" else ""
    sums = _sums(recipe, cooked, summed, "Sum") if summed else ()
    name = recipe.name or table.title
    return Cooked(
        name,
        tuple(_names(recipe)),
        columns,
        groups,
        sums,
        head,
        recipe.head_on,
        recipe.breaks,
        table.foot,
        table.machine,
    )


Fact = dict[str, Cell]


def _names(recipe: Recipe) -> list[str]:
    """Return what each column is called in sums, groups and order: its key, an own one's heading."""
    return [heading(c) if "join" in c else c["key"] for c in recipe.columns]


def _facts(recipe: Recipe, keys: Sequence[str], row: Row) -> Fact:
    fact: Fact = dict(zip(keys, row, strict=True))
    own = {heading(c): _joined(c["join"], fact) for c in recipe.columns if "join" in c}
    return fact | own


def _joined(content: str, fact: Fact) -> str:
    """Return an own column's text; between pieces that are empty no more than one space is left."""
    words = PIECE.sub(lambda match: _plain(fact.get(match[1], "")), content)
    return " ".join(words.split())


def _plain(cell: Cell) -> str:
    return f"{cell:g}" if isinstance(cell, float) else str(cell)


def _passes(recipe: Recipe, fact: Fact) -> bool:
    return all(TESTS[f["test"]](fact.get(f["column"], ""), f.get("value", "")) for f in recipe.filters)


def _columns(recipe: Recipe, known: dict[str, Column]) -> tuple[Column, ...]:
    found = []
    for column in recipe.columns:
        if "join" in column:
            found.append(Column(heading(column), heading(column), 24))
        else:
            base = known[column["key"]]
            found.append(replace(base, heading=heading(column) or base.heading, extra=False))
    return tuple(found)


def _cells(recipe: Recipe, row: Row, fact: Fact) -> Row:
    return row.with_cells(fact[name] for name in _names(recipe))


def _merged(recipe: Recipe, cooked: list[tuple[Row, Fact]], summed: Sequence[int]) -> list[tuple[Row, Fact]]:
    """Return rows that are alike in all but their sums as one; it leads to the first of them."""
    names = _names(recipe)
    found: dict[tuple[Cell, ...], tuple[Row, Fact]] = {}
    for row, fact in cooked:
        same = tuple(cell for n, cell in enumerate(row) if n not in summed)
        same += tuple(fact[g] for g in recipe.groups)
        if any(names[n] in MONEY for n in summed):
            same += (fact.get("currency", ""),)
        if same not in found:
            found[same] = (row, fact)
            continue
        before, first = found[same]
        cells = [_added(a, b) if n in summed else a for n, (a, b) in enumerate(zip(before, row, strict=True))]
        found[same] = (before.with_cells(cells), first)
    return list(found.values())


def _added(one: Cell, other: Cell) -> Cell:
    """Return the sum of two cells; what is no number counts as nothing."""
    numbers = [v for v in (one, other) if isinstance(v, (int, float))]
    return _round(sum(numbers)) if numbers else ""


def _round(value: float) -> int | float:
    rounded = round(value, 6)
    return int(rounded) if rounded == int(rounded) else rounded


def _sorted(recipe: Recipe, cooked: list[tuple[Row, Fact]]) -> list[tuple[Row, Fact]]:
    """Return rows by the groups, then by what is sorted; natural order, numbers as numbers, empty ones last."""
    for key in reversed(recipe.sort):
        name = key.removeprefix("-")
        cooked = sorted(cooked, key=lambda c: _order(c[1][name]), reverse=key.startswith("-"))
        cooked = sorted(cooked, key=lambda c: c[1][name] == "")
    for name in reversed(recipe.groups):
        cooked = sorted(cooked, key=lambda c: (c[1][name] == "", _order(c[1][name])))
    return cooked


def _order(cell: Cell) -> tuple[object, ...]:
    return (0, float(cell), ()) if isinstance(cell, (int, float)) else (1, 0.0, natural(cell))


def _groups(
    recipe: Recipe, table: Table, keys: Sequence[str], cooked: list[tuple[Row, Fact]], summed: Sequence[int]
) -> list[Group]:
    if not recipe.groups:
        return [Group("", [row for row, _ in cooked])]
    headings = {key: c.heading for key, c in zip(keys, table.columns, strict=True)}
    headings |= {c["key"]: heading(c) for c in recipe.columns if "key" in c and heading(c)}
    found = []
    for values, members in groupby(cooked, key=lambda c: tuple(c[1][g] for g in recipe.groups)):
        inside = list(members)
        names = (f"{headings.get(g, g)}: {_plain(v) or 'none'}" for g, v in zip(recipe.groups, values, strict=True))
        title = ", ".join(names)
        sums = _sums(recipe, inside, summed, "Sum") if summed else ()
        found.append(Group(title, [row for row, _ in inside], sums))
    return found


def _sums(recipe: Recipe, cooked: Sequence[tuple[Row, Fact]], summed: Sequence[int], title: str) -> tuple[Cell, ...]:
    """Return a row with the sums of columns, the title in its first cell where that is none of them.

    Money is summed for each currency by itself.
    """
    names = _names(recipe)
    cells: list[Cell] = [""] * len(names)
    for n in summed:
        sums: dict[str, float] = {}
        for row, fact in cooked:
            value = row[n]
            if isinstance(value, (int, float)):
                currency = str(fact.get("currency", "")) if names[n] in MONEY else ""
                sums[currency] = sums.get(currency, 0) + value
        if len(sums) == 1:
            cells[n] = _round(next(iter(sums.values())))
        elif sums:
            cells[n] = " + ".join(f"{value:.2f} {currency}".strip() for currency, value in sorted(sums.items()))
    if 0 not in summed and names:
        cells[0] = title
    return tuple(cells)
