"""A cable part of the project's own, made where it is needed."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.library.cabletext import cores_told
from jolly_core.model import FileError, Part, RuleError
from jolly_core.tagging import short_tag

from ..base.edit import Id, Payload, Text, TextLine, Work, edit
from ..devices.parts import give_part
from .cores import cable_named

SHIELD = ("shield", ("SH",))


class MakeCablePart(Payload):
    """Make a cable part in the project and give it to a cable.

    The cores are told in a word: 7, 4G2.5, 7x0.5, 4x2x0.5 (pairs), 3xAWG16.
    """

    kind: Literal["make-cable-part"] = "make-cable-part"
    device_id: Id
    maker: Text = Field(min_length=1)
    number: Text = Field(min_length=1)
    text: TextLine = ""
    cores: Text = Field(min_length=1, max_length=40)
    outer_diameter_mm: float = Field(default=0.0, ge=0, le=200)
    shielded: bool = False


@edit(MakeCablePart, {"device_id": "d1", "maker": "Quillon", "number": "QL-7G1", "cores": "7G1"})
def make_cable_part(work: Work, payload: MakeCablePart) -> str:
    """Work out MakeCablePart."""
    project = work.project
    device, _ = cable_named(project, payload.device_id)
    maker, number = " ".join(payload.maker.split()), " ".join(payload.number.split())
    known = project.part_named(number) or work.library.part(number)
    if known is not None:
        raise RuleError(f"There is a part {known.number} of {known.maker} already. Choose it.", field="number")
    bare = Part(work.ids.new(), maker, number, "cable", payload.text.strip(), mounting="cable")
    try:
        part = cores_told(bare, payload.cores.strip())
    except FileError as error:
        raise RuleError(error.message[:1].upper() + error.message[1:], field="cores") from None
    if payload.shielded and not any(kind == "shield" for kind, _ in part.units):
        part = replace(part, units=(*part.units, SHIELD))
    if payload.outer_diameter_mm:
        part = replace(part, ratings={**part.ratings, "outer_diameter_mm": f"{payload.outer_diameter_mm:g}"})
    work.put("part", part)
    give_part(work, device, part.id)
    return f"{number} for {short_tag(project, project.devices[device.id])}"
