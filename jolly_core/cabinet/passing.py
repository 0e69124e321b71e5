"""Leading a wire through eyelets and lanes that a person named, in order: the sum of the shortest ways between."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from jolly_core.model import Project, RuleError, length_words

from .eyelets import eyelet_named, lane_name, passage_words
from .lanes import surface_key
from .network import Network
from .ways import Entry, Leg, Way


@dataclass(slots=True, frozen=True)
class Gate:
    """One way of passing something: where the wire goes in and out, the way between, and which way round it is."""

    into: Sequence[Entry]
    out: Sequence[Entry]
    inner: Way
    turned: bool


def led(
    project: Project, network: Network, starts: Sequence[Entry], ends: Sequence[Entry], through: Sequence[str]
) -> Way:
    """Return the shortest way that passes what is named, in order.

    A lane is passed by running in it from one of its meetings with others to the next; one that the way runs in
    anyway is passed. An eyelet passed twice in a row is passed the same way round.

    Raises:
        RuleError: what is named is gone, no lane reaches it, or there is no way.
    """
    eyelets = [name for name in through if "/" in name]
    way = _through(starts, ends, [(name, eyelet_gates(project, network, name)) for name in eyelets], network)
    run_in = {leg.id for leg in way.legs if leg.kind == "lane"}
    # Of several the order counts, which a way that meets them all need not keep.
    if len(eyelets) == len(through) or (len(through) == 1 and through[0] in run_in):
        return way
    gates = [
        (name, eyelet_gates(project, network, name) if "/" in name else lane_gates(project, network, name))
        for name in through
    ]
    return _through(starts, ends, gates, network)


def _through(
    starts: Sequence[Entry], ends: Sequence[Entry], passed: list[tuple[str, list[Gate]]], network: Network
) -> Way:
    """Return the shortest way over one gate of each list in turn."""
    reached: list[tuple[Way, Sequence[Entry], Gate | None]] = [(Way(0.0), starts, None)]
    before = ""
    for name, gates in passed:
        following: list[tuple[Way, Sequence[Entry], Gate | None]] = []
        for gate in gates:
            best: Way | None = None
            for way, at, last in reached:
                if name == before and "/" in name and last is not None and last.turned != gate.turned:
                    continue
                found = _between(network, at, gate.into)
                if found is not None and (best is None or way.length + found.length < best.length):
                    best = way.along(found)
            if best is not None:
                following.append((best.along(gate.inner), gate.out, gate))
        if not following:
            return _no_way()
        reached, before = following, name
    ways = [(way, found) for way, at, _ in reached if (found := _between(network, at, ends)) is not None]
    if not ways:
        return network.way(starts, ends) if not passed else _no_way()
    return min((way.along(found) for way, found in ways), key=lambda w: w.length)


def _no_way() -> Way:
    raise RuleError("There is no way through the ducts past all it is led through. Join the ducts.", field="ducts")


def _between(network: Network, a: Sequence[Entry], b: Sequence[Entry]) -> Way | None:
    try:
        return network.way(a, b)
    except RuleError:
        return None


def eyelet_gates(project: Project, network: Network, name: str) -> list[Gate]:
    """Return the two ways round of passing an eyelet.

    Raises:
        RuleError: it is gone or not placed, or no lane is within reach of an opening.
    """
    found = eyelet_named(project, name)
    device_id = name.partition("/")[0]
    if found is None:
        words = passage_words(project, name) if device_id in project.devices else "A device"
        raise RuleError(f"{words} that it is led through is not placed, or has no such eyelet.", field="through")
    enclosure_id, surface, eyelet = found
    key, reach = surface_key(enclosure_id, surface), project.settings.eyelet_reach_mm
    sides = []
    for opening in (eyelet.one, eyelet.other):
        entries = network.ways_in(key, opening, reach_mm=reach) if key in network.surfaces else []
        if not entries or entries[0].distance > reach + 1e-6:
            raise RuleError(eyelet_gap(project, network, name), field="through")
        sides.append(entries)
    legs = [
        Way(eyelet.length, [Leg("eyelet", name, eyelet.length, key, points)])
        for points in ((eyelet.one, eyelet.other), (eyelet.other, eyelet.one))
    ]
    return [Gate(sides[0], sides[1], legs[0], False), Gate(sides[1], sides[0], legs[1], True)]


def eyelet_gap(project: Project, network: Network, name: str) -> str:
    """Return which gap keeps an eyelet from the lanes, and what would close it; "" when there is none."""
    found = eyelet_named(project, name)
    if found is None:
        return ""
    enclosure_id, surface, eyelet = found
    key, reach = surface_key(enclosure_id, surface), project.settings.eyelet_reach_mm
    words = passage_words(project, name)
    if key not in network.surfaces:
        return f"No lane reaches the eyelet of {words}: there is none on its surface. Draw one to each of its openings."
    far = []
    for side, opening in (("one opening", eyelet.one), ("the other opening", eyelet.other)):
        nearest = min(network.ways_in(key, opening, reach_mm=reach), key=lambda e: e.distance)
        if nearest.distance > reach + 1e-6:
            lane = lane_name(project, network.pieces[nearest.piece].id)
            far.append(f"{side} is {length_words(project, round(nearest.distance))} from {lane}, the nearest")
    if not far:
        return ""
    between = f"{length_words(project, reach)} may be between"
    return f"No lane reaches the eyelet of {words}: {' and '.join(far)}; {between}. Draw a lane there."


def lane_gates(project: Project, network: Network, id: str) -> list[Gate]:
    """Return the stretches of a lane between its meetings, each either way round.

    Raises:
        RuleError: the lane is gone, or wires of this category may not use it.
    """
    gates = []
    for one, other, length, n in network.stops_of(id):
        piece = network.pieces[n]
        for a, b, turned in ((one, other, False), (other, one, True)):
            span = (piece.before + a.along, piece.before + b.along)
            leg = Leg("lane", id, length, piece.surface, (a.point, b.point), span)
            gates.append(Gate([a], [b], Way(length, [leg]), turned))
    if not gates:
        words = lane_name(project, id) or "a lane"
        raise RuleError(f"It is led through {words}, which is gone or not for wires of its category.", field="through")
    return gates
