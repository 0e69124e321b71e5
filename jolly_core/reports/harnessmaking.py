"""What a harness shop works from, for each way in which a harness is built: wires to cut, parts, steps, labels."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from jolly_core.cables import copper_of
from jolly_core.harness import (
    CavityRow,
    HarnessWire,
    brings,
    builds_of,
    cables_of,
    connectors_in,
    covered,
    harnesses,
    is_splice,
    node_name,
    probes,
    rows_in,
    size_words,
    strand_of,
    tree_in,
    trunk,
    wires_in,
)
from jolly_core.model import Device, Harness, Part, Project, counted, length_in
from jolly_core.tagging import device_at, full_tag, natural, pin_name, pins_of
from jolly_core.wiring import PinKey

from .registry import Cell, Column, Row, report

_HEAD = (Column("harness", "Harness", 10), Column("variant", "Variant", 10))


@dataclass(slots=True, frozen=True)
class _Build:
    """A way in which a harness is built: its variant, "" for none, and how many."""

    project: Project
    harness: Harness
    variant_id: str
    variant: str
    quantity: int

    @property
    def head(self) -> tuple[str, str]:
        return self.harness.code, self.variant

    @property
    def wires(self) -> list[HarnessWire]:
        return wires_in(self.project, self.harness.id, self.variant_id)

    @property
    def connectors(self) -> list[Device]:
        return connectors_in(self.project, self.harness.id, self.variant_id)

    def shown(self, length_mm: float) -> str:
        return length_in(self.project.settings.length_unit, length_mm)

    def rows(self, device_id: str) -> list[CavityRow]:
        return rows_in(self.project, self.harness.id, device_id, self.variant_id)


def _builds(project: Project) -> Iterator[_Build]:
    for harness in harnesses(project):
        for id, name, quantity in builds_of(project, harness.id):
            yield _Build(project, harness, id, name, quantity)


@report(
    "harness-wires",
    "Harness cut list",
    "Every wire of each harness and variant: how many to cut, with contact, tool and strip at each end.",
    (
        *_HEAD,
        Column("pieces", "Pieces", 7, number=True),
        Column("wire", "Wire", 10),
        Column("type", "Type", 16),
        Column("colour", "Colour", 7),
        Column("size", "Size", 8),
        Column("length_mm", "Length mm", 9, number=True),
        Column("spare_mm", "Spare mm", 8, number=True),
        Column("from", "From", 20),
        Column("from_contact", "Contact", 12),
        Column("from_tool", "Tool", 10),
        Column("from_strip_mm", "Strip mm", 8, number=True),
        Column("from_seal", "Seal", 10),
        Column("to", "To", 20),
        Column("to_contact", "Contact", 12),
        Column("to_tool", "Tool", 10),
        Column("to_strip_mm", "Strip mm", 8, number=True),
        Column("to_seal", "Seal", 10),
        Column("twisted", "Twisted", 8),
        Column("shield", "Shield", 8),
    ),
)
def harness_wire_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return the wires of each harness and variant, by type, then length; one without a length says why."""
    rows: list[tuple[Cell, ...]] = []
    for build in _builds(project):
        found = []
        cores = cables_of(project, build.harness.id)
        for wire in build.wires:
            c = wire.conductor
            wire_type = c.wire_type(project)
            strand = strand_of(project, build.harness.id, c.key)
            name = wire_type.name if wire_type else ""
            facts = (c.number, name, wire_type.colour if wire_type else "", size_words(wire_type))
            if c.key in cores:
                device = project.devices[cores[c.key][0]]
                name = f"core of {full_tag(project, device)}"
                facts = (c.number, name, cores[c.key][1], copper_of(project, c).size.removesuffix(" mm²"))
            length: Cell = wire.missing if wire.length_mm is None else wire.length_mm
            ends = [cell for pin in (c.start, c.end) for cell in _end(build, pin)]
            said = (strand.twisted, strand.shield) if strand else ("", "")
            cells = (*build.head, build.quantity, *facts, length, wire.spare_mm or "", *ends, *said)
            found.append(((name, wire.length_mm or 0.0, natural(c.number)), Row.of(cells, c.wire_id or c.start[0])))
        rows += [row for _, row in sorted(found, key=lambda pair: pair[0])]
    return rows


def _end(build: _Build, pin: PinKey) -> tuple[Cell, ...]:
    """Return pin, contact, its tool, strip length and seal of an end of a wire."""
    project = build.project
    device = device_at(project, pin)
    symbol = project.symbols[pin[0]]
    name = pins_of(project, symbol)[pin[1]]
    # Cavities without a name, beside all that the housing has, are told apart by what is in them.
    named = (r for r in build.rows(device.id) if r.cavity == name) if device else iter(())
    row = next((r for r in named if name or any(pin in (c.start, c.end) for c in r.conductors)), None)
    if row is None:
        return pin_name(project, pin), "", "", "", ""
    tool = row.contact.ratings.get("tool", "") if row.contact else ""
    contact = row.contact.number if row.contact else ""
    return pin_name(project, pin), contact, tool, row.strip_mm, row.seal.number if row.seal else ""


@report(
    "harness-parts",
    "Harness parts",
    "What each harness and variant takes: for one, and for all that are built.",
    (
        *_HEAD,
        Column("quantity", "Built", 7, number=True),
        Column("class", "Class", 16),
        Column("number", "Part number", 18),
        Column("text", "Description", 38),
        Column("unit", "Unit", 6, measure="unit"),
        Column("each", "For one", 9, number=True, measure="amount"),
        Column("total", "For all", 10, number=True, measure="amount"),
        Column("where", "For", 30),
    ),
)
def harness_part_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return the parts of each harness and variant: housings, contacts, seals, plugs, clips, coverings, wire."""
    rows: list[tuple[Cell, ...]] = []
    for build in _builds(project):
        for (kind, number, text, unit), (each, users) in sorted(_parts(build).items(), key=_in_order):
            amount = round(each, 3)
            facts = (build.quantity, kind, number, text, unit, amount, round(each * build.quantity, 3))
            part = project.part_named(number)
            lead = part.id if part else build.harness.id
            rows.append(Row.of((*build.head, *facts, ", ".join(sorted(users, key=natural))), lead))
    return rows


_Kind = tuple[str, str, str, str]  # class, number, text, unit


def _in_order(part: tuple[_Kind, tuple[float, set[str]]]) -> tuple[object, ...]:
    (kind, number, text, unit), _ = part
    return kind, natural(number), text, unit


def _parts(build: _Build) -> dict[_Kind, tuple[float, set[str]]]:
    """Return how much one of a build takes of each part, and for what."""
    project = build.project
    found: dict[_Kind, tuple[float, set[str]]] = {}

    def add(key: _Kind, amount: float, user: str) -> None:
        before, users = found.get(key, (0.0, set()))
        found[key] = (before + amount, users | {user})

    for device in build.connectors:
        tag, part = full_tag(project, device), project.part_of(device)
        own = brings(project, build.harness.id, device.id)
        for piece in [p for p in (part, *project.add_ons_to(device.id)) if p is not None and own]:
            add((piece.part_class, piece.number, piece.text, "pcs"), 1, tag)
        for row in build.rows(device.id):
            contact = row.contact
            if contact is not None and row.conductors and (part is None or contact.id != part.id):
                add((contact.part_class, contact.number, contact.text, "pcs"), len(row.conductors), tag)
            if row.seal is not None and (row.conductors or own):
                add((row.seal.part_class, row.seal.number, row.seal.text, "pcs"), len(row.conductors) or 1, tag)
    for node in tree_in(project, build.harness.id, build.variant_id).nodes:
        clip = project.parts.get(node.part_id)
        if clip is not None:
            add((clip.part_class, clip.number, clip.text, "pcs"), 1, node_name(project, node))
    for stretch in covered(project, build.harness.id, build.variant_id):
        if stretch.part is not None:
            part = stretch.part
            add((part.part_class, part.number, part.text, "m"), stretch.used_mm / 1000, "covering")
    for part, length, tag in _cables(build):
        add((part.part_class, part.number, part.text, "m"), length / 1000, tag)
    cores = cables_of(project, build.harness.id)
    for wire in build.wires:
        wire_type = wire.conductor.wire_type(project)
        if wire_type is not None and wire.length_mm is not None and wire.conductor.key not in cores:
            words = f"{size_words(wire_type)} {wire_type.colour}".strip()
            add(("wire", wire_type.name, words, "m"), wire.length_mm / 1000, "wires")
    return found


def _cables(build: _Build) -> Iterator[tuple[Part, float, str]]:
    """Yield part, length in mm and tag of each cable of a build: as long as the longest of its cores."""
    project, cores = build.project, cables_of(build.project, build.harness.id)
    lengths: dict[str, float] = {}
    for wire in build.wires:
        if wire.conductor.key in cores and wire.length_mm is not None:
            id = cores[wire.conductor.key][0]
            lengths[id] = max(lengths.get(id, 0.0), wire.length_mm)
    for id, length in lengths.items():
        part = project.part_of(project.devices[id])
        if part is not None:
            yield part, length, full_tag(project, project.devices[id])


@report(
    "assembly",
    "Assembly order",
    "How each harness is built, step by step: cut, join, crimp, lay, fill, cover, fix, label, test.",
    (*_HEAD, Column("step", "Step", 6, number=True), Column("act", "Act", 10), Column("what", "What", 70)),
)
def assembly_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return the steps of each harness and variant in the order in which they are done."""
    rows: list[tuple[Cell, ...]] = []
    for build in _builds(project):
        steps = [step for part in (_cutting, _crimping, _laying, _filling, _dressing) for step in part(build)]
        numbered = enumerate(steps, start=1)
        rows += [Row.of((*build.head, n, act, what), build.harness.id) for n, (act, what) in numbered]
    return rows


_Step = tuple[str, str]


def _cutting(build: _Build) -> Iterator[_Step]:
    """Yield a step for each type and length of wire to cut, and for each group to twist or put into a shield."""
    lots: dict[tuple[str, float], list[str]] = {}
    groups: dict[tuple[str, str], list[str]] = {}
    cores = cables_of(build.project, build.harness.id)
    for wire in build.wires:
        c = wire.conductor
        wire_type = c.wire_type(build.project)
        if wire.length_mm is not None and c.key not in cores:
            lots.setdefault((wire_type.name if wire_type else "", wire.length_mm), []).append(c.number)
        strand = strand_of(build.project, build.harness.id, c.key)
        for act, name in (("twist", strand.twisted), ("shield", strand.shield)) if strand else ():
            if name:
                groups.setdefault((act, name), []).append(c.number)
    for (name, length), wires in sorted(lots.items(), key=lambda lot: (natural(lot[0][0]), lot[0][1])):
        numbers = ", ".join(sorted(wires, key=natural))
        yield "cut", f"{counted(len(wires), 'wire')} of {name}, {build.shown(length)}: {numbers}"
    for part, length, tag in _cables(build):
        yield "cut", f"cable {tag} of {part.number}, {build.shown(length)}"
    for (act, name), wires in sorted(groups.items(), key=lambda group: (group[0][0], natural(group[0][1]))):
        yield act, f"{name}: {', '.join(sorted(wires, key=natural))}"


def _crimping(build: _Build) -> Iterator[_Step]:
    """Yield a step for each contact with its tool, then for each splice."""
    crimps: dict[tuple[str, str, float], int] = {}
    splices: list[_Step] = []
    for device in build.connectors:
        for row in build.rows(device.id):
            if not row.conductors:
                continue
            if is_splice(build.project, device.id):
                legs = ", ".join(sorted((c.number for c in row.conductors), key=natural))
                what = f"{full_tag(build.project, device)}, {counted(len(row.conductors), 'leg')}: {legs}"
                splices.append(("splice", what))
            elif row.contact is not None:
                key = (row.contact.number, row.contact.ratings.get("tool", ""), row.strip_mm)
                crimps[key] = crimps.get(key, 0) + len(row.conductors)
    for (number, tool, strip), count in sorted(crimps.items(), key=lambda crimp: (natural(crimp[0][0]), crimp[0][1:])):
        with_tool = f" with {tool}" if tool else ""
        yield "crimp", f"{counted(count, 'contact')} {number}{with_tool}, strip {build.shown(strip)}"
    yield from splices


def _laying(build: _Build) -> Iterator[_Step]:
    """Yield a step for each wire: those along the trunk first, the longest of them first."""
    project = build.project
    main = set(trunk(tree_in(project, build.harness.id, build.variant_id)))

    def place(wire: HarnessWire) -> tuple[object, ...]:
        along = sum(s.length_mm for s in wire.segments if s.a_id in main and s.b_id in main)
        return -along, -(wire.length_mm or 0.0), natural(wire.conductor.number)

    for wire in sorted(build.wires, key=place):
        c = wire.conductor
        yield "lay", f"{c.number} from {pin_name(project, c.start)} to {pin_name(project, c.end)}"


def _filling(build: _Build) -> Iterator[_Step]:
    """Yield a step for each connector: its cavities with their wires, its plugs."""
    for device in build.connectors:
        if is_splice(build.project, device.id):
            continue
        rows = build.rows(device.id)
        filled = [f"{row.cavity} {' + '.join(c.number for c in row.conductors)}" for row in rows if row.conductors]
        own = brings(build.project, build.harness.id, device.id)
        plugs = [row for row in rows if row.seal is not None and not row.conductors and own]
        words = ", ".join(filled) or "no wires"
        if plugs:
            words += f"; {counted(len(plugs), 'plug')} {plugs[0].seal.number if plugs[0].seal else ''}".rstrip()
        part = build.project.part_of(device)
        yield "fill", f"{full_tag(build.project, device)} {part.number if part else ''}".rstrip() + f": {words}"


def _dressing(build: _Build) -> Iterator[_Step]:
    """Yield the last steps: coverings, clips, labels, the test."""
    project, harness = build.project, build.harness
    for stretch in covered(project, harness.id, build.variant_id):
        segment = project.segments[stretch.covering.segment_id]
        ends = " to ".join(node_name(project, project.nodes[id]) for id in (segment.a_id, segment.b_id))
        number = stretch.part.number if stretch.part else "covering without a part"
        length, start = build.shown(stretch.length_mm), build.shown(stretch.from_mm)
        yield "cover", f"{number}, {length}, on {ends} from {start}"
    for node in tree_in(project, harness.id, build.variant_id).nodes:
        if node.sort == "clip":
            part = project.parts.get(node.part_id)
            yield "fix", f"{node_name(project, node)} {part.number if part else ''}".rstrip()
    yield "label", f"{harness.code} {build.variant}".strip() + f" and {counted(len(build.connectors), 'end')}"
    found = list(probes(project, harness.id, build.variant_id))
    yield (
        "test",
        f"{counted(sum(p.conducts for p in found), 'pair')} that conduct, {sum(not p.conducts for p in found)} not",
    )


@report(
    "harness-labels",
    "Harness labels",
    "Labels of each harness and variant: for the harness, each connector, and both ends of each wire.",
    (
        *_HEAD,
        Column("count", "Labels", 7, number=True),
        Column("kind", "Kind", 10),
        Column("text", "Text", 30),
        Column("at", "At", 30),
    ),
)
def harness_label_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return the labels of each harness and variant."""
    rows: list[tuple[Cell, ...]] = []
    for build in _builds(project):
        head = (*build.head, build.quantity)
        name = f"{build.harness.code} {build.variant}".strip()
        rows.append(Row.of((*head, "harness", name, build.harness.text), build.harness.id))
        at_mm = build.harness.label_mm
        for device in build.connectors:
            far = f"{build.shown(at_mm)} from {full_tag(project, device)}" if at_mm else device.text
            rows.append(Row.of((*head, "end", full_tag(project, device), far), device.id))
        for wire in build.wires:
            c = wire.conductor
            for here, there in ((c.start, c.end), (c.end, c.start)):
                words = f"{c.number} {pin_name(project, there)}".strip()
                rows.append(Row.of((*head, "wire end", words, pin_name(project, here)), here[0]))
    return rows
