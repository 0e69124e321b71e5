"""What may be placed for the words typed at the caret: symbols, and units of devices there are, best first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from jolly_core.drawing import place_in
from jolly_core.library import (
    Definition,
    base_of,
    definition,
    definitions,
    find_symbols,
    is_drawn,
    own_symbol,
    usual_blocks,
)
from jolly_core.model import Device, Part, Project, Sheet
from jolly_core.tagging import lead_of, likely_devices, natural, tag_on, unlikely
from jolly_core.wiring import potential_in

from .blocks import free_pins

DEVICES_EACH = 4
NONE_FREE, NEW = "none free", "new device"
BLOCK = "block"  # offered with a device or part whose pins it shows
CONTINUATION, NOTE = "continuation", "note"  # what is offered beside symbol definitions
SHORTEST_WORD = 4
_ANYONES = ("load", "sensor")  # units whose symbol serves other classes, too, that have none of their own


@dataclass(slots=True, frozen=True)
class Offer:
    """One line of the list at the caret.

    Attributes:
        definition: the symbol that would be placed, or CONTINUATION or NOTE with its name or words in `text`.
        name: what it is.
        device_id, tag: the device it would belong to, "" for a new one.
        note: the pins it would take, or why there are none.
        text: the device's text, or the part's.
        part_id: the part it would have at once, "".
    """

    definition: str
    name: str
    device_id: str = ""
    tag: str = ""
    note: str = ""
    text: str = ""
    part_id: str = ""


def offers(
    project: Project, words: str, sheet_id: str, parts: list[Part], symbols: Sequence[Definition] = ()
) -> list[Offer]:
    """Return what may be placed.

    Args:
        words: a nickname or part of a name; words that fit no symbol are looked for in tags and texts of devices.
        parts: library parts that the words may mean, each offered with its own symbol, or that which leads its class.
        symbols: the library's drawn symbols.

    Raises:
        GoneError: the sheet is not in the project.
    """
    sheet = project.get("sheet", sheet_id)
    marks = _marks(project, words)
    if marks:
        return marks
    potentials = _potentials(project, words)
    typed = words.lower().split()
    drawn = {d.key: d for d in [*symbols, *_drawn_here(project)]}
    known = [*drawn.values(), *usual_blocks()]
    shapes = find_symbols(words, known)
    filter_words: list[str] = []
    while not shapes and typed:
        filter_words.insert(0, typed.pop())
        shapes = find_symbols(" ".join(typed), known)
    units: list[Offer] = []
    leads: list[Offer] = []
    loose: list[Offer] = []
    more: list[Offer] = []
    unfit: list[Offer] = []  # last, each with what speaks against it
    for shape in shapes:
        if shape.lead < 9:
            if not filter_words:
                leads.append(Offer(shape.key, shape.name, note=NEW))
            if shape.lead == 1 or shape.max_poles > 1:
                more += [o for o in _more_of(project, shape, sheet) if _holds(o, filter_words)][:DEVICES_EACH]
            continue
        held: list[Offer] = []
        for d, pins, place in likely_devices(project, shape.key, sheet_id):
            odd = unlikely(project, d, shape.unit) or ("" if pins else NONE_FREE)
            note = odd or (f"{pins}, at {place}" if place else pins)
            offer = Offer(_own(project, d, shape), shape.name, d.id, tag_on(project, d, sheet), note, d.text)
            if _holds(offer, filter_words):
                (unfit if odd else held).append(offer)
        # A further contact of a button or switch is meant less often than a new one.
        of_coils = [o for o in held if filter_words or not _is_operated(project, o.device_id)]
        units += of_coils[:DEVICES_EACH]
        more += [o for o in held if o not in of_coils][:DEVICES_EACH]
        if not filter_words:
            loose.append(Offer(shape.key, shape.name, note="device to be chosen"))
    blocks = _blocks(project, words, sheet, parts)
    numbered = [
        Offer(lead.key, lead.name, note=p.number, text=p.text, part_id=p.id)
        for p in parts
        for lead in [_lead_for(p, project.settings.standard)]
        if lead is not None
    ]
    planned = _planned(project, sheet, {s.key for s in shapes}, filter_words, words.lower().split())
    return potentials + planned + numbered + blocks + units + leads + more + loose + unfit


def _planned(project: Project, sheet: Sheet, shapes: set[str], words: list[str], whole: list[str]) -> list[Offer]:
    """Return devices that were placed in a layout before they are drawn, each with the symbol that leads it.

    Args:
        shapes: the symbols that the words mean; those the rest of the words, if any, are tags and texts of.
        whole: all words, which may be of a tag or text.
    """
    here: list[Offer] = []
    elsewhere: list[Offer] = []
    for placing in project.placings.values():
        device = project.devices[placing.device_id]
        part = project.part_of(device)
        if part is None or project.symbols_of_device.get(device.id):
            continue
        lead = _lead_for(part, project.settings.standard)
        if lead is None:
            continue
        offer = Offer(lead.key, f"{lead.name}, planned", device.id, tag_on(project, device, sheet), text=device.text)
        if (lead.key in shapes and _holds(offer, words)) or (whole and _holds(offer, whole)):
            (here if device.location_id == sheet.location_id else elsewhere).append(offer)
    return sorted(here, key=lambda o: natural(o.tag)) + sorted(elsewhere, key=lambda o: natural(o.tag))


def _is_operated(project: Project, device_id: str) -> bool:
    """Return whether a device is led by a contact of its own, as buttons and switches are."""
    lead = lead_of(project, device_id)
    return lead is not None and definition(lead.definition).lead == 1


def _marks(project: Project, words: str) -> list[Offer]:
    """Return continuation marks or a note when the first word asks for one; marks without another end come first."""
    first, _, rest = words.strip().partition(" ")
    rest = rest.strip()
    if first.lower() == NOTE:
        return [Offer(NOTE, "Note", text=rest, note="" if rest else "type its text")]
    if len(first) < SHORTEST_WORD or not CONTINUATION.startswith(first.lower()):
        return []
    found = []
    for name in sorted(project.continuations_named.keys()):
        ids = project.continuations_named.get(name)
        if rest.lower() in name.lower():
            found.append((len(ids) > 1, name, _mark(project, name)))
    offered = [offer for _, _, offer in sorted(found, key=lambda f: f[:2])]
    if rest and not project.continuations_named.has(rest):
        offered.append(Offer(CONTINUATION, "Continuation", text=rest, note="new name"))
    return offered or [Offer(CONTINUATION, "Continuation", note="type its name")]


def _mark(project: Project, name: str) -> Offer:
    """Return the offer of a further mark of a name, with where the first one is."""
    first = project.continuations[project.continuations_named.get(name)[0]]
    place = place_in(project.sheets[first.sheet_id], first.x, first.y)
    return Offer(CONTINUATION, "Continuation", text=name, note=f"from {place}")


def _potentials(project: Project, words: str) -> list[Offer]:
    """Return continuations of potentials that the words name, or begin the name of: at a rail "24V" is no valve.

    A name that is there comes as it is written; one that says volts may be new.
    """
    typed = words.strip().lower().replace(" ", "")
    if not typed:
        return []
    names = {name.lower().replace(" ", ""): name for name in sorted(project.continuations_named.keys())}
    says = typed[0].isdigit() or any(potential_in(words.strip().upper()))
    meant = {plain for plain in names if plain == typed or (says and plain.startswith(typed))}
    found = sorted((plain != typed, names[plain]) for plain in meant)
    offered = [_mark(project, name) for _, name in found]
    if typed not in names and potential_in(words.strip().upper())[1]:
        offered.append(Offer(CONTINUATION, "Continuation", text=words.strip(), note="new name"))
    return offered


def _more_of(project: Project, shape: Definition, sheet: Sheet) -> list[Offer]:
    """Return devices of a symbol's own class that it may be a further contact or pole of, and has one free."""
    found = []
    for device, pins, _ in likely_devices(project, shape.key, sheet.id):
        part, lead = project.part_of(device), lead_of(project, device.id)
        own = part.part_class if part else definition(lead.definition).part_class if lead else ""
        if own == shape.part_class and pins:
            name = f"{shape.name}, one more"
            found.append(Offer(shape.key, name, device.id, tag_on(project, device, sheet), pins, device.text))
    return found


def _blocks(project: Project, words: str, sheet: Sheet, parts: list[Part]) -> list[Offer]:
    """Return blocks of devices with pins that are not drawn yet, and of parts that the words mean."""
    found = []
    typed = words.lower().split()
    for part in project.parts.values():
        if not part.count("pins"):
            continue
        for id in project.devices_of_part.get(part.id):
            device = project.devices[id]
            left = [p for group in free_pins(project, device) for p in group]
            offer = Offer(BLOCK, "Block of pins", id, tag_on(project, device, sheet), " ".join(left[:6]), device.text)
            if left and (_holds(offer, typed) or BLOCK.startswith(words.lower().strip() or "-")):
                found.append(offer)
    found += [Offer(BLOCK, "Block", note=p.number, text=p.text, part_id=p.id) for p in parts if p.count("pins")]
    return found


def _holds(offer: Offer, words: list[str]) -> bool:
    place = f"{offer.tag} {offer.text}".lower()
    return all(w in place for w in words)


def _drawn_here(project: Project) -> list[Definition]:
    """Return the drawn symbols of the parts that the project has copies of."""
    keys = {key for part in project.parts.values() for key in part.symbols.values() if is_drawn(key)}
    return [definition(key) for key in sorted(keys)]


def _own(project: Project, device: Device, shape: Definition) -> str:
    """Return the symbol that a unit of a device is drawn with: its part's own one, else the one that was asked for."""
    part = project.part_of(device)
    return own_symbol(part, shape.unit, project.settings.standard) or shape.key


def _lead_for(part: Part, standard: str) -> Definition | None:
    """Return the symbol that leads a device of this part: its own, one of its class, or the best of a kind it has."""
    drawn = [definition(key) for kind, _ in part.units if (key := own_symbol(part, kind, standard))]
    leading = next((d for d in drawn if d.lead < 9), None)
    if leading is not None:
        return leading
    kinds = {kind for kind, _ in part.units}
    fitting = [d for d in definitions().values() if d.lead < 9 and d.unit in kinds]
    own = [d for d in fitting if base_of(d.part_class) == base_of(part.part_class)]
    found = own or [d for d in fitting if d.key == "coil"] or [d for d in fitting if d.unit in _ANYONES]
    return min(found, key=lambda d: d.lead, default=None)
