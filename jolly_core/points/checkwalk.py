"""The wiring check: every point with a channel, in the order one walks, with what was seen there, and who signed."""

from __future__ import annotations

import hashlib
import json
from dataclasses import dataclass

from jolly_core.drawing import place_in
from jolly_core.model import CheckSignature, PointCheck, Project
from jolly_core.plc import cards, channels
from jolly_core.tagging import full_tag

GOOD, FAULT = "good", "fault"


@dataclass(slots=True, frozen=True)
class CheckRow:
    """A point of the walk.

    Attributes:
        card: tag of its card.
        pins: of its channel.
        place: sheet.line of its channel, "" while it is not drawn.
        check: what was seen, None while nobody looked.
        anew: it was seen at another address than it has now, so that it is to be looked at again.
    """

    point_id: str
    tag: str
    text: str
    io_type: str
    address: str
    card: str
    device_id: str
    pins: str
    place: str
    symbol_id: str
    check: PointCheck | None
    anew: bool

    @property
    def done(self) -> bool:
        """Whether it was seen to be good where it is now."""
        return self.check is not None and not self.anew and self.check.result == GOOD


def check_rows(project: Project) -> list[CheckRow]:
    """Return the points that have a channel, card by card and channel by channel."""
    found = []
    for card in cards(project):
        tag = full_tag(project, project.devices[card.device_id])
        for row in channels(project, card.device_id):
            point = project.io_points.get(row.point_id)
            if point is None:
                continue
            symbol = project.symbols.get(row.symbol_id)
            place = place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y) if symbol else ""
            check = check_of(project, point.id)
            anew = check is not None and check.address != row.address
            said = (point.text, row.io_type, row.address, tag, card.device_id, " ".join(row.pins))
            found.append(CheckRow(point.id, point.tag, *said, place, row.symbol_id, check, anew))
    return found


def check_of(project: Project, point_id: str) -> PointCheck | None:
    """Return what was seen of a point last, None for nothing."""
    ids = project.checks_of_point.get(point_id)
    return project.point_checks[max(ids)] if ids else None


def check_digest(project: Project) -> str:
    """Return a digest of what the wiring check says now: SHA-256 over its rows, 64 hexadecimal digits."""
    rows = []
    for r in check_rows(project):
        seen = (r.check.result, r.check.remark, r.check.by, r.check.on) if r.check and not r.anew else ()
        rows.append([r.tag, r.text, r.address, r.card, *seen])
    return hashlib.sha256(json.dumps(rows, ensure_ascii=False).encode()).hexdigest()


def signatures(project: Project) -> list[tuple[CheckSignature, bool]]:
    """Return the signatures in the order they were given, each with whether the check still says what was signed."""
    now = check_digest(project) if project.check_signatures else ""
    return [(s, s.digest == now) for _, s in sorted(project.check_signatures.items())]
