"""Making: dossiers of conductors, cut list, spools, labels."""

from .cutlist import (
    CutWire,
    Label,
    SpoolRow,
    cut_list,
    end_label,
    labels,
    longer_than_a_spool,
    not_cut,
    spool_plan,
    spools_needed,
    uncut,
    uncut_from,
)
from .cutting import Bar, StockCut, cutting_plan, stock_cuts
from .dossiers import RUNS, Dossier, End, counted, dossiers, dossiers_from
from .engraving import Nameplate, engraved, letter_height, nameplates, plate_of
from .fieldwires import FieldGroup, Stroke, field_groups, open_conductors, strokes_for
from .packing import packed

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
    "longer_than_a_spool",
    "not_cut",
    "spool_plan",
    "spools_needed",
    "stock_cuts",
    "uncut",
    "uncut_from",
]
