"""A working copy of one sheet, in which symbols are put on wires, taken away and moved.

An edit opens a `SheetDraft`, changes it, and closes it: `close` brings the wires into canonical form and records what
became different. Nothing reaches the project before the whole edit is accepted.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Container
from dataclasses import replace
from typing import Any, cast

from jolly_core.library import is_block
from jolly_core.model import ON_SHEET, ChangeSet, Continuation, IdSource, Project, RuleError, Symbol, Wire, shifted

from .canonical import canonical
from .geometry import Point, lies_beneath, pin_points, through_spans
from .groups import SHIFT, roots
from .protective import keep_protective

PinName = tuple[str, int]  # symbol id and pin index, or mark id and 0
REMEMBERED = 32  # sheets of which it is remembered what their wires join
_Located = tuple[Symbol, list[Point], list[tuple[Point, Point]]]


class SheetDraft:
    """What is on a sheet while an edit works on it: kind -> id -> record."""

    def __init__(self, project: Project, sheet_id: str, ids: IdSource) -> None:
        project.get("sheet", sheet_id)
        self.project = project
        self.sheet_id = sheet_id
        self.ids = ids
        self.found = {kind: _on_sheet(project, kind, sheet_id) for kind in ON_SHEET}
        self.tables = {kind: table.copy() for kind, table in self.found.items()}
        self.symbols: dict[str, Symbol] = self.tables["symbol"]
        self.wires: dict[str, Wire] = self.tables["wire"]
        self.continuations: dict[str, Continuation] = self.tables["continuation"]
        self._located: dict[str, _Located] = project.kept.setdefault("located", {})

    @property
    def others(self) -> list[dict[str, Any]]:
        """What is neither a symbol nor a wire, kind by kind."""
        return [table for kind, table in self.tables.items() if kind not in ("symbol", "wire")]

    def points_of(self, symbol: Symbol) -> list[Point]:
        """Return the grid points of a symbol's pins."""
        return self._where(symbol)[1]

    def spans_of(self, symbol: Symbol) -> list[tuple[Point, Point]]:
        """Return the pairs of points a wire is cut between by a symbol."""
        return self._where(symbol)[2]

    def _where(self, symbol: Symbol) -> _Located:
        """Return where a symbol's pins and spans are, worked out once for as long as it is the same."""
        known = self._located.get(symbol.id)
        if known is None or known[0] is not symbol:
            known = self._located[symbol.id] = (symbol, pin_points(symbol), through_spans(symbol))
        return known

    def put(self, symbol: Symbol) -> None:
        """Put a symbol down; the wires under it are cut when the draft is closed.

        Raises:
            RuleError: its pins would lie between the pins of another symbol, or the other way round.
        """
        for low, high in self.spans_of(symbol):
            for other in self.symbols.values():
                if other.id != symbol.id and any(_overlap(low, high, *span) for span in self.spans_of(other)):
                    raise RuleError(
                        "There is already {it} at this place. Move it, or choose another place.",
                        ids=(other.id,),
                    )
        self.symbols[symbol.id] = symbol

    def take(self, symbol_id: str, gives_way: Container[str] = ()) -> None:
        """Take a symbol away and heal the gap where both stubs are in line and of one type.

        Args:
            gives_way: types of wires that take the type of the stub on the other side.
        """
        symbol = self.symbols.pop(symbol_id)
        for low, high in through_spans(symbol):
            self._heal(low, high, gives_way)

    def exchange(self, symbol: Symbol) -> None:
        """Put a symbol in place of the one of its id; wires heal where it no longer parts them.

        Raises:
            RuleError: its pins would lie between the pins of another symbol.
        """
        old = self.symbols.pop(symbol.id)
        kept = set(through_spans(symbol))
        for low, high in through_spans(old):
            if (low, high) not in kept:
                self._heal(low, high)
        self.put(symbol)

    def _heal(self, low: Point, high: Point, gives_way: Container[str] = ()) -> None:
        before = self._stub(low, high, ends_at=low)
        after = self._stub(low, high, ends_at=high)
        if before is None or after is None:
            return
        types = {w.type_id for w in (before, after)}
        kept = [t for t in types if t not in gives_way]
        if not kept:  # the type of the one or of the other end: what gives way is settled by whoever says so
            kept = [before.type_id]
        if len(kept) == 1:
            self.stroke(low, high, kept[0], before.number or after.number)

    def _stub(self, low: Point, high: Point, ends_at: Point) -> Wire | None:
        horizontal = low[1] == high[1]
        for w in self.wires.values():
            if (w.y1 == w.y2) != horizontal:
                continue
            if ends_at == low and (w.x2, w.y2) == low:
                return w
            if ends_at == high and (w.x1, w.y1) == high:
                return w
        return None

    def stroke(self, a: Point, b: Point, type_id: str, number: str = "") -> None:
        """Add a stroke between two grid points; one without length is left out."""
        if a != b:
            id = self.ids.new()
            low, high = sorted((a, b))
            self.wires[id] = Wire(id, self.sheet_id, *low, *high, type_id, number)

    def pins(self) -> list[Point]:
        """Return the grid points of all pins and continuation marks."""
        points = [p for _, pins, _ in self._places() for p in pins]
        points += [(c.x, c.y) for c in self.continuations.values()]
        return points

    def _places(self) -> list[_Located]:
        """Return where the pins and spans of all symbols are."""
        return [self._where(s) for s in self.symbols.values()]

    def tidy(self) -> None:
        """Bring the wires into canonical form.

        Raises:
            RuleError: a wire would end between the pins of a symbol, or a pole would cut a protective conductor.
        """
        spanning = [(symbol, span) for symbol, _, spans in self._places() for span in spans]
        touched, settled = self._touched()
        wires = settled + canonical(touched, self.pins(), [span for _, span in spanning], self.ids, settled)
        keep_protective(self.project, self.symbols, self.wires.values(), wires)
        self.wires = self.tables["wire"] = {w.id: w for w in wires}
        ends = {p for w in wires for p in ((w.x1, w.y1), (w.x2, w.y2))}
        for symbol, (low, high) in spanning:
            if not ends.isdisjoint(_inside(low, high)):
                raise RuleError(
                    "A wire would end between the pins of {it}. Choose a place clear of the junction.",
                    ids=(symbol.id,),
                )
        self._keep_clear()

    def _keep_clear(self) -> None:
        """Refuse wires beneath a block; those that lay there before it was so stay, and are told as a snag.

        Raises:
            RuleError: a wire would lie within the body of a block, where it has no pin to end at.
        """
        for symbol in (s for s in self.symbols.values() if is_block(s.definition)):
            stands = self.found["symbol"].get(symbol.id) is symbol
            for wire in self.wires.values():
                if stands and self.found["wire"].get(wire.id) is wire:
                    continue
                if lies_beneath(symbol, wire):
                    words = "A wire would run beneath {it}, where it has no pin. Choose a place beside the wire."
                    raise RuleError(words, ids=(symbol.id,))

    def _touched(self) -> tuple[list[Wire], list[Wire]]:
        """Return the wires on lines that differ from the project's sheet in a wire or a pin, and all others."""
        points: set[Point] = set()
        rows: set[int] = set()
        columns: set[int] = set()

        for kind in ("wire", "symbol", "continuation"):
            known, mine = self.found[kind], self.tables[kind]
            for one, other in ((known, mine), (mine, known)):
                for id, entity in one.items():
                    if other.get(id) is not entity:
                        points.update(_ends(entity))
        for x, y in points:
            columns.add(x)
            rows.add(y)
        touched: list[Wire] = []
        settled: list[Wire] = []
        for w in self.wires.values():
            across = w.y1 == w.y2
            near = w.y1 in rows if across else w.x1 in columns
            (touched if near else settled).append(w)
        return touched, settled

    def close(self, changes: ChangeSet, *, tidied: bool = False) -> None:
        """Tidy the wires, unless that was just done, and record everything that differs from the project's sheet."""
        if not tidied:
            self.tidy()
        for kind, after in self.tables.items():
            before = self.found[kind]
            if before == after:  # most kinds; equal records are told at once where they are the same
                continue
            for id in {**before, **after}:
                old, new = before.get(id), after.get(id)
                if old is not new:
                    changes.record(kind, id, old, new)

    def partition(self) -> dict[PinName, int]:
        """Return for each pin (symbol id and index) and mark a number, equal where the sheet's wires join them.

        A pin that nothing is wired to has no entry. What is returned is not to be changed: it is kept, as the sheet
        after an edit is the sheet before the next.
        """
        kept: dict[str, tuple[Any, ...]] = self.project.kept.setdefault("partition", {})
        known = kept.pop(self.sheet_id, None)
        if known is None or known[:3] != (self.wires, self.symbols, self.continuations):
            known = (self.wires.copy(), self.symbols.copy(), self.continuations.copy(), self._partition())
        kept[self.sheet_id] = known
        if len(kept) > REMEMBERED:
            del kept[next(iter(kept))]
        return cast("dict[PinName, int]", known[3])

    def _partition(self) -> dict[PinName, int]:
        root_of = roots(self.wires.values())
        result: dict[PinName, int] = {}
        bare: dict[int, list[PinName]] = {}

        def put(point: int, name: PinName) -> None:
            root = root_of.get(point)
            if root is not None:
                result[name] = root
            else:
                bare.setdefault(point, []).append(name)

        for s, points, _ in self._places():
            for index, (x, y) in enumerate(points):
                put((y << SHIFT) + x, (s.id, index))
        for c in self.continuations.values():
            put((c.y << SHIFT) + c.x, (c.id, 0))
        for point, names in bare.items():
            if len(names) > 1:
                result.update((name, point) for name in names)
        return result


def _on_sheet(project: Project, kind: str, sheet_id: str) -> dict[str, Any]:
    ids = project.on_sheet[kind].get(sheet_id)
    return dict(zip(ids, project.tables[kind].all_of(ids), strict=True))


def _ends(entity: Wire | Symbol | Continuation) -> list[Point]:
    """Return the grid points at which a wire, a symbol or a mark connects."""
    if isinstance(entity, Wire):
        return [(entity.x1, entity.y1), (entity.x2, entity.y2)]
    return [(entity.x, entity.y)] if isinstance(entity, Continuation) else pin_points(entity)


def joins(before: dict[PinName, int], after: dict[PinName, int]) -> list[tuple[PinName, PinName]]:
    """Return pairs of pins that `after` joins though `before` wired each of them to something else."""
    first: dict[tuple[int, int], PinName] = {}
    for name, group in after.items():
        if name in before:
            first.setdefault((group, before[name]), name)
    members: dict[int, list[PinName]] = defaultdict(list)
    for (group, _), name in first.items():
        members[group].append(name)
    return [(names[0], other) for names in members.values() for other in names[1:]]


def parted(before: dict[PinName, int], after: dict[PinName, int], moved: set[str]) -> list[PinName]:
    """Return the pins of moved symbols that `after` no longer joins to all that `before` wired them to."""
    theirs = {name: group for name, group in before.items() if name[0] in moved}
    members: dict[int, set[int | None]] = {group: set() for group in theirs.values()}
    for name, group in before.items():
        if group in members:
            members[group].add(after.get(name))
    return [name for name, group in theirs.items() if name not in after or len(members[group]) > 1]


def move(
    draft: SheetDraft, ids: set[str], dx: int, dy: int, *, allow_join: bool = False
) -> list[tuple[PinName, PinName]]:
    """Move what is on a sheet; wires that stay behind stretch orthogonally.

    Args:
        ids: what moves, all on the draft's sheet.
        dx, dy: grid steps.
        allow_join: accept that nets become one which were not.

    Returns:
        The pairs of pins that become joined, empty unless `allow_join`.

    Raises:
        RuleError: nets would be joined, or a moved pin parted from its net, without `allow_join`; or a place is
            taken.
    """
    before = draft.partition()
    moved = {i: s for i, s in draft.symbols.items() if i in ids}
    moved_points, staying_pins = _pins_by(draft, ids)
    moved_wires = {i: w for i, w in draft.wires.items() if i in ids}
    wire_ends = {p for w in moved_wires.values() for p in ((w.x1, w.y1), (w.x2, w.y2))}

    for symbol_id in moved:
        del draft.symbols[symbol_id]
    for wire_id in moved_wires:
        del draft.wires[wire_id]

    shifting = moved_points | wire_ends
    for wire in list(draft.wires.values()):
        ends = ((wire.x1, wire.y1), (wire.x2, wire.y2))
        if wire.id in draft.wires and any(e in shifting for e in ends):
            _stretch(draft, wire, shifting, dx, dy)
    for point in sorted((wire_ends | moved_points) & staying_pins):
        wire_there = next((w for w in moved_wires.values() if point in ((w.x1, w.y1), (w.x2, w.y2))), None)
        if wire_there is not None:
            _elbow(draft, point, point[0] + dx, point[1] + dy, wire_there, wire_there.y1 == wire_there.y2)

    for w in moved_wires.values():
        draft.wires[w.id] = shifted(w, dx, dy)
    for s in moved.values():
        draft.put(shifted(s, dx, dy))
    for table in draft.others:
        table.update((id, shifted(table[id], dx, dy)) for id in ids if id in table)
    draft.tidy()
    after = draft.partition()
    joined = joins(before, after)
    lost = parted(before, after, set(moved))
    if lost and not joined and not allow_join:
        raise RuleError(
            "This would part {it} from what it is connected to. Choose a place clear of other wires.",
            ids=(lost[0][0],),
        )
    if joined and not allow_join:
        raise RuleError(
            "This would join wires that are not connected now. Hold Shift to join them, or choose another place.",
            ids=tuple(sorted({name[0] for pair in joined for name in pair})),
        )
    return joined


def _pins_by(draft: SheetDraft, ids: set[str]) -> tuple[set[Point], set[Point]]:
    """Return the points of pins and marks that move, and of those that stay."""
    found: tuple[set[Point], set[Point]] = (set(), set())
    for id, symbol in draft.symbols.items():
        found[id not in ids].update(draft.points_of(symbol))
    for id, mark in draft.continuations.items():
        found[id not in ids].add((mark.x, mark.y))
    return found


def _stretch(draft: SheetDraft, wire: Wire, shifting: set[Point], dx: int, dy: int) -> None:
    a, b = (wire.x1, wire.y1), (wire.x2, wire.y2)
    del draft.wires[wire.id]
    if a in shifting and b in shifting:
        draft.wires[wire.id] = replace(wire, x1=a[0] + dx, y1=a[1] + dy, x2=b[0] + dx, y2=b[1] + dy)
        return
    free, held = (a, b) if a in shifting else (b, a)
    horizontal = a[1] == b[1]
    _elbow(draft, held, free[0] + dx, free[1] + dy, wire, horizontal)


def _elbow(draft: SheetDraft, held: Point, x: int, y: int, wire: Wire, horizontal: bool) -> None:
    """Run from a point that stays to (x, y), leaving in the wire's direction; the first stroke keeps its id."""
    corner = (x, held[1]) if horizontal else (held[0], y)
    if held != corner and wire.id not in draft.wires:
        low, high = sorted((held, corner))
        draft.wires[wire.id] = replace(wire, x1=low[0], y1=low[1], x2=high[0], y2=high[1])
    else:
        draft.stroke(held, corner, wire.type_id, wire.number)
    draft.stroke(corner, (x, y), wire.type_id, wire.number)


def _inside(low: Point, high: Point) -> list[Point]:
    """Return the grid points between the ends of a span."""
    if low[1] == high[1]:
        return [(x, low[1]) for x in range(low[0] + 1, high[0])]
    return [(low[0], y) for y in range(low[1] + 1, high[1])]


def _overlap(a1: Point, a2: Point, b1: Point, b2: Point) -> bool:
    if a1[1] == a2[1] == b1[1] == b2[1]:
        return a1[0] < b2[0] and b1[0] < a2[0]
    if a1[0] == a2[0] == b1[0] == b2[0]:
        return a1[1] < b2[1] and b1[1] < a2[1]
    return False
