"""Files in and out: project file, tables, sheets and layouts as PDF, plates as DXF, cut list, the pack."""

from .bookcells import TableCells, read_table
from .built import board_dxf, board_pdf, surface_pdf
from .cabinetgltf import cabinet_gltf
from .cells import read_cells
from .cutfile import cut_json, cut_schema, wire_record
from .filenames import file_stem
from .graphics import extent, graphics_in
from .harnessgltf import harness_gltf
from .issuecheck import WEIGHTS, Finding, issue_check
from .listback import EditedCell, ListBack, read_list
from .lists import LIST_FORMATS, unwritable, write_list
from .pack import (
    EVERYTHING,
    PIECES,
    Written,
    check_pack,
    everything_pack,
    named_files,
    outside,
    pack_files,
    write_pack,
    written,
    zipped,
)
from .packitems import ITEMS, traces_pdf, whole_set
from .partstable import (
    COMMON,
    TOLD,
    BadCell,
    CheckedRow,
    check_rows,
    guessed_mapping,
    parts_table,
    units_in,
    units_text,
)
from .platedxf import surface_dxf
from .projectfile import FORMAT, read_project, read_summary, write_project
from .recipefile import read_recipe, write_recipe
from .scenedxf import scenes_dxf
from .sheetpdf import scaled_pdf, sheets_pdf, tiled_pdf, tiles
from .sheetsvg import scene_svg
from .spacefile import SPACE_FORMAT, space_json
from .statessvg import states_svg
from .tables import harmless, table_csv, table_pdf, table_xlsx
from .versions import VERSION
from .wirerows import PastedWire, wire_rows
from .workfile import write_work_list

__all__ = [
    "PastedWire",
    "Finding",
    "WEIGHTS",
    "issue_check",
    "EVERYTHING",
    "ITEMS",
    "PIECES",
    "Written",
    "check_pack",
    "everything_pack",
    "file_stem",
    "named_files",
    "outside",
    "whole_set",
    "read_recipe",
    "write_recipe",
    "written",
    "zipped",
    "EditedCell",
    "LIST_FORMATS",
    "ListBack",
    "read_list",
    "unwritable",
    "write_list",
    "write_work_list",
    "cabinet_gltf",
    "harness_gltf",
    "TableCells",
    "read_table",
    "scenes_dxf",
    "extent",
    "graphics_in",
    "BadCell",
    "COMMON",
    "CheckedRow",
    "check_rows",
    "guessed_mapping",
    "parts_table",
    "units_in",
    "units_text",
    "FORMAT",
    "TOLD",
    "VERSION",
    "board_dxf",
    "board_pdf",
    "SPACE_FORMAT",
    "space_json",
    "cut_json",
    "cut_schema",
    "harmless",
    "pack_files",
    "read_cells",
    "read_project",
    "read_summary",
    "scaled_pdf",
    "scene_svg",
    "sheets_pdf",
    "surface_dxf",
    "surface_pdf",
    "states_svg",
    "table_csv",
    "table_pdf",
    "table_xlsx",
    "tiled_pdf",
    "tiles",
    "traces_pdf",
    "wire_record",
    "wire_rows",
    "write_pack",
    "write_project",
]
