"""Checks of drawn channels: fed or not, wired the wrong way round, without a point, not as the list says now."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from jolly_core.circuits import Label, Potential, links_at, potential_of, reached
from jolly_core.library import definition
from jolly_core.model import Project, derived
from jolly_core.plc import CardSupply, ChannelRow, card_supplies, cards, channels
from jolly_core.points import switched_to
from jolly_core.points.circuitchanges import ADDED, circuit_changes
from jolly_core.tagging import full_tag
from jolly_core.wiring import PinKey, group_of, net_of

from .registry import Act, Snag, built, project_check

FEW = 6


@project_check("channels-unfed", "Drawn channels whose card or group has no supply, or one that comes from nowhere.")
def unfed(project: Project) -> Iterator[Snag]:
    """Yield a snag for each supply that is missing or fed from nowhere, card by card."""
    for card in cards(project):
        rows = [r for r in channels(project, card.device_id) if r.symbol_id]
        groups = {r.group for r in rows}
        tag = full_tag(project, project.devices[card.device_id])
        for supply in card_supplies(project, card.device_id) if rows else ():
            if supply.group and supply.group not in groups:
                continue
            why = _why_unfed(project, supply)
            if why:
                whose = f"{tag}, group {supply.group}" if supply.group else tag
                message = f"{whose}: the common is not fed. {why}"
                ids = (supply.symbol_id,) if supply.symbol_id else ()
                key = f"{card.device_id} {supply.unit}"
                yield built("channels-unfed", "warning", message, "io", key, ids, card.device_id)


def _why_unfed(project: Project, supply: CardSupply) -> str:
    pins = " and ".join(supply.pins)
    if not supply.symbol_id:
        return f"Its supply, {pins}, is drawn on no sheet. Place it from the card's units."
    own = _channel_sheets(project)
    for n, pin in enumerate(supply.pins[:2]):
        found = _fed_from(project, (supply.symbol_id, n), own)
        if len(found) == 1 and len(found[0].groups) == 1 and not found[0].labels:
            return f"{pin} leads to nothing. Wire it to a supply."
        if all(_sheets(p) <= own for p in found):
            words = [p.label.word for p in found if p.label] or ["what it is wired to"]
            return f"{pin} is on {words[-1]}, which no sheet but those of channels has. Tie it to a supply."
    return ""


def _sheets(potential: Potential) -> set[str]:
    return {g.sheet_id for g in potential.groups if g.pins}


def _fed_from(project: Project, pin: PinKey, own: frozenset[str]) -> list[Potential]:
    """Return the potential of a pin and those that fuses on sheets of channels lead to, the nearest first."""
    found = [potential_of(project, pin)]
    for potential in found:  # grows meanwhile
        for link, there in links_at(project, potential) if _sheets(potential) <= own else ():
            if link.sort == "always" and project.symbols[link.start[0]].sheet_id in own and there not in found:
                found.append(there)
    return found


@derived
def _channel_sheets(project: Project) -> frozenset[str]:
    """Return the sheets that were made to draw channels on."""
    return frozenset(id for card in project.cards.values() for id in card.sheet_ids)


@project_check("channel-direction", "An input or output whose element is wired to the wrong side.")
def directions(project: Project) -> Iterator[Snag]:
    """Yield a snag for each channel that wants plus where its element is on minus, or the other way round."""
    for card in cards(project):
        for row in channels(project, card.device_id):
            if not row.wired_to or not row.point_id:
                continue
            why = _wrong_way(project, row)
            if why:
                tag = full_tag(project, project.devices[card.device_id])
                point = project.io_points[row.point_id]
                message = f"{point.tag} at {row.address} of {tag}: {why}"
                ids = (row.symbol_id,) if row.symbol_id else (row.point_id,)
                yield built("channel-direction", "error", message, "io", row.point_id, ids, card.device_id)


def _wrong_way(project: Project, row: ChannelRow) -> str:
    """Return in words how a channel and its element do not go together, "" when they do or nothing is known."""
    wants = f"the {'input' if row.io_type == 'DI' else 'output'} wants its other side on {row.wired_to}"
    switched = switched_to(project, project.io_points[row.point_id])
    if switched and switched != row.wired_to:
        return f"its sensor switches {switched}, and {wants}."
    if not row.symbol_id:
        return ""
    found = list(_labels_beyond(project, row))
    wrong = [label for label in found if label.volts is not None and (label.volts > 0) != (row.wired_to == "plus")]
    if found and len(wrong) == len(found):
        return f"its element is on {wrong[0].word}, and {wants}. Wire it to the other one, or choose another card."
    return ""


def _labels_beyond(project: Project, row: ChannelRow) -> Iterable[Label]:
    """Return what the element of a channel is wired to on its other side, as far as that is a name or a source."""
    pin = (row.symbol_id, 0)
    own = potential_of(project, pin)
    if own.label is not None:
        return
    if row.io_type == "DI":
        yield from (label for label, _ in reached(project, pin).values() if label.said)
        return
    for group in own.groups:
        for id, n in group.pins:
            symbol = project.symbols[id]
            shape = definition(symbol.definition)
            if id != row.symbol_id and len(shape.pins) == 2 and shape.unit != "terminal":
                label = potential_of(project, (id, 1 - n)).label
                if label is not None and label.said:
                    yield label


@project_check("channel-pointless", "Channels that are wired on a sheet and have no point in the list.")
def pointless(project: Project) -> Iterator[Snag]:
    """Yield a snag for each card with such channels."""
    for card in cards(project):
        wired = [r for r in channels(project, card.device_id) if r.symbol_id and not r.point_id and _wired(project, r)]
        if wired:
            tag = full_tag(project, project.devices[card.device_id])
            shown = ", ".join(r.address for r in wired[:FEW]) + (" …" if len(wired) > FEW else "")
            several = len(wired) != 1
            message = f"{tag}: {len(wired)} channel{'s' if several else ''} {'are' if several else 'is'} wired and"
            message = f"{message} without a point: {shown}. Put a point there, or draw the card again."
            ids = tuple(r.symbol_id for r in wired)
            yield built("channel-pointless", "warning", message, "io", card.device_id, ids, card.device_id)


def _wired(project: Project, row: ChannelRow) -> bool:
    """Return whether anything but terminals hangs on a channel."""
    for group in net_of(project, group_of(project, (row.symbol_id, 0))):
        for id, _ in group.pins:
            if id != row.symbol_id and definition(project.symbols[id].definition).unit != "terminal":
                return True
    return False


@project_check("channels-outdated", "Circuits of channels that are not as the list says now.")
def outdated(project: Project) -> Iterator[Snag]:
    """Yield a snag for each card whose drawn circuits would change if they were drawn again."""
    for card in cards(project):
        changes = [c for c in circuit_changes(project, card.device_id) if c.what != ADDED]
        if changes:
            tag = full_tag(project, project.devices[card.device_id])
            counts = {
                what: sum(1 for c in changes if c.what == what) for what in dict.fromkeys(c.what for c in changes)
            }
            said = " and ".join(f"{n} {what}" for what, n in counts.items())
            message = f"{tag}: the list has changed since its channels were drawn: {said}."
            act = Act("Draw again", "redraw-channels", (("device_ids", (card.device_id,)),))
            yield built("channels-outdated", "warning", message, "io", card.device_id, (), card.device_id, act)
