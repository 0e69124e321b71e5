"""What stands on a strip: planned terminals, accessories, and what is said of terminals, one or many at a time."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Annotated, Literal, get_args

from pydantic import Field

from jolly_core.drawing import place_in
from jolly_core.library import TERMINAL_WORDS, kind_drawn, symbol_of_kind, terminal_kind
from jolly_core.model import MOST_LEVELS, Bridge, Device, Part, Project, RuleError, StripItem, Symbol
from jolly_core.tagging import short_tag, terminal_number
from jolly_core.terminals import (
    ACCESSORY_NAMES,
    TERMINAL,
    is_strip,
    item_records,
    kind_of,
    next_unit,
    place_key,
    terminal_symbols,
)

from .base import Id, Line, Payload, Work, edit
from .parts import take_part
from .symbols import draw_as
from .upkeep import drop_part, drop_unused, tidy_strip

TerminalUnit = Annotated[int, Field(ge=1, le=100_000)]
TerminalKind = Literal["feed-through", "earth", "fuse", "disconnect"]
Accessory = Literal["end-bracket", "plate", "marker"]
ACCESSORIES: tuple[str, ...] = get_args(Accessory)
ItemKey = Annotated[str, Field(max_length=60)]
MOST_AT_ONCE = 500


def strip_named(project: Project, strip_id: str) -> Device:
    """Return a strip's device.

    Raises:
        GoneError: there is no such device.
        RuleError: it is no strip.
    """
    device: Device = project.get("device", strip_id)
    if not is_strip(project, device):
        raise RuleError(f"{short_tag(project, device)} is no terminal strip.", field="strip_id", ids=(strip_id,))
    return device


def stored(work: Work, strip_id: str) -> list[StripItem]:
    """Return what stands on a strip, every place stored with its order counted from 1."""
    return put_in_order(work, [replace(r, id=r.id or work.ids.new()) for r in item_records(work.project, strip_id)])


def put_in_order(work: Work, records: Iterable[StripItem]) -> list[StripItem]:
    """Store places of a strip in an order, counted from 1, and return them."""
    kept = [replace(record, order=order) for order, record in enumerate(records, start=1)]
    for record in kept:
        if work.project.strip_items.get(record.id) != record:
            work.put("strip_item", record)
    return kept


def terminals_named(project: Project, strip_id: str, units: Iterable[int]) -> dict[int, tuple[StripItem, list[Symbol]]]:
    """Return terminals of a strip by unit, with the symbols that show each, in the order given.

    Raises:
        RuleError: the strip has no such terminal.
    """
    records = {r.unit: r for r in item_records(project, strip_id) if r.kind == TERMINAL}
    symbols = terminal_symbols(project, strip_id)
    found: dict[int, tuple[StripItem, list[Symbol]]] = {}
    for unit in units:
        if unit not in records:
            tag = short_tag(project, project.devices[strip_id])
            raise RuleError(f"{tag} has no such terminal any more.", field="units", ids=(strip_id,))
        found[unit] = (records[unit], symbols.get(unit, []))
    return found


def place_of_key(project: Project, strip_id: str, records: list[StripItem], key: str, *, after: bool) -> int:
    """Return the index at which something is put before or after a place named by its key; the end for no key.

    A block is never parted: before or after one of its levels is before or after the block.

    Raises:
        RuleError: there is no such place.
    """
    if not key:
        return len(records)
    at = next((n for n, r in enumerate(records) if place_key(r) == key), None)
    if at is None:
        tag = short_tag(project, project.devices[strip_id])
        raise RuleError(f"That place of {tag} is gone. Choose another one.", field="at", ids=(strip_id,))
    if not after:
        while at and _goes_on(records[at]):
            at -= 1
        return at
    at += 1
    while at < len(records) and _goes_on(records[at]):
        at += 1
    return at


def _goes_on(record: StripItem) -> bool:
    return record.kind == TERMINAL and record.level > 1


class PlanTerminals(Payload):
    """Put in terminals that are on no sheet yet, before or after a place or at the end; spare ones stay undrawn.

    With `levels` each is a block of so many terminals; `bridged` makes all of them one potential (a distribution).
    """

    kind: Literal["plan-terminals"] = "plan-terminals"
    strip_id: Id
    count: int = Field(default=1, ge=1, le=MOST_AT_ONCE)
    at: ItemKey = ""
    side: Literal["before", "after"] = "after"
    terminal_kind: TerminalKind = "feed-through"
    levels: int = Field(default=1, ge=1, le=MOST_LEVELS)
    spare: bool = False
    bridged: bool = False
    part_id: Id = ""
    remark: Line = ""


@edit(PlanTerminals, {"strip_id": "d1", "count": 4, "at": "u3", "side": "before"})
def plan_terminals(work: Work, payload: PlanTerminals) -> str:
    """Work out PlanTerminals."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    records = stored(work, device.id)
    at = place_of_key(project, device.id, records, payload.at, after=payload.side == "after")
    made = planned(
        work,
        device,
        payload.terminal_kind,
        count=payload.count,
        levels=payload.levels,
        part_id=payload.part_id,
        spare=payload.spare,
        remark=payload.remark.strip(),
    )
    put_in_order(work, [*records[:at], *made, *records[at:]])
    if payload.bridged:
        bridge_all(work, device.id, made)
    work.outcome.placed = [r.id for r in made]
    one, many = TERMINAL_WORDS[payload.terminal_kind]
    words = "spare terminal" if payload.spare else one if len(made) == 1 else many
    words += "s" if payload.spare and len(made) > 1 else ""
    return f"{len(made)} {words} on {tag}"


def planned(
    work: Work,
    device: Device,
    kind: str,
    *,
    count: int,
    levels: int = 1,
    part_id: str = "",
    spare: bool = False,
    remark: str = "",
) -> list[StripItem]:
    """Return new planned terminals of a strip, block by block; they are not stored yet, their part is taken.

    Raises:
        RuleError: the part is of another kind, or has fewer levels.
    """
    part = take_part(work, part_id, "terminal") if part_id else None
    if part is not None and terminal_kind(part) != kind:
        raise RuleError(f"{part.number} is of the kind {terminal_kind(part)}, not {kind}.", field="part_id")
    if part is not None and levels > 1:
        said = part.ratings.get("levels", "").strip() or "1"
        if said.isdecimal() and int(said) < levels:
            raise RuleError(f"{part.number} has {said} level(s), not {levels}.", field="levels")
    unit = next_unit(work.project, device.id)
    made = []
    for n in range(count * levels):
        level = n % levels + 1
        own = part.id if part else ""
        made.append(
            StripItem(
                work.ids.new(), device.id, TERMINAL, 0, unit + n, "", own, kind, spare and levels == 1, level, remark
            )
        )
    return made


def bridge_all(work: Work, strip_id: str, records: list[StripItem]) -> None:
    """Make terminals one potential: each block's levels among themselves, then the first levels along the strip."""
    blocks: list[list[int]] = []
    for record in records:
        if record.level == 1 or not blocks:
            blocks.append([])
        blocks[-1].append(record.unit)
    for units in [*blocks, [block[0] for block in blocks]]:
        if len(units) > 1:
            work.put("bridge", Bridge(work.ids.new(), strip_id, tuple(units)))


class RemoveStripItems(Payload):
    """Take planned terminals and accessories off a strip; a drawn terminal goes when it is deleted on its sheet."""

    kind: Literal["remove-strip-items"] = "remove-strip-items"
    strip_id: Id
    keys: list[ItemKey] = Field(min_length=1, max_length=5000)


@edit(RemoveStripItems, {"strip_id": "d1", "keys": ["u7"]})
def remove_strip_items(work: Work, payload: RemoveStripItems) -> str:
    """Work out RemoveStripItems."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    symbols = terminal_symbols(project, device.id)
    chosen = keyed(project, device.id, payload.keys)
    for record in chosen:
        drawn = symbols.get(record.unit, []) if record.kind == TERMINAL else []
        if drawn:
            sheet = project.sheets[drawn[0].sheet_id]
            name = f"{tag}:{terminal_number(project, device.id, record.unit)}"
            place = place_in(sheet, drawn[0].x, drawn[0].y)
            raise RuleError(f"{name} is drawn on {place}. Delete it there.", field="keys", ids=(drawn[0].id,))
    for record in chosen:
        work.remove("strip_item", record.id)
        drop_part(work, record.part_id)
    tidy_strip(work, device.id)
    drop_unused(work, device.id)
    if len(chosen) == 1 and chosen[0].kind != TERMINAL:
        return f"remove {ACCESSORY_NAMES[chosen[0].kind].lower()} of {tag}"
    return f"remove {len(chosen)} place{'s' if len(chosen) > 1 else ''} of {tag}"


def keyed(project: Project, strip_id: str, keys: Iterable[str]) -> list[StripItem]:
    """Return places of a strip by their keys, in the order of the strip.

    Raises:
        RuleError: one is not there.
    """
    wanted = set(keys)
    found = [r for r in item_records(project, strip_id) if place_key(r) in wanted]
    if len(found) != len(wanted):
        tag = short_tag(project, project.devices[strip_id])
        raise RuleError(f"A place chosen on {tag} is gone. Choose again.", field="keys", ids=(strip_id,))
    return found


class SetTerminals(Payload):
    """Say of terminals what they have in common; what is left out stays as it is.

    An empty part lets them have the strip's again. Another kind is drawn so on their sheets, too.
    """

    kind: Literal["set-terminals"] = "set-terminals"
    strip_id: Id
    units: list[TerminalUnit] = Field(min_length=1, max_length=5000)
    part_id: Id | None = None
    terminal_kind: TerminalKind | None = None
    spare: bool | None = None
    facing: Literal["", "first", "second"] | None = None
    joint: Literal["", "carry", "part"] | None = None
    remark: Line | None = None


@edit(SetTerminals, {"strip_id": "d1", "units": [1], "part_id": ""})
def set_terminals(work: Work, payload: SetTerminals) -> str:
    """Work out SetTerminals."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    terminals_named(project, device.id, payload.units)
    part = take_part(work, payload.part_id, "terminal") if payload.part_id else None
    stored(work, device.id)
    for unit, (record, symbols) in terminals_named(project, device.id, sorted(set(payload.units))).items():
        name = f"{tag}:{terminal_number(project, device.id, unit)}"
        changed = record
        if payload.terminal_kind is not None:
            changed = _as_kind(work, record, symbols, payload.terminal_kind)
            symbols = terminal_symbols(project, device.id).get(unit, [])
        if payload.part_id is not None:
            _is_of_kind(project, part, changed, symbols, name)
            changed = replace(changed, part_id=part.id if part else "")
        if payload.spare is not None:
            if payload.spare and symbols:
                raise RuleError(
                    f"{name} is drawn; a spare terminal is on no sheet.", field="spare", ids=(symbols[0].id,)
                )
            changed = replace(
                changed, spare=payload.spare, planned=changed.planned or kind_of(project, record, symbols)
            )
        for name_of_field in ("facing", "joint", "remark"):
            value = getattr(payload, name_of_field)
            if value is not None:
                changed = replace(changed, **{name_of_field: value.strip()})
        if changed != record:
            work.put("strip_item", changed)
            drop_part(work, record.part_id if record.part_id != changed.part_id else "")
    count = len(set(payload.units))
    return f"{_what(payload)} of {count} terminal{'s' if count > 1 else ''} of {tag}"


def _what(payload: SetTerminals) -> str:
    words = {"part_id": "part", "terminal_kind": "kind", "spare": "use", "facing": "sides", "joint": "wire number"}
    return next((word for name, word in words.items() if getattr(payload, name) is not None), "remark")


def _is_of_kind(project: Project, part: Part | None, record: StripItem, symbols: list[Symbol], name: str) -> None:
    kind = kind_of(project, record, symbols)
    if part is not None and terminal_kind(part) != kind:
        kinds = f"{part.number} is of the kind {terminal_kind(part)}, {name} of the kind {kind}"
        ids = tuple(s.id for s in symbols)
        raise RuleError(f"{kinds}. Choose a part of that kind.", field="part_id", ids=ids)


def _as_kind(work: Work, record: StripItem, symbols: list[Symbol], kind: str) -> StripItem:
    """Make a terminal one of a kind, on its sheets and in the plan; a part of another kind goes."""
    for symbol in symbols:
        if kind_drawn(symbol.definition) != kind:
            draw_as(work, symbol, symbol_of_kind(kind))
    part = work.project.parts.get(record.part_id)
    kept = record.part_id if part is not None and terminal_kind(part) == kind else ""
    return replace(record, planned=kind if record.planned else "", part_id=kept)


class AddStripAccessory(Payload):
    """Put an end bracket, partition plate or marker on a strip, before or after a place, or at its start or end."""

    kind: Literal["add-strip-accessory"] = "add-strip-accessory"
    strip_id: Id
    accessory: Accessory
    position: int | None = Field(default=None, ge=0, le=5000)
    at: ItemKey = ""
    side: Literal["before", "after"] = "after"
    part_id: Id = ""


@edit(AddStripAccessory, {"strip_id": "d1", "accessory": "end-bracket", "position": 0})
def add_strip_accessory(work: Work, payload: AddStripAccessory) -> str:
    """Work out AddStripAccessory."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    part = take_part(work, payload.part_id, "strip-accessory") if payload.part_id else None
    records = stored(work, device.id)
    at = place_of_key(project, device.id, records, payload.at, after=payload.side == "after")
    if not payload.at and payload.position is not None:
        at = min(payload.position, len(records))
    made = StripItem(work.ids.new(), device.id, payload.accessory, 0, part_id=part.id if part else "")
    put_in_order(work, [*records[:at], made, *records[at:]])
    work.outcome.placed = [made.id]
    return f"{ACCESSORY_NAMES[payload.accessory].lower()} on {short_tag(project, device)}"


class SetAccessoryPart(Payload):
    """Give accessories of a strip a part, or none with an empty one."""

    kind: Literal["set-accessory-part"] = "set-accessory-part"
    strip_id: Id
    keys: list[ItemKey] = Field(min_length=1, max_length=500)
    part_id: Id


@edit(SetAccessoryPart, {"strip_id": "d1", "keys": ["i1"], "part_id": ""})
def set_accessory_part(work: Work, payload: SetAccessoryPart) -> str:
    """Work out SetAccessoryPart."""
    device = strip_named(work.project, payload.strip_id)
    part = take_part(work, payload.part_id, "strip-accessory") if payload.part_id else None
    for record in keyed(work.project, device.id, payload.keys):
        if record.kind == TERMINAL:
            raise RuleError("Choose end brackets, plates or markers; a terminal has a part of its own.", field="keys")
        work.put("strip_item", replace(record, part_id=part.id if part else ""))
        drop_part(work, record.part_id)
    return f"part of {len(payload.keys)} accessor{'ies' if len(payload.keys) > 1 else 'y'} of " + (
        short_tag(work.project, device)
    )
