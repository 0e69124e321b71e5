"""The Project aggregate: all entities by kind and id, and the indexes that change sets keep true."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Hashable, Iterable, Iterator
from contextlib import contextmanager
from functools import partial
from operator import attrgetter
from typing import Any, TypeVar

from .bounds import put_right
from .changes import Change, ChangeSet, Entity
from .derived import Memo, derived
from .entities.blocks import Block, HarnessShield, HarnessVariant, Seat, Strand, VariantPart
from .entities.building import (
    Band,
    Bridge,
    Cable,
    CableWay,
    Card,
    ChannelCircuit,
    CheckSignature,
    CoreChoice,
    IoPoint,
    NetOrder,
    PointCheck,
    Rack,
    StripItem,
)
from .entities.circuit import AddOn, Continuation, Device, Figure, Layer, Note, Symbol, Wire, WireType
from .entities.habits import Mute, NumberRule, Stamp, Strip, TagRule
from .entities.harness import Covering, Harness, Node, Segment
from .entities.issuing import Pack, Recipe, Revision
from .entities.layout import Crossing, Duct, Enclosure, Lane, Passage, Placing, Rail
from .entities.parts import Part, with_units_of
from .entities.structure import SETTINGS_ID, Function, Location, Settings, Sheet, SheetHabit
from .entities.titling import Picture, TitleBlock, TitleCell
from .entities.wording import Wording
from .errors import GoneError
from .kinds import Keyed, Kind, kind_of
from .nodes import on_sheet
from .registry import KINDS, ON_SHEET
from .tables import Index, Table

E = TypeVar("E")

_stamps = itertools.count(1)
_IndexKey = tuple[str, str, Callable[[Any], str], bool]


def _keys(spec: Kind) -> tuple[_IndexKey, ...]:
    """Return for each index of a kind, beside that of sheets, its name, field, key and whether empty ones are in."""
    indexes = (*spec.indexes, Keyed("attached", "device_id")) if spec.keeps_device else spec.indexes
    return tuple(
        (k.name, k.by, attrgetter(k.by), k.empty) if isinstance(k.by, str) else (k.name, "", k.by, k.empty)
        for k in indexes
    )


INDEXED: dict[str, tuple[_IndexKey, ...]] = {name: _keys(spec) for name, spec in KINDS.items()}


class Project:
    """A whole project in memory.

    Entities are never changed in place: `apply` puts new records and keeps the indexes. `stamp` changes with every
    change. What is computed from the model is kept in `memo` as long as what was read for it is the same (derived.py).
    """

    def __init__(self) -> None:
        self.memo = Memo()
        self.tables: dict[str, Table[Any]] = {k: Table(k, self.memo, spec.on_sheet) for k, spec in KINDS.items()}
        self._indexes = {name: Index(name, self.memo) for keys in INDEXED.values() for name, *_ in keys}
        self._settings = self.table(Settings)
        self.pictures = self.table(Picture)
        self.layers, self.wordings = self.table(Layer), self.table(Wording)
        self.title_blocks, self.title_cells = self.table(TitleBlock), self.table(TitleCell)
        self.sheet_habits = self.table(SheetHabit)
        self.functions, self.locations = self.table(Function), self.table(Location)
        self.sheets = self.table(Sheet)
        self.wire_types = self.table(WireType)
        self.number_rules, self.tag_rules = self.table(NumberRule), self.table(TagRule)
        self.parts = self.table(Part)
        self.devices = self.table(Device)
        self.add_ons = self.table(AddOn)
        self.symbols, self.wires = self.table(Symbol), self.table(Wire)
        self.continuations = self.table(Continuation)
        self.notes, self.figures, self.bands = self.table(Note), self.table(Figure), self.table(Band)
        self.strips, self.strip_items = self.table(Strip), self.table(StripItem)
        self.bridges = self.table(Bridge)
        self.cables = self.table(Cable)
        self.core_choices, self.cable_ways = self.table(CoreChoice), self.table(CableWay)
        self.net_orders = self.table(NetOrder)
        self.racks, self.cards = self.table(Rack), self.table(Card)
        self.io_points, self.channel_circuits = self.table(IoPoint), self.table(ChannelCircuit)
        self.point_checks, self.check_signatures = self.table(PointCheck), self.table(CheckSignature)
        self.enclosures = self.table(Enclosure)
        self.rails, self.ducts = self.table(Rail), self.table(Duct)
        self.lanes, self.crossings = self.table(Lane), self.table(Crossing)
        self.placings, self.passages = self.table(Placing), self.table(Passage)
        self.harnesses, self.nodes = self.table(Harness), self.table(Node)
        self.segments, self.coverings = self.table(Segment), self.table(Covering)
        self.blocks, self.seats, self.strands = self.table(Block), self.table(Seat), self.table(Strand)
        self.harness_shields, self.harness_variants = self.table(HarnessShield), self.table(HarnessVariant)
        self.variant_parts, self.mutes = self.table(VariantPart), self.table(Mute)
        self.packs, self.recipes, self.revisions = self.table(Pack), self.table(Recipe), self.table(Revision)
        self.stamps = self.table(Stamp)
        dict.__setitem__(self._settings, SETTINGS_ID, Settings())
        self.on_sheet: dict[str, Index] = {kind: Index("", self.memo) for kind in ON_SHEET}
        self.symbols_of_device, self.devices_of_part = map(self.index, ("symbols_of_device", "devices_of_part"))
        self.devices_tagged, self.devices_lettered = map(self.index, ("devices_tagged", "devices_lettered"))
        self.continuations_named, self.numbered_wires = map(self.index, ("continuations_named", "numbered_wires"))
        self.points_of_card, self.items_of_strip = map(self.index, ("points_of_card", "items_of_strip"))
        self.bridges_of_strip, self.circuits_of_symbol = map(self.index, ("bridges_of_strip", "circuits_of_symbol"))
        self.checks_of_point, self.passages_of = map(self.index, ("checks_of_point", "passages_of"))
        self.cells_of_block, self.sheets_about = map(self.index, ("cells_of_block", "sheets_about"))
        self.seats_on, self.seats_mating = map(self.index, ("seats_on", "seats_mating"))
        self.strands_of = self.index("strands_of")
        self.attached, self.add_ons_of = map(self.index, ("attached", "add_ons_of"))
        self._begin()

    def _begin(self) -> None:
        # What was stored beyond the bounds of its field, by (kind, id): the record as it is used, and what was wrong.
        self.put_right: dict[tuple[str, str], tuple[Entity, dict[str, str]]] = {}
        self.stamp = next(_stamps)
        # What other packages remember under their own key to be faster the next time; it is not read for any result.
        self.kept: dict[str, Any] = {}

    @property
    def settings(self) -> Settings:
        """The project's settings record."""
        return self._settings[SETTINGS_ID]

    def table(self, entity: type[E]) -> Table[E]:
        """Return the table of a kind by its class."""
        return self.tables[kind_of(entity).name]

    def on(self, sheet_id: str, entity: type[E]) -> list[E]:
        """Return what is on a sheet of a kind, in the order it was put there."""
        kind = kind_of(entity).name
        found: list[E] = self.tables[kind].all_of(self.on_sheet[kind].get(sheet_id))
        return found

    def index(self, name: str) -> Index:
        """Return an index that a kind declares, by its name."""
        return self._indexes[name]

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
        return self.on(sheet_id, Continuation)

    def notes_on(self, sheet_id: str) -> list[Note]:
        """Return the notes of a sheet."""
        return self.on(sheet_id, Note)

    def figures_on(self, sheet_id: str) -> list[Figure]:
        """Return the figures of a sheet."""
        return self.on(sheet_id, Figure)

    def units_of(self, device_id: str) -> list[Symbol]:
        """Return the symbols of a device in the order they were placed."""
        return [self.symbols[i] for i in self.symbols_of_device.get(device_id)]

    def sheets_in_order(self) -> list[Sheet]:
        """Return the sheets in the project's order."""
        return list(_sheets_in_order(self))

    def types_in_order(self) -> list[WireType]:
        """Return the wire types in the order in which they were made: what takes the first that does relies on it."""
        return sorted(self.wire_types.values(), key=lambda t: t.id)

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

    def naming(self, kind: str, field: str, id: str) -> list[Any]:
        """Return the records of a kind that name something in a field: by an index where there is one."""
        table = self.tables[kind]
        index = next((self._indexes[name] for name, by, *_ in INDEXED[kind] if by == field), None)
        if field == "sheet_id":
            index = self.on_sheet[kind]
        found = table.values() if index is None else [table[i] for i in index.get(id) if i in table]
        return [record for record in found if getattr(record, field) == id]

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

    def at_rest(self) -> Project:
        """Return the project itself, taken to stay as it is: what it takes to compute is less; a change ends that."""
        self.memo.rest()
        return self

    def load(self, kind: str, entities: Iterable[Entity]) -> None:
        """Put many entities of one kind into an empty table, as when a stored project is loaded.

        What breaks a bound is put right, and noted in `put_right`.
        """
        put = partial(dict.__setitem__, self.tables[kind])
        good, faults = put_right(KINDS[kind], list(entities))
        for entity in good:
            put(entity.id, entity)
            self._index(kind, entity)
            if entity.id in faults:
                self.put_right[kind, entity.id] = (entity, faults[entity.id])
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
        for name, _, key, empty in INDEXED[kind]:
            old, new = (_known(key, empty, r) for r in (before, after))
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
        for name, _, key, empty in INDEXED[kind]:
            value = _known(key, empty, record)
            if value is not None:
                self._indexes[name].add(value, record.id)


def _known(key: Callable[[Any], str], empty: bool, record: Entity | None) -> str | None:
    """Return a record's key in an index, None where it has none."""
    value = key(record) if record is not None else None
    return value if value or empty else None


@derived
def _sheets_in_order(project: Project) -> tuple[Sheet, ...]:
    return tuple(sorted(project.sheets.values(), key=lambda s: (s.order, s.id)))


@derived
def _with_add_ons(project: Project, device_id: str) -> Part:
    part = project.parts[project.devices[device_id].part_id]
    return with_units_of(part, project.add_ons_to(device_id))
