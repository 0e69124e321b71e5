"""The tables of a form board: the cavities of each connector, the legs of each splice."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from jolly_core.cables import copper_of
from jolly_core.harness import CavityRow, HarnessWire, is_splice, rows_in, wires_in
from jolly_core.model import Project, derived, shown_in
from jolly_core.tagging import full_tag, pin_name
from jolly_core.wiring import Conductor

from ..base.lettering import fit
from ..base.primitives import Line, Prim, Rect, RoleName, block_link, pin_link, text

ROW_MM = 9.0
SIZE_MM = 5.5
SMALLEST_MM = 3.0
_CONNECTOR = (
    *(("Cav", 14.0), ("Wire", 28.0), ("Col", 18.0), ("Size", 20.0)),
    *(("Contact", 40.0), ("Strip", 18.0), ("Seal", 30.0), ("To", 56.0)),
)
_SPLICE = (("Wire", 28.0), ("Col", 18.0), ("Size", 20.0), ("Strip", 18.0), ("Length", 52.0), ("To", 56.0))


@dataclass(slots=True, frozen=True)
class BoardTable:
    """A table of a form board before it has a place: its heading, columns with widths in mm, and rows."""

    device_id: str
    head: str
    columns: tuple[tuple[str, float], ...]
    rows: tuple[tuple[str, ...], ...]
    ways: tuple[str, ...] = ()  # for each row the link to the pin it leads to

    @property
    def width(self) -> float:
        """Its width, mm."""
        return sum(width for _, width in self.columns)

    @property
    def height(self) -> float:
        """Its height, mm."""
        return ROW_MM * (len(self.rows) + 2)


@derived
def table_size(project: Project, node_id: str, variant_id: str) -> tuple[float, float]:
    """Return width and height of a table, mm: where other words of it leave that, its place is not looked for anew."""
    table = table_of(project, node_id, variant_id)
    return table.width, table.height


@derived
def table_prims(project: Project, node_id: str, variant_id: str) -> list[Prim]:
    """Return a table as it is drawn, its upper left corner at (0, 0); not to be changed."""
    table = table_of(project, node_id, variant_id)
    shown, size = fit(table.head, table.width - 2, SIZE_MM + 0.6, SMALLEST_MM)
    prims: list[Prim] = [
        Rect(0, 0, table.width, table.height, "fine", "paper"),
        text(1, ROW_MM - 2.4, size, shown, role="tag", link=block_link(table.device_id)),
    ]
    for n, row in enumerate((tuple(name for name, _ in table.columns), *table.rows), start=1):
        top = n * ROW_MM
        prims.append(Line(0, top, table.width, top, "thin"))
        way = table.ways[n - 2] if 0 <= n - 2 < len(table.ways) else ""
        prims += _cells(table.columns, row, top, "heading" if n == 1 else "label", way)
    return prims


def _cells(
    columns: tuple[tuple[str, float], ...], row: tuple[str, ...], top: float, role: RoleName, way: str
) -> Iterator[Prim]:
    """Yield the words of a row; the last column leads to the pin it names."""
    left = 0.0
    for at, (value, (_, room)) in enumerate(zip(row, columns, strict=True), start=1):
        if value:
            shown, size = fit(value, room - 2, SIZE_MM, SMALLEST_MM)
            link = way if at == len(row) else ""
            yield text(left + 1, top + ROW_MM - 2.4, size, shown, role=role, link=link)
        left += room


@derived
def table_of(project: Project, node_id: str, variant_id: str) -> BoardTable:
    """Return the table of a connector or splice in its harness or a variant of that."""
    node = project.nodes[node_id]
    device = project.devices[node.device_id]
    part = project.part_of(device)
    # The text stands last: it is what may be cut short.
    head = "  ".join(filter(None, (full_tag(project, device), part.number if part else "", device.text)))
    rows = rows_in(project, node.harness_id, device.id, variant_id)
    if is_splice(project, device.id):
        lengths = {w.conductor.key: w for w in wires_in(project, node.harness_id, variant_id)}
        legs = [_leg(project, row, c, n, lengths) for row in rows for n, c in enumerate(row.conductors)]
        words = f"{head}  {len(legs)} legs{', cut equal' if node.equal_legs else ''}"
        ways = tuple(pin_link(far) for row in rows for far in row.far)
        return BoardTable(device.id, words, _SPLICE, tuple(legs), ways)
    sealed = any(row.seal for row in rows)
    columns = tuple(c for c in _CONNECTOR if sealed or c[0] != "Seal")
    lines = [line for row in rows for line in _cavity(project, row, sealed)]
    ways = tuple(way for row in rows for way in (map(pin_link, row.far) if row.conductors else ("",)))
    side = "mating side" if node.from_mating else "wire side"
    return BoardTable(device.id, f"{head}  {side}", columns, tuple(lines), ways)


def _wire(project: Project, c: Conductor) -> tuple[str, str, str]:
    copper = copper_of(project, c)
    return c.number, copper.colour, copper.size.removesuffix(" mm²")


def _cavity(project: Project, row: CavityRow, sealed: bool) -> list[tuple[str, ...]]:
    seal = (row.seal.number if row.seal else "",) if sealed else ()
    if not row.conductors:
        return [(row.cavity, "", "", "", "", "", *seal, f"in {row.elsewhere}" if row.elsewhere else "empty")]
    contact, unit = row.contact.number if row.contact else "", project.settings.length_unit
    return [
        (row.cavity, *_wire(project, c), contact, shown_in(unit, row.strip_mm), *seal, pin_name(project, far))
        for c, far in zip(row.conductors, row.far, strict=True)
    ]


def _leg(project: Project, row: CavityRow, c: Conductor, n: int, wires: dict[str, HarnessWire]) -> tuple[str, ...]:
    wire = wires.get(c.key)
    length, unit = "", project.settings.length_unit
    if wire is not None and wire.length_mm is not None:
        length = shown_in(unit, wire.length_mm - wire.spare_mm)
        length += f" + {shown_in(unit, wire.spare_mm)}" if wire.spare_mm else ""
    return (*_wire(project, c), shown_in(unit, row.strip_mm), length, pin_name(project, row.far[n]))
