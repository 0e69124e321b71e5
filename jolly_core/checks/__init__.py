"""Checks: each finds one kind of snag. Importing a family's module registers its checks."""

from . import bounds, cables, circuits, devices, earth, frames, layout, pins, shorts, volts, wires
from .registry import (
    BUILT_CHECKS,
    CHECKS,
    PROJECT_CHECKS,
    SEVERITIES,
    Act,
    Snag,
    all_snags,
    check,
    muted_snags,
    place_in_words,
    project_check,
    project_snags,
    snags_on,
)
from .volts import fits_volts, switched_volts

__all__ = [
    "BUILT_CHECKS",
    "CHECKS",
    "Act",
    "PROJECT_CHECKS",
    "SEVERITIES",
    "Snag",
    "all_snags",
    "bounds",
    "cables",
    "check",
    "circuits",
    "devices",
    "earth",
    "fits_volts",
    "frames",
    "layout",
    "muted_snags",
    "pins",
    "place_in_words",
    "project_check",
    "shorts",
    "volts",
    "project_snags",
    "snags_on",
    "switched_volts",
    "wires",
]
