"""Harnesses: tree, wires, bundles, form board."""

from .contacts import (
    ENDS,
    CavityRow,
    cavity_area_mm2,
    cavity_insulation_mm,
    cavity_rows,
    cavity_strip_mm,
    contact_fits,
    contact_of,
    is_splice,
)
from .continuity import Probe, pin_groups, probes
from .flattening import Laid, flat, laid
from .lengths import Span, span_of
from .paths import Path, check_path, coordinates, cut_path, path_of, path_through, spots
from .tree import Tree, is_tree, length_mm, nodes_between, nodes_of, segments_of, tree_of, trunk, way_between
from .wires import (
    HarnessWire,
    bundles,
    connectors_of,
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
    "ENDS",
    "Span",
    "span_of",
    "Path",
    "check_path",
    "path_of",
    "path_through",
    "spots",
    "cavity_insulation_mm",
    "nodes_between",
    "coordinates",
    "cut_path",
    "is_splice",
]
