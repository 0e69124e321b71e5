"""How long a cable is: as it was typed, else by the table of ways between locations, with the project's allowance."""

from __future__ import annotations

from jolly_core.model import Cable, CableWay, Project, derived, long_words
from jolly_core.tagging import device_at, path_of

from .cores import cable_conductors, ends_of


@derived
def places_of(project: Project, device_id: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the ids of the locations at the source and at the destination of a cable, each once, "" for none."""
    sides: tuple[dict[str, None], dict[str, None]] = ({}, {})
    for c in cable_conductors(project, device_id):
        for side, pin in zip(sides, ends_of(project, device_id, c), strict=True):
            device = device_at(project, pin)
            side[device.location_id if device else ""] = None
    return tuple(sides[0]), tuple(sides[1])


def way_between_places(project: Project, a_id: str, b_id: str) -> CableWay | None:
    """Return the way of the table between two locations, either way round."""
    return next((w for w in project.cable_ways.values() if {w.a_id, w.b_id} == {a_id, b_id}), None)


def cable_length_m(project: Project, cable: Cable) -> tuple[float, str]:
    """Return a cable's length in m and how it is known, (0, "") while it is not.

    The longest of the ways counts where a cable goes to several locations.
    """
    if cable.length_m > 0:
        return cable.length_m, "typed"
    sources, ends = places_of(project, cable.device_id)
    ways = [w for a in sources for b in ends if a != b and (w := way_between_places(project, a, b)) is not None]
    longest = max(ways, key=lambda w: w.length_m, default=None)
    if longest is None or longest.length_m <= 0:
        return 0.0, ""
    allowance = project.settings.cable_allowance_m
    names = " to ".join(path_of(project.locations, id, "+") for id in (longest.a_id, longest.b_id))
    beyond = f" and {long_words(project, allowance)} allowance" if allowance else ""
    return longest.length_m + allowance, f"{long_words(project, longest.length_m)} from {names}{beyond}"
