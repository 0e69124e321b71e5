"""House rules of Pellwick Maltings: what an installed package may add to Jolly Spool, one of each."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.extending import Cell, Column, Extension, Snag
from jolly_core.model import Project
from jolly_core.tagging import full_tag

BEACON = {
    "key": "pellwick-beacon",
    "name": "Stack beacon",
    "class": "pellwick-beacon",
    "unit": "lamp",
    "nicknames": ["stack beacon"],
    "lead": 1,
    "pins": [[0, 0], [4, 0]],
    "generic": ["X1", "X2"],
    "load": True,
    "iec": [["line", 0, 0, 1, 0], ["line", 3, 0, 4, 0], ["circle", 2, 0, 1], ["line", 1, -1.4, 3, -1.4]],
}


def add(extension: Extension) -> None:
    """Say what the house adds."""
    extension.part_class(
        {
            "key": "pellwick-beacon",
            "name": "Stack beacon",
            "iec": "PF",
            "na": "LT",
            "units": ["lamp"],
            "ratings": ["voltage_v"],
        }
    )
    extension.symbol(BEACON)
    extension.check("pellwick-text", "A device on a sheet that says nothing of what it does.", without_text)
    extension.project_check("pellwick-number", "A project without the house's order number.", without_number)
    columns = (Column("tag", "Tag", 16), Column("text", "What it does", 30))
    extension.report("pellwick-texts", "Devices and what they do", "For the operators' book.", columns, texts)
    stamp = {"name": "Beacon circuit", "text": "A stack beacon between the rails.", "body": BEACON_CIRCUIT}
    extension.stamp("pellwick-beacon-circuit", stamp)


def without_text(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each device that is drawn on a sheet and has no text."""
    seen: set[str] = set()
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if device is not None and not device.text and device.id not in seen:
            seen.add(device.id)
            message = f"{full_tag(project, device)} says nothing of what it does. Give it a text."
            yield Snag("pellwick-text", "warning", message, (symbol.id,), sheet_id, symbol.x, symbol.y)


def without_number(project: Project) -> Iterator[Snag]:
    """Yield a snag when the project's number is not one of the house."""
    if not project.settings.number.startswith("PM-"):
        yield Snag("pellwick-number", "error", "The project's number should begin with PM-.", (), "", 0, 0)


def texts(project: Project) -> list[tuple[Cell, ...]]:
    """Return each device with its text, by tag."""
    return sorted((full_tag(project, d), d.text) for d in project.devices.values() if d.text)


BEACON_CIRCUIT = {
    "piece": {
        "format": "jolly-spool-piece",
        "version": 1,
        "function_id": "",
        "location_id": "",
        "leads": ["d1"],
        "entities": {
            "device": [{"id": "d1", "letters": "PF", "text": "Kiln ready"}],
            "symbol": [
                {"id": "y1", "sheet_id": "s", "x": 20, "y": 16, "definition": "pellwick-beacon", "device_id": "d1"}
            ],
        },
    },
    "anchor": [20, 16],
    "questions": [{"name": "What it shows", "kind": "text", "targets": ["d1"], "suggestion": "Kiln ready"}],
}
