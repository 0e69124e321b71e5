"""What runs in each segment of a harness: its bundle, how tightly that may bend, what lies over it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import hypot, pi

from jolly_core.cables import number_of
from jolly_core.model import Covering, Part, Project, derived
from jolly_core.sizing import bundle_diameter_mm, packing_cost
from jolly_core.tagging import natural

from .lengths import Span, span_of
from .runs import Run, gathered, run_as_one, runs_beside, single_runs
from .variants import tree_in, wires_in
from .wires import HarnessWire

# A bundle bends about no less than this many of its diameters, unless something in it asks for more.
BEND_DIAMETERS = 6.0
TAPE_OVERLAP_PERCENT = 50.0
PACKING_MS = 1000.0  # that packing the bundles of one harness may take; further ones go by the rule of thumb
Sizes = tuple[float, ...]


@dataclass(slots=True, frozen=True)
class Bundle:
    """What runs along a segment as one bundle.

    Attributes:
        wires: of its own harness.
        runs: its wires and cables, those of other harnesses that run as one with it too; not those apart from it.
        diameter_mm: of all together, 0 where none runs.
        packed: whether that was found by packing, not by the rule of thumb.
        bend_mm: the least radius it may bend about.
        stiff_id: the device of the cable that asks for that radius, "" where the bundle itself does.
        beside: the codes of the other harnesses in it.
    """

    wires: tuple[HarnessWire, ...]
    runs: tuple[Run, ...]
    diameter_mm: float
    packed: bool
    bend_mm: float
    stiff_id: str = ""
    beside: tuple[str, ...] = ()


def too_tight(span: Span, bundle: Bundle) -> bool:
    """Return whether the path of a segment bends about less than its bundle may."""
    return span.path is not None and span.path.bend_mm < bundle.bend_mm - 0.005


def bundles(project: Project, harness_id: str, variant_id: str = "") -> dict[str, Bundle]:
    """Return the bundle of each segment of a harness or of one of its variants, by the segment's id."""
    return _bundles(project, harness_id, variant_id)


@derived
def _bundles(project: Project, harness_id: str, variant_id: str) -> dict[str, Bundle]:
    inside: dict[str, list[HarnessWire]] = {s.id: [] for s in tree_in(project, harness_id, variant_id).segments}
    all_wires = wires_in(project, harness_id, variant_id)
    for wire in all_wires:
        for segment in wire.segments:
            inside[segment.id].append(wire)
    singles = single_runs(project, all_wires)
    runs = {
        id: [*gathered(project, harness_id, wires, singles), *runs_beside(project, id)] for id, wires in inside.items()
    }
    sizes = {id: tuple(sorted(r.diameter_mm for r in found if not r.apart)) for id, found in runs.items()}
    chosen = _worth_packing(sizes.values())
    found: dict[str, Bundle] = {}
    for id, wires in inside.items():
        packed = sizes[id] in chosen
        diameter = bundle_diameter_mm(sizes[id], pack=packed)
        own = round(BEND_DIAMETERS * diameter, 1)
        stiff = max((r for r in runs[id] if r.bend_mm > own), key=lambda r: r.bend_mm, default=None)
        bend, cable = (stiff.bend_mm, stiff.cable_id) if stiff else (own, "")
        kept = tuple(r for r in runs[id] if not r.apart)
        found[id] = Bundle(tuple(wires), kept, diameter, packed, bend, cable, _codes_beside(project, id))
    return found


def _codes_beside(project: Project, segment_id: str) -> tuple[str, ...]:
    others = {project.segments[id].harness_id for id in run_as_one(project).get(segment_id, ())}
    return tuple(sorted((project.harnesses[id].code for id in others), key=natural))


def _worth_packing(bundles: Iterable[Sizes]) -> set[Sizes]:
    """Return the bundles of a harness that are packed: those of few wires first, as long as that takes no second."""
    found: set[Sizes] = set()
    spent = 0.0
    for sizes in sorted(set(bundles), key=lambda s: (len(s), s)):
        cost = packing_cost(sizes)
        if spent + cost <= PACKING_MS:
            spent += cost
            found.add(sizes)
    return found


@dataclass(slots=True, frozen=True)
class Covered:
    """A stretch of a segment that is covered, mm from its first node; `used_mm` is how much of the part it takes."""

    covering: Covering
    part: Part | None
    from_mm: float
    to_mm: float
    used_mm: float

    @property
    def length_mm(self) -> float:
        """How long the stretch is."""
        return round(self.to_mm - self.from_mm, 2)


def covered(project: Project, harness_id: str, variant_id: str = "") -> list[Covered]:
    """Return what is covered of a harness or of one of its variants, segment by segment.

    Tube and sleeve take their length. Tape is wound: it takes the length times the way round the bundle over what a
    turn moves on, its width less the overlap.
    """
    bundle = bundles(project, harness_id, variant_id)
    places = {s.id: n for n, s in enumerate(tree_in(project, harness_id, variant_id).segments)}
    found = []
    for c in project.coverings.values():
        if c.segment_id in places:
            length = span_of(project, c.segment_id).length_mm
            part = project.parts.get(c.part_id)
            low, high = min(c.from_mm, length), min(c.to_mm or length, length)
            used = _used(part, high - low, bundle[c.segment_id].diameter_mm)
            found.append(Covered(c, part, low, high, round(used, 1)))
    return sorted(found, key=lambda c: (places[c.covering.segment_id], c.from_mm, c.covering.id))


def _used(part: Part | None, length: float, diameter: float) -> float:
    if part is None or part.ratings.get("covering") != "tape" or not part.width_mm:
        return length
    overlap = number_of(part, "overlap_percent") or TAPE_OVERLAP_PERCENT
    turn = part.width_mm * (1 - min(overlap, 90.0) / 100)
    return length / turn * hypot(pi * diameter, turn)


def holds(part: Part, diameter: float) -> bool:
    """Return whether a clip or covering takes a bundle of a diameter in mm; one without limits takes any."""
    low, high = number_of(part, "bundle_min_mm"), number_of(part, "bundle_max_mm")
    return (not low or diameter >= low - 1e-6) and (not high or diameter <= high + 1e-6)
