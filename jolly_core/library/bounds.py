"""What may not stand together on a part: ranges that run backwards, sizes that contradict, cores of one name."""

from __future__ import annotations

from collections.abc import Mapping

from jolly_core.model import FileError, Part, RuleError

from .fields import FieldSpec, number_in, part_fields
from .gauges import awg_area_mm2

# A gauge and a cross-section beside each other are the same wire when they differ by no more than a trade size does.
SAME_SIZE = 1.35


def check_together(part: Part) -> None:
    """Refuse values that cannot be together; each alone is checked by its field.

    Raises:
        FileError: a range whose end is below its start, a gauge that is no size near the cross-section beside it, or
            two cores of one name.
    """
    specs = part_fields()
    for key, spec in specs.items():
        other = specs.get(key.replace("_min_", "_max_")) if "_min_" in key else None
        low, high = number_in(part.ratings.get(key, "")), number_in(part.ratings.get(other.key, "")) if other else None
        if other is not None and low is not None and high is not None and low > high:
            raise FileError(f"{_range(spec, other, low, high)}: the start is above the end.", field=key)
    _same_size(part.ratings, "cross_section_mm2", "", "cross_section_mm2")
    names: set[str] = set()
    for index, (kind, pins) in enumerate(part.units):
        if kind != "core":
            continue
        name = pins[0].strip() if pins else ""
        if name and name in names:
            raise FileError(f"it has two cores “{name}”. Give one of them another name.", field="units")
        names.add(name)
        _same_size(part.detail(index), "section", f"core {name}: " if name else "", "details")


def _same_size(values: Mapping[str, str], section: str, where: str, field: str) -> None:
    area, gauge = number_in(values.get(section, "")), values.get("awg", "").strip()
    if not area or not gauge:
        return
    try:
        of_gauge = awg_area_mm2(gauge)
    except RuleError:
        return  # said by its own field
    if max(area, of_gauge) / min(area, of_gauge) > SAME_SIZE:
        raise FileError(f"{where}AWG {gauge} is {of_gauge:.3g} mm², not {area:g} mm².", field=field)


def _range(spec: FieldSpec, other: FieldSpec, low: float, high: float) -> str:
    return f"{spec.name} {low:g} and {other.name.lower()} {high:g} {spec.unit}".rstrip()
