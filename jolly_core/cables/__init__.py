"""Cables: bands, cores, voltage drop."""

from .cores import (
    PROTECTIVE,
    CoreRow,
    bands_of,
    cable_conductors,
    cable_cores,
    cable_of,
    conductors_across,
    core_list,
    cored,
    crossed_wires,
    far_devices,
    source_first,
)
from .load import cable_drop, number_of

__all__ = [
    "PROTECTIVE",
    "CoreRow",
    "bands_of",
    "cable_conductors",
    "cable_cores",
    "cable_drop",
    "cable_of",
    "conductors_across",
    "core_list",
    "cored",
    "crossed_wires",
    "far_devices",
    "number_of",
    "source_first",
]
