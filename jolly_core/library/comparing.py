"""Parts beside each other: field by field, what each says, and whether they differ."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from jolly_core.model import Part, RuleError

from .classes import part_class
from .fields import part_fields
from .partfacts import units_line

MOST = 4


@dataclass(slots=True, frozen=True)
class Comparison:
    """A field of parts beside each other: its name with unit, what each part says, and whether they differ."""

    field: str
    values: tuple[str, ...]
    differs: bool


def compared(parts: Sequence[Part]) -> list[Comparison]:
    """Return two to four parts beside each other, fields that none has left out.

    Raises:
        RuleError: there are fewer than two parts, or more than four.

    Example:
        >>> pair = [Part("", "Fenwold", n, "relay", ratings={"contact_a": a}) for n, a in (("R1", "6"), ("R2", "10"))]
        >>> [row.values for row in compared(pair) if row.differs]
        [('R1', 'R2'), ('6', '10')]
    """
    if not 2 <= len(parts) <= MOST:
        raise RuleError(f"Choose two to {MOST} parts to compare.", field="ids")
    specs = part_fields()
    keys = dict.fromkeys(k for p in parts for k in [*part_class(p.part_class).ratings, *p.ratings])
    rows: list[tuple[str, list[str]]] = [
        ("Maker", [p.maker for p in parts]),
        ("Number", [p.number for p in parts]),
        ("Class", [part_class(p.part_class).name for p in parts]),
        ("Description", [p.text for p in parts]),
    ]
    for key in keys:
        spec = specs.get(key)
        name = f"{spec.name}, {spec.unit}" if spec and spec.unit else spec.name if spec else key.replace("_", " ")
        rows.append((name, [p.ratings.get(key, "") for p in parts]))
    rows += [
        ("Units", [units_line(p) for p in parts]),
        ("Width, mm", [_number(p.width_mm or p.diameter_mm) for p in parts]),
        ("Height, mm", [_number(p.height_mm or p.diameter_mm) for p in parts]),
        ("Depth, mm", [_number(p.depth_mm) for p in parts]),
        ("Weight, kg", [_number(p.weight_kg) for p in parts]),
        ("Price", [f"{p.price:.2f} {p.currency}".strip() if p.price else "" for p in parts]),
        ("Supplier", [p.supplier for p in parts]),
    ]
    return [Comparison(name, tuple(values), len(set(values)) > 1) for name, values in rows if any(values)]


def _number(value: float) -> str:
    return f"{value:g}" if value else ""
