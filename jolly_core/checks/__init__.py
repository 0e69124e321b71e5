"""Checks: each finds one kind of snag. Importing a family's module registers its checks."""

from . import cables, circuits, devices, frames, layout, wires
from .circuits import switched_volts
from .registry import (
    CHECKS,
    PROJECT_CHECKS,
    SEVERITIES,
    Act,
    Snag,
    all_snags,
    check,
    muted_snags,
    project_check,
    project_snags,
    snags_on,
)

__all__ = [
    "CHECKS",
    "Act",
    "PROJECT_CHECKS",
    "SEVERITIES",
    "Snag",
    "all_snags",
    "cables",
    "check",
    "circuits",
    "devices",
    "frames",
    "layout",
    "muted_snags",
    "project_check",
    "project_snags",
    "snags_on",
    "switched_volts",
    "wires",
]
