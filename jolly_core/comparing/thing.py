"""A thing as people see it, and which things of two states of a project are the same.

A thing of one state is the same as one of the other by its id; what is in both under other ids, as in files that were
not copied from each other, by what people call it: a device or point by its tag, a sheet by its number, a note by its
place and words. A wire is known by the two pins it joins.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from jolly_core.harness import node_name
from jolly_core.model import INCHES, Crossing, Duct, Lane, Project, Rail, length_in, shown_in
from jolly_core.tagging import full_tag, path_of

# The kinds of things, in the order in which they are listed.
KINDS = (
    "project",
    "place",
    "sheet",
    "device",
    "wire",
    "terminal",
    "accessory",
    "bridge",
    "core",
    "point",
    "rail",
    "duct",
    "lane",
    "crossing",
    "harness",
    "segment",
    "fitting",
    "wire type",
    "part",
    "text",
)


@dataclass(slots=True, frozen=True)
class Sight:
    """A thing as people see it.

    Attributes:
        kind: one of KINDS.
        key: what it is the same by in another state.
        name: what people call it.
        facts: what is known of it, by names that are shown.
        sheet_id: where it is drawn, "" for nowhere.
        ids: of what is drawn of it there, its own where nothing is.
        place: the panel, cable or harness it is in, "" for none.
        same_by: of facts that name other things, what those go by: while it is the same, so is the fact. Of a wire's
            "runs in" what that is by kind and id, the core there, and the enclosure.
    """

    kind: str
    key: str
    name: str
    facts: Mapping[str, str]
    sheet_id: str = ""
    ids: tuple[str, ...] = ()
    place: str = ""
    same_by: Mapping[str, tuple[object, ...]] = field(default_factory=dict)

    def fact(self, name: str) -> str:
        """Return a fact by name, "" for one that it does not have."""
        return self.facts.get(name, "")


Sights = dict[str, dict[str, Sight]]


@dataclass(slots=True, frozen=True)
class Same:
    """By which ids of the earlier state the things of a later one go, where those are other ones.

    Attributes:
        built: of rails, ducts, lanes and crossings, harnesses, their nodes, segments and coverings, wire types, places.
    """

    devices: Mapping[str, str]
    sheets: Mapping[str, str]
    notes: Mapping[str, str]
    points: Mapping[str, str]
    built: Mapping[str, str]

    def device(self, id: str) -> str:
        """Return what a device goes by."""
        return self.devices.get(id, id)

    def sheet(self, id: str) -> str:
        """Return what a sheet goes by."""
        return self.sheets.get(id, id)


NOTHING_ELSE = Same({}, {}, {}, {}, {})


def same_things(before: Project, after: Project) -> Same:
    """Return which things of a later state are those of an earlier one though their ids differ."""
    devices = _alike(before.devices, after.devices, lambda p, id: full_tag(p, p.devices[id]), (before, after))
    sheets = _alike(before.sheets, after.sheets, lambda p, id: p.sheets[id].number, (before, after))
    notes = _alike(before.notes, after.notes, _place_and_words, (before, after))
    points = _alike(before.io_points, after.io_points, lambda p, id: p.io_points[id].tag, (before, after))
    built: dict[str, str] = {}
    for kind, words in _BUILT.items():
        built |= _alike(before.tables[kind], after.tables[kind], words, (before, after))
    found = Same(devices, sheets, notes, points, built)
    return NOTHING_ELSE if found == NOTHING_ELSE else found


def lies(run: Rail | Duct, unit: str) -> str:
    """Return where a rail or duct lies, in a unit of length."""
    x1, y1, x2, y2 = (shown_in(unit, v) for v in (run.x1, run.y1, run.x2, run.y2))
    return f"{run.surface} {x1}, {y1} to {x2}, {y2} {unit}"


def _run_words(table: str) -> Callable[[Project, str], str]:
    """Return what tells a rail or duct apart from others: where it lies."""

    def words(project: Project, id: str) -> str:
        run: Rail | Duct = project.tables[table][id]
        inside = project.devices[project.enclosures[run.enclosure_id].device_id]
        return f"{full_tag(project, inside)} {lies(run, 'mm')}"

    return words


def corners(lane: Lane, unit: str) -> str:
    """Return where a lane lies, in a unit of length."""
    ends = [shown_in(unit, v) for v in lane.points]
    places = " to ".join(f"{x}, {y}" for x, y in zip(ends[::2], ends[1::2], strict=True))
    return f"{lane.surface} {places} {unit}"


def leads(project: Project, crossing: Crossing, unit: str) -> str:
    """Return from where to where a crossing leads, in a unit of length."""
    c = crossing
    found = []
    for id, surface, *at in (
        (c.enclosure_id, c.surface, c.x, c.y),
        (c.other_id, c.other_surface, c.other_x, c.other_y),
    ):
        x, y = (shown_in(unit, v) for v in at)
        found.append(
            f"{surface} {x}, {y} {unit} in {full_tag(project, project.devices[project.enclosures[id].device_id])}"
        )
    return " to ".join(found)


def _lane_words(project: Project, id: str) -> str:
    lane = project.lanes[id]
    inside = project.devices[project.enclosures[lane.enclosure_id].device_id]
    return f"{full_tag(project, inside)} {corners(lane, 'mm')}"


def _crossing_words(project: Project, id: str) -> str:
    return leads(project, project.crossings[id], "mm")


def _harness_words(project: Project, id: str) -> str:
    return project.harnesses[id].code


def _node_words(project: Project, id: str) -> str:
    node = project.nodes[id]
    return f"{project.harnesses[node.harness_id].code} {node_name(project, node)}"


def _segment_words(project: Project, id: str) -> str:
    segment = project.segments[id]
    return f"{project.harnesses[segment.harness_id].code} {segment_name(project, id)}"


def _covering_words(project: Project, id: str) -> str:
    covering = project.coverings[id]
    return f"{_segment_words(project, covering.segment_id)} {covering.from_mm} {covering.to_mm} {covering.part_id}"


def segment_name(project: Project, id: str) -> str:
    """Return what a segment of a harness is called: its two ends."""
    segment = project.segments[id]
    return " to ".join(node_name(project, project.nodes[end]) for end in (segment.a_id, segment.b_id))


def _type_words(project: Project, id: str) -> str:
    return project.wire_types[id].name


def _place_words(table: str, sign: str) -> Callable[[Project, str], str]:
    return lambda project, id: path_of(project.tables[table], id, sign)


# What else is told apart by what people call it.
_BUILT: dict[str, Callable[[Project, str], str]] = {
    "rail": _run_words("rail"),
    "duct": _run_words("duct"),
    "lane": _lane_words,
    "crossing": _crossing_words,
    "harness": _harness_words,
    "node": _node_words,
    "segment": _segment_words,
    "covering": _covering_words,
    "wire_type": _type_words,
    "function": _place_words("function", "="),
    "location": _place_words("location", "+"),
}


def _place_and_words(project: Project, id: str) -> str:
    """Return what a note is told apart by from others."""
    note = project.notes[id]
    return f"{project.sheets[note.sheet_id].number} {note.x} {note.y} {note.text}"


def _alike(
    before: Mapping[str, object],
    after: Mapping[str, object],
    called: Callable[[Project, str], str],
    projects: tuple[Project, Project],
) -> dict[str, str]:
    """Return for ids that only the later state has the id of the one of that name which only the earlier one has."""
    names: dict[str, list[str]] = {}
    for id in before:
        if id not in after:
            names.setdefault(called(projects[0], id), []).append(id)
    found: dict[str, str] = {}
    for id in after:
        there = names.get(called(projects[1], id), []) if id not in before else []
        if len(there) == 1 and there[0] not in found.values():
            found[id] = there[0]
    return found


def wire_length(project: Project, mm: float) -> str:
    """Return how long a wire, rail or duct is, in the project's unit; "" for none."""
    return length_in(project.settings.length_unit, round(mm, 1)) if mm else ""


def cable_length(project: Project, metres: float) -> str:
    """Return how long a cable is, in metres or feet; "" while that is not known."""
    unit, length = INCHES["m"]
    if project.settings.length_unit == "in":
        return f"{metres / length:.2f} {unit}" if metres else ""
    return f"{metres:g} m" if metres else ""
