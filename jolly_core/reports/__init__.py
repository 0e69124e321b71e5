"""Row builders of reports. Importing a module registers its reports."""

from . import building, harness, harnessmaking, layouts, making, parts, plc, references, sheets, spares, wires
from .back import BACK, Back, listed_factor, state_mark
from .finding import Found, find_in
from .groups import grouped_reports
from .jumping import places_of, where_drawn
from .laid import OF_SHEET, check_laid, laid_list
from .layouts import holes_in_order
from .naming import Named, differences, kind_name, named, objects_of
from .needs import needs
from .parts import positions
from .recipes import MONEY, TESTS, WITHOUT_VALUE, Cooked, Group, check_recipe, cook, plain_recipe, recipe_called
from .registry import (
    LIST,
    REPORTS,
    Build,
    Cell,
    Column,
    Report,
    Row,
    Table,
    as_row,
    full_report,
    guarded,
    in_inches,
    report,
    run_report,
)
from .sheets import FACTS
from .tracemembers import TraceMember
from .tracetables import trace_table, traced_loads
from .tracing import Trace, traced
from .wires import Landed, WireRow, landed_at, sheet_wires

__all__ = [
    "Trace",
    "TraceMember",
    "trace_table",
    "traced",
    "traced_loads",
    "FACTS",
    "where_drawn",
    "MONEY",
    "OF_SHEET",
    "check_laid",
    "laid_list",
    "BACK",
    "Back",
    "state_mark",
    "listed_factor",
    "TESTS",
    "WITHOUT_VALUE",
    "Cooked",
    "Group",
    "check_recipe",
    "cook",
    "plain_recipe",
    "recipe_called",
    "Row",
    "as_row",
    "full_report",
    "LIST",
    "references",
    "spares",
    "Build",
    "guarded",
    "needs",
    "places_of",
    "REPORTS",
    "grouped_reports",
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
