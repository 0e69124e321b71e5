"""Protective conductors are never cut: no pole, contact or load may come to lie on one, whatever puts it there.

Terms: a symbol *switches* at a pair of pins between which a wire is cut, unless it carries them as one potential or is
made for a protective conductor (it calls one of them PE).
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from jolly_core.library import Definition, definition
from jolly_core.model import Project, RuleError, Symbol, Wire, derived

from .geometry import Point, pin_points

PE = "PE"
PROTECTIVE = "pe"


def is_protective(project: Project, wire: Wire) -> bool:
    """Return whether a wire is of a type for protective conductors."""
    return wire.type_id in protective_types(project)


@derived
def protective_types(project: Project) -> frozenset[str]:
    """Return the ids of the wire types for protective conductors."""
    return frozenset(t.id for t in project.wire_types.values() if t.category == PROTECTIVE)


def switching_pairs(shape: Definition) -> list[tuple[int, int]]:
    """Return the pairs of pins of a pole that a protective conductor may not be led through.

    Example:
        >>> switching_pairs(definition("fuse")), switching_pairs(definition("terminal-earth"))
        ([(0, 1)], [])
    """
    carried = {frozenset(pair) for pair in shape.carries}
    return [
        (a, b)
        for a, b in shape.through
        if frozenset((a, b)) not in carried and PE not in (_generic(shape, a), _generic(shape, b))
    ]


def _generic(shape: Definition, pin: int) -> str:
    return shape.generic[pin] if pin < len(shape.generic) else ""


def keep_protective(
    project: Project, symbols: Mapping[str, Symbol], drawn: Iterable[Wire], wires: Iterable[Wire]
) -> None:
    """Refuse what would bring a switching pole onto a protective conductor.

    Args:
        project: the project before the edit.
        symbols: the sheet's symbols after it.
        drawn: the sheet's wires after it, not yet cut by symbols.
        wires: the same, cut.

    Raises:
        RuleError: with the symbol, which pole it is, and what to do.
    """
    crossing = [w for w in drawn if is_protective(project, w)]
    if not crossing:
        return
    ends = {p for w in wires if is_protective(project, w) for p in ((w.x1, w.y1), (w.x2, w.y2))}
    for symbol in symbols.values():
        known = project.symbols.get(symbol.id)
        pairs = switching_pairs(definition(symbol.definition))
        if not pairs or (known is symbol and not any(_crossed(symbol, pairs, w) for w in crossing)):
            continue
        had = _landed(known, _ends_of(project, known.sheet_id)) if known is not None else set()
        for pole, _ in sorted(_landed(symbol, ends) - had):
            words = f"{{it}} would cut a protective conductor with its pole {pole}: that is never switched."
            if len(symbol.units) == 1:
                words = "{it} would cut a protective conductor: that is never switched."
            raise RuleError(f"{words} Leave it out, or choose a place clear of the PE.", ids=(symbol.id,), field="x")


def _ends_of(project: Project, sheet_id: str) -> set[Point]:
    wires = project.wires_on(sheet_id)
    return {p for w in wires if is_protective(project, w) for p in ((w.x1, w.y1), (w.x2, w.y2))}


def _landed(symbol: Symbol, ends: set[Point]) -> set[tuple[int, int]]:
    """Return pole and pin of each switching pin at which a protective conductor ends, poles from 1."""
    shape = definition(symbol.definition)
    points, size = pin_points(symbol), len(shape.pins)
    pins = {pin for pair in switching_pairs(shape) for pin in pair}
    return {(pole + 1, pin) for pole in range(len(symbol.units)) for pin in pins if points[pole * size + pin] in ends}


def _crossed(symbol: Symbol, pairs: list[tuple[int, int]], wire: Wire) -> bool:
    """Return whether a wire runs from one pin of a switching pair to the other, or beyond."""
    points, size = pin_points(symbol), len(definition(symbol.definition).pins)
    for pole in range(len(symbol.units)):
        for a, b in pairs:
            (ax, ay), (bx, by) = sorted((points[pole * size + a], points[pole * size + b]))
            if wire.x1 <= ax and bx <= wire.x2 and wire.y1 <= ay and by <= wire.y2:
                return True
    return False
