"""What a check is, and the one list of them.

A check looks at one sheet and yields snags; it never mends. To add one, write a function in a module of its family and
decorate it; the package's `__init__` names the module.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from jolly_core.model import Project

SEVERITIES = ("error", "warning")


@dataclass(slots=True, frozen=True)
class Snag:
    """A finding.

    Attributes:
        code: stable name of the check.
        severity: one of SEVERITIES.
        message: names the object and says what is wrong.
        ids: what to select to see it.
        x, y: grid point to show.
        mend: what would put it right: "choose-part", "choose-device", or "".
        device_id: the device concerned, "".
    """

    code: str
    severity: str
    message: str
    ids: tuple[str, ...]
    sheet_id: str
    x: int
    y: int
    mend: str = ""
    device_id: str = ""


Check = Callable[[Project, str], Iterator[Snag]]
CHECKS: dict[str, tuple[Check, str]] = {}


def check(code: str, help: str) -> Callable[[Check], Check]:
    """Register a check under a code, with a line of help.

    Raises:
        RuntimeError: two checks claim one code.
    """

    def register(function: Check) -> Check:
        if code in CHECKS:
            raise RuntimeError(f"{function.__name__} and {CHECKS[code][0].__name__} both claim “{code}”.")
        CHECKS[code] = (function, help)
        return function

    return register


def snags_on(project: Project, sheet_id: str) -> list[Snag]:
    """Return the snags of a sheet, errors first, then by place."""
    found = [snag for function, _ in CHECKS.values() for snag in function(project, sheet_id)]
    return sorted(found, key=lambda s: (s.severity != "error", s.y, s.x, s.code, s.ids))


def all_snags(project: Project) -> list[Snag]:
    """Return the snags of all sheets in order."""
    return [snag for sheet in project.sheets_in_order() for snag in snags_on(project, sheet.id)]
