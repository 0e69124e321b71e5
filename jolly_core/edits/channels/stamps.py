"""Stamps put down at channels with their questions answered from the list, and cables for circuits that want one."""

from __future__ import annotations

from collections.abc import Iterable
from math import ceil

from jolly_core.drawing import extent_of, pin_points
from jolly_core.library import built_in_stamps
from jolly_core.making import open_conductors
from jolly_core.model import FileError, IoPoint, Project, RuleError
from jolly_core.points import Element, Pattern, field_headed
from jolly_core.points.pointfields import plain_words
from jolly_core.tagging import device_at, path_of
from jolly_core.wiring import Conductor

from ..base.edit import Work
from ..cables.gathering import GatherWires, gather_wires
from ..pieces.pieces import put_piece
from ..pieces.stampbody import StampBody, body_from_text, wishes_for
from .lines import ChannelLine

ROOM = 4  # grid steps that a row leaves for words before and after its line


def body_of(project: Project, stamp_id: str) -> StampBody:
    """Return a stamp of the project, or one that comes with the application.

    Raises:
        FileError: it is no stamp.
    """
    own = project.stamps.get(stamp_id)
    return body_from_text(own.body if own is not None else built_in_stamps()[stamp_id].body)


def reach_of(project: Project, stamp_id: str, pattern: Pattern) -> tuple[int, int]:
    """Return how many rows a stamp takes before and after that of its caret point."""
    body = body_of(project, stamp_id)
    left, top, right, bottom = body.piece.box()
    drawn: list[tuple[float, float, float, float]] = [(left, top, right, bottom)]
    drawn += [extent_of(s, project.settings.standard) for s in body.piece.of("symbol")]
    axis = 1 if pattern.way == "level" else 0
    low = min(b[axis] for b in drawn) - body.anchor[axis]
    high = max(b[axis + 2] for b in drawn) - body.anchor[axis]
    pitch = pattern.pitch
    return max(0, ceil((-low - ROOM) / pitch)), max(0, ceil((high - (pitch - ROOM)) / pitch))


def put_point_stamp(work: Work, line: ChannelLine, element: Element) -> list[str]:
    """Put the stamp of a point down with its caret point at the channel, and return the ids of what that made.

    Raises:
        RuleError: an answer is refused, or it would not lie on the sheet; the point is named.
    """
    body = body_of(work.project, element.stamp)
    channel = line.channel
    if channel is None:
        return []
    x, y = pin_points(channel)[0]
    try:
        wishes, chosen = wishes_for(work, body, answers_of(work.project, line.point, body))
        draft = work.draft(line.draft.sheet_id)
        made = put_piece(work, draft, body.piece, x - body.anchor[0], y - body.anchor[1], wishes)
    except (RuleError, FileError) as error:
        raise RuleError(f"{line.point.tag}: {error.message}", field="ids", ids=(line.point.id,)) from None
    work.outcome.remarks += [f"{line.point.tag}: {' '.join(row)}." for row in chosen]
    return made


def answers_of(project: Project, point: IoPoint, body: StampBody) -> dict[str, str]:
    """Return the answers that a point's columns give to a stamp's questions: those headed as the question is called."""
    own = {plain_words(name): value for name, value in point.own.items()}
    found = {}
    for question in body.questions:
        key = field_headed(question.name)
        value = own.get(plain_words(question.name), "")
        if not value and key in ("function", "location"):
            id = getattr(point, f"{key}_id")
            path = path_of(project.functions, id, "=") if key == "function" else path_of(project.locations, id, "+")
            value = path if id else ""
        elif not value and key:
            value = str(getattr(point, key, "") or "")
        if value:
            found[question.name] = value
    return found


def gather_wanted(work: Work, circuit_ids: Iterable[str]) -> None:
    """Gather the field wires of circuits whose points want a cable: one cable for each sheet and far place."""
    project = work.project
    circuits = [project.channel_circuits[id] for id in circuit_ids]
    owners = {
        id: circuit
        for circuit in circuits
        if circuit.point_id and project.io_points[circuit.point_id].cable
        for id in (*circuit.made, circuit.symbol_id)
    }
    if not owners:
        return
    groups: dict[tuple[str, str], list[Conductor]] = {}
    for conductor in open_conductors(project).values():
        owner = owners.get(conductor.start[0]) or owners.get(conductor.end[0])
        if owner is not None:
            sheet_id = project.symbols[owner.symbol_id].sheet_id
            groups.setdefault((sheet_id, _outside(project, conductor)), []).append(conductor)
    for conductors in groups.values():
        placed = list(work.outcome.placed)
        try:
            gather_wires(work, GatherWires(keys=[c.key for c in conductors][:500]))
        except RuleError as error:
            work.outcome.remarks.append(error.message)
        work.outcome.placed = placed


def _outside(project: Project, conductor: Conductor) -> str:
    """Return the place outside the panel that a conductor leads to."""
    places = []
    for pin in (conductor.start, conductor.end):
        device = device_at(project, pin)
        place = device.location_id if device else ""
        known = project.locations.get(place)
        places.append((known is None or known.side == "panel", place))
    return min(places)[1]
