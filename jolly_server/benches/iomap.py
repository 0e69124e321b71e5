"""The address map of the I/O bench: address spaces in use, place by place."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.model import Project
from jolly_core.plc import MapRow, address_map, taken_places


class MapCellValue(TypedDict):
    """A place of the address map: what is written on it, the card and channel that take it, the point's words."""

    text: str
    size: int
    address: str
    device_id: str
    io_type: str
    channel: int
    point: str
    point_id: str
    overlaps: bool


class MapRowValue(TypedDict):
    """A row of the address map; without cells it is a gap."""

    name: str
    cells: list[MapCellValue]


class MapValue(TypedDict):
    """An address space with its rows."""

    space: str
    title: str
    rows: list[MapRowValue]


SPACE_TITLES = {"I": "inputs", "Q": "outputs"}
SPACE_KINDS = {"whole": "whole numbers", "octal": "octal numbers", "slot": "slots"}


def io_map(project: Project) -> list[MapValue]:
    """Return the address spaces in use with their places."""
    found: list[MapValue] = []
    for space in sorted(taken_places(project), key=lambda s: (" " in s, s)):
        kind, _, direction = space.rpartition(" ")
        title = SPACE_TITLES[direction] + (f", {SPACE_KINDS[kind]}" if kind else "")
        found.append(
            {"space": space, "title": title, "rows": [_map_row(project, r) for r in address_map(project, space)]}
        )
    return found


def _map_row(project: Project, row: MapRow) -> MapRowValue:
    cells: list[MapCellValue] = []
    for cell in row.cells:
        first = cell.rows[0] if cell.rows else None
        point = project.io_points.get(first.point_id) if first else None
        cells.append(
            {
                "text": cell.text,
                "size": cell.size,
                "address": " and ".join(dict.fromkeys(r.address for r in cell.rows)),
                "device_id": first.device_id if first else "",
                "io_type": first.io_type if first else "",
                "channel": first.channel if first else 0,
                "point": f"{point.tag} {point.text}".strip() if point else "",
                "point_id": point.id if point else "",
                "overlaps": len({(r.device_id, r.io_type, r.channel) for r in cell.rows}) > 1,
            }
        )
    return {"name": row.name, "cells": cells}
