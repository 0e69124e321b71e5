"""Two states of a project beside each other: what changed, where, and what that is for the shop floor."""

from .difference import Change, Difference, SheetChange, difference, drawing_change
from .sheetchanges import changed_sheets
from .sights import sights
from .thing import KINDS, Same, Sight, Sights, same_things
from .worklist import Job, work_list

__all__ = [
    "KINDS",
    "Change",
    "Difference",
    "Job",
    "SheetChange",
    "Same",
    "Sight",
    "Sights",
    "changed_sheets",
    "difference",
    "drawing_change",
    "same_things",
    "sights",
    "work_list",
]
