"""Ways that current can take: potentials, and the poles and contacts that can close between them.

Terms: a *link* is a pole, contact or fuse between two potentials. Links are taken as closed all at once, but for what
excludes itself: NO and NC of one device, and the poles of two contactors (they may be interlocked). Around a motor two
contacts may reverse it, so that no way leads from one to the other past its pins. A way ends where a potential has a
label, so that an edit is answered from what hangs on its own sheet.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache

from jolly_core.drawing import switching_pairs
from jolly_core.library import base_of, definition
from jolly_core.model import Project, Symbol, derived
from jolly_core.tagging import device_at, pin_name, pins_of, tag_on
from jolly_core.wiring import Group, GroupKey, PinKey, group_at, group_of, joint_of, net_of, sheet_groups

from .labels import PROTECTIVE, Label, labels_of

THREE_PHASES = 4  # pins of a motor on three phases, with its PE
FARTHEST = 2000  # states looked at for one way
_NO = ("no", "tno")
_NC = ("nc", "tnc")
_ALWAYS = ("pole", "heater", "terminal")
DRIVEN = "driven"


@dataclass(slots=True)
class Potential:
    """A potential.

    Attributes:
        labels: what fixes it, by word.
        categories: those of its wires, "external" and types laid outside left out, each with a wire and its sheet.
        at_motor: whether a motor hangs on it.
        returns: whether a source's current comes back by it and nothing else is on it, so that it may be earthed.
    """

    key: GroupKey
    groups: list[Group]
    labels: dict[str, Label]
    categories: dict[str, tuple[str, str]]
    at_motor: bool
    returns: bool = False

    @property
    def bonded(self) -> bool:
        """Whether it is the return of a source, joined with the protective conductor on purpose."""
        return self.returns and "pe" in self.categories and len(self.categories) > 1

    @property
    def label(self) -> Label | None:
        """The first of its labels, None when it has none."""
        return next(iter(self.labels.values()), None)

    @property
    def pins(self) -> Iterator[PinKey]:
        """All pins on it."""
        return (pin for group in self.groups for pin in group.pins)


@dataclass(slots=True, frozen=True)
class Link:
    """A pole, contact or fuse, from one of its pins to the other.

    Attributes:
        device_id: the device it belongs to; the symbol, while it has none.
        sort: "always" closed in use, "driven" by a contactor, "no" or "nc".
    """

    start: PinKey
    end: PinKey
    device_id: str
    sort: str

    def turned(self) -> Link:
        """Return it from its end to its start."""
        return Link(self.end, self.start, self.device_id, self.sort)


@dataclass(slots=True, frozen=True)
class Way:
    """A way from one potential to another through links, the potentials one more than the links."""

    links: tuple[Link, ...]
    through: tuple[GroupKey, ...]


def potential_at(project: Project, key: GroupKey) -> Potential:
    """Return the potential of a group."""
    group = group_at(project, *key)
    if not group.continuations and not group.carried and not project.bridges:
        return _potential(project, *key)
    return _potential(project, *first_of(project, *key))


@derived
def first_of(project: Project, sheet_id: str, point: int) -> GroupKey:
    """Return the first group of a group's potential."""
    return net_of(project, (sheet_id, point), potential=True)[0].key


@derived
def _potential(project: Project, sheet_id: str, point: int) -> Potential:
    """Return the potential whose first group this is."""
    groups = net_of(project, (sheet_id, point), potential=True)
    symbols = {project.symbols[id].definition for g in groups for id, _ in g.pins}
    at_motor = any(definition(key).unit == "motor" for key in symbols)
    labels = labels_of(project, groups)
    others = {word: label for word, label in labels.items() if word != PROTECTIVE}
    returns = _returns(project, groups, [label for label in others.values() if label.said])
    return Potential(
        groups[0].key, groups, others if returns else labels, _categories(project, groups), at_motor, returns
    )


def _returns(project: Project, groups: list[Group], labels: list[Label]) -> bool:
    """Return whether all that is known of groups, by labels beside PE, is that a source's current comes back there."""
    ends = {_end_of_source(project, pin) for g in groups for pin in g.pins}
    if any(_is_phase_pin(project, pin) for g in groups for pin in g.pins):
        return False  # whatever it is called: a pole of a motor is on it
    return all(label.is_return for label in labels) and (bool(labels) or "-" in ends) and "+" not in ends


def _is_phase_pin(project: Project, pin: PinKey) -> bool:
    """Return whether a pin is a pole of a motor on three phases."""
    symbol = project.symbols[pin[0]]
    shape = definition(symbol.definition)
    if shape.unit != "motor" or len(shape.pins) < THREE_PHASES:
        return False
    return pins_of(project, symbol)[pin[1]].upper() not in ("PE", "N")


def _end_of_source(project: Project, pin: PinKey) -> str:
    """Return "+" or "-" for the output of a supply, "-" for that of a current transformer, "" for all other pins."""
    symbol = project.symbols[pin[0]]
    shape = definition(symbol.definition)
    if shape.part_class == "current-transformer":
        return "-"
    name = pins_of(project, symbol)[pin[1]][:1] if shape.unit == "supply" else ""
    return name if name in ("+", "-") else ""


def _categories(project: Project, groups: list[Group]) -> dict[str, tuple[str, str]]:
    found: dict[str, tuple[str, str]] = {}
    for group in groups:
        for id in group.wires:
            wire_type = project.wire_types.get(project.wires[id].type_id)
            if wire_type is not None and wire_type.category != "external" and not wire_type.outside:
                found.setdefault(wire_type.category, (id, group.sheet_id))
    return found


def potential_of(project: Project, pin: PinKey) -> Potential:
    """Return the potential of a pin."""
    return potential_at(project, group_of(project, pin))


@derived
def potentials_on(project: Project, sheet_id: str) -> list[Potential]:
    """Return the potentials that touch a sheet, each once, in the order of its groups."""
    groups = sheet_groups(project, sheet_id).groups
    return list({p.key: p for g in groups for p in (potential_at(project, g.key),)}.values())


@lru_cache(maxsize=4096)
def _pairs(key: str, poles: int) -> tuple[tuple[int, int, str], ...]:
    """Return the pins that each link of a symbol joins, and its sort."""
    shape = definition(key)
    if shape.unit == "co":
        pairs = [(0, 1, "no"), (0, 2, "nc")]
    elif shape.unit in _NO + _NC:
        pairs = [(0, 1, "no" if shape.unit in _NO else "nc")]
    elif shape.unit in _ALWAYS:
        driven = shape.unit == "pole" and base_of(shape.part_class) == "contactor"
        pairs = [(a, b, DRIVEN if driven else "always") for a, b in switching_pairs(shape)]
    else:
        pairs = []
    size = len(shape.pins)
    return tuple((size * pole + a, size * pole + b, sort) for pole in range(poles) for a, b, sort in pairs)


def links_of(project: Project, symbol: Symbol) -> list[Link]:
    """Return the links a symbol is, pole by pole; none for loads, sources and what carries always."""
    id, owner = symbol.id, symbol.device_id or symbol.id
    by_hand = joint_of(project, symbol)
    if by_hand:  # a terminal that carries is no link; one that parts can be closed
        return [] if by_hand == "carry" else [Link((id, 0), (id, 1), owner, "always")]
    return [Link((id, a), (id, b), owner, sort) for a, b, sort in _pairs(symbol.definition, len(symbol.units))]


def links_at(project: Project, potential: Potential) -> list[tuple[Link, Potential]]:
    """Return the links that leave a potential, with what each leads to."""
    return [(link, potential_at(project, key)) for link, key in _links_at(project, *potential.key)]


@derived
def _links_at(project: Project, sheet_id: str, point: int) -> list[tuple[Link, GroupKey]]:
    found = []
    for pin in potential_at(project, (sheet_id, point)).pins:
        for link in links_of(project, project.symbols[pin[0]]):
            if link.start == pin:
                found.append((link, potential_of(project, link.end).key))
            elif link.end == pin:
                found.append((link.turned(), potential_of(project, link.start).key))
    return found


@dataclass(slots=True)
class Circuit:
    """Potentials without a label that links join, and those with one at its ends.

    Attributes:
        inner, ends: the potentials by key.
        links: for each of both the links that leave it within the circuit, with what they lead to.
    """

    inner: dict[GroupKey, Potential]
    ends: dict[GroupKey, Potential]
    links: dict[GroupKey, list[tuple[Link, Potential]]]


def circuit_at(project: Project, start: Potential) -> Circuit:
    """Return the circuit that a potential without a label belongs to."""
    return _circuit(project, *start.key)


@derived
def _circuit(project: Project, sheet_id: str, point: int) -> Circuit:
    start = potential_at(project, (sheet_id, point))
    circuit = Circuit({start.key: start}, {}, {})
    waiting = deque([start])
    while waiting and len(circuit.inner) < FARTHEST:
        here = waiting.popleft()
        circuit.links[here.key] = found = links_at(project, here)
        for link, there in found:
            if there.label is not None:
                circuit.ends[there.key] = there
                circuit.links.setdefault(there.key, []).append((link.turned(), here))
            elif there.key not in circuit.inner:
                circuit.inner[there.key] = there
                waiting.append(there)
    return circuit


def ways_from(
    project: Project, start: Potential, within: Circuit | None = None, names: Mapping[GroupKey, Label] | None = None
) -> dict[str, tuple[Label, Way]]:
    """Return for each label that can be switched to from a potential the shortest way to it.

    Args:
        start: where to begin; other potentials with labels are ends.
        within: only along the links of a circuit.
        names: labels that potentials without one are given.
    """
    given = names or {}
    found: dict[str, tuple[Label, Way]] = {}
    waiting: deque[tuple[Potential, str, dict[str, str], Way]] = deque([(start, "", {}, Way((), (start.key,)))])
    seen: set[tuple[GroupKey, str]] = {(start.key, "")}
    for _ in range(FARTHEST):
        if not waiting:
            break
        here, driven, sorts, way = waiting.popleft()
        label = here.label or given.get(here.key)
        if way.links and label is not None:
            found.setdefault(label.word, (label, way))
            continue
        last = way.links[-1] if way.links else None
        reverses = last is not None and last.sort != "always" and here.at_motor
        for link, there in within.links.get(here.key, []) if within else links_at(project, here):
            if there.key in way.through or (
                reverses and last is not None and link.sort != "always" and link.device_id != last.device_id
            ):
                continue
            now = link.device_id if link.sort == DRIVEN else driven
            if driven and now != driven:
                continue
            if link.sort in ("no", "nc") and sorts.get(link.device_id, link.sort) != link.sort:
                continue
            if (there.key, now) in seen:
                continue
            seen.add((there.key, now))
            kinds = {**sorts, link.device_id: link.sort} if link.sort in ("no", "nc") else sorts
            waiting.append((there, now, kinds, Way((*way.links, link), (*way.through, there.key))))
    return found


def reached(project: Project, pin: PinKey) -> dict[str, tuple[Label, Way]]:
    """Return the labels a pin is on or can be switched to, each with the way; that of its own potential alone."""
    return _reached(project, *pin)


@derived
def _reached(project: Project, symbol_id: str, index: int) -> dict[str, tuple[Label, Way]]:
    potential = potential_of(project, (symbol_id, index))
    if potential.label is not None:
        return {potential.label.word: (potential.label, Way((), (potential.key,)))}
    return ways_from(project, potential)


def way_in_words(project: Project, way: Way) -> str:
    """Return a way as people read it.

    Example:
        "through -FC1:1-2, -QA1:1-2"; "directly" where it has no link.
    """
    words = []
    for link in way.links:
        symbol = project.symbols[link.start[0]]
        device = device_at(project, link.start)
        sheet = project.sheets[symbol.sheet_id]
        if device is None:
            words.append(f"a {definition(symbol.definition).name} without a device")
            continue
        pins = [pin_name(project, pin, symbol.sheet_id).rsplit(":", 1)[-1] for pin in (link.start, link.end)]
        words.append(f"{tag_on(project, device, sheet)}:{pins[0]}-{pins[1]}")
    if len(words) > 6:
        words = [*words[:3], "...", *words[-2:]]
    return f"through {', '.join(words)}" if words else "directly"


def label_in_words(project: Project, label: Label) -> str:
    """Return a label with its sheet, for example "L1 of sheet 10"."""
    return f"{label.word} of sheet {project.sheets[label.sheet_id].number}"
