"""Harnesses: tree, wires, bundles, form board."""

from .continuity import Probe, pin_groups, probes
from .flattening import Laid, flat, laid
from .tree import Tree, is_tree, length_mm, nodes_of, segments_of, tree_of, trunk, way_between
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
    free_connectors,
    harness_wires,
    harness_wires_from,
    harnesses,
    node_name,
    wires_of,
)

__all__ = [
    "CavityRow",
    "HarnessWire",
    "Laid",
    "Probe",
    "Tree",
    "bundles",
    "cavity_area_mm2",
    "cavity_rows",
    "cavity_strip_mm",
    "connectors_of",
    "contact_fits",
    "contact_of",
    "flat",
    "free_connectors",
    "harness_wires",
    "harness_wires_from",
    "harnesses",
    "is_tree",
    "laid",
    "length_mm",
    "node_name",
    "nodes_of",
    "pin_groups",
    "probes",
    "segments_of",
    "tree_of",
    "trunk",
    "way_between",
    "wires_of",
]
