"""What fixes a potential: names of continuations and wire types, outputs of supplies, transformers, rails of a ladder.

Terms: a *label* is what is known of a potential: a phase, volts, a side of a source. Two labels that differ must not be
joined. What has no label is known by the labels it can be switched to (see ways.py).
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, replace

from jolly_core.drawing import rails_at
from jolly_core.library import definition
from jolly_core.model import Project, Sheet, Symbol
from jolly_core.sizing import AMERICAN_MAINS, USUAL_MAINS, Mains
from jolly_core.tagging import pins_of, tag_on
from jolly_core.wiring import Group, potential_in, potentials_of_types

AC, DC = "AC", "DC"
PHASES = ("L1", "L2", "L3")
LEFT_RAIL, RIGHT_RAIL = "the left rail", "the right rail"
NEUTRAL, ZERO, PROTECTIVE = "N", "0 V", "PE"
_KIND = re.compile(r"(?:\b|V)(AC|DC)\b|(~)|(=)")
_VOLTS = re.compile(r"(\d+(?:[.,]\d+)?)\s*V(?=[AD]C\b|\b)\s*(AC|DC|3~|1~|~)?")
_SYSTEM = re.compile(r"(\d+(?:[.,]\d+)?(?:\s*Y?\s*/\s*\d+(?:[.,]\d+)?)*)\s*V(?:AC|DC)?\b")
_KIND_OF = {"control-dc": DC, "control-ac": AC, "power": AC}
RAIL_LINES = 2  # an upright wire on a rail's column that passes so many ladder lines is the rail
EXTRA_LOW = 60.0  # volts up to which the category of the wires says whether it is AC or DC
FROM_NEUTRAL = 300.0  # volts of a system above which its name is that between two phases


@dataclass(slots=True, frozen=True)
class Label:
    """What fixes a potential.

    Attributes:
        word: what people call it, "L1", "24 V", "left rail"; two of one word are the same.
        volts: of the system it belongs to, None while unknown.
        kind: "AC", "DC" or "".
        id: the mark, wire or symbol that says so.
        sheet_id: its sheet.
        said: it is a name or a source; rails are not.
        source: the transformer whose output it is or names, "" otherwise.
        named: people say it; the pin of a transformer that nobody has named is not.
        rail: of such a pin, which rail of a ladder it feeds, "".
    """

    word: str
    volts: float | None
    kind: str
    id: str
    sheet_id: str
    said: bool = True
    source: str = ""
    named: bool = True
    rail: str = ""

    @property
    def side(self) -> str:
        """Which side of its loads it is on: "live" or "return", "" for an end of a transformer that says neither."""
        if self.word in (NEUTRAL, ZERO) or RIGHT_RAIL in (self.word, self.rail):
            return "return"
        return "live" if self.named or self.rail else ""

    @property
    def is_return(self) -> bool:
        """Whether a source's current comes back by it, so that it may be bonded to the protective conductor."""
        return self.word in (ZERO, RIGHT_RAIL) or (bool(self.source) and (self.word == NEUTRAL or not self.named))


def labels_of(project: Project, groups: list[Group]) -> dict[str, Label]:
    """Return what fixes the potential of groups, by word; more than one means that they are wrongly joined.

    Notes:
        A name at the output of a transformer is what people call that output, and no second label. Nor is PE where
        the return of a source is bonded to it, which every earthed circuit is (IEC 60204-1, 9.4.3.1; NFPA 79, 8.3).
    """
    kind = _kind_of_wires(project, groups)
    of_types = potentials_of_types(project)
    found: dict[str, Label] = {}

    def say(name: str, said: tuple[str, str], id: str, sheet_id: str) -> None:
        phase, volts = said
        if phase or volts:
            word = phase or f"{volts} V"
            spoken = _KIND.search(name)
            how = (AC if spoken[1] == AC or spoken[2] else DC) if spoken else AC if phase else kind
            if not spoken and not phase and volts and abs(float(volts)) > EXTRA_LOW:
                how = ""  # a wire type alone does not make 230 V direct current
            found.setdefault(word, Label(word, abs(float(volts)) if volts else None, how, id, sheet_id))

    for group in groups:
        for id in group.continuations:
            name = project.continuations[id].name
            say(name, potential_in(name), id, group.sheet_id)
        for symbol_id, pin in group.pins:
            label = _of_source(project, project.symbols[symbol_id], pin)
            if label is not None:
                found.setdefault(label.word, label)
        for id in group.wires:
            wire_type = project.wire_types.get(project.wires[id].type_id)
            if wire_type is not None and not wire_type.outside:
                say(wire_type.name, of_types[wire_type.id], id, group.sheet_id)
    found = settled(project, found)
    if all(word == PROTECTIVE or not label.named for word, label in found.items()):
        rail = next((r for g in groups for r in (_rail(project, g, kind),) if r is not None), None)
        if rail is not None and not found.keys() - {PROTECTIVE}:
            return {rail.word: rail, **found}
        if rail is not None:
            return {word: replace(label, rail=rail.word) for word, label in found.items()}
    return found


def settled(project: Project, found: dict[str, Label]) -> dict[str, Label]:
    """Return the labels of what is joined, less those that say nothing new: a named output, PE bonded to a return."""
    return _without_bond(project, _named_outputs(found))


def _named_outputs(found: dict[str, Label]) -> dict[str, Label]:
    """Return labels in which the one output of a transformer has the name that people gave it, where it fits."""
    outputs = [label for label in found.values() if not label.named]
    names = [label for word, label in found.items() if label.named and word != PROTECTIVE]
    if len(outputs) != 1 or not names or not all(_may_call(label, outputs[0]) for label in names):
        return found
    output = outputs[0]
    if len(names) > 1 and all(x.word in (NEUTRAL, ZERO) for x in names):
        names = [min(names, key=lambda x: x.word != NEUTRAL)]  # the return of a transformer is both
    volts = {label.word: output.volts if label.word == NEUTRAL else label.volts for label in names}
    called = {x.word: replace(x, source=output.source, volts=volts[x.word], kind=AC) for x in names}
    return {word: called.get(word, label) for word, label in found.items() if word in (*called, PROTECTIVE)}


def _may_call(name: Label, output: Label) -> bool:
    """Return whether an output of a transformer may be called so: a return, or its volts within a tenth."""
    if name.word in (NEUTRAL, ZERO) or not (name.volts and output.volts):
        return name.word not in PHASES
    return abs(name.volts - output.volts) <= output.volts / 10


def _without_bond(project: Project, found: dict[str, Label]) -> dict[str, Label]:
    """Return labels without PE where all others are returns of a source."""
    others = {word: label for word, label in found.items() if word != PROTECTIVE}
    if not others or not all(x.is_return or (x.word == NEUTRAL and _earthed(project)) for x in others.values()):
        return found
    return others


def _earthed(project: Project) -> bool:
    """Return whether the supply's own neutral is joined with the protective conductor in the installation (TN-C)."""
    return project.settings.supply_system.strip().upper().startswith("TN-C")


def _kind_of_wires(project: Project, groups: list[Group]) -> str:
    types = (project.wire_types.get(project.wires[id].type_id) for g in groups for id in g.wires)
    kinds = {_KIND_OF[t.category] for t in types if t is not None and t.category in _KIND_OF}
    return kinds.pop() if len(kinds) == 1 else ""


def is_output(project: Project, symbol: Symbol, pin: int) -> bool:
    """Return whether a pin is one by which a supply or transformer gives its current.

    Of a supply its plus and minus, of a transformer those behind its primary, however many it has.
    """
    shape = definition(symbol.definition)
    if shape.unit == "supply":
        return pins_of(project, symbol)[pin][:1] in ("+", "-")
    return shape.unit == "transformer" and pin >= shape.inputs


def _of_source(project: Project, symbol: Symbol, pin: int) -> Label | None:
    """Return what an output of a supply or transformer fixes, None for any other pin."""
    unit = definition(symbol.definition).unit
    if unit not in ("supply", "transformer"):
        return None
    device = project.devices.get(symbol.device_id)
    part = project.part_of(device) if device else None
    name = pins_of(project, symbol)[pin]
    if unit == "supply":
        volts = part.ratings.get("output_v", "") if part else ""
        if name in ("+", "-") and volts:
            value = number_of(volts)
            return Label(
                f"{volts} V" if name == "+" else "0 V", value if name == "+" else 0.0, DC, symbol.id, symbol.sheet_id
            )
        return None
    if not is_output(project, symbol, pin) or device is None:
        return None
    volts = part.ratings.get("secondary_v", "") if part else ""
    word = f"{tag_on(project, device, project.sheets[symbol.sheet_id])}:{name}"
    return Label(word, number_of(volts), AC, symbol.id, symbol.sheet_id, source=device.id, named=False)


def _rail(project: Project, group: Group, kind: str) -> Label | None:
    """Return the rail of a ladder that a group is, None when it is none."""
    sheet = project.sheets[group.sheet_id]
    if sheet.frame != "ladder":
        return None
    for id in group.wires:
        w = project.wires[id]
        left, right = rails_at(sheet, w.x1)
        if w.x1 == w.x2 and w.x1 in (left, right) and is_rail(sheet, project, group, w.x1):
            word = LEFT_RAIL if w.x1 == left else RIGHT_RAIL
            return Label(word, control_volts(project, kind), kind, id, sheet.id, said=False)
    return None


def is_rail(sheet: Sheet, project: Project, group: Group, x: int) -> bool:
    """Return whether a group's upright wires in a column together pass several ladder lines."""
    ys = [y for i in group.wires for w in (project.wires[i],) if w.x1 == w.x2 == x for y in (w.y1, w.y2)]
    return bool(ys) and max(ys) - min(ys) >= RAIL_LINES * sheet.line_spacing


def number_of(text: str) -> float | None:
    """Return the first number of a text, None when it has none.

    Example:
        >>> number_of("24 V"), number_of("100-240"), number_of("")
        (24.0, 100.0, None)
    """
    found = re.search(r"\d+(?:[.,]\d+)?", text)
    return float(found[0].replace(",", ".")) if found else None


def control_volts(project: Project, kind: str) -> float | None:
    """Return the control voltage the project's data name for AC or DC, None when they name none or several."""
    named = [(float(v.replace(",", ".")), k) for v, k in _VOLTS.findall(project.settings.control_voltages)]
    fits = {v for v, k in named if not k or not kind or ("DC" if k == DC else "AC") == kind}
    return fits.pop() if len(fits) == 1 else None


def supply_volts(project: Project) -> float | None:
    """Return the volts between two phases that the project's data name, None when they name none.

    Of "3 x 400/230 V" and "208Y/120 V" it is the larger one; a number that is not followed by V counts only where none
    is.
    """
    text = project.settings.supply
    named = _SYSTEM.search(text)
    return max(float(n.strip(" Y").replace(",", ".")) for n in named[1].split("/")) if named else number_of(text)


def mains_of(project: Project) -> Mains:
    """Return the supply that a project's motors are on: its volts as the data name them, else those usual there."""
    usual = AMERICAN_MAINS if project.settings.standard == "na" else USUAL_MAINS
    return Mains(supply_volts(project) or usual.volts, american=usual.american)


def volts_between(project: Project, one: Label, other: Label) -> tuple[float, str] | None:
    """Return volts and kind between two labels, None where they do not say it.

    Notes:
        Phases by the system's volts: between two of them as named, to neutral that by root three, unless the name is
        below FROM_NEUTRAL and so says it to neutral already.

    Example:
        L1 and L2 of "400 V 3~": 400 AC; L1 and N: 231 AC; 24 V and 0 V: 24 DC.
    """
    if one.word == other.word:
        return 0.0, one.kind
    if one.source and one.source == other.source:
        given = next((x.volts for x in (one, other) if x.volts), None)
        return (given, AC) if given else None
    phases = [label for label in (one, other) if label.word in PHASES]
    system = next((x.volts for x in phases if x.volts), None) or supply_volts(project)
    if len(phases) == 2:
        return (system, AC) if system else None
    if phases:
        rest = other if one is phases[0] else one
        if rest.word not in (NEUTRAL, ZERO) or not system:
            return None
        return (system / math.sqrt(3) if system > FROM_NEUTRAL else system), AC
    a, b = (_against_zero(x) for x in (one, other))
    live = one if one.volts else other
    low = live.volts is not None and live.volts <= EXTRA_LOW
    kind = live.kind or ((one.kind or other.kind) if low or not live.word.endswith(" V") else "")
    if a is not None and b is not None and (a, b).count(0.0) and (one.said or other.said):
        return abs(a - b), kind
    if one.volts and one.volts == other.volts and not {one.word, other.word} & {NEUTRAL, ZERO}:
        return one.volts, kind  # the two sides of one source, or the two rails
    return None


def _against_zero(label: Label) -> float | None:
    if label.word in (NEUTRAL, ZERO, RIGHT_RAIL):
        return 0.0
    if label.word == LEFT_RAIL:
        return label.volts
    return label.volts if label.said and label.word.endswith(" V") else None
