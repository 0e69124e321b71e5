"""The Project aggregate: all entities by kind and id, and the indexes that change sets keep true."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Hashable, Iterable, Iterator
from contextlib import contextmanager
from functools import partial
from operator import attrgetter
from typing import Any

from .building import (
    Band,
    Bridge,
    Cable,
    Card,
    CoreChoice,
    Duct,
    Enclosure,
    Harness,
    IoPoint,
    NetOrder,
    Node,
    Placing,
    Rail,
    Segment,
    StripItem,
)
from .changes import Change, ChangeSet, Entity
from .circuit import AddOn, Continuation, Device, Figure, Note, Symbol, Wire, WireType
from .derived import Memo, derived, on_sheet
from .errors import GoneError
from .habits import Mute, NumberRule, Stamp, Strip, TagRule
from .parts import Part, with_units_of
from .structure import SETTINGS_ID, Function, Location, Settings, Sheet, SheetHabit
from .tables import Index, Table
from .titling import Picture, TitleBlock, TitleCell

# Kind name -> class, in the order files and change sets write them.
KINDS: dict[str, type[Any]] = {
    "settings": Settings,
    "picture": Picture,
    "title_block": TitleBlock,
    "title_cell": TitleCell,
    "sheet_habit": SheetHabit,
    "function": Function,
    "location": Location,
    "sheet": Sheet,
    "wire_type": WireType,
    "number_rule": NumberRule,
    "tag_rule": TagRule,
    "part": Part,
    "device": Device,
    "add_on": AddOn,
    "symbol": Symbol,
    "wire": Wire,
    "continuation": Continuation,
    "note": Note,
    "figure": Figure,
    "band": Band,
    "strip": Strip,
    "strip_item": StripItem,
    "bridge": Bridge,
    "cable": Cable,
    "core_choice": CoreChoice,
    "net_order": NetOrder,
    "card": Card,
    "io_point": IoPoint,
    "enclosure": Enclosure,
    "rail": Rail,
    "duct": Duct,
    "placing": Placing,
    "harness": Harness,
    "node": Node,
    "segment": Segment,
    "mute": Mute,
    "stamp": Stamp,
}
# Kinds that lie on a sheet; the aggregate indexes them by sheet and stamps the sheet when they change.
ON_SHEET = ("symbol", "wire", "continuation", "note", "figure", "band")
# Kinds whose records keep a device in the project though nothing of it is drawn; `attached` indexes them by device.
ATTACHED = ("add_on", "band", "strip", "cable", "card", "enclosure", "placing", "node")


def tag_key(device: Device) -> str:
    """Return what devices of possibly equal tags have in common: the fixed tag, else letters and number."""
    return device.fixed_tag or f"{device.letters}{device.number}"


_stamps = itertools.count(1)

# The indexes beside those of sheets: for a kind of record the name of each, and the field it goes by.
INDEXED: dict[str, tuple[tuple[str, str], ...]] = {
    "symbol": (("symbols_of_device", "device_id"),),
    "wire": (("numbered_wires", "number"),),
    "device": (("devices_tagged", "tag"), ("devices_lettered", "letters"), ("devices_of_part", "part_id")),
    "continuation": (("continuations_named", "name"),),
    "strip_item": (("items_of_strip", "strip_id"),),
    "title_cell": (("cells_of_block", "block_id"),),
    "io_point": (("points_of_card", "device_id"),),
    "sheet": (("sheets_about", "device_id"), ("sheets_about", "enclosure_id"), ("sheets_about", "harness_id")),
    **dict.fromkeys(ATTACHED, (("attached", "device_id"),)),
    "add_on": (("attached", "device_id"), ("add_ons_of", "device_id")),
}
_KEYS: dict[str, Callable[[Any], str]] = {
    field: attrgetter(field) for fields in INDEXED.values() for _, field in fields if field != "tag"
} | {"tag": tag_key}
# Keys that are indexed even when they are empty texts.
_EMPTY_TOO = ("devices_tagged", "continuations_named", "items_of_strip", "cells_of_block")


class Project:
    """A whole project in memory.

    Entities are never changed in place: `apply` puts new records and keeps the indexes. `stamp` changes with every
    change. What is computed from the model is kept in `memo` as long as what was read for it is the same (derived.py).
    """

    def __init__(self) -> None:
        self.memo = Memo()
        self.tables: dict[str, Table[Any]] = {}
        self._indexes: dict[str, Index] = {}
        self._settings: Table[Settings] = self._table("settings")
        self.pictures: Table[Picture] = self._table("picture")
        self.title_blocks: Table[TitleBlock] = self._table("title_block")
        self.title_cells: Table[TitleCell] = self._table("title_cell")
        self.sheet_habits: Table[SheetHabit] = self._table("sheet_habit")
        self.functions: Table[Function] = self._table("function")
        self.locations: Table[Location] = self._table("location")
        self.sheets: Table[Sheet] = self._table("sheet")
        self.wire_types: Table[WireType] = self._table("wire_type")
        self.number_rules: Table[NumberRule] = self._table("number_rule")
        self.tag_rules: Table[TagRule] = self._table("tag_rule")
        self.parts: Table[Part] = self._table("part")
        self.devices: Table[Device] = self._table("device")
        self.add_ons: Table[AddOn] = self._table("add_on")
        self.symbols: Table[Symbol] = self._table("symbol")
        self.wires: Table[Wire] = self._table("wire")
        self.continuations: Table[Continuation] = self._table("continuation")
        self.notes: Table[Note] = self._table("note")
        self.figures: Table[Figure] = self._table("figure")
        self.bands: Table[Band] = self._table("band")
        self.strips: Table[Strip] = self._table("strip")
        self.strip_items: Table[StripItem] = self._table("strip_item")
        self.bridges: Table[Bridge] = self._table("bridge")
        self.cables: Table[Cable] = self._table("cable")
        self.core_choices: Table[CoreChoice] = self._table("core_choice")
        self.net_orders: Table[NetOrder] = self._table("net_order")
        self.cards: Table[Card] = self._table("card")
        self.io_points: Table[IoPoint] = self._table("io_point")
        self.enclosures: Table[Enclosure] = self._table("enclosure")
        self.rails: Table[Rail] = self._table("rail")
        self.ducts: Table[Duct] = self._table("duct")
        self.placings: Table[Placing] = self._table("placing")
        self.harnesses: Table[Harness] = self._table("harness")
        self.nodes: Table[Node] = self._table("node")
        self.segments: Table[Segment] = self._table("segment")
        self.mutes: Table[Mute] = self._table("mute")
        self.stamps: Table[Stamp] = self._table("stamp")
        dict.__setitem__(self._settings, SETTINGS_ID, Settings())
        self.on_sheet: dict[str, Index] = {kind: Index("", self.memo) for kind in ON_SHEET}
        self.symbols_of_device, self.devices_of_part = self._indexed("symbols_of_device", "devices_of_part")
        self.devices_tagged, self.continuations_named = self._indexed("devices_tagged", "continuations_named")
        self.numbered_wires, self.items_of_strip = self._indexed("numbered_wires", "items_of_strip")
        self.points_of_card, self.cells_of_block = self._indexed("points_of_card", "cells_of_block")
        self.attached, self.add_ons_of = self._indexed("attached", "add_ons_of")
        self.devices_lettered, self.sheets_about = self._indexed("devices_lettered", "sheets_about")
        self.stamp = next(_stamps)
        # What other packages remember under their own key to be faster the next time; it is not read for any result.
        self.kept: dict[str, Any] = {}

    @property
    def settings(self) -> Settings:
        """The project's settings record."""
        return self._settings[SETTINGS_ID]

    def _table(self, kind: str) -> Table[Any]:
        table: Table[Any] = Table(kind, self.memo, kind in ON_SHEET)
        self.tables[kind] = table
        return table

    def _indexed(self, *names: str) -> list[Index]:
        self._indexes |= {name: Index(name, self.memo) for name in names}
        return [self._indexes[name] for name in names]

    def get(self, kind: str, id: str) -> Any:
        """Return an entity.

        Raises:
            GoneError: there is none of that kind and id.
        """
        entity = self.tables[kind].get(id)
        if entity is None and not id:
            raise GoneError(f"No {kind.replace('_', ' ')} is chosen. Choose one first.")
        if entity is None:
            raise GoneError(f"The {kind.replace('_', ' ')} {id} is not in this project.", ids=(id,))
        return entity

    def symbols_on(self, sheet_id: str) -> list[Symbol]:
        """Return the symbols of a sheet in the order they were placed."""
        return self.symbols.all_of(self.on_sheet["symbol"].get(sheet_id))

    def wires_on(self, sheet_id: str) -> list[Wire]:
        """Return the wires of a sheet in the order they were drawn."""
        return self.wires.all_of(self.on_sheet["wire"].get(sheet_id))

    def continuations_on(self, sheet_id: str) -> list[Continuation]:
        """Return the continuation marks of a sheet."""
        return [self.continuations[i] for i in self.on_sheet["continuation"].get(sheet_id)]

    def notes_on(self, sheet_id: str) -> list[Note]:
        """Return the notes of a sheet."""
        return [self.notes[i] for i in self.on_sheet["note"].get(sheet_id)]

    def figures_on(self, sheet_id: str) -> list[Figure]:
        """Return the figures of a sheet."""
        return [self.figures[i] for i in self.on_sheet["figure"].get(sheet_id)]

    def units_of(self, device_id: str) -> list[Symbol]:
        """Return the symbols of a device in the order they were placed."""
        return [self.symbols[i] for i in self.symbols_of_device.get(device_id)]

    def sheets_in_order(self) -> list[Sheet]:
        """Return the sheets in the project's order."""
        return list(_sheets_in_order(self))

    def part_of(self, device: Device) -> Part | None:
        """Return the part of a device with the units of its add-ons after its own, None when none is chosen."""
        part = self.parts.get(device.part_id) if device.part_id else None
        if part is None or not self.add_ons_of.has(device.id):
            return part
        return _with_add_ons(self, device.id)

    def part_named(self, name: str) -> Part | None:
        """Return the project's copy of a part by its id or its whole number, None when there is none."""
        found = self.parts.get(name)
        if found is None and name:
            found = next((p for p in self.parts.values() if p.number.casefold() == name.casefold()), None)
        return found

    def add_ons_to(self, device_id: str) -> list[Part]:
        """Return the further parts on a device in the order they were added."""
        return [self.parts[self.add_ons[id].part_id] for id in self.add_ons_of.get(device_id)]

    def names(self, kind: str, field: str, id: str) -> bool:
        """Return whether a record of a kind names something in a field: by an index where there is one."""
        if field == "sheet_id" and kind in self.on_sheet:
            return self.on_sheet[kind].has(id)
        table = self.tables[kind]
        index = next((self._indexes[name] for name, by in INDEXED.get(kind, ()) if by == field), None)
        found = table.values() if index is None else (table[i] for i in index.get(id) if i in table)
        return any(getattr(record, field) == id for record in found)

    def apply(self, changes: ChangeSet) -> None:
        """Put the change set into the model and keep indexes and stamps true."""
        for change in changes:
            self._put(change)
        if len(changes):
            self.stamp = next(_stamps)

    @contextmanager
    def trial(self) -> Iterator[ChangeSet]:
        """Give a change set whose changes are taken back at the end, with all that was derived meanwhile.

        Whoever works in the block calls `commit` with it; whatever happens, the model is the same afterwards.
        """
        stamp = self.stamp
        outer = self.memo.begin()
        total = ChangeSet()
        try:
            yield total
        finally:
            self.memo.hush()
            self.apply(total.inverse())
            self.memo.rollback(outer)
            self.stamp = stamp

    @contextmanager
    def attempt(self) -> Iterator[ChangeSet]:
        """Give a change set whose changes stay at the end, and are taken back as by `trial` if the block fails."""
        stamp = self.stamp
        outer = self.memo.begin()
        total = ChangeSet()
        try:
            yield total
        except BaseException:
            self.memo.hush()
            self.apply(total.inverse())
            self.memo.rollback(outer)
            self.stamp = stamp
            raise
        self.memo.keep(outer)

    def commit(self, total: ChangeSet, changes: ChangeSet) -> None:
        """Apply changes and record them in the change set of a trial or attempt."""
        self.apply(changes)
        for c in changes:
            total.record(c.kind, c.id, c.before, c.after)

    def load(self, kind: str, entities: Iterable[Entity]) -> None:
        """Put many entities of one kind into an empty table, as when a stored project is loaded."""
        put = partial(dict.__setitem__, self.tables[kind])
        for entity in entities:
            put(entity.id, entity)
            self._index(kind, entity)
        self.memo.clear()
        self.stamp = next(_stamps)

    def entities(self) -> Iterator[tuple[str, Entity]]:
        """Yield every entity with its kind, kinds in the order of KINDS, entities in the order of ids."""
        for kind in KINDS:
            table = self.tables[kind]
            for id in sorted(table):
                yield kind, table[id]

    def _put(self, change: Change) -> None:
        kind, after = change.kind, change.after
        table = self.tables[kind]
        before = table.get(change.id)
        if after is None:
            dict.pop(table, change.id, None)
        else:
            dict.__setitem__(table, change.id, after)
        cells: list[Hashable] = [change.id, kind]
        if kind in self.on_sheet:
            old, new = (r.sheet_id if r is not None else None for r in (before, after))
            if old != new:
                if old is not None:
                    self.on_sheet[kind].discard(old, change.id)
                if new is not None:
                    self.on_sheet[kind].add(new, change.id)
            cells += [on_sheet(id) for id in {old, new} if id is not None]
        for name, field in INDEXED.get(kind, ()):
            old, new = (_key(name, field, r) for r in (before, after))
            if old != new:
                index = self._indexes[name]
                if old is not None:
                    index.discard(old, change.id)
                if new is not None:
                    index.add(new, change.id)
                cells += [name, *((name, k) for k in (old, new) if k is not None)]
        self.memo.fire(cells)

    def _index(self, kind: str, record: Entity) -> None:
        if kind in self.on_sheet:
            self.on_sheet[kind].add(record.sheet_id, record.id)
        for name, field in INDEXED.get(kind, ()):
            value = _key(name, field, record)
            if value is not None:
                self._indexes[name].add(value, record.id)


def _key(name: str, field: str, record: Entity | None) -> str | None:
    """Return a record's key in an index, None where it has none."""
    value = _KEYS[field](record) if record is not None else None
    return value if value or name in _EMPTY_TOO else None


@derived
def _sheets_in_order(project: Project) -> tuple[Sheet, ...]:
    return tuple(sorted(project.sheets.values(), key=lambda s: (s.order, s.id)))


@derived
def _with_add_ons(project: Project, device_id: str) -> Part:
    part = project.parts[project.devices[device_id].part_id]
    return with_units_of(part, project.add_ons_to(device_id))
