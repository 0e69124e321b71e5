"""Checks: each finds one kind of snag. Importing a family's module registers its checks."""

from . import cables, devices, layout, wires
from .registry import CHECKS, PROJECT_CHECKS, SEVERITIES, Snag, all_snags, check, project_check, project_snags, snags_on

__all__ = [
    "CHECKS",
    "PROJECT_CHECKS",
    "SEVERITIES",
    "Snag",
    "all_snags",
    "cables",
    "check",
    "devices",
    "layout",
    "project_check",
    "project_snags",
    "snags_on",
    "wires",
]
