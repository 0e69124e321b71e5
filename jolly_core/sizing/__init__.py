"""Sizes that follow from tables and formulas: wires, voltage drop, warming."""

from .ampacity import USUAL_LAYING, Laying, carried_a, conductor_for_mm2, laying_factor
from .drop import Drop, voltage_drop
from .motors import AMERICAN_MAINS, HP_KW, USUAL_MAINS, Chosen, Mains, motor_choice, motor_current_a
from .packing import MOST_PACKED, bundle_diameter_mm, bundle_places_mm, circle_about_mm, packing_cost
from .warming import (
    FAN_M3K_PER_WH,
    STANDING_FACTORS,
    TRANSFER_W_PER_M2K,
    Warming,
    effective_surface_m2,
    fan_m3_per_h,
    heating_w,
    warming,
)
from .wires import (
    area_mm2,
    fill_percent,
    outer_diameter_mm,
    resistance_ohm_per_km,
    rounded_up_mm,
    strip_length_mm,
)

__all__ = [
    "Laying",
    "USUAL_LAYING",
    "laying_factor",
    "Chosen",
    "carried_a",
    "conductor_for_mm2",
    "AMERICAN_MAINS",
    "HP_KW",
    "Mains",
    "USUAL_MAINS",
    "motor_choice",
    "motor_current_a",
    "Drop",
    "Warming",
    "area_mm2",
    "MOST_PACKED",
    "bundle_diameter_mm",
    "bundle_places_mm",
    "circle_about_mm",
    "packing_cost",
    "fan_m3_per_h",
    "fill_percent",
    "outer_diameter_mm",
    "resistance_ohm_per_km",
    "rounded_up_mm",
    "strip_length_mm",
    "voltage_drop",
    "FAN_M3K_PER_WH",
    "STANDING_FACTORS",
    "TRANSFER_W_PER_M2K",
    "effective_surface_m2",
    "heating_w",
    "warming",
]
