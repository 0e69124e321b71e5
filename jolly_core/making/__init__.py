"""Making: dossiers of conductors, cut list, spools, labels."""

from .cutlist import (
    CutWire,
    Label,
    SpoolRow,
    StockCut,
    cut_list,
    labels,
    not_cut,
    spool_plan,
    spools_needed,
    stock_cuts,
    uncut,
)
from .dossiers import RUNS, Dossier, End, counted, dossiers

__all__ = [
    "RUNS",
    "CutWire",
    "Dossier",
    "End",
    "Label",
    "SpoolRow",
    "StockCut",
    "counted",
    "cut_list",
    "dossiers",
    "labels",
    "not_cut",
    "spool_plan",
    "spools_needed",
    "stock_cuts",
    "uncut",
]
