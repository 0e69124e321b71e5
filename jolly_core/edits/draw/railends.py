"""The ends of a rung: from a rail to the first thing on it a wire is of the rail's potential, and has its wire type.

It holds for rails whose type is that of one potential: the neutral's, or one that says it ("24 V DC"). A symbol put on
such an end, or taken off a rung, moves the place where the potential ends; the wires follow.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from jolly_core.drawing import SHIFT, Point, SheetDraft, rails_at, roots
from jolly_core.library import definition
from jolly_core.model import Sheet, Wire
from jolly_core.wiring import takes_type, types_of_potentials

from ..base.edit import Work
from .rungwires import rung_type


@dataclass(slots=True)
class _RailStretch:
    """Wires on some lines that join each other: the columns of the rails they end at, the type a rail gives them."""

    wires: list[Wire]
    rails: set[int]
    said: str = ""


class RailEnds:
    """What leads to rails of one potential on some lines of a sheet, as it is before an edit.

    Attributes:
        gives_way: types of wires that take that of the other stub where a gap heals; empty without such a rail.
    """

    def __init__(self, draft: SheetDraft, sheet: Sheet, lines: Iterable[int], switched: str = "") -> None:
        """Note it.

        Args:
            switched: the wire type of what leads to no rail, "" for that of the wires beside it and of other rungs.
        """
        self._switched = switched
        self._sheet = sheet
        self._lines = set(lines)
        said = types_of_potentials(draft.project) if sheet.frame == "ladder" else frozenset()
        self._rails = [w for w in draft.wires.values() if w.type_id in said and self._is_rail(w)]
        self.gives_way = said if self._rails else frozenset()
        strands = self._strands(draft) if self._rails else []
        self._before = [w for s in strands if s.said for w in s.wires]

    def settle(self, draft: SheetDraft) -> bool:
        """Give what leads to a rail now the rail's type, and take it from what no longer does.

        Args:
            draft: tidied, so that wires end wherever they connect.

        Returns:
            Whether a wire became another one, so that the draft is to be tidied again.

        Notes:
            A rung that leads from rail to rail with nothing on it has one type, that of what is switched.
        """
        if not self._rails:
            return False
        before = draft.wires.copy()
        types = draft.project.wire_types
        for strand in self._strands(draft):
            whole = any(set(rails_at(self._sheet, x)) <= strand.rails for x in strand.rails)
            said = types.get(strand.said) if not whole else None
            for w in sorted(strand.wires, key=lambda w: (w.y1, w.x1)):
                if said is not None and takes_type(draft.project, types[w.type_id], said):
                    draft.wires[w.id] = replace(w, type_id=said.id)
                    continue
                leads_on = whole or (w.type_id != strand.said and self._led_to_rail(w))
                if leads_on and w.type_id in self.gives_way and w.y1 == w.y2:
                    draft.wires[w.id] = replace(w, type_id=said.id if said is not None else self._beside(draft, w))
        return draft.wires != before

    def _is_rail(self, w: Wire) -> bool:
        return w.x1 == w.x2 and w.x1 in rails_at(self._sheet, w.x1)

    def _strands(self, draft: SheetDraft) -> list[_RailStretch]:
        """Return what the wires on the lines join, rails left out; what terminals join leads to one rail."""
        own = [w for w in draft.wires.values() if not self._is_rail(w) and {w.y1, w.y2} & self._lines]
        root_of = roots(own)
        found: dict[int, _RailStretch] = {}
        for w in own:
            strand = found.setdefault(root_of[_number((w.x1, w.y1))], _RailStretch([], set()))
            strand.wires.append(w)
            for x, y in ((w.x1, w.y1), (w.x2, w.y2)):
                if x in rails_at(self._sheet, x):
                    strand.rails.add(x)
                strand.said = strand.said or next((r.type_id for r in self._rails if _meets(r, x, y)), "")
        joined = [
            (found[root_of[a]], found[root_of[b]])
            for symbol in draft.symbols.values()
            for one, other in definition(symbol.definition).carries
            for points in (draft.points_of(symbol),)
            for a, b in ((_number(points[one]), _number(points[other])),)
            if a in root_of and b in root_of
        ]
        for _ in joined:  # as many times as it takes to get past all of them in a row
            for a, b in joined:
                a.said = b.said = a.said or b.said
        return list(found.values())

    def _led_to_rail(self, w: Wire) -> bool:
        """Return whether a wire across is a piece of one that led to the rail before."""
        return any(o.y1 == o.y2 == w.y1 and o.x1 <= w.x1 and w.x2 <= o.x2 for o in self._before)

    def _beside(self, draft: SheetDraft, w: Wire) -> str:
        """Return the type of the nearest wire on a line that says no potential, left of it first, else of a rung."""
        live = [o for o in draft.wires.values() if o.y1 == o.y2 == w.y1 and o.type_id not in self.gives_way]
        left = max((o for o in live if o.x2 <= w.x1), key=lambda o: o.x2, default=None)
        right = min((o for o in live if o.x1 >= w.x2), key=lambda o: o.x1, default=None)
        nearest = left or right
        return nearest.type_id if nearest else self._switched or rung_type(draft, w)


def _number(point: Point) -> int:
    return (point[1] << SHIFT) + point[0]


def _meets(rail: Wire, x: int, y: int) -> bool:
    return rail.x1 == x and rail.y1 <= y <= rail.y2


def close_settled(work: Work, draft: SheetDraft, ends: RailEnds) -> None:
    """Tidy a draft, settle the ends of its rungs, and take it over."""
    draft.tidy()
    work.close(draft, tidied=not ends.settle(draft))
