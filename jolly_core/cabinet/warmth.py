"""How warm it gets in an enclosure, what makes it so, and what would hold it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from jolly_core.cables import number_of
from jolly_core.library import base_of
from jolly_core.model import Enclosure, Part, Project, RuleError, derived
from jolly_core.sizing import FAN_M3K_PER_WH, TRANSFER_W_PER_M2K, Warming, fan_m3_per_h, heating_w, warming
from jolly_core.tagging import full_tag, natural

from .layout import placings_in


@dataclass(slots=True, frozen=True)
class Loss:
    """What a placed device gives off, W; None while its part does not say, though parts of its class do."""

    device_id: str
    tag: str
    part: str
    watts: float | None


@dataclass(slots=True, frozen=True)
class Warmth:
    """How warm it gets inside.

    Attributes:
        standing: how it stands, as sizing knows it.
        losses: what is given off, the largest first, then what is not known.
        air_m3h: what the fans that are placed move.
        inside_c: at the highest temperature around it, with these fans running.
        fan_m3h: the air that keeps it below the allowed temperature, 0 when none is needed.
        heater_w: the heat that keeps it above the lowest allowed, 0 when none is needed.
        words: what to do, or that nothing is to be done.
    """

    standing: str
    losses: list[Loss]
    loss_w: float
    warming: Warming
    air_m3h: float
    inside_c: float
    fan_m3h: float
    heater_w: float
    words: str


def standing_of(project: Project, enclosure: Enclosure) -> str:
    """Return how an enclosure stands: as somebody said, else on a wall, in its row by what is open to it."""
    if enclosure.standing:
        return enclosure.standing
    beside = int(enclosure.left_id in project.enclosures)
    beside += any(e.left_id == enclosure.id for e in project.enclosures.values())
    return ("wall", "end-wall", "middle-wall")[beside]


# Classes whose parts take next to nothing or hand all on, so that a missing figure is no gap.
_NO_LOSS = ("terminal", "push-button", "selector", "emergency-stop", "earth", "vent-filter", "current-transformer")


@derived
def losses_in(project: Project, enclosure_id: str) -> list[Loss]:
    """Return what the devices of an enclosure give off, the largest first; what is not known last."""
    found = []
    for placing in placings_in(project, enclosure_id):
        device = project.devices[placing.device_id]
        part = project.part_of(device)
        if part is None or part.part_class in _NO_LOSS:
            continue
        known = number_of(part, "loss_w") if "loss_w" in part.ratings else None
        if known is not None or part.part_class not in ("fan", "heater", "cooling-unit", "lighting"):
            found.append(Loss(device.id, full_tag(project, device), part.number, known))
    return sorted(found, key=lambda loss: (loss.watts is None, -(loss.watts or 0.0), natural(loss.tag)))


def enclosure_warmth(project: Project, enclosure: Enclosure) -> Warmth:
    """Return how warm it gets in an enclosure.

    Raises:
        RuleError: the enclosure's part is missing or lacks a measure.
    """
    part = project.part_of(project.devices[enclosure.device_id])
    if part is None:
        raise RuleError("Choose an enclosure part, so that its size is known.", field="part_id")
    losses = losses_in(project, enclosure.id)
    loss = sum(one.watts or 0.0 for one in losses)
    standing = standing_of(project, enclosure)
    warm = warming(part.width_mm, part.height_mm, part.depth_mm, loss, standing)
    air = air_of_fans(project, enclosure)
    inside = enclosure.ambient_c + loss / (TRANSFER_W_PER_M2K * warm.surface_m2 + air / FAN_M3K_PER_WH)
    allowed = enclosure.inside_max_c - enclosure.ambient_c
    fan = fan_m3_per_h(loss, warm.surface_m2, allowed) if allowed > 0 else 0.0
    heater = heating_w(loss, warm.surface_m2, enclosure.inside_min_c - enclosure.coldest_c)
    if enclosure.inside_min_c <= enclosure.coldest_c:
        heater = 0.0
    heat = sum(
        number_of(project.part_of(project.devices[p.device_id]), "power_w")
        for p in placings_in(project, enclosure.id)
        if is_of(project, p.device_id, "heater")
    )
    words = _words(enclosure, inside, fan, max(0.0, heater - heat), air)
    return Warmth(standing, losses, loss, warm, air, inside, fan, max(0.0, heater - heat), words)


def is_of(project: Project, device_id: str, part_class: str) -> bool:
    """Return whether a device's part is of a class."""
    part = project.part_of(project.devices[device_id])
    return part is not None and base_of(part.part_class) == part_class


def air_of_fans(project: Project, enclosure: Enclosure) -> float:
    """Return the air that the fans placed in an enclosure move, m³/h; that of a part that says nothing is none."""
    placed = [p.device_id for p in placings_in(project, enclosure.id) if is_of(project, p.device_id, "fan")]
    return sum(number_of(project.part_of(project.devices[id]), "air_m3h") for id in placed)


def _words(enclosure: Enclosure, inside: float, fan: float, heater: float, air: float) -> str:
    said = []
    if air and inside <= enclosure.inside_max_c + 1e-9:
        said.append(f"fans of {air:g} m³/h hold {inside:.0f} °C")
    if inside > enclosure.inside_max_c + 1e-9:
        if enclosure.inside_max_c <= enclosure.ambient_c:
            said.append(
                f"air of {enclosure.ambient_c:g} °C cannot hold {enclosure.inside_max_c:g} °C: a cooling unit is needed"
            )
        else:
            said.append(f"a fan of {fan:.0f} m³/h holds {enclosure.inside_max_c:g} °C")
    if heater:
        said.append(f"a heater of {heater:.0f} W holds {enclosure.inside_min_c:g} °C at {enclosure.coldest_c:g} °C")
    return "; ".join(said) or "no fan needed"


@dataclass(slots=True, frozen=True)
class Help:
    """A part of the library that would hold the temperature: what for, the part, and why this one."""

    what: str
    part: Part
    why: str


def helps(warmth: Warmth, enclosure: Enclosure, parts: Iterable[Part]) -> list[Help]:
    """Return the smallest fan, filter, cooling unit and heater of a library that are enough; [] when none is needed."""
    there = list(parts)

    def least(part_class: str, rating: str, wanted: float) -> Part | None:
        fit = [p for p in there if p.part_class == part_class and number_of(p, rating) >= wanted]
        return min(fit, key=lambda p: (number_of(p, rating), p.number), default=None)

    found: list[Help] = []
    too_warm = warmth.inside_c > enclosure.inside_max_c + 1e-9
    if too_warm and warmth.fan_m3h:
        for what, part_class in (("fan", "fan"), ("filter", "vent-filter")):
            part = least(part_class, "air_m3h", warmth.fan_m3h)
            if part is not None:
                air = number_of(part, "air_m3h")
                found.append(Help(what, part, f"{air:g} of {warmth.fan_m3h:.0f} m³/h"))
    elif too_warm:
        surplus = warmth.loss_w + TRANSFER_W_PER_M2K * warmth.warming.surface_m2 * (
            enclosure.ambient_c - enclosure.inside_max_c
        )
        part = least("cooling-unit", "power_w", surplus)
        if part is not None:
            found.append(Help("cooling unit", part, f"{number_of(part, 'power_w'):g} of {surplus:.0f} W"))
    if warmth.heater_w:
        part = least("heater", "power_w", warmth.heater_w)
        if part is not None:
            found.append(Help("heater", part, f"{number_of(part, 'power_w'):g} of {warmth.heater_w:.0f} W"))
    return found
