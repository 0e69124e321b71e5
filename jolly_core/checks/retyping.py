"""The snag of wires that have not the wire type of their potential, and its mend: one for all that tell of it."""

from __future__ import annotations

from collections.abc import Callable

from jolly_core.model import Project, Wire, WireType, counted

from .registry import Act, Snag

_MOST = 2000  # wires that one edit gives another type


def of_other_type(
    project: Project, code: str, sheet_id: str, wires: list[Wire], right: WireType, words: Callable[[str], str]
) -> Snag:
    """Return the snag at the first of some wires of a sheet; its act gives all of them the right type.

    Args:
        words: the message, from "2 wires of type Power are".
    """
    wires = sorted(wires, key=lambda w: (w.y1, w.x1, w.id))
    names = sorted({project.wire_types[w.type_id].name for w in wires})
    are = f"{counted(len(wires), 'wire')} of type {' and '.join(names)} {'is' if len(wires) == 1 else 'are'}"
    ids = tuple(w.id for w in wires)
    act = Act(f"Make it {right.name}", "set-wire-type", (("ids", list(ids[:_MOST])), ("wire_type_id", right.id)))
    return Snag(code, "warning", words(are), ids, sheet_id, wires[0].x1, wires[0].y1, act=act)
