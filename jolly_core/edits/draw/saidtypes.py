"""New wires on a potential that has a wire type of its own take that type."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import replace

from jolly_core.drawing import SHIFT, SheetDraft, rails_at, roots
from jolly_core.wiring import is_neutral, takes_type, types_of_potentials


def take_said_types(draft: SheetDraft, ids: Iterable[str]) -> bool:
    """Give new wires the type of the potential they are joined to, where its other wires on the sheet say one.

    Args:
        draft: tidied, so that wires end wherever they connect.
        ids: the new ones.

    Returns:
        Whether a wire became another one, so that the draft is to be tidied again.

    Notes:
        The neutral's type, known by its colour, says nothing here: either wire may be the wrong one (`neutral-type`).
        What was there before stays: somebody may have said so. A potential of two types decides nothing, nor does one
        that two rails of a ladder are joined to, one of them without a type of its own.
    """
    types, said = draft.project.wire_types, types_of_potentials(draft.project)
    new = {id for id in ids if id in draft.wires}
    root_of = roots(list(draft.wires.values()))
    sheet = draft.project.sheets[draft.sheet_id]
    found: dict[int, set[str]] = defaultdict(set)
    for w in draft.wires.values():
        rail = sheet.frame == "ladder" and w.x1 == w.x2 and w.x1 in rails_at(sheet, w.x1) and w.id not in new
        if w.type_id in said or rail:
            found[root_of[(w.y1 << SHIFT) + w.x1]].add(w.type_id)
    changed = False
    for id in sorted(new):
        own = draft.wires[id]
        of_net = found[root_of[(own.y1 << SHIFT) + own.x1]]
        if len(of_net) == 1:
            (type_id,) = of_net
            named = type_id in said and not is_neutral(draft.project, types[type_id])
            if named and takes_type(draft.project, types[own.type_id], types[type_id]):
                draft.wires[id] = replace(own, type_id=type_id)
                changed = True
    return changed
