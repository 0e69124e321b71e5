"""A wire between pins of two sheets, or of one without room for a stroke: a short stroke and a mark at either."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.drawing import Point, SheetDraft, extent_of, grid_size, pin_points
from jolly_core.model import Project, RuleError, Symbol

from ..base.edit import Work
from .continuations import PlaceContinuation, place_continuation

REACHES = (3, 2, 4, 5, 6)
WAYS: tuple[tuple[Point, str], ...] = (((1, 0), "right"), ((-1, 0), "left"), ((0, 1), "down"), ((0, -1), "up"))


def join_by_marks(work: Work, symbols: list[Symbol], type_id: str, name: str) -> None:
    """Join the first pins of two symbols by marks of one name, which gets a number where it is taken.

    Raises:
        RuleError: a pin has no room beside it.
    """
    shown = free_mark_name(work.project, name)
    for symbol in symbols:
        draft = work.draft(symbol.sheet_id)
        pin = pin_points(symbol)[0]
        spot, toward = _spot(work.project, draft, symbol, pin)
        draft.stroke(pin, spot, type_id)
        work.close(draft)
        x, y = spot
        mark = {"sheet_id": symbol.sheet_id, "x": x, "y": y, "name": shown, "toward": toward}
        place_continuation(work, PlaceContinuation.model_validate(mark))


def free_mark_name(project: Project, name: str) -> str:
    """Return a name that no mark has yet."""
    names = (name, *(f"{name}.{n}" for n in range(2, 100_000)))
    return next(n for n in names if not project.continuations_named.get(n))


def _spot(project: Project, draft: SheetDraft, symbol: Symbol, pin: Point) -> tuple[Point, str]:
    """Return where a mark goes beside a pin and to which side its arrow points: outwards before aside."""
    sheet = project.sheets[symbol.sheet_id]
    left, top, right, bottom = extent_of(symbol)
    out = (pin[0] - (left + right) / 2, pin[1] - (top + bottom) / 2)
    wide, tall = grid_size(sheet)
    taken = _taken(draft)
    boxes = [extent_of(s) for s in draft.symbols.values()]
    for (dx, dy), toward in sorted(WAYS, key=lambda way: -(way[0][0] * out[0] + way[0][1] * out[1])):
        for reach in REACHES:
            run = [(pin[0] + dx * n, pin[1] + dy * n) for n in range(1, reach + 2)]
            x, y = run[-1]
            clear = 0 < x < wide and 0 < y < tall and not any(p in taken for p in run)
            if clear and not any(_inside(p, box) for p in run for box in boxes):
                return run[reach - 1], toward
    raise RuleError(
        f"There is no room for a mark beside this pin on sheet {sheet.number}. Draw the wire there.", ids=(symbol.id,)
    )


def _taken(draft: SheetDraft) -> set[Point]:
    points = {(c.x, c.y) for c in draft.continuations.values()}
    for symbol in draft.symbols.values():
        points.update(pin_points(symbol))
    for wire in draft.wires.values():
        points.update(_along(wire.x1, wire.y1, wire.x2, wire.y2))
    return points


def _along(x1: int, y1: int, x2: int, y2: int) -> Iterator[Point]:
    if x1 == x2:
        yield from ((x1, y) for y in range(min(y1, y2), max(y1, y2) + 1))
    else:
        yield from ((x, y1) for x in range(min(x1, x2), max(x1, x2) + 1))


def _inside(point: Point, box: tuple[float, float, float, float]) -> bool:
    return box[0] < point[0] < box[2] and box[1] < point[1] < box[3]
