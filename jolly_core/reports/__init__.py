"""Row builders of reports. Importing a module registers its reports."""

from . import parts, sheets, wires
from .registry import REPORTS, Cell, Column, Report, Table, report, run_report
from .wires import Conductor, cross_section, sheet_conductors

__all__ = [
    "REPORTS",
    "Cell",
    "Column",
    "Conductor",
    "Report",
    "Table",
    "cross_section",
    "parts",
    "report",
    "run_report",
    "sheet_conductors",
    "sheets",
    "wires",
]
