"""What a strip lacks and could be given: plates and brackets, earth terminals beside cables, spares, an order.

A proposal is worked out from what stands there now and changes nothing. What it puts in is said as *additions* before
or after a place; an order as the list of places in it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from itertools import pairwise
from math import ceil

from jolly_core.cables import PE, PROTECTIVE, cable_cores, categories_of, core_list, role_of
from jolly_core.circuits import potential_of
from jolly_core.library import Library, is_like, terminal_kind
from jolly_core.model import Part, Project, StripItem
from jolly_core.tagging import full_tag, tag_order

from .bridging import ACCESSORY_CLASS, blocks_of, poles_of
from .items import TERMINAL
from .rows import StripRow, strip_rows

PartsOf = Callable[[str], list[Part]]
USUAL_SPARE_PERCENT = 10
# Circuits above and within extra-low voltage are kept apart (IEC 60204-1, 13.1.3).
VOLTAGE_OF = {
    "power": "low voltage",
    "control-ac": "low voltage",
    "control-dc": "24 V and signals",
    "signal": "24 V and signals",
}
_WORDS = {"end-bracket": ("end bracket", "end clamp"), "plate": ("partition plate", "end plate"), "marker": ("marker",)}
SAME_MM = 0.3


@dataclass(slots=True, frozen=True)
class Proposal:
    """Something that could be done to a strip.

    Attributes:
        key: names it as long as the strip is as it is.
        what: "end-bracket", "plate", "earth", "spare" or "order".
        title: what would be done.
        reason: why.
        at: key of the place it is put at ("u" and a unit, or an accessory's id); "" at an end of the strip, spare
            ones behind its last terminal.
        after: behind that place and not before it; with no place, at the end and not at the start.
        part_id: part of what is put in, "" for none.
        count: how many are put in.
        order: keys of all places in the order proposed, () when it is none.
    """

    key: str
    what: str
    title: str
    reason: str
    at: str = ""
    after: bool = False
    part_id: str = ""
    count: int = 1
    order: tuple[str, ...] = ()


def place_key(record: StripItem) -> str:
    """Return the key of a place of a strip: "u" and the unit of a terminal, an accessory's id."""
    return f"u{record.unit}" if record.kind == TERMINAL else record.id


def proposals(
    project: Project, library: Library, strip_id: str, spare_percent: int = USUAL_SPARE_PERCENT
) -> list[Proposal]:
    """Return what a strip could be given, in the order in which it is done."""
    rows = strip_rows(project, strip_id)
    parts_of = cache(library.parts_of)
    if not any(r.kind == TERMINAL for r in rows):
        return []
    return [
        *_order(project, rows),
        *_earths(project, parts_of, strip_id, rows),
        *_spares(rows, spare_percent),
        *_plates(project, parts_of, rows),
        *_brackets(project, parts_of, rows),
    ]


def accessory_kind(part: Part) -> str:
    """Return what a strip accessory is: what it says, "bridge" when it has poles, else by the words of its text."""
    said = part.ratings.get("accessory_kind", "").strip()
    if said or poles_of(part):
        return said or "bridge"
    text = part.text.casefold()
    return next((kind for kind, words in _WORDS.items() if any(word in text for word in words)), "")


def accessory_part(project: Project, parts_of: PartsOf, kind: str, beside: Part | None) -> Part | None:
    """Return a part for an accessory: one the project uses already, else the library's of the same maker, else any."""
    used = [
        project.parts[r.part_id] for r in project.strip_items.values() if r.kind == kind and r.part_id in project.parts
    ]
    if used:
        counts = {p.id: sum(1 for u in used if u.id == p.id) for p in used}
        return min(used, key=lambda p: (-counts[p.id], p.number))
    known = [p for p in parts_of(ACCESSORY_CLASS) if accessory_kind(p) == kind]
    maker = beside.maker if beside else ""
    exact = _WORDS[kind][0]
    return min(
        known, key=lambda p: (p.maker != maker, exact not in p.text.casefold(), p.width_mm, p.number), default=None
    )


def voltage_at(project: Project, row: StripRow) -> str:
    """Return the voltage class of what lands on a terminal, "" while it is not known or protective.

    An earth terminal has none, also where the return of a source is bonded to it.
    """
    if row.terminal_kind == "earth":
        return ""
    found: set[str] = set()
    for target in row.targets:
        kinds = categories_of(project, potential_of(project, target.conductor.start))
        found |= {VOLTAGE_OF[k] for k in kinds if k in VOLTAGE_OF}
    return found.pop() if len(found) == 1 else ""


def _plates(project: Project, parts_of: PartsOf, rows: list[StripRow]) -> Iterator[Proposal]:
    """Yield a plate wherever two neighbouring blocks differ in part, height or voltage."""
    firsts = [r for r in rows if r.counted]
    voltages = {id(r): voltage_at(project, r) for r in firsts if r.kind == TERMINAL}
    known = ""
    for left, right in pairwise(firsts):
        if left.kind != TERMINAL:
            continue
        known = voltages[id(left)] or known
        if right.kind != TERMINAL:
            known = "" if right.kind == "plate" else known
            continue
        reason = _differ(left, right) or _apart(known, voltages[id(right)])
        if reason:
            part = accessory_part(project, parts_of, "plate", right.part)
            at = place_key(right.record)
            yield Proposal(
                f"plate:{at}", "plate", f"Partition plate before {right.number}", reason, at, False, _id(part)
            )


def _id(part: Part | None) -> str:
    return part.id if part else ""


def _differ(left: StripRow, right: StripRow) -> str:
    a, b = left.part, right.part
    if a is None or b is None or a.id == b.id:
        return ""
    higher = b.height_mm - a.height_mm
    if a.height_mm and b.height_mm and abs(higher) > SAME_MM:
        return f"{right.number} is {abs(higher):g} mm {'higher' if higher > 0 else 'lower'} than {left.number}."
    if "earth" in (left.terminal_kind, right.terminal_kind) and abs(a.width_mm - b.width_mm) <= SAME_MM:
        return ""  # earth terminals of a series stand among the others
    return f"The part changes from {a.number} to {b.number}."


def _apart(known: str, voltage: str) -> str:
    return (
        f"{known[:1].upper()}{known[1:]} and {voltage} are neighbours."
        if known and voltage and known != voltage
        else ""
    )


def _brackets(project: Project, parts_of: PartsOf, rows: list[StripRow]) -> Iterator[Proposal]:
    for row, after, where in ((rows[0], False, "left"), (rows[-1], True, "right")):
        if row.kind != "end-bracket":
            part = accessory_part(project, parts_of, "end-bracket", next((r.part for r in rows if r.part), None))
            title = f"End bracket at the {where} end"
            reason = "Nothing holds the strip there."
            yield Proposal(f"bracket:{where}", "end-bracket", title, reason, "", after, _id(part))


def _earths(project: Project, parts_of: PartsOf, strip_id: str, rows: list[StripRow]) -> Iterator[Proposal]:
    """Yield an earth terminal behind each cable that has a protective core and none of it landed here."""
    last: dict[str, StripRow] = {}
    landed: set[str] = set()
    for row in rows:
        for target in row.field:
            if target.cable_id:
                last[target.cable_id] = row
                if row.terminal_kind == "earth" or role_of(project, target.conductor) == PE:
                    landed.add(target.cable_id)
    strip = project.devices[strip_id]
    beside = {place_key(a.record): b for a, b in pairwise(rows)}
    for cable_id, row in sorted(last.items(), key=lambda item: tag_order(project, project.devices[item[0]])):
        device = project.devices[cable_id]
        has_core = any(name == PROTECTIVE for _, name in core_list(project.part_of(device)))
        after = beside.get(place_key(row.record))
        waits = after is not None and after.terminal_kind == "earth" and after.free
        if cable_id not in landed and has_core and not waits:
            tag = full_tag(project, device)
            title = f"Earth terminal behind {row.number}"
            reason = f"{tag} has a green-yellow core, and {full_tag(project, strip)} no earth terminal for it."
            part = _earth_part(project, parts_of, row)
            yield Proposal(f"earth:{cable_id}", "earth", title, reason, place_key(row.record), True, _id(part))


def _earth_part(project: Project, parts_of: PartsOf, beside: StripRow) -> Part | None:
    """Return an earth terminal as wide as its neighbour: one the project has, else the library's of the same maker."""
    if beside.part is None:
        return None
    width, maker = beside.part.width_mm, beside.part.maker
    for parts in (sorted(project.parts.values(), key=lambda p: p.number), parts_of("terminal")):
        fitting = [p for p in parts if is_like(p.part_class, "terminal") and terminal_kind(p) == "earth"]
        fitting = [p for p in fitting if abs(p.width_mm - width) <= SAME_MM]
        if fitting:
            return min(fitting, key=lambda p: (p.maker != maker, p.number))
    return None


def _spares(rows: list[StripRow], percent: int) -> Iterator[Proposal]:
    terminals = [r for r in rows if r.kind == TERMINAL]
    used = [r for r in terminals if not r.record.spare]
    lacking = ceil(len(used) * percent / 100) - (len(terminals) - len(used))
    if lacking > 0:
        words = f"{lacking} spare terminal{'s' if lacking > 1 else ''} at the end"
        reason = f"{percent} % of {len(used)} terminals, with {len(terminals) - len(used)} there."
        title = words[:1].upper() + words[1:]
        yield Proposal("spare", "spare", title, reason, "", True, "", lacking)


def _order(project: Project, rows: list[StripRow]) -> Iterator[Proposal]:
    """Yield the order in which cables land side by side and their cores in order, when it is another one."""
    of_unit = {r.unit: r for r in rows if r.kind == TERMINAL}
    blocks = blocks_of(r.record for r in rows)
    lands = {block[0].unit: _landing(project, of_unit[block[0].unit]) for block in blocks}
    first: dict[str, int] = {}
    for n, block in enumerate(blocks):
        cable, _ = lands[block[0].unit]
        if cable:
            first.setdefault(cable, n)
    cabled = [b for b in blocks if lands[b[0].unit][0]]
    crossings = sum(
        1
        for i, a in enumerate(cabled)
        for b in cabled[i + 1 :]
        if _rank(first, lands[b[0].unit]) < _rank(first, lands[a[0].unit])
    )
    if not crossings:
        return
    ranked = iter(sorted(cabled, key=lambda b: _rank(first, lands[b[0].unit])))
    queue = iter([r for b in blocks for r in (next(ranked) if lands[b[0].unit][0] else b)])
    order = tuple(place_key(next(queue) if r.kind == TERMINAL else r.record) for r in rows)
    words = f"{crossings} crossing{'s' if crossings > 1 else ''} of cores would go."
    yield Proposal("order", "order", "Order in which the cables land without crossing", words, order=order)


def _landing(project: Project, row: StripRow) -> tuple[str, int]:
    """Return the cable that lands on a terminal and the place of its core, ("", 0) when none does."""
    target = next((t for t in row.field if t.cable_id), None)
    if target is None:
        return "", 0
    cores = cable_cores(project, target.cable_id)
    key = target.conductor.key
    return target.cable_id, next((c.ordinal for c in cores if c.conductor and c.conductor.key == key), 0)


def _rank(first: dict[str, int], landing: tuple[str, int]) -> tuple[int, int]:
    return first[landing[0]], landing[1]
