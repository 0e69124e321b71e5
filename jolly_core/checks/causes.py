"""One cause, one snag: what follows from two potentials joined, or from a live one on the protective conductor.

A check says of which potentials its snag speaks (`Snag.of`). Where one of them is joined with what it must not be, that
is told once, on the sheet where one stroke has two names, else at the rarer name; all else that speaks of it has that
snag's key as its cause.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable

from jolly_core.circuits import Label, Potential, labels_of, potential_at, settled
from jolly_core.model import Project, Symbol, derived
from jolly_core.wiring import GroupKey, group_of, net_of

JOINED, ON_EARTH = "joined-potentials", "protective-joined"


def joined_ids(potential: Potential, sheet_id: str) -> tuple[str, ...]:
    """Return what is to be selected on a sheet where two names meet: what says them there, else a wire."""
    here = next(g for g in potential.groups if g.sheet_id == sheet_id)
    return tuple(sorted(n.id for n in potential.labels.values() if n.sheet_id == sheet_id)) or tuple(here.wires[:1])


def labels_met(project: Project, terminals: Iterable[str]) -> dict[str, Label]:
    """Return what is said of the nets that a bridge over terminals joins, by word: two where it joins two potentials.

    Args:
        terminals: ids of their symbols.
    """
    labels: dict[str, Label] = {}
    for id in terminals:
        labels.update(labels_of(project, net_of(project, group_of(project, (id, 0)))))
    return settled(project, labels)


def bridge_joining(project: Project, potential: Potential) -> str:
    """Return the strip with a bridge that joins two potentials to this one, "" where strokes and marks do."""
    by_strip: dict[str, list[Symbol]] = {}
    for id, _ in potential.pins:
        symbol = project.symbols[id]
        if project.bridges_of_strip.has(symbol.device_id):
            by_strip.setdefault(symbol.device_id, []).append(symbol)
    for strip_id, symbols in sorted(by_strip.items()):
        for bridge_id in project.bridges_of_strip.get(strip_id):
            units = project.bridges[bridge_id].units
            ends = [s.id for s in symbols if s.units[0] in units]
            alone = all(len(labels_met(project, [id])) < 2 for id in ends)  # else strokes join them there already
            if alone and len(labels_met(project, ends)) > 1:
                return strip_id
    return ""


def earth_ids(potential: Potential, sheet_id: str) -> tuple[str, ...]:
    """Return what is to be selected on a sheet where a protective conductor is joined with a live one."""
    here = next(g for g in potential.groups if g.sheet_id == sheet_id)
    kinds = potential.categories
    order = ("pe", *sorted(kind for kind in kinds if kind != "pe"))
    return tuple(kinds[k][0] for k in order if k in kinds and kinds[k][1] == sheet_id) or tuple(here.wires[:1])


def is_on_earth(potential: Potential) -> bool:
    """Return whether a protective conductor is joined with a live one, and no bond is meant."""
    kinds = potential.categories
    mixed = "power" in kinds and any(kind.startswith("control") for kind in kinds)
    return "pe" in kinds and len(kinds) > 1 and (not potential.bonded or mixed)


def cause_of(project: Project, of: Iterable[GroupKey], own: str) -> str:
    """Return the key of the snag that a snag of some potentials follows from, "" where it is a cause itself.

    Args:
        own: the key of the snag.
    """
    for key in of:
        root = _root(project, *potential_at(project, key).key)
        if root:
            return "" if root == own else root
    return ""


@derived
def _root(project: Project, sheet_id: str, point: int) -> str:
    """Return the key of the snag that tells what a potential is wrongly joined with, "" where it is not."""
    potential = potential_at(project, (sheet_id, point))
    if len(potential.labels) > 1:
        where = _rarest(project, potential)
        return f"{JOINED}:{','.join(sorted(joined_ids(potential, where)))}"
    if is_on_earth(potential):
        where = min({kind[1] for kind in potential.categories.values()}, key=lambda id: (project.sheets[id].order, id))
        return f"{ON_EARTH}:{','.join(sorted(earth_ids(potential, where)))}"
    return ""


def _rarest(project: Project, potential: Potential) -> str:
    """Return the sheet where one stroke has two names, else that of the name which is said least often."""
    for group in potential.groups:
        if len(labels_of(project, [group])) > 1:
            return group.sheet_id
    said: Counter[str] = Counter()
    for group in potential.groups:
        said.update({project.continuations[id].name for id in group.continuations})
    labels = sorted(potential.labels.values(), key=lambda n: (_times(project, said, n.id), n.sheet_id, n.word))
    return labels[0].sheet_id


def _times(project: Project, said: Counter[str], id: str) -> int:
    mark = project.continuations.get(id)
    return said[mark.name] if mark is not None else len(said) + 1_000
