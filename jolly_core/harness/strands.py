"""What is said of the wires of a harness beside their ends: twisted together, in a shield, where that lands."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import HarnessShield, Project, Strand, WireType, derived
from jolly_core.tagging import full_tag, natural

from .contacts import is_splice
from .wires import HarnessWire, wires_of


@dataclass(slots=True, frozen=True)
class Shield:
    """A shield of a harness: the wires in it, and where it lands, "" while that is nowhere."""

    name: str
    wires: tuple[HarnessWire, ...]
    landed: str


def size_words(wire_type: WireType | None) -> str:
    """Return the size of a wire as people type it: "0.5" for mm², "AWG 20"; "" for none."""
    if wire_type is None:
        return ""
    return f"AWG {wire_type.awg}" if wire_type.awg else f"{wire_type.cross_section_mm2:g}"


def strand_of(project: Project, harness_id: str, conductor: str) -> Strand | None:
    """Return what is said of a wire of a harness by its key."""
    found = (project.strands[id] for id in project.strands_of.get(conductor))
    return next((s for s in found if s.harness_id == harness_id), None)


@derived
def shields(project: Project, harness_id: str) -> list[Shield]:
    """Return the shields of a harness by name: those that wires lie in, and those that were landed."""
    inside: dict[str, list[HarnessWire]] = {}
    for wire in wires_of(project, harness_id):
        strand = strand_of(project, harness_id, wire.conductor.key)
        if strand is not None and strand.shield:
            inside.setdefault(strand.shield, []).append(wire)
    landed = {s.name: s for s in project.harness_shields.values() if s.harness_id == harness_id}
    names = sorted({*inside, *landed}, key=natural)
    return [Shield(n, tuple(inside.get(n, ())), _landing(project, landed.get(n))) for n in names]


def _landing(project: Project, shield: HarnessShield | None) -> str:
    """Return the pin that a shield lands on, "" for none and for a cavity that its connector does not have."""
    device = project.devices.get(shield.device_id) if shield else None
    if shield is None or device is None:
        return ""
    if is_splice(project, device.id):
        return full_tag(project, device)
    part = project.part_of(device)
    names = [pins[0] for kind, pins in part.units if kind == "cavity"] if part else [str(shield.unit)]
    at = shield.unit - 1 if part else 0
    return f"{full_tag(project, device)}:{names[at]}" if 0 <= at < len(names) else ""
