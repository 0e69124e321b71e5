"""What an edit calls a symbol."""

from __future__ import annotations

from jolly_core.library import definition
from jolly_core.model import Project, Symbol
from jolly_core.tagging import tag_on


def name_of(project: Project, symbol: Symbol) -> str:
    """Return a symbol's tag as its sheet shows it, or its name while it has no device."""
    device = project.devices.get(symbol.device_id)
    if device is None:
        return definition(symbol.definition).name
    return tag_on(project, device, project.sheets[symbol.sheet_id])
