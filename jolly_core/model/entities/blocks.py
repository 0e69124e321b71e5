"""Harnesses as blocks: boxes of devices, connectors that sit on them and are plugged together; and what is said of
single wires: twisted, screened, in which variants of the harness."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from ..fields import Id, LongText, Names, Order, Running, Since, Text, Within
from ..kinds import Keyed, kind
from .harness import Quantity

# Where the corner of a box is in the picture of blocks, mm.
BlockPlace = Annotated[float, Within(-5000, 20_000, "mm")]


@kind("block", since=12, seen="here", keeps_device=True, called="box")
@dataclass(slots=True)
class Block:
    """A device in the picture of blocks, and where a person put its box; 0, 0 while that finds its own place."""

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]
    x: BlockPlace = 0.0
    y: BlockPlace = 0.0


@kind(
    "seat",
    since=12,
    seen="here",
    keeps_device=True,
    called="connector of a device",
    indexes=(Keyed("seats_on", "owner_id"), Keyed("seats_mating", "mate_id")),
)
@dataclass(slots=True)
class Seat:
    """What a connector sits on and is plugged to.

    Attributes:
        device_id: the connector.
        owner_id: the device it is fixed to, "" for one at the end of a harness.
        mate_id: the connector it is plugged to; one of the two says so.
    """

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]
    owner_id: Annotated[str, Names("device")] = ""
    mate_id: Annotated[str, Names("device")] = ""


@kind("strand", since=12, seen="nowhere", called="what is said of a wire", indexes=(Keyed("strands_of", "conductor"),))
@dataclass(slots=True)
class Strand:
    """What a person says of a wire of a harness.

    Attributes:
        conductor: key of the wire (`jolly_core.wiring.Conductor.key`).
        twisted: name of the group it is twisted with.
        shield: name of the shield it lies in.
        here: it runs in this harness, though another joins its ends, too.
    """

    id: Id
    harness_id: Annotated[str, Names("harness", needed=True)]
    conductor: LongText
    twisted: Text = ""
    shield: Text = ""
    here: Annotated[bool, Since(13)] = False


@kind("harness_shield", since=12, seen="nowhere", called="shield")
@dataclass(slots=True)
class HarnessShield:
    """Where a shield of a harness lands: a cavity of a connector, or a splice; "" while it lands nowhere."""

    id: Id
    harness_id: Annotated[str, Names("harness", needed=True)]
    name: Text
    device_id: Annotated[str, Names("device")] = ""
    unit: Running = 0


@kind("harness_variant", since=12, seen="nowhere", called="variant")
@dataclass(slots=True)
class HarnessVariant:
    """A way in which a harness is built, and how many are."""

    id: Id
    harness_id: Annotated[str, Names("harness", needed=True)]
    name: Text
    quantity: Quantity = 1
    order: Order = 0


@kind("variant_part", since=12, seen="nowhere", called="part of a variant")
@dataclass(slots=True)
class VariantPart:
    """A wire, end or branch that is in a variant; what is in none named is in all of them.

    Attributes:
        conductor: key of a wire.
        node_id: an end, or a splice or clip.
        segment_id: a branch: the segment, and all beyond it from the node made first.
    """

    id: Id
    variant_id: Annotated[str, Names("harness_variant", needed=True)]
    conductor: LongText = ""
    node_id: Annotated[str, Names("node")] = ""
    segment_id: Annotated[str, Names("segment")] = ""
