"""Pieces of circuit: what is selected with all it needs, to be put down again in this or another project.

A piece holds whole records as they were taken. What is put down has ids, tags and numbers of its own; a contact taken
together with its coil belongs to the new coil, one taken alone to the old one where that is still in the project.
Wire types, parts, functions, locations and pictures that the project lacks come along.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from jolly_core.drawing import SheetDraft, grid_size, pin_points
from jolly_core.library import definition, is_class, is_known, part_class
from jolly_core.model import (
    KINDS,
    ON_SHEET,
    Device,
    FileError,
    Function,
    Location,
    Part,
    Project,
    RuleError,
    Sheet,
    Symbol,
    WireType,
    circles,
    from_record,
    places_of,
    shifted,
    to_record,
)
from jolly_core.tagging import lead_of, letters_for, naming, next_number, renamed_at, tag_taken

from ..base.edit import Work
from ..devices.parts import give_part, take_contacts
from ..draw.place import put_symbol

FORMAT = "jolly-spool-piece"
# What is on a sheet beside symbols and wires, which are put down by rules of their own.
OTHERS = tuple(kind for kind in ON_SHEET if kind not in ("symbol", "wire"))
# Kinds whose records a copied device brings along, because they belong to it.
ALONG = tuple(kind for kind, spec in KINDS.items() if spec.comes_along)
PLACES = ("function", "location")


def _held() -> tuple[str, ...]:
    """Return the kinds a piece may hold: what is on a sheet, all that it names, and what devices bring along."""
    held, more = set[str](), {*ON_SHEET, *ALONG}
    while more:
        held |= more
        more = {m.kind for kind in held for m in KINDS[kind].names.values() if m.kind != "sheet"} - held
    return tuple(kind for kind in KINDS if kind in held)


HELD = _held()
MOST = 4000


@dataclass(slots=True)
class Piece:
    """A piece of circuit.

    Attributes:
        tables: kind -> id -> record, for the kinds in HELD.
        leads: devices whose lead symbol is in the piece: putting it down makes new ones.
        function_id, location_id: of the sheet it was taken from; what is of these follows the sheet it is put on.
    """

    tables: dict[str, dict[str, Any]]
    leads: set[str]
    function_id: str = ""
    location_id: str = ""

    def of(self, kind: str) -> Iterable[Any]:
        """Return the records of a kind in the order of their ids."""
        table = self.tables[kind]
        return [table[id] for id in sorted(table)]

    def box(self) -> tuple[int, int, int, int]:
        """Return (left, top, right, bottom) of all grid points of the piece.

        Raises:
            RuleError: nothing is drawn in it.
        """
        points = [p for s in self.of("symbol") for p in pin_points(s)]
        points += [p for kind in ("wire", *OTHERS) for e in self.of(kind) for p in places_of(e)]
        if not points:
            raise RuleError("There is nothing drawn in this piece. Select symbols and wires first.")
        xs, ys = [x for x, _ in points], [y for _, y in points]
        return min(xs), min(ys), max(xs), max(ys)


@dataclass(slots=True)
class Wishes:
    """What a person wants otherwise when a piece is put down, by the ids it has in the piece.

    Attributes:
        texts: texts of devices and notes, names of continuations.
        parts: parts of devices, ids or numbers of the library.
        tags: fixed tags of devices.
        types: wire types of the project in place of those of the piece.
        function_id, location_id: in place of the sheet's.
        keep_fixed: fixed tags and numbers stay where nobody has them.
    """

    texts: Mapping[str, str] = field(default_factory=dict)
    parts: Mapping[str, str] = field(default_factory=dict)
    tags: Mapping[str, str] = field(default_factory=dict)
    types: Mapping[str, str] = field(default_factory=dict)
    function_id: str = ""
    location_id: str = ""
    keep_fixed: bool = False


def piece_of(project: Project, sheet_id: str, ids: Iterable[str]) -> Piece:
    """Return what is selected on a sheet as a piece, with the devices, types, parts and places it names."""
    sheet = project.sheets[sheet_id]
    tables: dict[str, dict[str, Any]] = {kind: {} for kind in HELD}
    for id in ids:
        for kind in ON_SHEET:
            if id in project.tables[kind]:
                tables[kind][id] = project.tables[kind][id]
    leads: set[str] = set()
    for symbol in tables["symbol"].values():
        if symbol.device_id in project.devices:
            lead = lead_of(project, symbol.device_id)
            if lead is not None and lead.id == symbol.id and not _endless(lead):
                leads.add(symbol.device_id)
    for kind in ON_SHEET:
        for record in list(tables[kind].values()):
            _with_named(project, kind, record, tables)
    for device_id in list(tables["device"]):
        for id in project.attached.get(device_id):
            for kind in ALONG:
                if id in project.tables[kind]:
                    tables[kind][id] = project.tables[kind][id]
                    _with_named(project, kind, tables[kind][id], tables)
    for kind in PLACES:
        _bring(project, kind, getattr(sheet, f"{kind}_id"), tables)
    return Piece(tables, leads, sheet.function_id, sheet.location_id)


def _endless(symbol: Symbol) -> bool:
    return part_class(definition(symbol.definition).part_class).per_unit


def _with_named(project: Project, kind: str, record: Any, tables: dict[str, dict[str, Any]]) -> None:
    """Put into the tables of a piece what a record names, and what that names."""
    for name, mark in KINDS[kind].names.items():
        if mark.kind in tables:
            _bring(project, mark.kind, getattr(record, name), tables)


def _bring(project: Project, kind: str, id: str, tables: dict[str, dict[str, Any]]) -> None:
    found = project.tables[kind].get(id)
    if found is not None and id not in tables[kind]:
        tables[kind][id] = found
        _with_named(project, kind, found, tables)


def piece_to_json(piece: Piece) -> dict[str, Any]:
    """Return a piece as JSON values; the same piece always gives the same."""
    return {
        "format": FORMAT,
        "version": 1,
        "function_id": piece.function_id,
        "location_id": piece.location_id,
        "leads": sorted(piece.leads),
        "entities": {k: [to_record(e) for e in piece.of(k)] for k in HELD if piece.tables[k]},
    }


def piece_from_json(raw: Any) -> Piece:
    """Return the piece that `piece_to_json` wrote, checked throughout.

    Raises:
        FileError: it is no piece, or something in it is wrong.
    """
    if not isinstance(raw, dict) or raw.get("format") != FORMAT or raw.get("version") != 1:
        raise FileError("This is no piece of circuit. Copy something on a sheet first.")
    entities = raw.get("entities")
    if not isinstance(entities, dict) or any(not isinstance(v, list) for v in entities.values()):
        raise FileError("The piece has no entities.")
    if sum(len(records) for records in entities.values()) > MOST:
        raise FileError(f"The piece holds more than {MOST} things. Copy less at a time.")
    tables: dict[str, dict[str, Any]] = {kind: {} for kind in HELD}
    for kind, records in entities.items():
        if kind not in HELD:
            raise FileError(f"A piece does not hold a {kind}.")
        for record in records:
            entity = from_record(kind, record)
            tables[kind][entity.id] = entity
    leads = raw.get("leads", [])
    home = (raw.get("function_id", ""), raw.get("location_id", ""))
    brought = isinstance(leads, list) and all(isinstance(id, str) and id in tables["device"] for id in leads)
    if not brought or set(map(type, home)) != {str}:
        raise FileError("The piece does not say which devices it brings along.")
    piece = Piece(tables, set(leads), *home)
    _check(piece)
    return piece


def _check(piece: Piece) -> None:
    """Refuse a piece that names what it does not hold, or symbols and classes that are not known."""
    t = piece.tables
    for kind in HELD:
        for id, name in circles(KINDS[kind], t[kind]):
            raise FileError(f"In the piece the {kind} {id} names itself by its “{name}”, over others or at once.")
        for name, mark in KINDS[kind].names.items():
            if mark.kind not in HELD or mark.kind in PLACES:
                continue  # functions and locations may be those of the sheet, which do not come along
            for record in t[kind].values():
                named = getattr(record, name)
                if named not in t[mark.kind] and (named or mark.needed):
                    raise FileError(f"In the piece a {kind} names a {mark.kind} that is not in it.")
    for symbol in t["symbol"].values():
        if not is_known(symbol.definition):
            raise FileError(f"The piece has a symbol “{symbol.definition}”, which is not known here.")
        if not symbol.units:
            raise FileError("The piece has a symbol that cannot be placed.")
        definition(symbol.definition)
    for part in t["part"].values():
        if not is_class(part.part_class):
            raise FileError(f"The piece has a part of the class “{part.part_class}”, which is not known here.")


def put_piece(work: Work, draft: SheetDraft, piece: Piece, dx: int, dy: int, wishes: Wishes | None = None) -> list[str]:
    """Put a piece on a sheet, close the draft, and return the ids of what is drawn, symbols first.

    Args:
        draft: the open sheet.
        dx, dy: how far from where the piece was taken, grid steps.

    Raises:
        RuleError: something would lie outside the sheet, or on another thing.
    """
    return _Putting(work, draft, piece, wishes or Wishes()).run(dx, dy)


class _Putting:
    """One act of putting a piece down: what becomes of each thing the piece names."""

    def __init__(self, work: Work, draft: SheetDraft, piece: Piece, wishes: Wishes) -> None:
        self.work, self.draft, self.piece, self.wishes = work, draft, piece, wishes
        self.project = work.project
        self.sheet: Sheet = work.project.sheets[draft.sheet_id]
        self.devices: dict[str, str] = {}
        self.types: dict[str, str] = {}
        self.made: list[str] = []
        self.groups: dict[str, str] = {}

    def run(self, dx: int, dy: int) -> list[str]:
        piece, draft = self.piece, self.draft
        self.types = {id: self._type(t) for id, t in sorted(piece.tables["wire_type"].items())}
        for device in piece.of("device"):
            self.devices[device.id] = self._device(device)
        for w in piece.of("wire"):
            number = w.number if self.wishes.keep_fixed and not self.project.numbered_wires.has(w.number) else ""
            draft.stroke((w.x1 + dx, w.y1 + dy), (w.x2 + dx, w.y2 + dy), self.types[w.type_id], number)
        others = [self._other(kind, record, dx, dy) for kind in OTHERS for record in piece.of(kind)]
        placed = [self._symbol(s, dx, dy).id for s in piece.of("symbol")]
        self._inside()
        self.work.close(draft)
        self._parts()
        return placed + others

    def _other(self, kind: str, record: Any, dx: int, dy: int) -> str:
        """Put down what is neither a symbol nor a wire, and return its id."""
        words = {name: self.wishes.texts[record.id] for name in _said(kind) if record.id in self.wishes.texts}
        words |= {"id": self.work.ids.new(), "together": self._together(record)}
        made = shifted(record, dx, dy, **self._named(kind, record), **words)
        if kind == "continuation" and any((c.x, c.y) == (made.x, made.y) for c in self.draft.continuations.values()):
            raise RuleError(f"The continuation {made.name} would lie on another one. Choose another place.")
        self.draft.tables[kind][made.id] = made
        return str(made.id)

    def _named(self, kind: str, record: Any) -> dict[str, str]:
        """Return what each field of a record of the piece names once it is put down."""
        found: dict[str, str] = {}
        for name, mark in KINDS[kind].names.items():
            id = getattr(record, name)
            if mark.kind == "sheet":
                found[name] = self.sheet.id
            elif id and mark.kind in PLACES:
                found[name] = self._place(mark.kind, id)
            elif id and mark.kind == "device":
                found[name] = self.devices[id]
            elif id and mark.kind == "wire_type":
                found[name] = self.types[id]
            elif id:
                found[name] = self._brought(mark.kind, id)
        return found

    def _together(self, record: Any) -> str:
        """Return what a copy moves together with: the copies of what its original does."""
        if not record.together:
            return ""
        known = self.groups.get(record.together)
        if known is None:
            known = self.groups[record.together] = self.work.ids.new()
        return known

    def _brought(self, kind: str, id: str) -> str:
        """Return the id of what comes along as it is, put into the project where it is not there; layers go by name."""
        if kind == "layer" and id not in self.project.layers:
            name = self.piece.tables[kind][id].name.lower()
            id = next((layer.id for layer in self.project.layers.values() if layer.name.lower() == name), id)
        if id not in self.project.tables[kind]:
            self.work.put(kind, self.piece.tables[kind][id])
        return id

    def _inside(self) -> None:
        width, height = grid_size(self.sheet)
        points = self.draft.pins()
        points += [p for w in self.draft.wires.values() for p in ((w.x1, w.y1), (w.x2, w.y2))]
        if any(not (0 < x < width and 0 < y < height) for x, y in points):
            raise RuleError("This would lie outside the sheet. Choose a place further in.")

    def _type(self, wire_type: WireType) -> str:
        """Return the project's wire type for one of the piece: itself, one of its name, or a copy that is added."""
        wished = self.wishes.types.get(wire_type.id)
        if wished:
            return wished
        types = self.project.wire_types
        if wire_type.id in types:
            return wire_type.id
        like = next((t for t in types.values() if t.name == wire_type.name), None)
        like = like or next((t for t in types.values() if _facts(t) == _facts(wire_type)), None)
        if like is not None:
            return like.id
        made = replace(wire_type, id=self.work.ids.new())
        self.work.put("wire_type", made)
        self.work.outcome.remarks.append(f"The wire type {made.name} came along.")
        return made.id

    def _place(self, kind: str, id: str) -> str:
        """Return the project's function or location for one of the piece, made where it is not there."""
        home = self.piece.function_id if kind == "function" else self.piece.location_id
        wished = self.wishes.function_id if kind == "function" else self.wishes.location_id
        if id == home:
            return wished or str(getattr(self.sheet, f"{kind}_id"))
        table: dict[str, Any] = self.project.tables[kind]
        if not id or id in table:
            return id
        record: Function | Location = self.piece.tables[kind].get(id) or self._lost(kind)
        parent = self._place(kind, record.parent_id) if record.parent_id in self.piece.tables[kind] else ""
        for known in table.values():
            if (known.code, known.parent_id) == (record.code, parent):
                return str(known.id)
        made = replace(record, id=self.work.ids.new(), parent_id=parent)
        self.work.put(kind, made)
        return made.id

    def _lost(self, kind: str) -> Any:
        raise FileError(f"In the piece a device names a {kind} that is not in it.")

    def _device(self, device: Device) -> str:
        """Return the device that units of one of the piece belong to: a new one, the old one, or none yet."""
        drawn = any(getattr(r, "device_id", "") == device.id for kind in OTHERS for r in self.piece.of(kind))
        if device.id in self.piece.leads or drawn:
            return self._new_device(device)
        if device.id in self.project.devices:
            return device.id
        strip = self._is_strip(device)
        if strip:
            return self._strip(device)
        return ""

    def _is_strip(self, device: Device) -> bool:
        own = [s for s in self.piece.of("symbol") if s.device_id == device.id]
        return bool(own) and all(_endless(s) for s in own)

    def _strip(self, device: Device) -> str:
        """Return the project's strip of the same tag and place, or a new one."""
        place = (self._place("function", device.function_id), self._place("location", device.location_id))
        for id in self.project.devices_tagged.get(f"{device.letters}{device.number}"):
            d = self.project.devices[id]
            if (d.function_id, d.location_id) == place:
                return id
        return self._new_device(device)

    def _new_device(self, device: Device) -> str:
        project, work = self.project, self.work
        function_id = self._place("function", device.function_id)
        location_id = self._place("location", device.location_id)
        fixed = self.wishes.tags.get(device.id, "")
        if not fixed and self.wishes.keep_fixed and not tag_taken(project, device.fixed_tag, function_id, location_id):
            fixed = device.fixed_tag
        key, place = self._class(device), (function_id, location_id)
        letters, number = (
            naming(project, key, place) if key else (device.letters, next_number(project, device.letters, *place))
        )
        made = replace(
            device,
            id=work.ids.new(),
            letters=letters,
            number=number,
            fixed_tag=fixed,
            text=self.wishes.texts.get(device.id, device.text),
            function_id=function_id,
            location_id=location_id,
        )
        part: Part | None = self.piece.tables["part"].get(device.part_id)
        if part is not None and part.id not in project.parts:
            work.put("part", part)
            take_contacts(work, part)
        work.put("device", made)
        self.devices[device.id] = made.id
        for kind in ALONG:
            for record in self.piece.of(kind):
                if record.device_id == device.id:
                    work.put(kind, replace(record, id=work.ids.new(), **self._named(kind, record)))
        self.made.append(made.id)
        return made.id

    def _class(self, device: Device) -> str:
        """Return the part class of a device of the piece: its part's, else that of its first lead symbol."""
        part: Part | None = self.piece.tables["part"].get(device.part_id)
        if part is not None:
            return part.part_class
        own = [definition(s.definition) for s in self.piece.of("symbol") if s.device_id == device.id]
        return min(own, key=lambda d: d.lead).part_class if own else ""

    def _symbol(self, s: Symbol, dx: int, dy: int) -> Symbol:
        device_id = self.devices.get(s.device_id, "")
        shape, turn = definition(s.definition), (s.rotation, s.mirror)
        at = (s.x + dx, s.y + dy)
        made = put_symbol(self.work, self.draft, shape, at, turn, len(s.units), device_id, "")
        if s.texts or s.layer_id or s.together:
            layer = self._brought("layer", s.layer_id) if s.layer_id else ""
            made = replace(made, texts=s.texts, layer_id=layer, together=self._together(s))
            self.draft.symbols[made.id] = made
        return made

    def _parts(self) -> None:
        """Give devices the parts that were wished for, and letters after their symbols now that these are there."""
        for old, number in self.wishes.parts.items():
            device = self.project.devices.get(self.devices.get(old, ""))
            if device is None or not number:
                continue
            part = self.project.parts.get(number) or self.work.library.part(number)
            if part is None:
                raise RuleError(f"There is no part {number} in the library. Type its whole number.", field="part")
            give_part(self.work, device, part.id)
        for id in self.made:
            device = self.project.devices[id]
            if letters_for(self.project, device) != device.letters:
                self.work.put("device", renamed_at(self.project, device, (device.function_id, device.location_id)))


def _said(kind: str) -> tuple[str, ...]:
    """Return the field that holds what a thing on a sheet says: the name of a continuation, the text of a note."""
    return tuple(name for name in ("name", "text") if name in KINDS[kind].fields)[:1]


def _facts(t: WireType) -> tuple[object, ...]:
    return t.colour, t.cross_section_mm2, t.awg, t.category, t.numbered, t.outside
