"""Harnesses: tree, wires, bundles, form board."""

from .tree import Tree, flat, is_tree, length_mm, nodes_of, segments_of, tree_of, trunk, way_between
from .wires import (
    CavityRow,
    HarnessWire,
    bundles,
    cavity_area_mm2,
    cavity_rows,
    cavity_strip_mm,
    connectors_of,
    contact_fits,
    contact_of,
    harness_wires,
    harness_wires_from,
    harnesses,
    wires_of,
)

__all__ = [
    "CavityRow",
    "HarnessWire",
    "Tree",
    "bundles",
    "cavity_area_mm2",
    "cavity_rows",
    "cavity_strip_mm",
    "connectors_of",
    "contact_fits",
    "contact_of",
    "flat",
    "harness_wires",
    "harness_wires_from",
    "harnesses",
    "is_tree",
    "length_mm",
    "nodes_of",
    "segments_of",
    "tree_of",
    "trunk",
    "way_between",
    "wires_of",
]
