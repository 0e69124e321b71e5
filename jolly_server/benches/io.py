"""What the I/O bench shows, and what a point list from a file would change."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from jolly_core.exchange import read_cells
from jolly_core.model import IoPoint, Project
from jolly_core.plc import card_of, cards, channel_address, channels, read_points, spare_shares
from jolly_core.tagging import full_tag

from .shapes import device_value, symbol_place


def io_bench(project: Project) -> dict[str, Any]:
    """Return points, cards with channels, and spare shares."""
    points = sorted(project.io_points.values(), key=lambda p: (p.order, p.id))
    return {
        "points": [_point(project, p) for p in points],
        "cards": [_card(project, c.device_id) for c in cards(project)],
        "spare": [asdict(s) for s in spare_shares(project)],
        "spare_wanted": project.settings.spare_share_percent,
    }


def _point(project: Project, point: IoPoint) -> dict[str, Any]:
    device = project.devices.get(point.device_id)
    return {
        "id": point.id,
        "tag": point.tag,
        "text": point.text,
        "io_type": point.io_type,
        "connected": point.connected,
        "card": full_tag(project, device) if device else "",
        "device_id": point.device_id,
        "channel": point.channel,
        "address": channel_address(project, point.device_id, point.io_type, point.channel) if device else "",
    }


def _card(project: Project, device_id: str) -> dict[str, Any]:
    card = card_of(project, device_id)
    rows = []
    for row in channels(project, device_id):
        point = project.io_points.get(row.point_id)
        rows.append(
            {
                "io_type": row.io_type,
                "channel": row.channel,
                "address": row.address,
                "pins": " ".join(row.pins),
                "point_id": row.point_id,
                "point": f"{point.tag} {point.text}".strip() if point else "",
                "symbol_id": row.symbol_id,
                **symbol_place(project, row.symbol_id),
            }
        )
    return {
        **device_value(project, project.devices[device_id]),
        "scheme": card.scheme if card else "",
        "start": card.start if card else "",
        "channels": rows,
    }


def read_list(project: Project, content: bytes, name: str) -> dict[str, Any]:
    """Return what a point list holds and what taking it in would change; nothing is taken in.

    Raises:
        FileError: it cannot be read, or lacks the headings.
    """
    found = read_points(read_cells(content, name))
    known = {p.tag: p for p in project.io_points.values()}
    lines = []
    for line in found.lines:
        old = known.get(line.tag)
        values = {"tag": line.tag, "text": line.text, "io_type": line.io_type, "connected": line.connected}
        same = old is not None and all(getattr(old, field) == value for field, value in values.items())
        lines.append({"row": line.row, **values, "change": "same" if same else "changed" if old else "added"})
    listed = {line.tag for line in found.lines}
    return {
        "lines": lines,
        "faults": [asdict(f) for f in found.faults],
        "gone": sorted(tag for tag in known if tag not in listed),
        "headings": found.headings,
    }
