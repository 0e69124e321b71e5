"""The project's own copies of library parts."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(slots=True)
class Part:
    """A part as the library describes it, or the copy a project keeps of it.

    Attributes:
        part_class: key of the part class, for example "contactor".
        units: for each unit in the maker's order a pair (kind, pins), for example ("no", ("13", "14")).
        ratings: named ratings with their unit in the name, for example {"coil_voltage_v": "24"}.
        width_mm, height_mm, depth_mm: outline.
        version: the library's version this copy was taken from.
    """

    id: str
    maker: str
    number: str
    part_class: str
    text: str = ""
    units: tuple[tuple[str, tuple[str, ...]], ...] = ()
    ratings: dict[str, str] = field(default_factory=dict)
    width_mm: float = 0.0
    height_mm: float = 0.0
    depth_mm: float = 0.0
    mounting: str = "rail"
    supplier: str = ""
    version: int = 1

    def count(self, kind: str) -> int:
        """Return how many units of a kind the part has."""
        return sum(1 for unit_kind, _ in self.units if unit_kind == kind)

    def pins_of(self, kind: str, number: int) -> tuple[str, ...]:
        """Return the pin names of the `number`-th (1-based) unit of `kind`, () when there is none."""
        seen = 0
        for unit_kind, pins in self.units:
            if unit_kind == kind:
                seen += 1
                if seen == number:
                    return pins
        return ()
