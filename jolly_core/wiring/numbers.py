"""Wire numbers: one for each potential or net, fixed ones kept, the others by the first numbering rule that holds.

The number of a potential is made on its *home*, the sheet of its first group in reading order. Numbers that run
within a sheet therefore need the home sheet's groups only, and an edit on one sheet cannot renumber another except
through a continuation. Numbers that run over the project need all sheets before it; they are found only where a rule
asks for them, or where sheets share their lines.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

from jolly_core.drawing import ladder_line
from jolly_core.model import Project, derived

from .nets import Group, GroupKey, net_of, nets_of_sheet
from .rules import Pattern, named_parts, pattern_for, reads_otherwise

MOST_SKIPPED = 1000  # numbers that read like those of another line, before a stroke is put into them


@derived
def wire_numbers(project: Project, sheet_id: str) -> dict[int, str]:
    """Return the wire number of each numbered group of a sheet, by the group's first point.

    Notes:
        A fixed number anywhere on the potential wins; of several the lowest. Running numbers go top to bottom, then
        left to right, and skip numbers that are fixed anywhere in the project. What has wires of types that get no
        number only, has none: the field side of a terminal, though the panel side is numbered.

    Example:
        Ladder line 214 with three nets, the second fixed as 77, gives 2141, 77, 2142.
    """
    numbers: dict[int, str] = {}
    for part in _parts(project, sheet_id):
        number = part.fixed
        if number is None:
            home = part.groups[0]
            ask = _number_at if home.sheet_id == sheet_id else _number_elsewhere
            number = ask(project, *home.key, part.pattern.wide)
        if number:
            numbers.update((point, number) for sheet, point in part.shown if sheet == sheet_id)
    return numbers


@dataclass(slots=True)
class _Part:
    """What gets a number of its own: its groups and which show it, a fixed number that wins, its rule, its pattern."""

    groups: list[Group]
    shown: list[GroupKey]
    fixed: str | None
    rule_id: str
    pattern: Pattern
    by_line: bool


@derived
def _parts(project: Project, sheet_id: str) -> list[_Part]:
    potentials = nets_of_sheet(project, sheet_id, potential=True)
    return [part for groups in potentials for part in _named(project, *groups[0].key)]


@derived
def _named(project: Project, sheet_id: str, point: int) -> list[_Part]:
    """Return what gets a number of its own of the potential whose first group this is."""
    found = []
    for groups, rule in named_parts(project, net_of(project, (sheet_id, point), potential=True)):
        shown, fixed = _shown(project, groups)
        by_line = any(piece == "line" for piece, _ in rule.pieces)
        found.append(_Part(groups, shown, fixed, rule.id, pattern_for(project, rule, groups), by_line))
    return found


def _shown(project: Project, groups: list[Group]) -> tuple[list[GroupKey], str | None]:
    """Return which groups carry the number of theirs, and that number: None when it runs, "" when there is none.

    A group does not carry it where all its wires are of types that get none.
    """
    wires, bare = project.wires, _unnumbered_types(project)
    shown: list[GroupKey] = []
    fixed: list[str] = []
    numbered = False
    for group in groups:
        carries = not group.wires
        for id in group.wires:
            wire = wires[id]
            if wire.number:
                fixed.append(wire.number)
                carries = True
            if wire.type_id not in bare:
                numbered = carries = True
        if carries:
            shown.append(group.key)
    return shown, min(fixed) if fixed else None if numbered else ""


@derived
def _unnumbered_types(project: Project) -> frozenset[str]:
    """Return the ids of the wire types that get no number."""
    return frozenset(t.id for t in project.wire_types.values() if not t.numbered)


@derived
def _homes(project: Project, sheet_id: str, wide: bool) -> list[tuple[Group, Pattern, str]]:
    """Return what is numbered on a sheet in the order it is counted, with its pattern and rule."""
    sheet = project.sheets[sheet_id]
    found = []
    for part in _parts(project, sheet_id):
        home = part.groups[0]
        if home.sheet_id == sheet_id and part.fixed is None and part.pattern.wide == wide:
            y, x = home.first
            by_line = sheet.frame == "ladder" and part.by_line
            found.append(((ladder_line(sheet, x, y), x, y) if by_line else (0, y, x), home, part.pattern, part.rule_id))
    return [(home, pattern, rule) for _, home, pattern, rule in sorted(found, key=lambda f: f[0])]


def _count(project: Project, homes: list[tuple[Group, Pattern, str]]) -> dict[GroupKey, str]:
    """Return the numbers of homes, counted for each pattern; one that is fixed, given or another's is skipped."""
    given: set[str] = set()
    counts: dict[tuple[str, str], int] = defaultdict(int)
    unclear: set[tuple[str, str]] = set()
    numbers: dict[GroupKey, str] = {}
    for home, pattern, _ in homes:
        if not pattern.width:
            numbers[home.key] = pattern.before
            continue
        key = (pattern.before, pattern.after)
        began, skipped = counts[key], 0
        while True:
            number = pattern.number(counts[key])
            if key in unclear:
                number = f"{pattern.before}-{number.removeprefix(pattern.before)}"
            counts[key] += 1
            if number in given or project.numbered_wires.has(number):
                continue
            if key in unclear or not reads_otherwise(project, pattern, number):
                break
            skipped += 1
            if skipped > MOST_SKIPPED:  # all that are left read like those of another line: a stroke parts them
                unclear.add(key)
                counts[key] = began
        given.add(number)
        numbers[home.key] = number
    return numbers


@derived
def holders_of_numbers(project: Project) -> dict[str, dict[GroupKey, Group]]:
    """Return each shown number with the potentials that show it, by the first group of each; kept until a change.

    Notes:
        Works out the numbers of all sheets.
    """
    found: dict[str, dict[GroupKey, Group]] = {}
    for sheet in project.sheets_in_order():
        numbers = wire_numbers(project, sheet.id)
        for potential in nets_of_sheet(project, sheet.id, potential=True):
            for group in potential:
                if group.sheet_id == sheet.id and group.point in numbers:
                    found.setdefault(numbers[group.point], {}).setdefault(potential[0].key, group)
    return found


def _number_at(project: Project, sheet_id: str, point: int, wide: bool) -> str:
    table = _over_project(project) if wide else _running(project, sheet_id)
    return table.get((sheet_id, point), "")


_number_elsewhere = derived(_number_at)  # so that other numbers of that sheet do not matter here


@derived
def _running(project: Project, sheet_id: str) -> dict[GroupKey, str]:
    """Return the numbers made on a sheet that run within it."""
    return _count(project, _homes(project, sheet_id, False))


@derived
def _over_project(project: Project) -> dict[GroupKey, str]:
    """Return the numbers that run over the whole project."""
    return _count(project, [h for s in project.sheets_in_order() for h in _homes(project, s.id, True)])
