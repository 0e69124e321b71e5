"""What hangs on supplies and control transformers: the currents of all they feed against what they give.

From the output on, through poles, contacts and fuses taken as closed, everything that takes a current is fed; a device
counts once. What a consumer takes is what its part says (`loads.takes_a`).
"""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass

from jolly_core.library import base_of, definition, number_in
from jolly_core.model import Device, Part, Project, derived
from jolly_core.tagging import device_at, full_tag, natural, pins_of, tag_order

from .labels import NEUTRAL, ZERO, is_output
from .loads import Consumer, phase_factor, takes_a
from .ways import FARTHEST, Potential, links_at, potential_of

WARN_PERCENT, LIMIT_PERCENT = 80.0, 100.0
_FED = ("coil", "lamp", "load", "card-supply", "sensor")


@dataclass(slots=True, frozen=True)
class SupplyLoad:
    """A supply: what it gives, A, and what it feeds, the largest first.

    Attributes:
        silent: tags of what it feeds and whose part does not say what it takes.
    """

    device: Device
    gives_a: float
    consumers: tuple[Consumer, ...]
    silent: tuple[str, ...]

    @property
    def takes_a(self) -> float:
        """The currents of all consumers together."""
        return round(sum(c.amps for c in self.consumers), 3)

    @property
    def percent(self) -> float:
        """Their share of what it gives."""
        return 100 * self.takes_a / self.gives_a if self.gives_a else 0.0


def gives_a(part: Part) -> float:
    """Return the current a supply or transformer gives, A; 0 while its part does not say."""
    kind = base_of(part.part_class)
    if kind == "power-supply":
        return number_in(part.ratings.get("output_a", "")) or 0.0
    if kind == "transformer":
        power, volts = (number_in(part.ratings.get(k, "")) for k in ("power_va", "secondary_v"))
        return power / volts / phase_factor(part) if power and volts else 0.0
    return 0.0


@derived
def supply_loads(project: Project) -> list[SupplyLoad]:
    """Return the load of each supply and transformer whose part says what it gives, by tag."""
    found = []
    for part in project.parts.values():
        if gives_a(part):
            for device_id in project.devices_of_part.get(part.id):
                load = supply_load(project, device_id)
                if load is not None:
                    found.append(load)
    return sorted(found, key=lambda load: tag_order(project, load.device))


@derived
def supply_load(project: Project, device_id: str) -> SupplyLoad | None:
    """Return what hangs on a supply or transformer, None where it is not drawn or its part says nothing."""
    device = project.devices[device_id]
    part = project.part_of(device)
    starts = [p for id in project.symbols_of_device.get(device_id) for p in _outputs(project, id)]
    if part is None or not gives_a(part) or not starts:
        return None
    fed: dict[str, Device] = {}
    waiting = deque(starts)
    seen = {p.key for p in starts}
    while waiting and len(seen) < FARTHEST:
        here = waiting.popleft()
        for pin in here.pins:
            other = device_at(project, pin)
            if other is not None and other.id != device_id and _takes(project, pin[0]):
                fed[other.id] = other
        beyond = [p for pin in here.pins for p in _of_card(project, pin[0])]
        for there in [*beyond, *(p for _, p in links_at(project, here))]:
            if there.key not in seen:
                seen.add(there.key)
                waiting.append(there)
    consumers, silent = [], []
    for other in fed.values():
        own = project.part_of(other)
        amps = takes_a(own) if own else 0.0
        if amps:
            consumers.append(Consumer(other, round(amps, 3)))
        else:
            silent.append(full_tag(project, other))
    consumers.sort(key=lambda c: (-c.amps, tag_order(project, c.device)))
    return SupplyLoad(device, gives_a(part), tuple(consumers), tuple(sorted(silent, key=natural)))


def _takes(project: Project, symbol_id: str) -> bool:
    return definition(project.symbols[symbol_id].definition).unit in _FED


def _of_card(project: Project, symbol_id: str) -> list[Potential]:
    """Return the potentials that the outputs of a PLC card feed whose supply pin a symbol is, [] for anything else."""
    symbol = project.symbols[symbol_id]
    if definition(symbol.definition).unit != "card-supply":
        return []
    channels = [project.symbols[id] for id in project.symbols_of_device.get(symbol.device_id)]
    outputs = [s for s in channels if definition(s.definition).unit == "do"]
    return [potential_of(project, (s.id, n)) for s in outputs for n in range(len(definition(s.definition).pins))]


def _outputs(project: Project, symbol_id: str) -> list[Potential]:
    """Return the potentials a source gives its current to: the plus side, of a transformer one end of its secondary.

    That end is not the return, where one is: earthed, or named so.
    """
    symbol = project.symbols[symbol_id]
    unit = definition(symbol.definition).unit
    names = pins_of(project, symbol)
    if unit == "supply":
        return [potential_of(project, (symbol_id, n)) for n, name in enumerate(names) if name.startswith("+")]
    if unit == "transformer":
        ends = [potential_of(project, (symbol_id, n)) for n in range(len(names)) if is_output(project, symbol, n)]
        return [p for p in ends if not (p.bonded or {NEUTRAL, ZERO} & p.labels.keys())][:1] or ends[:1]
    return []
