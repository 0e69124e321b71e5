"""The buses a project usually has, made of its own wire types: mains with and without neutral and earth, DC."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import Project, WireType

from .neutrals import is_neutral
from .potentials import potentials_of_types

PHASES = ("L1", "L2", "L3")


@dataclass(frozen=True, slots=True)
class UsualBus:
    """A bus by name, with the ids of its conductors' wire types in order."""

    label: str
    type_ids: tuple[str, ...]


def usual_buses(project: Project) -> list[UsualBus]:
    """Return the buses that can be made of the project's wire types inside the panel, the usual one first.

    A phase takes the type that is named so, else the first of category power that is no neutral; the neutral is named N
    or has the neutral colour of the project's standard; the protective conductor is of category pe. Two types of
    control-dc whose names say volts and 0 V are the DC bus. A bus whose types are not there is left out.

    Source: IEC 60204-1 (13.2) and NFPA 79 (13.2) for the colours.
    """
    inside = [t for t in project.types_in_order() if not t.outside]
    said = potentials_of_types(project)
    named = {said[t.id][0]: t for t in reversed(inside)}
    power = [t for t in inside if t.category == "power"]
    neutral = named.get("N") or next((t for t in power if is_neutral(project, t)), None)
    live = [t for t in power if t is not neutral]
    usual = live[:1]
    phases = [t for name in PHASES for t in ([named[name]] if name in named else usual)]
    earth = next((t for t in inside if t.category == "pe"), None)
    found: list[UsualBus] = []

    def add(label: str, *types: WireType | None) -> None:
        there = [t.id for t in types if t is not None]
        if len(there) == len(types):
            found.append(UsualBus(label, tuple(there)))

    if len(phases) == len(PHASES):
        add("L1 L2 L3", *phases)
        add("L1 L2 L3 PE", *phases, earth)
        add("L1 L2 L3 N", *phases, neutral)
        add("L1 L2 L3 N PE", *phases, neutral, earth)
        add("L1 N PE", phases[0], neutral, earth)
    direct = [(said[t.id][1], t) for t in inside if t.category == "control-dc"]
    plus = next(((volts, t) for volts, t in direct if volts not in ("", "0")), None)
    zero = next((t for volts, t in direct if volts == "0"), None)
    if plus is not None:
        add(f"{plus[0]} V 0 V", plus[1], zero)
    return found
