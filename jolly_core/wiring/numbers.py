"""Wire numbers: one for each potential, fixed ones kept, the others run by the project's pattern.

The number of a potential is made on its *home*, the sheet of its first group in reading order. Numbers therefore
need the home sheet's groups only, and an edit on one sheet cannot renumber another except through a continuation.
"""

from __future__ import annotations

from collections import defaultdict

from jolly_core.drawing import ladder_line
from jolly_core.model import Project

from .nets import Group, nets_of_sheet


def wire_numbers(project: Project, sheet_id: str) -> dict[int, str]:
    """Return the wire number of each numbered group of a sheet, by the group's index.

    Notes:
        A fixed number anywhere on the potential wins; of several the lowest. Running numbers go top to bottom, then
        left to right, and skip numbers that are fixed anywhere in the project. A potential without a wire, or with
        wires of types that get no number only, has none.

    Example:
        Ladder line 214 with three nets, the second fixed as 77, gives 2141, 77, 2142.
    """
    kept = project.derived("numbers")
    if sheet_id not in kept:
        kept[sheet_id] = _numbers(project, sheet_id)
    numbers: dict[int, str] = kept[sheet_id]
    return numbers


def _numbers(project: Project, sheet_id: str) -> dict[int, str]:
    numbers: dict[int, str] = {}
    running = project.derived("running-numbers")
    for potential in nets_of_sheet(project, sheet_id, potential=True):
        home = potential[0]
        fixed = _fixed(project, potential)
        if fixed is not None:
            number: str | None = fixed
        else:
            if home.sheet_id not in running:
                running[home.sheet_id] = _running(project, home.sheet_id)
            number = running[home.sheet_id].get(home.index)
        if number:
            numbers.update((g.index, number) for g in potential if g.sheet_id == sheet_id)
    return numbers


def _fixed(project: Project, potential: list[Group]) -> str | None:
    """Return the fixed number of a potential, "" when it gets none at all, None when it runs."""
    numbered = False
    fixed: list[str] = []
    for group in potential:
        for id in group.wires:
            wire = project.wires[id]
            if wire.number:
                fixed.append(wire.number)
            wire_type = project.wire_types.get(wire.type_id)
            numbered = numbered or wire_type is None or wire_type.numbered
    if fixed:
        return min(fixed)
    return None if numbered else ""


def _running(project: Project, sheet_id: str) -> dict[int, str]:
    """Return the running numbers made on a sheet, by the index of the potential's first group."""
    sheet = project.sheets[sheet_id]
    settings = project.settings
    homes = []
    for potential in nets_of_sheet(project, sheet_id, potential=True):
        if potential[0].sheet_id == sheet_id and _fixed(project, potential) is None:
            homes.append(potential[0])
    by_line = settings.wire_pattern == "line" and sheet.frame == "ladder"
    counts: dict[str, int] = defaultdict(int)
    numbers: dict[int, str] = {}
    for group in sorted(homes, key=lambda g: _place(by_line, ladder_line(sheet, g.first[1], g.first[0]), g)):
        prefix = str(ladder_line(sheet, group.first[1], group.first[0])) if by_line else f"{sheet.number}-"
        while True:
            counts[prefix] += 1
            number = f"{prefix}{counts[prefix]:0{settings.wire_width}d}"
            if not project.numbered_wires.get(number):
                break
        numbers[group.index] = number
    return numbers


def _place(by_line: bool, line: int, group: Group) -> tuple[int, int, int]:
    y, x = group.first
    return (line, x, y) if by_line else (0, y, x)
