"""What hangs on a potential and takes a current, as far as its parts say."""

from __future__ import annotations

import math
from dataclasses import dataclass

from jolly_core.library import number_in
from jolly_core.model import Device, Part, Project
from jolly_core.tagging import device_at, pins_of, tag_order

from .labels import PROTECTIVE
from .ways import Potential

# Ratings by which a part says what it takes: a current, or a power with the voltage it is for.
_VOLTS = ("voltage_v", "coil_voltage_v", "supply_v")
_WATTS = ("power_w", "loss_w")
_OUT, _IN = ("output_v", "output_a"), ("supply_v", "primary_v")
THREE_PHASE_PINS = 6  # of a transformer, at least: three of its primary, three of its secondary
TAKING = ("motor", "drive", "soft-starter")  # their rated current is what they take; that of a switch is what it bears


@dataclass(slots=True, frozen=True)
class Consumer:
    """A device on a potential and the current it takes, A."""

    device: Device
    amps: float


def takes_a(part: Part) -> float:
    """Return the current a part takes, A: rated, or its power by its voltage; 0 while it does not say.

    Of parts that pass a current on (breakers, contactors by their poles) it is what their coil takes.
    """
    rated = number_in(part.ratings.get("rated_a", ""))
    if rated and part.part_class in TAKING:
        return rated
    volts = next((v for key in _VOLTS if (v := number_in(part.ratings.get(key, "")))), None)
    watts = next((w for key in _WATTS if (w := number_in(part.ratings.get(key, "")))), None)
    return watts / volts if watts and volts else 0.0


def phase_factor(part: Part) -> float:
    """Return by what the power of a transformer and the volts between its lines give a current: √3 on three phases."""
    three = any(kind == "transformer" and len(pins) >= THREE_PHASE_PINS for kind, pins in part.units)
    return math.sqrt(3) if three else 1.0


def primary_a(part: Part) -> float:
    """Return what a supply or transformer takes at its input at full load, A, its losses with it; 0 for other parts.

    Notes:
        By its apparent power, which for a supply of direct current is its output with its losses.
    """
    said = {key: number_in(part.ratings.get(key, "")) or 0.0 for key in (*_OUT, *_IN, "power_va", "loss_w")}
    volts = next((said[key] for key in _IN if said[key]), 0.0)
    watts = said["power_va"] or said["output_v"] * said["output_a"]
    return round((watts + said["loss_w"]) / volts / phase_factor(part), 3) if watts and volts else 0.0


def consumers_on(project: Project, potential: Potential) -> list[Consumer]:
    """Return the devices on a potential that take a current from it, by tag; each counts once, none for its PE."""
    found: dict[str, Consumer] = {}
    for pin in potential.pins:
        device = device_at(project, pin)
        part = project.part_of(device) if device else None
        if device is None or part is None or device.id in found:
            continue
        if pins_of(project, project.symbols[pin[0]])[pin[1]] == PROTECTIVE:
            continue
        amps = takes_a(part)
        if amps:
            found[device.id] = Consumer(device, round(amps, 3))
    return sorted(found.values(), key=lambda c: tag_order(project, c.device))
