"""Checks: each finds one kind of snag. Importing a family's module registers its checks."""

from . import devices, wires
from .registry import CHECKS, SEVERITIES, Snag, all_snags, check, snags_on

__all__ = ["CHECKS", "SEVERITIES", "Snag", "all_snags", "check", "devices", "snags_on", "wires"]
