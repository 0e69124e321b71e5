"""The order that counts for a net: a person's own, else that of the first pole, else by layout or by drawing.

Terms: nets that touch the same devices pole by pole (L1, L2, L3) are *alike*; they take the conductors of the net of
the first pole. A person's order is kept as pairs of pins, the keys of its conductors, so that it survives redrawing.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable

from jolly_core.library import definition
from jolly_core.model import NetOrder, Project, RuleError, assembled, derived, needs_assembly

from .connections import Connection, Pair, connections
from .nets import Group, PinKey, net_of, point_of, sheet_groups
from .places import site_of
from .shortest import shortest_pairs

Distance = Callable[[Project, PinKey, PinKey], float | None]
_LikePin = tuple[str, str, str, int]  # device, kind of unit, pin of the unit, and how many of these came before
_ROW_OF_PHASES = ("L1", "L2", "L3", "U", "V", "W", "U1", "V1", "W1", "T1", "T2", "T3", "U2", "V2", "W2")
_measures: dict[str, Distance] = {}


def measure_layout(distance: Distance) -> None:
    """Say how far two pins are from each other in a layout, mm; the package that knows layouts does so once."""
    _measures["layout"] = distance
    assembled("layouts are measured")


def ordered(project: Project, net: list[Group]) -> list[Connection]:
    """Return the conductors of a net, kept until something they depend on changes: most nets outlive most edits."""
    if len(net) == 1 and len(net[0].pins) < 2:
        return []
    return _ordered(project, *net[0].key)


@derived
def _ordered(project: Project, sheet_id: str, point: int) -> list[Connection]:
    net = net_of(project, (sheet_id, point))
    pins = [pin for g in net for pin in g.pins]
    if len(pins) < 3:  # most nets: two pins are joined in one way only
        return connections(project, net)
    twin = _first_pole(project, net, pins)
    lead = ordered(project, twin) if twin else []
    return _made(project, net, pins, twin, lead)


def by_layout(project: Project) -> bool:
    """Return whether the project orders conductors by where their pins are placed."""
    if project.settings.conductor_order != "layout":
        return False
    needs_assembly("Conductors are not ordered by layout")
    return True


def _made(
    project: Project, net: list[Group], pins: list[PinKey], twin: list[Group] | None, lead: list[Connection]
) -> list[Connection]:
    own = own_pairs(project, pins)
    if own:
        return connections(project, net, given=own, shortest=_shortest(project))
    if twin is not None:
        here = {key: pin for pin, key in _keys(project, pins).items()}
        there = _keys(project, [pin for g in twin for pin in g.pins])
        return connections(project, net, given=[(here[there[c.start]], here[there[c.end]]) for c in lead])
    legs = _legs(project, net, pins)
    if legs:
        return connections(project, net, given=legs)
    return connections(project, net, shortest=_shortest(project))


def _legs(project: Project, net: list[Group], pins: list[PinKey]) -> list[Pair]:
    """Return the conductors of a net with splices: each pin to the nearest splice, and a splice to the next one."""
    hubs = [pin for pin in pins if definition(project.symbols[pin[0]].definition).unit == "splice"]
    if not hubs:
        return []
    sheet_of = {pin: group.sheet_id for group in net for pin in group.pins}

    def away(a: PinKey, b: PinKey) -> tuple[bool, int, PinKey]:
        (x, y), (u, v) = point_of(project, a), point_of(project, b)
        return (sheet_of[a] != sheet_of[b], abs(x - u) + abs(y - v), b)

    hubs.sort(key=lambda pin: _reading(project, pin))
    between = [(min(hubs[:n], key=lambda h: away(pin, h)), pin) for n, pin in enumerate(hubs) if n]
    return between + [(min(hubs, key=lambda h: away(pin, h)), pin) for pin in pins if pin not in hubs]


def _shortest(project: Project) -> Callable[[list[PinKey], dict[PinKey, int]], list[Pair] | None] | None:
    if not by_layout(project):
        return None
    measure = _measures["layout"]

    def pairs(pins: list[PinKey], room: dict[PinKey, int]) -> list[Pair] | None:
        lengths: dict[Pair, float] = {}
        for n, a in enumerate(pins):
            for b in pins[n + 1 :]:
                length = measure(project, a, b)
                if length is None:
                    return None
                lengths[a, b] = lengths[b, a] = length
        return shortest_pairs(pins, room, lengths)

    return pairs


def own_order(project: Project, pins: list[PinKey]) -> NetOrder | None:
    """Return the order a person gave a net that has these pins, None when nobody did."""
    index = _index(project)
    names = (_name(pin) for pin in pins)
    return next((project.net_orders[index[name]] for name in names if name in index), None)


@derived
def _index(project: Project) -> dict[str, str]:
    """Return for each pin that an order names the order's id; kept until an order changes."""
    found: dict[str, str] = {}
    for order in sorted(project.net_orders.values(), key=lambda o: o.id):
        for pair in order.pairs:
            for name in pair.split("-"):
                found.setdefault(name, order.id)
    return found


def own_pairs(project: Project, pins: list[PinKey]) -> list[Pair]:
    """Return the pairs of a person's order whose pins are both on the net still, none of them closing a ring."""
    order = own_order(project, pins)
    if order is None:
        return []
    here = {_name(pin): pin for pin in pins}
    named = [tuple(pair.split("-")) for pair in order.pairs]
    pairs = [(here[n[0]], here[n[1]]) for n in named if len(n) == 2 and n[0] in here and n[1] in here]
    return [] if ring_in(pairs) else pairs


def check_order(project: Project, pins: list[PinKey], pairs: list[Pair]) -> None:
    """Refuse an order that is none for a net.

    Raises:
        RuleError: it names a pin twice on itself or one of another net, leaves a pin out, makes a ring, or puts more
            conductors onto a pin than it takes.
    """
    known = set(pins)
    if any(a == b or a not in known or b not in known for a, b in pairs):
        raise RuleError("A conductor of this order does not join two pins of the net.", field="pairs")
    if ring_in(pairs):
        raise RuleError("This order goes in a ring. Take one of its conductors away.", field="pairs")
    if len(pairs) != len(pins) - 1:
        missing = known - {pin for pair in pairs for pin in pair}
        words = "leaves a pin out" if missing else "has a gap"
        raise RuleError(f"This order {words}. Join all {len(pins)} pins.", field="pairs", ids=_symbols(missing))
    counts = Counter(pin for pair in pairs for pin in pair)
    full = [pin for pin, count in counts.items() if count > site_of(project, pin).room]
    if full:
        room = site_of(project, full[0]).room
        words = f"{{it}} would have {counts[full[0]]} conductors on a pin that takes {room}."
        raise RuleError(f"{words} Lead one of them elsewhere.", field="pairs", ids=_symbols(full))


def _symbols(pins: list[PinKey] | set[PinKey]) -> tuple[str, ...]:
    return tuple(sorted({id for id, _ in pins}))


def ring_in(pairs: list[Pair]) -> bool:
    """Return whether pairs of pins close a ring."""
    root: dict[PinKey, PinKey] = {}

    def find(pin: PinKey) -> PinKey:
        while root.get(pin, pin) != pin:
            pin = root[pin]
        return pin

    for a, b in pairs:
        one, other = find(a), find(b)
        if one == other:
            return True
        root[one] = other
    return False


def _name(pin: PinKey) -> str:
    return f"{pin[0]}.{pin[1]}"


def _first_pole(project: Project, net: list[Group], pins: list[PinKey]) -> list[Group] | None:
    """Return the net of the first pole, where it touches the same devices as this one does with one later pole."""
    poles = [found for pin in pins if (found := _pole(project, pin)) is not None]
    if not poles or {number for number, _ in poles} - {poles[0][0]} or not poles[0][0]:
        return None
    first = poles[0][1]
    sheet_id = project.symbols[first[0]].sheet_id
    twin = net_of(project, (sheet_id, sheet_groups(project, sheet_id).of_pin[first]))
    there = [pin for g in twin for pin in g.pins]
    if any(found is not None and found[0] for found in (_pole(project, pin) for pin in there)):
        return None
    return twin if set(_keys(project, there).values()) == set(_keys(project, pins).values()) else None


def _pole(project: Project, pin: PinKey) -> tuple[int, PinKey] | None:
    """Return which of its device's drawn poles a pin is on, from 0, and the first one's pin; None where on none."""
    symbol = project.symbols[pin[0]]
    shape = definition(symbol.definition)
    size = len(shape.pins)
    if shape.unit not in ("pole", "heater") or not symbol.device_id:
        return None
    drawn = sorted(
        (unit, s.id, n)
        for s in project.units_of(symbol.device_id)
        if s.definition == symbol.definition
        for n, unit in enumerate(s.units)
    )
    place = next(i for i, (_, id, n) in enumerate(drawn) if (id, n) == (symbol.id, pin[1] // size))
    _, id, first = drawn[0]
    return place, (id, first * size + pin[1] % size)


def _keys(project: Project, pins: list[PinKey]) -> dict[PinKey, _LikePin]:
    """Return for each pin what the pins of nets that are alike have in common."""
    counts: Counter[tuple[str, str, str]] = Counter()
    found: dict[PinKey, _LikePin] = {}
    for symbol_id, pin in sorted(pins, key=lambda p: _reading(project, p)):
        symbol = project.symbols[symbol_id]
        shape = definition(symbol.definition)
        name = str(pin % max(1, len(shape.pins)))
        if shape.unit in ("motor", "block"):
            said = shape.generic[pin] if pin < len(shape.generic) else ""
            name = f"phase of {said.strip('123')}" if shape.unit == "block" and said in _ROW_OF_PHASES else said
            name = "phase" if shape.unit == "motor" and said != "PE" else name
        key = (symbol.device_id or symbol_id, shape.unit, name)
        found[symbol_id, pin] = (*key, counts[key])
        counts[key] += 1
    return found


def _reading(project: Project, pin: PinKey) -> tuple[int, int, int, str, int]:
    symbol = project.symbols[pin[0]]
    return project.sheets[symbol.sheet_id].order, symbol.x, symbol.y, pin[0], pin[1]
