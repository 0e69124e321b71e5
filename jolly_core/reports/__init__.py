"""Row builders of reports. Importing a module registers its reports."""

from . import building, harness, harnessmaking, layouts, making, parts, plc, sheets, wires
from .finding import Found, find_in
from .jumping import places_of
from .layouts import holes_in_order
from .naming import Named, differences, kind_name, named, objects_of
from .parts import needs, positions
from .registry import REPORTS, Build, Cell, Column, Report, Table, guarded, in_inches, report, run_report
from .wires import Landed, WireRow, landed_at, sheet_wires

__all__ = [
    "Build",
    "guarded",
    "needs",
    "places_of",
    "REPORTS",
    "Cell",
    "Column",
    "Found",
    "Named",
    "Report",
    "Table",
    "WireRow",
    "building",
    "harness",
    "harnessmaking",
    "holes_in_order",
    "layouts",
    "positions",
    "differences",
    "find_in",
    "in_inches",
    "kind_name",
    "making",
    "named",
    "objects_of",
    "parts",
    "plc",
    "report",
    "run_report",
    "Landed",
    "landed_at",
    "sheet_wires",
    "sheets",
    "wires",
]
