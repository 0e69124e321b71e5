"""Checks of supplies: whether what hangs on them takes more than they give."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import LIMIT_PERCENT, WARN_PERCENT, supply_loads
from jolly_core.model import Project
from jolly_core.tagging import full_tag

from .registry import Snag, built, project_check

SHOWN = 4


@project_check("supply-load", "A supply or transformer that feeds more than four fifths of what it gives.")
def supplies(project: Project) -> Iterator[Snag]:
    """Yield a snag for each supply that is nearly or wholly used up, with the largest of what it feeds."""
    for load in supply_loads(project):
        if load.percent <= WARN_PERCENT + 1e-9:
            continue
        largest = ", ".join(f"{full_tag(project, c.device)} {c.amps:g} A" for c in load.consumers[:SHOWN])
        more = " ..." if len(load.consumers) > SHOWN else ""
        message = (
            f"{full_tag(project, load.device)} gives {load.gives_a:g} A, but feeds {load.takes_a:g} A, "
            f"{load.percent:.0f} %: {largest}{more}. Choose a larger one, or feed some from another."
        )
        severity = "error" if load.percent > LIMIT_PERCENT else "warning"
        yield built("supply-load", severity, message, "parts", "", (), load.device.id)
