"""Making: dossiers of conductors, cut list, spools, labels."""

from .cutlist import (
    CutWire,
    Label,
    SpoolRow,
    StockCut,
    cut_list,
    end_label,
    labels,
    not_cut,
    spool_plan,
    spools_needed,
    stock_cuts,
    uncut,
    uncut_from,
)
from .cutting import Bar, cutting_plan, packed
from .dossiers import RUNS, Dossier, End, counted, dossiers, dossiers_from
from .engraving import Nameplate, engraved, letter_height, nameplates, plate_of
from .fieldwires import FieldGroup, Stroke, field_groups, open_conductors, strokes_for

__all__ = [
    "Bar",
    "Nameplate",
    "cutting_plan",
    "letter_height",
    "engraved",
    "nameplates",
    "plate_of",
    "packed",
    "FieldGroup",
    "Stroke",
    "field_groups",
    "open_conductors",
    "strokes_for",
    "RUNS",
    "CutWire",
    "Dossier",
    "End",
    "Label",
    "SpoolRow",
    "StockCut",
    "counted",
    "cut_list",
    "end_label",
    "dossiers",
    "dossiers_from",
    "labels",
    "not_cut",
    "spool_plan",
    "spools_needed",
    "stock_cuts",
    "uncut",
    "uncut_from",
]
