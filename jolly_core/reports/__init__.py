"""Row builders of reports. Importing a module registers its reports."""

from . import building, making, parts, sheets, wires
from .registry import REPORTS, Cell, Column, Report, Table, report, run_report
from .wires import WireRow, sheet_wires

__all__ = [
    "REPORTS",
    "Cell",
    "Column",
    "Report",
    "Table",
    "WireRow",
    "building",
    "making",
    "parts",
    "report",
    "run_report",
    "sheet_wires",
    "sheets",
    "wires",
]
