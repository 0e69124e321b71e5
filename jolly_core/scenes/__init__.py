"""Sheets as primitives in mm, for any painter."""

from .primitives import ADVANCE, PENS_MM, ROLES, Item, Prim, Scene, art_of, fit
from .sheet import sheet_scene

__all__ = ["ADVANCE", "PENS_MM", "ROLES", "Item", "Prim", "Scene", "art_of", "fit", "sheet_scene"]
