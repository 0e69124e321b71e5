"""Cables: bands, cores, voltage drop."""

from .cores import (
    CoreRow,
    bands_of,
    cable_conductors,
    cable_cores,
    cable_of,
    choices_of,
    conductors_across,
    core_list,
    cored,
    crossed_wires,
    far_devices,
    misfit,
    source_first,
)
from .load import cable_drop, capacity_a, load_a, number_of, one_core_area_mm2
from .roles import PE, PROTECTIVE, categories_of, role_of, system_of

__all__ = [
    "PE",
    "PROTECTIVE",
    "categories_of",
    "choices_of",
    "misfit",
    "role_of",
    "system_of",
    "CoreRow",
    "bands_of",
    "cable_conductors",
    "cable_cores",
    "cable_drop",
    "capacity_a",
    "load_a",
    "cable_of",
    "conductors_across",
    "core_list",
    "cored",
    "crossed_wires",
    "far_devices",
    "number_of",
    "one_core_area_mm2",
    "source_first",
]
