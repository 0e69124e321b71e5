"""The continuity test of a harness: which pins of its connectors must conduct to each other, and which must not."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from jolly_core.model import Device, Project, derived
from jolly_core.tagging import device_at, full_tag, natural, pins_of

from .contacts import cavity_rows
from .variants import connectors_in, wires_in

Pin = tuple[str, str]  # tag of a connector, name of a cavity


@dataclass(slots=True, frozen=True)
class Probe:
    """Two pins a tester is put to: `conducts` says whether they must; `wires` by which numbers they do."""

    one: Pin
    other: Pin
    conducts: bool
    wires: tuple[str, ...] = ()


@derived
def pin_groups(
    project: Project, harness_id: str, variant_id: str = ""
) -> list[tuple[tuple[Pin, ...], tuple[str, ...]]]:
    """Return the pins of a harness in groups that conduct to each other, with their wires; empty cavities are alone.

    Only what lies in the harness joins pins: what its mates or devices join on their side is not there on the bench.
    """
    pins: list[Pin] = []
    for device in connectors_in(project, harness_id, variant_id):
        tag = full_tag(project, device)
        pins += [(tag, row.cavity) for row in cavity_rows(project, device.id) if row.cavity]
    lead = {pin: pin for pin in pins}

    def head(pin: Pin) -> Pin:
        while lead[pin] != pin:
            pin = lead[pin]
        return pin

    ends: list[tuple[Pin, Pin, str]] = []
    for wire in wires_in(project, harness_id, variant_id):
        one, other = (_pin(project, key, lead) for key in (wire.conductor.start, wire.conductor.end))
        ends.append((one, other, wire.conductor.number))
        lead[head(one)] = head(other)
    groups: dict[Pin, list[Pin]] = {}
    wires: dict[Pin, list[str]] = {}
    for pin in pins:
        groups.setdefault(head(pin), []).append(pin)
    for one, _, number in ends:
        wires.setdefault(head(one), []).append(number)
    found = [
        (tuple(sorted(group, key=_order)), tuple(sorted(set(wires.get(key, ())), key=natural)))
        for key, group in groups.items()
    ]
    return sorted(found, key=lambda g: _order(g[0][0]))


def _pin(project: Project, key: tuple[str, int], lead: dict[Pin, Pin]) -> Pin:
    """Return a pin by its connector and cavity; one that is none is put among what joins, under a name of its own."""
    device: Device | None = device_at(project, key)
    pin = (full_tag(project, device) if device else "", pins_of(project, project.symbols[key[0]])[key[1]])
    if pin not in lead:
        pin = ("", f"{key[0]}.{key[1]}")
        lead.setdefault(pin, pin)
    return pin


def _order(pin: Pin) -> tuple[object, object]:
    return natural(pin[0]), natural(pin[1])


def probes(project: Project, harness_id: str, variant_id: str = "") -> Iterator[Probe]:
    """Yield what to test: along each group pin by pin, then every group against every other one.

    Pins of one group are tested in a chain, the first to the second, that to the third: then all conduct to each other.
    Of two groups the first pin of each is tested: then none of one conducts to any of the other.
    """
    groups = pin_groups(project, harness_id, variant_id)
    for group, wires in groups:
        for one, other in zip(group, group[1:], strict=False):
            yield Probe(one, other, True, wires)
    for n, (group, _) in enumerate(groups):
        for other_group, _ in groups[n + 1 :]:
            yield Probe(group[0], other_group[0], False)
