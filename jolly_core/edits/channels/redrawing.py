"""Channels drawn again after the list changed: gone circuits taken away, changed ones followed, new ones added."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cables import crossed_wires
from jolly_core.drawing import branches_of
from jolly_core.library import definition
from jolly_core.model import Card, ChannelCircuit, IoPoint, Project, RuleError, Symbol
from jolly_core.plc import cards, channel_row, channels
from jolly_core.points import element_of, said_of
from jolly_core.points.circuitchanges import (
    ADDED,
    CHANGED,
    DEVICE,
    ELEMENT,
    REMOVED,
    TEXT,
    WISHES,
    WORDS,
    CircuitChange,
    circuit_changes,
    pattern_of,
    row_of,
    said,
)
from jolly_core.tagging import full_tag, product_tag, short_tag

from ..base.edit import Id, Payload, Work, edit
from ..pieces.deleting import take_away
from ..points.cards import card_named
from .drawing import Drawer
from .sheets import rows_wanted, title_for, titled_by_itself


class RedrawChannels(Payload):
    """Draw the channels of cards again, as the list says now: of some cards, or of all.

    Circuits of points that are gone are taken away with their wires; what is connected otherwise is drawn anew, and new
    points are added. Texts and tags follow unless somebody wrote them. What people moved, added or wrote stays, and so
    does every sheet that was not made for channels. The table lists what becomes of each.
    """

    kind: Literal["redraw-channels"] = "redraw-channels"
    device_ids: list[Id] = Field(default_factory=list, max_length=1000)


@edit(RedrawChannels, {"device_ids": ["d1"]})
def redraw_channels(work: Work, payload: RedrawChannels) -> str:
    """Work out RedrawChannels."""
    project = work.project
    chosen = [card_named(project, id) for id in payload.device_ids] or cards(project)
    drawer: Drawer | None = None
    counts = {ADDED: 0, CHANGED: 0, REMOVED: 0}
    for card in chosen:
        changes = circuit_changes(project, card.device_id)
        for change in changes:
            counts[change.what] += 1
            if change.what == REMOVED and change.circuit_id in project.channel_circuits:
                _remove(work, project.channel_circuits[change.circuit_id])
        for change in [c for c in changes if c.what == CHANGED and c.circuit_id in project.channel_circuits]:
            drawer = drawer or Drawer(work)
            _follow(work, drawer, change)
        if changes:
            drawer = drawer or Drawer(work)
            _add(work, drawer, project.cards[card.id])
            _retitle(work, card.device_id)
    if not any(counts.values()):
        raise RuleError("What is drawn is as the list says.", field="device_ids")
    if not len(work.outcome.changes) and work.outcome.remarks:
        raise RuleError(" ".join(work.outcome.remarks), field="device_ids")
    if drawer is not None:
        drawer.finish()
    return "draw channels again: " + ", ".join(f"{n} {what}" for what, n in counts.items() if n)


def _add(work: Work, drawer: Drawer, card: Card) -> None:
    """Draw what waits on a card: new points, and circuits that no longer fitted where they were."""
    table = work.outcome.table
    before = len(table)
    drawer.draw_card(card)
    table[before:] = [["added", tags, f"on {where}"] for where, _, tags in table[before:]]


def _place(project: Project, circuit: ChannelCircuit) -> str:
    symbol = project.symbols[circuit.symbol_id]
    return f"sheet {project.sheets[symbol.sheet_id].number}"


def _own(project: Project, circuit: ChannelCircuit) -> list[str]:
    """Return the ids of what was drawn with a circuit and is still there, its channel last."""
    sheet_id = project.symbols[circuit.symbol_id].sheet_id
    there = {s.id for s in project.symbols_on(sheet_id)} | {c.id for c in project.continuations_on(sheet_id)}
    there |= {n.id for n in project.notes.values() if n.sheet_id == sheet_id}
    return [id for id in circuit.made if id in there] + [circuit.symbol_id]


def _remove(work: Work, circuit: ChannelCircuit, *, channel_stays: bool = False) -> None:
    """Take a circuit off its sheet with the wires that lead to it alone; its channel stays where it is drawn anew."""
    project = work.project
    symbol = project.symbols[circuit.symbol_id]
    ids = _own(project, circuit)
    locked = [id for id in ids if id in project.symbols and project.symbols[id].locked]
    if locked:
        work.outcome.remarks.append(f"On {_place(project, circuit)} a circuit is locked and stays as it is.")
        return
    if not channel_stays:
        row = channel_row(project, symbol.device_id, _io_type(project, symbol), symbol.units[0])
        what = row.address if row else "a channel"
        work.outcome.table.append(["removed", what, f"from {_place(project, circuit)}"])
    draft = work.draft(symbol.sheet_id)
    wires, marks = branches_of(draft, set(ids))
    gone = [id for id in ids if not (channel_stays and id == symbol.id)]
    take_away(work, symbol.sheet_id, [*gone, *sorted(wires), *sorted(marks - set(gone))])
    _drop_bare_bands(work, symbol.sheet_id)
    if channel_stays:
        work.put("channel_circuit", replace(project.channel_circuits[circuit.id], made=()))
    elif circuit.id in project.channel_circuits:
        work.remove("channel_circuit", circuit.id)


def _io_type(project: Project, symbol: Symbol) -> str:
    if not symbol.device_id:  # its point was freed, so it is a channel of no card
        return ""
    unit = definition(symbol.definition).unit
    return next((r.io_type for r in channels(project, symbol.device_id) if r.io_type.lower() == unit), "")


def _drop_bare_bands(work: Work, sheet_id: str) -> None:
    """Take away the strokes of cables that cross no wire any more."""
    project = work.project
    for band in [b for b in project.bands.values() if b.sheet_id == sheet_id]:
        if not crossed_wires(project, sheet_id, (band.x1, band.y1), (band.x2, band.y2)):
            take_away(work, sheet_id, [band.id])


def _follow(work: Work, drawer: Drawer, change: CircuitChange) -> None:
    """Bring one circuit in line with what the list says of its point now."""
    project = work.project
    circuit = project.channel_circuits[change.circuit_id]
    point = project.io_points[change.point_id]
    why = ", ".join(WORDS[a] for a in change.aspects)
    element = element_of(project, point)
    target = next((project.symbols[i] for i in circuit.made if _is_element(project, i)), None)
    if TEXT in change.aspects and target is not None:
        _follow_text(work, target, said(circuit).get("text", ""), point)
    kept = True
    if ELEMENT in change.aspects or WISHES in change.aspects:
        alike = target is not None and _alike(target, element.definition) and WISHES not in change.aspects
        if alike and target is not None:
            draft = work.draft(target.sheet_id)
            draft.exchange(replace(target, definition=element.definition))
            work.close(draft)
        else:
            kept = _draw_anew(work, drawer, circuit, point)
    elif DEVICE in change.aspects and target is not None:
        _follow_device(work, target, point)
    if kept:
        work.outcome.table.append(["changed", point.tag, f"on {_place(project, circuit)}: {why}"])
        now = project.channel_circuits[circuit.id]
        work.put("channel_circuit", replace(now, said=said_of(project, point)))


def _is_element(project: Project, id: str) -> bool:
    symbol = project.symbols.get(id)
    return symbol is not None and definition(symbol.definition).unit != "terminal"


def _alike(symbol: Symbol, key: str) -> bool:
    """Return whether a symbol can become another where it stands: of its class, with its pins at the same places."""
    if not key:
        return False
    old, new = definition(symbol.definition), definition(key)
    return old.part_class == new.part_class and old.pin_offsets(1) == new.pin_offsets(1)


def _follow_text(work: Work, symbol: Symbol, was: str, point: IoPoint) -> None:
    """Let a device's text follow its point's, unless somebody wrote another one."""
    device = work.project.devices.get(symbol.device_id)
    if device is not None and device.text == was:
        work.put("device", replace(device, text=point.text))


def _follow_device(work: Work, symbol: Symbol, point: IoPoint) -> None:
    """Call a device as the list calls it now, while nothing else is called so."""
    project = work.project
    device = project.devices.get(symbol.device_id)
    tag = point.device.strip().rsplit("-", 1)[-1]
    taken = {product_tag(project, d): d for d in project.devices.values() if d.id != symbol.device_id}
    if device is None or not tag.isalnum():
        return
    if tag in taken:
        mine, other = full_tag(project, device), short_tag(project, taken[tag])
        work.outcome.remarks.append(f"{point.tag}: {mine} stays, as another is called {other}.")
        return
    work.put("device", replace(device, fixed_tag=tag))


def _draw_anew(work: Work, drawer: Drawer, circuit: ChannelCircuit, point: IoPoint) -> bool:
    """Take what was connected away and draw what is connected now, at the channel where it stands."""
    project = work.project
    row = row_of(project, circuit)
    symbol = project.symbols[circuit.symbol_id]
    channel = channel_row(project, point.device_id, point.io_type, point.channel)
    if row is None or channel is None:
        why = "its channel was moved by hand" if channel else "it has no channel now"
        work.outcome.remarks.append(f"{point.tag} on {_place(project, circuit)} stays as it is drawn, as {why}.")
        return False
    if sum(rows_wanted(project, channel)) + 1 > circuit.row_count:
        _remove(work, circuit)  # it is drawn again where there is room for it
        return False
    _remove(work, circuit, channel_stays=True)
    drawer.forget_tags()
    drawer.draw_rows(symbol.sheet_id, [(row, circuit.row_count, channel)], {point.id: symbol}, pattern_of(circuit))
    return True


def _retitle(work: Work, device_id: str) -> None:
    """Let the titles of a card's sheets say what is on them, where nobody wrote another one."""
    project = work.project
    card = next(c for c in project.cards.values() if c.device_id == device_id)
    shown = {r.symbol_id: r for r in channels(project, device_id) if r.symbol_id}
    for sheet_id in card.sheet_ids:
        sheet = project.sheets.get(sheet_id)
        drawn = [shown[s.id] for s in project.symbols_on(sheet_id) if s.id in shown] if sheet else []
        if sheet is None or not drawn or not titled_by_itself(sheet.title):
            continue
        drawn.sort(key=lambda r: (r.io_type, r.channel))
        title = title_for(project, device_id, drawn)
        if title != sheet.title:
            work.put("sheet", replace(sheet, title=title))
