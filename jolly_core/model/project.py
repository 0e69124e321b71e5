"""The Project aggregate: all entities by kind and id, and the indexes that change sets keep true."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
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
from .errors import GoneError
from .habits import Mute, NumberRule, Stamp, Strip, TagRule
from .parts import Part, with_units_of
from .structure import SETTINGS_ID, Function, Location, Settings, Sheet, SheetHabit
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


class Index:
    """A one-to-many index from a key to the ids that have it, in the order of their ids."""

    __slots__ = ("_ids", "_sorted")

    def __init__(self) -> None:
        self._ids: dict[str, dict[str, None]] = {}
        self._sorted: dict[str, list[str]] = {}  # as they were last asked for, until one comes or goes

    def add(self, key: str, id: str) -> None:
        """Put an id under a key."""
        self._ids.setdefault(key, {})[id] = None
        self._sorted.pop(key, None)

    def discard(self, key: str, id: str) -> None:
        """Take an id from a key; an absent one is no error."""
        ids = self._ids.get(key)
        if ids is not None:
            self._sorted.pop(key, None)
            ids.pop(id, None)
            if not ids:
                del self._ids[key]

    def get(self, key: str) -> list[str]:
        """Return the ids under a key, sorted."""
        known = self._sorted.get(key)
        if known is None:
            ids = self._ids.get(key)
            if ids is None:
                return []
            known = self._sorted[key] = sorted(ids)
        return known.copy()

    def has(self, key: str) -> bool:
        """Return whether any id is under a key."""
        return key in self._ids

    def keys(self) -> Iterable[str]:
        """Return the keys that have at least one id."""
        return self._ids.keys()

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Index) and {k: set(v) for k, v in self._ids.items()} == {
            k: set(v) for k, v in other._ids.items()
        }


class Project:
    """A whole project in memory.

    Entities are never changed in place: `apply` puts new records and keeps the indexes. `stamp` and `sheet_stamp`
    change with every change that concerns them, so that derived values can be kept until they are stale.
    """

    def __init__(self) -> None:
        self.pictures: dict[str, Picture] = {}
        self.title_blocks: dict[str, TitleBlock] = {}
        self.title_cells: dict[str, TitleCell] = {}
        self.sheet_habits: dict[str, SheetHabit] = {}
        self.functions: dict[str, Function] = {}
        self.locations: dict[str, Location] = {}
        self.sheets: dict[str, Sheet] = {}
        self.wire_types: dict[str, WireType] = {}
        self.number_rules: dict[str, NumberRule] = {}
        self.tag_rules: dict[str, TagRule] = {}
        self.parts: dict[str, Part] = {}
        self.devices: dict[str, Device] = {}
        self.add_ons: dict[str, AddOn] = {}
        self.symbols: dict[str, Symbol] = {}
        self.wires: dict[str, Wire] = {}
        self.continuations: dict[str, Continuation] = {}
        self.notes: dict[str, Note] = {}
        self.figures: dict[str, Figure] = {}
        self.bands: dict[str, Band] = {}
        self.strips: dict[str, Strip] = {}
        self.strip_items: dict[str, StripItem] = {}
        self.bridges: dict[str, Bridge] = {}
        self.cables: dict[str, Cable] = {}
        self.core_choices: dict[str, CoreChoice] = {}
        self.net_orders: dict[str, NetOrder] = {}
        self.cards: dict[str, Card] = {}
        self.io_points: dict[str, IoPoint] = {}
        self.enclosures: dict[str, Enclosure] = {}
        self.rails: dict[str, Rail] = {}
        self.ducts: dict[str, Duct] = {}
        self.placings: dict[str, Placing] = {}
        self.harnesses: dict[str, Harness] = {}
        self.nodes: dict[str, Node] = {}
        self.segments: dict[str, Segment] = {}
        self.mutes: dict[str, Mute] = {}
        self.stamps: dict[str, Stamp] = {}
        self._settings: dict[str, Settings] = {SETTINGS_ID: Settings()}
        self.tables: dict[str, dict[str, Any]] = {
            "settings": self._settings,
            "picture": self.pictures,
            "title_block": self.title_blocks,
            "title_cell": self.title_cells,
            "sheet_habit": self.sheet_habits,
            "function": self.functions,
            "location": self.locations,
            "sheet": self.sheets,
            "wire_type": self.wire_types,
            "number_rule": self.number_rules,
            "tag_rule": self.tag_rules,
            "part": self.parts,
            "device": self.devices,
            "add_on": self.add_ons,
            "symbol": self.symbols,
            "wire": self.wires,
            "continuation": self.continuations,
            "note": self.notes,
            "figure": self.figures,
            "band": self.bands,
            "strip": self.strips,
            "strip_item": self.strip_items,
            "bridge": self.bridges,
            "cable": self.cables,
            "core_choice": self.core_choices,
            "net_order": self.net_orders,
            "card": self.cards,
            "io_point": self.io_points,
            "enclosure": self.enclosures,
            "rail": self.rails,
            "duct": self.ducts,
            "placing": self.placings,
            "harness": self.harnesses,
            "node": self.nodes,
            "segment": self.segments,
            "mute": self.mutes,
            "stamp": self.stamps,
        }
        self.on_sheet: dict[str, Index] = {kind: Index() for kind in ON_SHEET}
        self.symbols_of_device = Index()
        self.devices_of_part = Index()
        self.devices_tagged = Index()
        self.continuations_named = Index()
        self.numbered_wires = Index()
        self.items_of_strip, self.points_of_card = Index(), Index()
        self.attached, self.add_ons_of, self.cells_of_block = Index(), Index(), Index()
        self.stamp = next(_stamps)
        self.sheet_stamps: dict[str, int] = {}
        self.kind_stamps: dict[str, int] = {}
        # Derived values kept by other packages under their own key; each entry carries the stamp it holds for.
        self.kept: dict[str, Any] = {}

    @property
    def settings(self) -> Settings:
        """The project's settings record."""
        return self._settings[SETTINGS_ID]

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
        return list(map(self.symbols.__getitem__, self.on_sheet["symbol"].get(sheet_id)))

    def wires_on(self, sheet_id: str) -> list[Wire]:
        """Return the wires of a sheet in the order they were drawn."""
        return list(map(self.wires.__getitem__, self.on_sheet["wire"].get(sheet_id)))

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
        return sorted(self.sheets.values(), key=lambda s: (s.order, s.id))

    def part_of(self, device: Device) -> Part | None:
        """Return the part of a device with the units of its add-ons after its own, None when none is chosen."""
        part = self.parts.get(device.part_id) if device.part_id else None
        if part is None or not self.add_ons_of.has(device.id):
            return part
        kept = self.derived("parts with add-ons")
        if device.id not in kept:
            kept[device.id] = with_units_of(part, self.add_ons_to(device.id))
        combined: Part = kept[device.id]
        return combined

    def part_named(self, name: str) -> Part | None:
        """Return the project's copy of a part by its id or its whole number, None when there is none."""
        found = self.parts.get(name)
        if found is None and name:
            found = next((p for p in self.parts.values() if p.number.casefold() == name.casefold()), None)
        return found

    def add_ons_to(self, device_id: str) -> list[Part]:
        """Return the further parts on a device in the order they were added."""
        return [self.parts[self.add_ons[id].part_id] for id in self.add_ons_of.get(device_id)]

    def apply(self, changes: ChangeSet) -> None:
        """Put the change set into the model and keep indexes and stamps true."""
        for change in changes:
            self._put(change)
        if len(changes):
            self.stamp = next(_stamps)

    @contextmanager
    def trial(self) -> Iterator[ChangeSet]:
        """Give a change set whose changes are taken back at the end, stamps included.

        Whoever works in the block calls `commit` with it; whatever happens, the model is the same afterwards.
        """
        stamp, sheet_stamps, kind_stamps = self.stamp, dict(self.sheet_stamps), dict(self.kind_stamps)
        total = ChangeSet()
        try:
            yield total
        finally:
            self.apply(total.inverse())
            self.stamp, self.sheet_stamps, self.kind_stamps = stamp, sheet_stamps, kind_stamps

    def commit(self, total: ChangeSet, changes: ChangeSet) -> None:
        """Apply changes and record them in the change set of a trial."""
        self.apply(changes)
        for c in changes:
            total.record(c.kind, c.id, c.before, c.after)

    def load(self, kind: str, entities: Iterable[Entity]) -> None:
        """Put many entities of one kind into an empty table, as when a stored project is loaded."""
        table = self.tables[kind]
        for entity in entities:
            table[entity.id] = entity
            self._index(kind, entity)
        self.stamp = next(_stamps)

    def entities(self) -> Iterator[tuple[str, Entity]]:
        """Yield every entity with its kind, kinds in the order of KINDS, entities in the order of ids."""
        for kind in KINDS:
            table = self.tables[kind]
            for id in sorted(table):
                yield kind, table[id]

    def derived(self, name: str) -> dict[Any, Any]:
        """Return a dict for derived values of one sort, empty again after every change to the project."""
        kept = self.kept.get(name)
        if kept is None or kept[0] != self.stamp:
            kept = self.kept[name] = (self.stamp, {})
        values: dict[Any, Any] = kept[1]
        return values

    def sheet_stamp(self, sheet_id: str) -> int:
        """Return a number that differs after each change to what lies on the sheet."""
        return self.sheet_stamps.get(sheet_id, 0)

    def kind_stamp(self, kind: str) -> int:
        """Return a number that differs after each change to an entity of a kind."""
        return self.kind_stamps.get(kind, 0)

    def _put(self, change: Change) -> None:
        table = self.tables[change.kind]
        before = table.get(change.id)
        if before is not None:
            self._unindex(change.kind, before)
        if change.after is None:
            table.pop(change.id, None)
        else:
            table[change.id] = change.after
            self._index(change.kind, change.after)
        for record in (before, change.after):
            if record is not None:
                self._touch(change.kind, record)

    def _touch(self, kind: str, record: Entity) -> None:
        self.kind_stamps[kind] = next(_stamps)
        if kind in self.on_sheet:
            self.sheet_stamps[record.sheet_id] = next(_stamps)
        elif kind == "sheet":
            self.sheet_stamps[record.id] = next(_stamps)

    def _index(self, kind: str, record: Entity) -> None:
        if kind in self.on_sheet:
            self.on_sheet[kind].add(record.sheet_id, record.id)
        for index, key in self._keys(kind, record):
            index.add(key, record.id)

    def _unindex(self, kind: str, record: Entity) -> None:
        if kind in self.on_sheet:
            self.on_sheet[kind].discard(record.sheet_id, record.id)
        for index, key in self._keys(kind, record):
            index.discard(key, record.id)

    def _keys(self, kind: str, record: Entity) -> list[tuple[Index, str]]:
        """Return the indexes a record is in beside its sheet's, with its key in each."""
        if kind == "symbol":
            return [(self.symbols_of_device, record.device_id)] if record.device_id else []
        if kind == "wire":
            return [(self.numbered_wires, record.number)] if record.number else []
        if kind == "device":
            keys = [(self.devices_tagged, tag_key(record))]
            return [*keys, (self.devices_of_part, record.part_id)] if record.part_id else keys
        if kind == "continuation":
            return [(self.continuations_named, record.name)]
        if kind == "strip_item":
            return [(self.items_of_strip, record.strip_id)]
        if kind == "title_cell":
            return [(self.cells_of_block, record.block_id)]
        if kind == "io_point":
            return [(self.points_of_card, record.device_id)] if record.device_id else []
        if kind == "add_on":
            return [(self.attached, record.device_id), (self.add_ons_of, record.device_id)]
        if kind in ATTACHED:
            return [(self.attached, record.device_id)] if record.device_id else []
        return []
