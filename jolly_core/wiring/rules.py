"""Numbering rules: which rule names a net, and what the pieces of its number say there.

The first stored rule whose condition holds names the net; where none holds, the project's own pattern does. A rule
with a piece that has nothing to say (no channel, no named potential) does not hold.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.drawing import place_on, protective_types, shares_lines, sheets_with_line, zone
from jolly_core.library import definition
from jolly_core.model import NumberRule, Project, Sheet, Wire, derived
from jolly_core.plc import TYPES_OF_UNITS, channel_address

from .nets import Group, net_of, sheet_groups

RUNNING = "running"


@dataclass(slots=True)
class Pattern:
    """A number before its running part is counted.

    Attributes:
        before, after: texts around the running part; all of the number is in `before` when there is none.
        width, start: digits and first number of the running part; width 0 when there is none.
        wide: whether it runs over the whole project: nothing else in it tells one sheet from another.
        head: the sheet's number or the line, where its running digits follow directly on one; "" where none does.
    """

    before: str
    after: str
    width: int
    start: int
    wide: bool
    head: str = ""

    def number(self, count: int) -> str:
        """Return the number for a count from 0."""
        return f"{self.before}{self.start + count:0{self.width}d}{self.after}" if self.width else self.before


@derived
def rules_in_order(project: Project) -> list[NumberRule]:
    """Return the stored rules, the one that is asked first in front."""
    return sorted(project.number_rules.values(), key=lambda r: (r.order, r.id))


def own_rule(project: Project, sheet: Sheet) -> NumberRule:
    """Return what names the nets that no stored rule names: the pattern of the settings."""
    return _own_rule(project, sheet.frame == "ladder")


@derived
def _own_rule(project: Project, on_ladder: bool) -> NumberRule:
    width = str(project.settings.wire_width)
    if project.settings.wire_pattern == "line" and on_ladder:
        return NumberRule("", 0, "", (("line", ()), (RUNNING, (width, "1"))))
    return NumberRule("", 0, "", (("sheet", ()), ("text", ("-",)), (RUNNING, (width, "1"))))


def named_parts(project: Project, potential: list[Group]) -> list[tuple[list[Group], NumberRule]]:
    """Return what gets a number of its own of a potential, each with the rule that names it.

    This is the potential itself, or its nets where the rule's scope is a net. The protective conductors that a return
    is bonded to have a number apart from it.
    """
    return [part for groups in _apart(project, potential) for part in _named(project, groups)]


def groups_numbered_with(project: Project, wire: Wire) -> list[Group]:
    """Return the groups that have one number with a wire."""
    start = (wire.sheet_id, sheet_groups(project, wire.sheet_id).of_wire[wire.id])
    parts = named_parts(project, net_of(project, start, potential=True))
    return next(groups for groups, _ in parts if any(wire.id in g.wires for g in groups))


def _apart(project: Project, potential: list[Group]) -> list[list[Group]]:
    """Return the groups of a potential whose wires are all protective apart from the others, where there are both."""
    protective = protective_types(project) if len(potential) > 1 else frozenset()
    if not protective:
        return [potential]
    earth = [g for g in potential if g.wires and all(project.wires[id].type_id in protective for id in g.wires)]
    keys = {g.key for g in earth}
    others = [g for g in potential if g.key not in keys]
    return [others, earth] if earth and any(g.wires for g in others) else [potential]


def _named(project: Project, potential: list[Group]) -> list[tuple[list[Group], NumberRule]]:
    home = project.sheets[potential[0].sheet_id]
    rules = (r for r in rules_in_order(project) if holds(project, r, potential))
    rule = next(rules, None) or own_rule(project, home)
    if rule.scope == "potential" or len(potential) == 1:
        return [(potential, rule)]
    found: list[tuple[list[Group], NumberRule]] = []
    seen: set[tuple[str, int]] = set()
    own = {g.key for g in potential}
    for group in potential:
        if group.key not in seen:
            net = [g for g in net_of(project, group.key) if g.key in own]
            seen.update(g.key for g in net)
            found.append((net, rule))
    return found


def holds(project: Project, rule: NumberRule, groups: list[Group]) -> bool:
    """Return whether a rule names a net or potential."""
    home = project.sheets[groups[0].sheet_id]
    if rule.function_id and home.function_id != rule.function_id:
        return False
    if rule.location_id and home.location_id != rule.location_id:
        return False
    if rule.category or rule.type_id:
        types = {project.wires[id].type_id for g in groups for id in g.wires}
        if rule.type_id and rule.type_id not in types:
            return False
        kinds = {project.wire_types[t].category for t in types if t in project.wire_types}
        if rule.category and rule.category not in kinds:
            return False
    names = _names(project, groups)
    if rule.potential and rule.potential not in names:
        return False
    pieces = {piece for piece, _ in rule.pieces}
    if "potential" in pieces and not names:
        return False
    return not ((rule.at_channel or "address" in pieces) and not _address(project, groups))


def _names(project: Project, groups: list[Group]) -> list[str]:
    return sorted({project.continuations[id].name for g in groups for id in g.continuations})


def _address(project: Project, groups: list[Group]) -> str:
    """Return the address of the first channel a net touches, "" when it touches none."""
    for group in groups:
        for symbol_id, _ in group.pins:
            symbol = project.symbols[symbol_id]
            io_type = TYPES_OF_UNITS.get(definition(symbol.definition).unit)
            if io_type and symbol.device_id:
                found = channel_address(project, symbol.device_id, io_type, symbol.units[0])
                if found:
                    return found
    return ""


def pattern_for(project: Project, rule: NumberRule, groups: list[Group]) -> Pattern:
    """Return the number of a net by a rule, its running part still open."""
    home = groups[0]
    sheet = project.sheets[home.sheet_id]
    y, x = home.first
    texts: list[str] = ["", ""]
    width = start = 0
    head = last = ""
    for piece, args in rule.pieces:
        side = 1 if width else 0
        if piece == RUNNING:
            width, start = int(args[0]), int(args[1])
            head = sheet.number if last == "sheet" else place_on(sheet, x, y) if last == "line" else ""
        elif piece == "sheet":
            texts[side] += sheet.number
        elif piece == "line":
            texts[side] += place_on(sheet, x, y)
        elif piece == "column":
            texts[side] += zone(sheet, x, y)[1:]
        elif piece == "address":
            texts[side] += _address(project, groups)
        elif piece == "potential":
            texts[side] += next(iter(_names(project, groups)), "")
        else:
            texts[side] += args[0]
        last = piece
    wide = bool(width) and not any(_tells_apart(project, sheet, piece) for piece, _ in rule.pieces)
    return Pattern(texts[0], texts[1], width, start, wide, head)


def reads_otherwise(project: Project, pattern: Pattern, number: str) -> bool:
    """Return whether a number is also one of another line or sheet: 30 and 11 reads like line 301 and 1.

    Notes:
        Only a running part that is longer than its width can do so; the number belongs to the longer line then.
    """
    digits = number[len(pattern.before) : len(number) - len(pattern.after)]
    if not pattern.head or len(digits) <= pattern.width:
        return False
    heads = [pattern.head + digits[:n] for n in range(1, len(digits) - pattern.width + 1)]
    lines = sheets_with_line(project)
    return any((h.isdecimal() and int(h) in lines) or h in _sheet_numbers(project) for h in heads)


@derived
def _sheet_numbers(project: Project) -> set[str]:
    return {s.number for s in project.sheets.values()}


def _tells_apart(project: Project, sheet: Sheet, piece: str) -> bool:
    """Return whether a piece of a number is on no other sheet: a zone is on all, a line may be on two."""
    if piece == "line":
        return sheet.frame == "ladder" and not shares_lines(project, sheet)
    return piece == "sheet"
