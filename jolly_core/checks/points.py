"""Checks of I/O points and cards: what is allocated and not drawn, what does not fit its channel, full racks."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.model import IoPoint, Project
from jolly_core.plc import cards, channel_row, channels
from jolly_core.points import racks, why_not
from jolly_core.tagging import full_tag

from .registry import Act, Snag, built, project_check

FEW = 6


@project_check("channel-undrawn", "Channels that have a point and are drawn on no sheet.")
def undrawn(project: Project) -> Iterator[Snag]:
    """Yield a snag for each card with such channels, with the act that draws them."""
    for card in cards(project):
        waiting = [r for r in channels(project, card.device_id) if r.point_id and not r.symbol_id]
        if waiting:
            tags = [project.io_points[r.point_id].tag for r in waiting]
            shown = ", ".join(tags[:FEW]) + (" …" if len(tags) > FEW else "")
            several = "s" if len(tags) != 1 else ""
            message = f"{full_tag(project, project.devices[card.device_id])}: {len(tags)} channel{several} with a point"
            message = f"{message} {'are' if several else 'is'} drawn on no sheet: {shown}."
            act = Act("Draw them", "draw-channels", (("device_ids", (card.device_id,)),))
            where = ("io", card.device_id, (), card.device_id)
            yield built("channel-undrawn", "warning", message, *where, act)


@project_check("channel-unfit", "A point on a channel that is not for its type, sort or signal.")
def unfit(project: Project) -> Iterator[Snag]:
    """Yield a snag for each such point, as when a card got another part."""
    for point in project.io_points.values():
        if not point.channel:
            continue
        row = channel_row(project, point.device_id, point.io_type, point.channel)
        why = why_not(point, row) if row is not None else ""
        if row is None and point.device_id in project.devices:
            tag = full_tag(project, project.devices[point.device_id])
            why = f"{point.tag} is on {point.io_type} channel {point.channel} of {tag}, which has none of that number"
        if why:
            act = Act("Take it off", "free-points", (("ids", (point.id,)),))
            yield built("channel-unfit", "error", f"{why}.", "io", point.id, (point.id,), point.device_id, act)


@project_check("channel-twice", "Two points on one channel.")
def twice(project: Project) -> Iterator[Snag]:
    """Yield a snag for each point on a channel that another point has already, as a file may say."""
    holders: dict[tuple[str, str, int], IoPoint] = {}
    for point in sorted(project.io_points.values(), key=lambda p: (p.order, p.id)):
        if not point.channel or point.device_id not in project.devices:
            continue
        first = holders.setdefault((point.device_id, point.io_type, point.channel), point)
        if first is not point:
            tag = full_tag(project, project.devices[point.device_id])
            where = f"{point.io_type} channel {point.channel} of {tag}"
            message = f"{first.tag} and {point.tag} are both on {where}. One of them has to go elsewhere."
            act = Act(f"Take {point.tag} off", "free-points", (("ids", (point.id,)),))
            yield built("channel-twice", "error", message, "io", point.id, (point.id,), point.device_id, act)


@project_check("comment-long", "A point's text that is longer than the programmer's tool takes.")
def long_comments(project: Project) -> Iterator[Snag]:
    """Yield a snag for each point whose text or second text is above the project's limit."""
    limit = project.settings.comment_limit
    for point in project.io_points.values() if limit else ():
        longest = max(len(point.text), len(point.text2))
        if longest > limit:
            message = f"{point.tag} has a text of {longest} letters, and the programmer's tool takes {limit}."
            yield built("comment-long", "warning", message, "io", point.id, (point.id,))


@project_check("rack", "A rack whose cards are too many, too wide, or draw more than it gives.")
def rack_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each fault of each rack."""
    for rack in racks(project):
        for n, fault in enumerate(rack.faults):
            message = f"{full_tag(project, rack.device)}: {fault}."
            yield built("rack", "error", message, "io", f"{rack.rack.id} {n}", (), rack.device.id)
