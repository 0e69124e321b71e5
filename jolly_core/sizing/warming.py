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


def wall_surface_m2(width_m: float, height_m: float, depth_m: float) -> float:
    """Return the effective cooling surface of a single enclosure on a wall (IEC 60890): 1.4 W (H + D) + 1.8 D H.

    Example:
        >>> round(wall_surface_m2(0.8, 1.0, 0.3), 3)
        1.996
    """
    return 1.4 * width_m * (height_m + depth_m) + 1.8 * depth_m * height_m


def warming(width_mm: float, height_mm: float, depth_mm: float, loss_w: float) -> Warming:
    """Return the temperature rise inside a closed enclosure on a wall, loss / (5.5 W/m²K × surface).

    Raises:
        RuleError: a measure is not above 0, or the loss is negative.

    Example:
        >>> round(warming(800, 1000, 300, 180).rise_k, 1)
        16.4
    """
    if min(width_mm, height_mm, depth_mm) <= 0:
        raise RuleError("The enclosure's part lacks width, height or depth.", field="part_id")
    if loss_w < 0:
        raise RuleError("A power loss cannot be negative.", field="loss_w")
    surface = wall_surface_m2(width_mm / 1000, height_mm / 1000, depth_mm / 1000)
    rise = loss_w / (TRANSFER_W_PER_M2K * surface)
    why = (
        f"A = 1.4 × {width_mm / 1000:g} × ({height_mm / 1000:g} + {depth_mm / 1000:g}) + 1.8 × {depth_mm / 1000:g} × "
        f"{height_mm / 1000:g} = {surface:.3f} m² (IEC 60890, single, on a wall); "
        f"{loss_w:g} W / ({TRANSFER_W_PER_M2K:g} W/m²K × {surface:.3f} m²) = {rise:.1f} K"
    )
    return Warming(surface, rise, why)


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
