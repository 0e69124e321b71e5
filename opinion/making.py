"""What wires are made of, how many spools they take, what a cable drops, and what of a harness conducts."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from itertools import combinations
from math import ceil, sqrt

from .book import Book, Pin, Record, is_block, shape_of
from .nets import Joined, drawn

Conductor = tuple[Pin, Pin]
_MOST_EXACT = 9
# IEC 60228, class 5: the largest resistance of plain copper at 20 °C, ohm per km.
_RESISTANCE = {
    **{0.5: 39.0, 0.75: 26.0, 1.0: 19.5, 1.5: 13.3, 2.5: 7.98, 4.0: 4.95, 6.0: 3.30, 10.0: 1.91, 16.0: 1.21},
    **{25.0: 0.780, 35.0: 0.554, 50.0: 0.386, 70.0: 0.272, 95.0: 0.206, 120.0: 0.161},
}


def sizes(book: Book, conductors: list[Conductor], cored: dict[Conductor, tuple[str, int]]) -> dict[Conductor, str]:
    """Return what the conductors have for a size, in words; those whose strokes are of several types are left out.

    Args:
        cored: the cable's device and the place of the core that a conductor takes.
    """
    types = _types(book)
    found = {}
    for c in conductors:
        if c in cored:
            device, place = cored[c]
            words = _of_core(book.find("part", book.kinds["device"][device]["part_id"]), place)
            if words:
                found[c] = words
                continue
        kinds = types.get(c[0], set())
        if len(kinds) == 1 and not _touch(book, c):
            wire_type = book.kinds["wire_type"][next(iter(kinds))]
            found[c] = _words(wire_type["cross_section_mm2"], wire_type["awg"])
    return found


def _types(book: Book) -> dict[Pin, set[str]]:
    """Return the wire types that the net of each pin is drawn in."""
    of_stroke = {(w["sheet_id"], w["x1"], w["y1"], w["x2"], w["y2"]): w["type_id"] for w in book.all("wire")}
    found: dict[Pin, set[str]] = {}
    for group in drawn(book).groups():
        things = [thing for thing in group if isinstance(thing, tuple)]
        kinds = {of_stroke[thing[1]] for thing in things if thing[0] == "stroke"}
        found |= {thing[1]: kinds for thing in things if thing[0] == "pin"}
    return found


def _touch(book: Book, c: Conductor) -> bool:
    places = [book.pins(book.kinds["symbol"][id])[n] for id, n in c]
    return places[0] == places[1]


def _words(section: float, gauge: str) -> str:
    return f"{section:g} mm²" if section else f"AWG {gauge}" if gauge else ""


def _of_core(part: Record | None, place: int) -> str:
    """Return the size of one core in words: its own where the part says one, else that of all."""
    if part is None or place < 1:
        return ""
    own = part["details"][place - 1] if place <= len(part["details"]) else {}
    for said, section in ((own, "section"), (part["ratings"], "cross_section_mm2")):
        words = _words(float(said.get(section) or 0), said.get("awg", ""))
        if words:
            return words
    return ""


def spools(lengths: Sequence[float], spool: float) -> tuple[int, int]:
    """Return the least and the most spools that are right for wires; both are the same for few of them."""
    short = sorted((x for x in lengths if x <= spool), reverse=True)
    long = len(lengths) - len(short)
    if len(short) <= _MOST_EXACT:
        count = long + _fewest(tuple(short), spool)
        return count, count
    rests: list[float] = []
    for length in short:  # the longest first, each onto the first spool that has enough
        for n, rest in enumerate(rests):
            if length <= rest + 1e-9:
                rests[n] -= length
                break
        else:
            rests.append(spool - length)
    return long + ceil(sum(short) / spool - 1e-9), long + len(rests)


def _fewest(lengths: tuple[float, ...], spool: float) -> int:
    """Return the fewest spools: of what is left the longest, with everything that may be cut beside it in turn."""
    if not lengths:
        return 0
    first, others = lengths[0], lengths[1:]
    best = len(lengths)
    for count in range(len(others), -1, -1):
        for beside in combinations(range(len(others)), count):
            if first + sum(others[n] for n in beside) <= spool + 1e-9:
                left = tuple(x for n, x in enumerate(others) if n not in beside)
                best = min(best, 1 + _fewest(left, spool))
    return best


def drop(current: float, metres: float, area: float, volts: float, power_factor: float, phases: int) -> float | None:
    """Return the voltage drop of a cable in percent at 70 °C, None for a size that the table does not have.

    Direct current and one phase: there and back. Three phases: the square root of three.
    """
    if area not in _RESISTANCE:
        return None
    warm = _RESISTANCE[area] * (1 + 0.00393 * 50)
    per_km = warm * power_factor + 0.08 * sqrt(1 - power_factor**2)
    return 100 * (sqrt(3) if phases == 3 else 2) * current * metres / 1000 * per_km / volts


def metres(book: Book) -> dict[str, float]:
    """Return how many metres of each cable part are bought, by its id, where all of its cables say their length."""
    found: dict[str, float] = defaultdict(float)
    unknown = set()
    for cable in book.all("cable"):
        part_id = book.kinds["device"][cable["device_id"]]["part_id"]
        if cable["length_m"]:
            found[part_id] += cable["length_m"]
        else:
            unknown.add(part_id)
    return {id: length for id, length in found.items() if id and id not in unknown}


def conducting(book: Book, conductors: list[Conductor]) -> dict[str, set[frozenset[Pin]]]:
    """Return for each harness the pins of drawn cavities that its wires join to each other, two and more.

    A wire runs in a harness that both its ends are in. Where one may run in several, those are left out, as are
    harnesses of several variants.
    """
    within: dict[str, set[str]] = defaultdict(set)
    for node in book.all("node"):
        if node["device_id"]:
            within[node["harness_id"]].add(node["device_id"])
    device_of = {s["id"]: s["device_id"] for s in book.all("symbol")}
    unsure = {v["harness_id"] for v in book.all("harness_variant")}
    joined: dict[str, Joined] = {id: Joined() for id in book.kinds.get("harness", {})}
    for c in conductors:
        ends = {device_of[pin[0]] for pin in c}
        homes = [id for id in joined if ends <= within[id]]
        if len(homes) > 1:
            unsure |= set(homes)
        elif homes:
            joined[homes[0]].add(*(("pin", pin) for pin in c))
    found: dict[str, set[frozenset[Pin]]] = {}
    for id, net in joined.items():
        if id in unsure:
            continue
        groups = ({t[1] for t in group if isinstance(t, tuple) and _cavity(book, t[1])} for group in net.groups())
        found[id] = {frozenset(group) for group in groups if len(group) > 1}
    return found


def _cavity(book: Book, pin: Pin) -> bool:
    """Return whether a tester can be put to a pin: to a cavity, and none drawn beside all that its housing has."""
    symbol = book.kinds["symbol"][pin[0]]
    return (
        not is_block(symbol["definition"])
        and shape_of(symbol["definition"])["unit"] == "cavity"
        and any(symbol["units"])
    )
