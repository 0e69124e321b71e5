"""How warm an enclosure gets inside."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import RuleError

TRANSFER_W_PER_M2K = 5.5
FAN_M3K_PER_WH = 3.1


@dataclass(slots=True, frozen=True)
class Warming:
    """Effective surface in m², rise in K, and the rule with its figures."""

    surface_m2: float
    rise_k: float
    why: str


# Effective surface by the way of standing: factors of W H, W D and D H (IEC 60890), and the same in words.
STANDING_FACTORS: dict[str, tuple[float, float, float, str]] = {
    "free": (1.8, 1.4, 1.8, "free on all sides"),
    "wall": (1.4, 1.4, 1.8, "single, on a wall"),
    "end-free": (1.8, 1.4, 1.4, "first or last of a row, free"),
    "end-wall": (1.4, 1.4, 1.4, "first or last of a row, on a wall"),
    "middle-free": (1.8, 1.4, 1.0, "in the middle of a row, free"),
    "middle-wall": (1.4, 1.4, 1.0, "in the middle of a row, on a wall"),
    "middle-covered": (1.4, 0.7, 1.0, "in the middle of a row, on a wall, roof covered"),
}


def effective_surface_m2(standing: str, width_m: float, height_m: float, depth_m: float) -> float:
    """Return the effective cooling surface of an enclosure by the way it stands (IEC 60890).

    Args:
        standing: a key of STANDING_FACTORS.

    Raises:
        RuleError: there is no such way of standing.

    Example:
        >>> round(effective_surface_m2("wall", 0.8, 1.0, 0.3), 3)
        1.996
        >>> round(effective_surface_m2("free", 0.6, 2.0, 0.4), 3)
        3.936
    """
    if standing not in STANDING_FACTORS:
        raise RuleError(f"“{standing}” is no way an enclosure stands.", field="standing")
    front, roof, side, _ = STANDING_FACTORS[standing]
    return front * width_m * height_m + roof * width_m * depth_m + side * depth_m * height_m


def warming(width_mm: float, height_mm: float, depth_mm: float, loss_w: float, standing: str = "wall") -> Warming:
    """Return the temperature rise inside a closed enclosure, loss / (5.5 W/m²K × effective surface).

    Raises:
        RuleError: a measure is not above 0, the loss is negative, or there is no such way of standing.

    Example:
        >>> round(warming(800, 1000, 300, 180).rise_k, 1)
        16.4
        >>> round(warming(600, 2000, 400, 350, "free").rise_k, 1)
        16.2
    """
    if min(width_mm, height_mm, depth_mm) <= 0:
        raise RuleError("The enclosure's part lacks width, height or depth.", field="part_id")
    if loss_w < 0:
        raise RuleError("A power loss cannot be negative.", field="loss_w")
    w, h, d = width_mm / 1000, height_mm / 1000, depth_mm / 1000
    surface = effective_surface_m2(standing, w, h, d)
    rise = loss_w / (TRANSFER_W_PER_M2K * surface)
    front, roof, side, words = STANDING_FACTORS[standing]
    why = (
        f"A = {front:g} × {w:g} × {h:g} + {roof:g} × {w:g} × {d:g} + {side:g} × {d:g} × {h:g} = {surface:.3f} m² "
        f"(IEC 60890, {words}); {loss_w:g} W / ({TRANSFER_W_PER_M2K:g} W/m²K × {surface:.3f} m²) = {rise:.1f} K"
    )
    return Warming(surface, rise, why)


def heating_w(loss_w: float, surface_m2: float, rise_k: float) -> float:
    """Return the heat that holds the inside so many K above the air around, W; 0 when the losses do it alone.

    Example:
        >>> round(heating_w(20, 2.0, 10), 1)
        90.0
    """
    return max(0.0, TRANSFER_W_PER_M2K * surface_m2 * rise_k - loss_w)


def fan_m3_per_h(loss_w: float, surface_m2: float, rise_k: float) -> float:
    """Return the air a fan must move, m³/h, to hold a rise in K; 0 when the surface does it alone.

    Raises:
        RuleError: the rise is not above 0.

    Example:
        >>> round(fan_m3_per_h(180, 1.996, 10), 1)
        21.8
    """
    if rise_k <= 0:
        raise RuleError("The temperature rise to hold must be above 0 K.", field="rise_k")
    return max(0.0, FAN_M3K_PER_WH * (loss_w - TRANSFER_W_PER_M2K * surface_m2 * rise_k) / rise_k)
