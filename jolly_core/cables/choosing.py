"""Which cable parts fit what a cable leads: cores with a share spare, protective core, shield, size of the cores.

What a cable is for is its *use*: "power" where phases or power wires run, "signal" for analog and other signals, else
"control". Circuits of different uses go in cables of their own.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import ceil

from jolly_core.circuits import potential_of
from jolly_core.model import Part, Project
from jolly_core.sizing import USUAL_LAYING, Laying, area_mm2, carried_a
from jolly_core.tagging import device_at
from jolly_core.wiring import Conductor

from .load import number_of, one_core_area_mm2, project_laying
from .roles import NEUTRAL, PE, PHASE, PROTECTIVE, categories_of, role_of

POWER, CONTROL, SIGNAL, MIXED = "power", "control", "signal", "mixed"
SPARE_PERCENT = 20
LEAST_AREA_MM2 = {POWER: 1.5, CONTROL: 0.75, SIGNAL: 0.5}  # mechanically, outside a panel (IEC 60204-1, table 5)


@dataclass(slots=True, frozen=True)
class CableNeed:
    """What a cable part has to have.

    Attributes:
        use: POWER, CONTROL or SIGNAL.
        live: cores beside the protective one.
        protective: a green-yellow core is needed.
        neutral: a blue core is wanted.
        area_mm2: least area of a live core.
        load_a: current they have to carry, 0 while it is not known.
        laying: how the cable will be laid.
    """

    use: str
    live: int
    protective: bool
    neutral: bool
    area_mm2: float
    load_a: float
    laying: Laying = USUAL_LAYING

    @property
    def words(self) -> str:
        """What is needed, for reading."""
        cores = f"{self.live} core{'s' if self.live != 1 else ''}" + (" and protective" if self.protective else "")
        carried = f", {self.load_a:g} A" if self.load_a else ""
        shield = ", shielded" if self.use == SIGNAL else ""
        return f"{cores}, {self.area_mm2:g} mm² or more{carried}{shield}"


def use_of(project: Project, c: Conductor) -> str:
    """Return what a conductor is for: POWER, CONTROL or SIGNAL, "" for a protective one, which goes with any."""
    role = role_of(project, c)
    if role == PE:
        return ""
    if role in (PHASE, NEUTRAL):
        return POWER
    kinds = categories_of(project, potential_of(project, c.start))
    return POWER if "power" in kinds else SIGNAL if kinds == {"signal"} else CONTROL


def need_of(project: Project, conductors: Iterable[Conductor]) -> CableNeed:
    """Return what a cable for some conductors has to have."""
    found = list(conductors)
    live = [c for c in found if role_of(project, c) != PE]
    uses = {use_of(project, c) for c in live}
    use = POWER if POWER in uses else CONTROL if CONTROL in uses or not uses else SIGNAL
    areas = [a for c in live for a in _areas_inside(project, c)]
    load = max((_load_at(project, c) for c in live), default=0.0) if use == POWER else 0.0
    least = max([LEAST_AREA_MM2[use], *(areas if use == POWER else [])])
    neutral = any(role_of(project, c) == NEUTRAL for c in live)
    return CableNeed(use, len(live), len(live) < len(found), neutral, least, load, project_laying(project))


def _areas_inside(project: Project, c: Conductor) -> list[float]:
    """Return the areas of the panel's own wires on a conductor's potential, mm²."""
    types = (
        project.wire_types.get(project.wires[id].type_id)
        for group in potential_of(project, c.start).groups
        for id in group.wires
    )
    return [area_mm2(t) for t in types if t is not None and not t.outside and t.category == "power"]


def _load_at(project: Project, c: Conductor) -> float:
    """Return the rated current of what hangs on either end of a conductor and takes one, A."""
    found = 0.0
    for pin in (c.start, c.end):
        device = device_at(project, pin)
        part = project.part_of(device) if device else None
        if part is not None and all(kind != "pole" for kind, _ in part.units):
            found = max(found, number_of(part, "rated_a"))
    return found


def lives_of(part: Part) -> list[int]:
    """Return the ordinals of the cores of a cable part that may lead a live conductor."""
    pairs = enumerate(part.units, start=1)
    return [n for n, (kind, pins) in pairs if kind == "core" and (not pins or pins[0] != PROTECTIVE)]


def is_shielded(part: Part) -> bool:
    """Return whether a cable part has a shield."""
    return any(kind == "shield" for kind, _ in part.units) or part.ratings.get("screened", "") in ("yes", "1", "true")


def serves_need(part: Part, need: CableNeed, spare_percent: float = 0.0) -> bool:
    """Return whether a cable part has all that is needed, with a share of spare cores for all but power."""
    lives = lives_of(part)
    wanted = need.live if need.use == POWER else ceil(need.live * (1 + spare_percent / 100))
    has_protective = any(kind == "core" and pins[:1] == (PROTECTIVE,) for kind, pins in part.units)
    if len(lives) < wanted or (need.protective and not has_protective) or (need.use == SIGNAL) != is_shielded(part):
        return False
    if need.use == SIGNAL and has_protective:
        return False
    if need.neutral and not any(part.units[n - 1][1][:1] == ("BU",) for n in lives) and has_protective:
        return False
    area = min((one_core_area_mm2(part, n) for n in lives), default=0.0)
    return area >= need.area_mm2 - 1e-9 and (not need.load_a or carried_a(area, need.laying) >= need.load_a)


def parts_for(
    need: CableNeed, parts: Iterable[Part], used: Iterable[str] = (), spare_percent: float = SPARE_PERCENT
) -> list[Part]:
    """Return the parts that serve a need, best first: fewest cores, then thinnest, those used already before others.

    Without one that has the spare share, those without spare cores are returned.
    """
    known, usual = list(parts), set(used)
    fitting = [p for p in known if serves_need(p, need, spare_percent)] or [p for p in known if serves_need(p, need)]
    without = not need.protective

    def rank(part: Part) -> tuple[int, bool, float, bool, float, str]:
        lives = lives_of(part)
        area = min((one_core_area_mm2(part, n) for n in lives), default=0.0)
        spare_earth = without and len(lives) < sum(1 for kind, _ in part.units if kind == "core")
        return len(lives), spare_earth and need.use == POWER, area, part.id not in usual, part.price, part.number

    return sorted(fitting, key=rank)


def larger_of_family(part: Part, need: CableNeed, parts: Iterable[Part]) -> list[Part]:
    """Return the parts of a cable part's maker, shielded alike, that have enough for a need; the smallest first."""
    alike = [p for p in parts if p.maker == part.maker and is_shielded(p) == is_shielded(part) and p.id != part.id]
    lives = [p for p in alike if len(lives_of(p)) >= need.live]
    first = min((one_core_area_mm2(part, n) for n in lives_of(part)), default=0.0)

    def rank(p: Part) -> tuple[bool, int, float, str]:
        area = min((one_core_area_mm2(p, n) for n in lives_of(p)), default=0.0)
        return area < first - 1e-9, len(lives_of(p)), area, p.number

    return sorted((p for p in lives if not need.protective or len(lives_of(p)) < len(p.units)), key=rank)
