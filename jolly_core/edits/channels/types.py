"""Wire types of drawn channels: of what feeds them, what they return to, and of their signals."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass

from jolly_core.model import Project, RuleError, WireType
from jolly_core.wiring import SWITCHED, is_live, is_neutral, potential_in, sheet_groups, types_of_potentials

PLUS, MINUS = "plus", "minus"  # the commons
_ALTERNATING = re.compile(r"\bAC\b|\bL[123]?\b|~", re.IGNORECASE)


@dataclass(slots=True, frozen=True)
class ChannelTypes:
    """Ids of the wire types of a channel: its feed, its return, and what runs between an element and the card."""

    feed: str
    back: str
    signal: str

    def of(self, which: str) -> str:
        """Return the type of a common."""
        return self.feed if which == PLUS else self.back


def types_of_channel(project: Project, feed: str, back: str, chosen: str = "") -> ChannelTypes:
    """Return the wire types of a channel that is fed from one potential and returns to another.

    What is drawn of a potential already has its wires' type. Else what is fed by alternating current has the type of AC
    control wires, and returns on the neutral's; all else has the type of DC control wires.

    Args:
        feed, back: names of the potentials.
        chosen: a wire type that is wanted for all of it but the neutral, "" for the usual ones.

    Raises:
        RuleError: the project has no wire type.
    """
    known = chosen or _drawn_type(project, feed)
    alternating = project.wire_types[known].category in SWITCHED if known else _ALTERNATING.search(feed) is not None
    signal = chosen or _usual_type(project, "control-ac" if alternating else "control-dc")
    return_type = "" if chosen else _drawn_type(project, back)
    neutral = _neutral(project, signal, back) if not return_type else ""
    return ChannelTypes(known or signal, return_type or neutral or signal, signal)


def _drawn_type(project: Project, name: str) -> str:
    """Return the type of most wires at the marks of a name, "" where none is drawn; wires outside are left out."""
    found: Counter[str] = Counter()
    for id in sorted(project.continuations_named.get(name)):
        mark = project.continuations[id]
        groups = sheet_groups(project, mark.sheet_id)
        for wire_id in groups.by_point[groups.of_continuation[id]].wires:
            found[project.wires[wire_id].type_id] += 1
    inside = [id for id in sorted(found) if id in project.wire_types and not project.wire_types[id].outside]
    return max(inside, key=lambda id: found[id], default="")


def _usual_type(project: Project, category: str) -> str:
    """Return the wire type of control wires that stand in the panel and are of no one potential, else any."""

    def worth(t: WireType) -> tuple[bool, bool, bool, str]:
        return t.category != category, t.outside, t.id in types_of_potentials(project), t.id

    if not project.wire_types:
        raise RuleError("The project has no wire type. Make one in the Brief first.", field="wire_type_id")
    return min(project.wire_types.values(), key=worth).id


def _neutral(project: Project, signal: str, back: str) -> str:
    """Return the neutral's type where a live type returns to it: the name says so, or in North American habits."""
    wire_type = project.wire_types[signal]
    phase = potential_in(back)[0]
    says = phase == "N" or (not phase and project.settings.standard == "na")
    if not says or not is_live(project, wire_type):
        return ""
    neutrals = [t for t in project.types_in_order() if is_neutral(project, t) and not t.outside]
    like = [t for t in neutrals if t.category == wire_type.category] or neutrals
    return like[0].id if like else ""
