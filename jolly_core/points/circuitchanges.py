"""What became different in the list since circuits of channels were drawn: to be drawn anew, taken away, or added."""

from __future__ import annotations

import json
from dataclasses import dataclass

from jolly_core.drawing import pin_points
from jolly_core.model import ChannelCircuit, Project
from jolly_core.plc import cards, channels

from .elements import said_of
from .patterns import CHANNEL, Pattern

# What may be different, in the order of what it costs to follow it.
TEXT, DEVICE, ELEMENT, WISHES = "text", "device", "element", "wishes"
WORDS = {TEXT: "text", DEVICE: "device", ELEMENT: "what is connected", WISHES: "terminals or cable wanted"}
ADDED, CHANGED, REMOVED = "added", "changed", "removed"


@dataclass(slots=True, frozen=True)
class CircuitChange:
    """One circuit that is not as the list says.

    Attributes:
        what: ADDED, CHANGED or REMOVED.
        device_id: the card.
        point_id: "" where the point is gone.
        circuit_id: "" where it is not drawn yet.
        aspects: what is different, of TEXT, DEVICE, ELEMENT and WISHES.
    """

    what: str
    device_id: str
    point_id: str = ""
    circuit_id: str = ""
    aspects: tuple[str, ...] = ()


def said(circuit: ChannelCircuit) -> dict[str, str]:
    """Return what the list said when a circuit was drawn; {} when that is not known."""
    try:
        found = json.loads(circuit.said)
    except ValueError:
        return {}
    return {k: v for k, v in found.items() if isinstance(v, str)} if isinstance(found, dict) else {}


def circuits_of_card(project: Project, device_id: str) -> list[ChannelCircuit]:
    """Return the circuits on the sheets of a card, by sheet and place."""
    card = next((c for c in project.cards.values() if c.device_id == device_id), None)
    found = []
    for sheet_id in card.sheet_ids if card else ():
        for symbol in project.symbols_on(sheet_id) if sheet_id in project.sheets else ():
            found += [project.channel_circuits[i] for i in project.circuits_of_symbol.get(symbol.id)]
    order = {id: n for n, id in enumerate(card.sheet_ids)} if card else {}
    places = {c.id: project.symbols[c.symbol_id] for c in found}
    return sorted(found, key=lambda c: (order[places[c.id].sheet_id], places[c.id].y, places[c.id].x, c.id))


def circuit_changes(project: Project, device_id: str) -> list[CircuitChange]:
    """Return what would be drawn anew, taken away and added if the channels of a card were drawn again."""
    found = []
    for circuit in circuits_of_card(project, device_id):
        point = project.io_points.get(circuit.point_id)
        if point is None:
            found.append(CircuitChange(REMOVED, device_id, "", circuit.id))
            continue
        was, now = said(circuit), json.loads(said_of(project, point))
        aspects = tuple(a for a in (TEXT, DEVICE, ELEMENT, WISHES) if was and was.get(a, "") != now[a])
        if aspects:
            found.append(CircuitChange(CHANGED, device_id, point.id, circuit.id, aspects))
    for row in channels(project, device_id):
        if row.point_id and not row.symbol_id:
            found.append(CircuitChange(ADDED, device_id, row.point_id))
    return found


def all_circuit_changes(project: Project) -> list[CircuitChange]:
    """Return what would become of the circuits of all cards, card by card."""
    return [change for card in cards(project) for change in circuit_changes(project, card.device_id)]


def pattern_of(circuit: ChannelCircuit) -> Pattern:
    """Return the pattern that a circuit was drawn in."""
    return Pattern(circuit.per_sheet, circuit.way, circuit.side)


def row_of(project: Project, circuit: ChannelCircuit) -> int | None:
    """Return the row on which the channel of a circuit stands, None when somebody moved it off."""
    pattern = pattern_of(circuit)
    at = pin_points(project.symbols[circuit.symbol_id])[0]
    rows = range(circuit.first_row, circuit.first_row + circuit.row_count)
    return next((row for row in rows if pattern.at(row, CHANNEL) == at), None)
