"""The lanes of a panel: which there are, what may lie in them, and what joins the surfaces of its enclosures."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import Enclosure, Project, bare_length, derived, length_words

from .eyelets import run_names
from .layout import surface_size, surfaces_of
from .network import Network
from .pieces import LanePiece, PointMm, piece, pieces_of_line
from .ways import SurfaceLink


@dataclass(slots=True, frozen=True)
class LaneOf:
    """A lane of an enclosure: its id, the categories that may use it (() for all), its pieces."""

    id: str
    categories: tuple[str, ...]
    pieces: tuple[LanePiece, ...]


def surface_key(enclosure_id: str, surface: str) -> str:
    """Return how a surface is called in a network."""
    return f"{enclosure_id}/{surface}"


@derived
def lanes_of(project: Project, enclosure_id: str) -> list[LaneOf]:
    """Return the ducts and drawn lanes of an enclosure, by their ids."""
    found = []
    for d in project.ducts.values():
        if d.enclosure_id == enclosure_id:
            key = surface_key(enclosure_id, d.surface)
            one = piece(d.id, d.x1, d.y1, d.x2, d.y2, project.parts[d.part_id].width_mm, key)
            found.append(LaneOf(d.id, d.categories, (one,)))
    for n in project.lanes.values():
        if n.enclosure_id == enclosure_id:
            line = tuple(pieces_of_line(n.id, n.points, surface_key(enclosure_id, n.surface)))
            found.append(LaneOf(n.id, n.categories, line))
    return sorted(found, key=lambda one: one.id)


@derived
def group_of(project: Project, enclosure_id: str) -> tuple[str, ...]:
    """Return the enclosures that wires pass between without terminals, this one with them, the leftmost first."""
    joined: dict[str, set[str]] = {id: set() for id in project.enclosures}
    pairs = [(e.id, e.left_id) for e in project.enclosures.values()]
    pairs += [(c.enclosure_id, c.other_id) for c in project.crossings.values()]
    for a, b in pairs:
        if a in joined and b in joined and a != b:
            joined[a].add(b)
            joined[b].add(a)
    found, waiting = {enclosure_id}, [enclosure_id]
    while waiting:
        more = joined.get(waiting.pop(), set()) - found
        found |= more
        waiting += more

    def place(id: str) -> tuple[int, str]:
        seen = [id]
        while (left := project.enclosures[seen[-1]].left_id) in project.enclosures and left not in seen:
            seen.append(left)
        return len(seen), id

    return tuple(sorted(found, key=place))


@derived
def links_of(project: Project, enclosure_id: str) -> list[tuple[SurfaceLink, tuple[str, ...]]]:
    """Return what joins the surfaces of an enclosure to each other and to its neighbours, each with its categories.

    The hinge and the opening to the left are there unless somebody drew a crossing between the same surfaces.

    Raises:
        RuleError: the size of a surface is not known.
    """
    enclosure = project.enclosures[enclosure_id]
    settings = project.settings
    found: list[tuple[SurfaceLink, tuple[str, ...]]] = []
    drawn: set[frozenset[str]] = set()
    for c in sorted(project.crossings.values(), key=lambda c: c.id):
        one, other = surface_key(c.enclosure_id, c.surface), surface_key(c.other_id, c.other_surface)
        drawn.add(frozenset((one, other)))
        if c.enclosure_id == enclosure_id:
            link = SurfaceLink(c.id, one, (c.x, c.y), other, (c.other_x, c.other_y), c.extra_mm, "through the crossing")
            found.append((link, c.categories))
    plate = surface_key(enclosure_id, "plate")
    width, height = surface_size(project, enclosure, "plate")

    def usual(to: str, at: PointMm, point: PointMm, extra: float, words: str) -> None:
        if frozenset((plate, to)) not in drawn:
            found.append((SurfaceLink("", plate, at, to, point, extra, words), ()))

    hinge, door = hinge_points(project, enclosure)
    usual(surface_key(enclosure_id, "door"), hinge, door, settings.door_allowance_mm, "loop at the hinge")
    left = project.enclosures.get(enclosure.left_id)
    if left is not None:
        edge = (surface_size(project, left, "plate")[0], enclosure.opening_mm)
        walls = walls_mm(project, left, enclosure)
        usual(surface_key(left.id, "plate"), (0.0, enclosure.opening_mm), edge, walls, "through the walls")
    outside = surface_size(project, enclosure, "door")
    aside, above = max(0.0, outside[0] - width) / 2, max(0.0, outside[1] - height) / 2
    for wall in surfaces_of(project, enclosure):
        if wall in ("left", "right", "roof", "gland"):
            wide, tall = surface_size(project, enclosure, wall)
            at, point, gap = {
                "left": ((0.0, height / 2), (wide, tall / 2), aside),
                "right": ((width, height / 2), (0.0, tall / 2), aside),
                "roof": ((width / 2, 0.0), (wide / 2, 0.0), above),
                "gland": ((width / 2, height), (wide / 2, 0.0), above),
            }[wall]
            usual(surface_key(enclosure_id, wall), at, point, gap, "round the edge of the plate")
    return found


def hinge_points(project: Project, enclosure: Enclosure) -> tuple[PointMm, PointMm]:
    """Return where wires leave the plate for the door, and where they come onto the door."""
    width, height = surface_size(project, enclosure, "plate")
    door_width, door_height = surface_size(project, enclosure, "door")
    if enclosure.hinge == "left":
        return (0.0, height / 2), (0.0, door_height / 2)
    return (width, height / 2), (door_width, door_height / 2)


def walls_mm(project: Project, one: Enclosure, other: Enclosure) -> float:
    """Return how far it is from the plate of an enclosure to that of its neighbour, through both walls."""
    return sum((surface_size(project, e, "door")[0] - surface_size(project, e, "plate")[0]) / 2 for e in (one, other))


def may_use(project: Project, lanes: list[LaneOf], category: str) -> list[LaneOf]:
    """Return the lanes that a wire of a category may lie in.

    A lane that names categories takes those only. A category that is kept apart takes the lanes that name it, where
    there are such; else those that name none.
    """
    own = [n for n in lanes if category in n.categories]
    if own and category in project.settings.apart:
        return own
    return [n for n in lanes if not n.categories or category in n.categories]


@derived
def named_categories(project: Project, first_id: str) -> frozenset[str]:
    """Return the categories that a lane or crossing of a panel names, by the first of its enclosures."""
    ids = group_of(project, first_id)
    found = {c for id in ids for n in lanes_of(project, id) for c in n.categories}
    return frozenset(found | {c for x in project.crossings.values() if x.enclosure_id in ids for c in x.categories})


@derived
def network_for(project: Project, first_id: str, category: str) -> Network:
    """Return the network that wires of a category have in a panel, by the first of its enclosures.

    Raises:
        RuleError: the size of a surface is not known.
    """
    ids = group_of(project, first_id)
    lanes = may_use(project, [n for id in ids for n in lanes_of(project, id)], category)
    links = [
        link for id in ids for link, categories in links_of(project, id) if not categories or category in categories
    ]
    return Network([p for n in lanes for p in n.pieces], links, project.settings.free_run_mm)


def network_of(project: Project, enclosure_id: str, category: str = "") -> Network:
    """Return the network that wires of a category have in the panel of an enclosure, kept until its lanes change."""
    first = group_of(project, enclosure_id)[0]
    return network_for(project, first, category if named_categories(project, first) else "")


@dataclass(slots=True, frozen=True)
class Gap:
    """Lanes that do not hang together: two of them in words, how far they are apart, and both points of a surface."""

    enclosure_id: str
    surface: str
    one: str
    other: str
    distance: float
    points: tuple[PointMm, PointMm]


@derived
def gaps_in(project: Project, enclosure_id: str) -> list[Gap]:
    """Return the gaps between lanes of an enclosure that hang together only with themselves: where each is nearest.

    Of lanes that wires can go round between by any crossing none is named.
    """
    net = network_of(project, enclosure_id)
    groups = net.parts()
    names = {id: n for e in group_of(project, enclosure_id) for id, n in run_names(project, e).items()}
    found = []
    for group in groups[1:]:
        best: tuple[float, int, int, PointMm, PointMm] | None = None
        for n in group:
            one = net.pieces[n]
            for m, other in enumerate(net.pieces):
                if m in group or other.surface != one.surface:
                    continue
                for p, q in _nearest(one, other):
                    far = abs(p[0] - q[0]) + abs(p[1] - q[1])
                    if best is None or far < best[0]:
                        best = far, n, m, p, q
        if best is not None:
            far, n, m, p, q = best
            at, surface = net.pieces[n].surface.split("/")
            found.append(
                Gap(at, surface, names.get(net.pieces[n].id, ""), names.get(net.pieces[m].id, ""), far, (p, q))
            )
    return found


def _nearest(a: LanePiece, b: LanePiece) -> list[tuple[PointMm, PointMm]]:
    """Return pairs of points of two pieces, among them the nearest where they do not cross."""
    found = []
    for one, other, turned in ((a, b, False), (b, a, True)):
        for end in ((one.x1, one.y1), (one.x2, one.y2)):
            foot = other.at(min(max(other.along(end), 0.0), other.length))
            found.append((foot, end) if turned else (end, foot))
    return found


def gap_words(project: Project, gap: Gap) -> str:
    """Return a gap in words that say what to do."""
    x, y = (bare_length(project, round(v)) for v in gap.points[1])
    return (
        f"{_long(gap.one)} does not reach {_long(gap.other)}: {length_words(project, round(gap.distance))} are missing "
        f"at {x}, {y}. Draw it longer, or a lane between them."
    )


def _long(name: str) -> str:
    return f"{'Duct' if name.startswith('D') else 'Lane'} {name}"
