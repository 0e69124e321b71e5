"""What stands on a strip: its items in order, and what is said of terminals, one or many at a time."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Annotated, Literal, get_args

from pydantic import Field

from jolly_core.drawing import place_in
from jolly_core.library import kind_drawn, symbol_of_kind, terminal_kind
from jolly_core.model import Device, Part, Project, RuleError, StripItem, Symbol
from jolly_core.tagging import short_tag, terminal_number
from jolly_core.terminals import (
    ACCESSORY_NAMES,
    TERMINAL,
    is_strip,
    item_records,
    kind_of,
    place_key,
    terminal_symbols,
)

from ..base.edit import Id, Payload, TextLine, Work, edit
from ..base.upkeep import drop_part, drop_unused, tidy_strip
from ..devices.parts import take_part
from ..draw.swapping import draw_as

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
    remark: TextLine | None = None


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
