"""Pictures of a project."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.library.pictures import read_picture
from jolly_core.model import Picture, RuleError

from ..base.edit import Id, Payload, Text, Work, edit


class AddPicture(Payload):
    """Take a PNG or JPEG picture into the project, as base64."""

    kind: Literal["add-picture"] = "add-picture"
    name: Text = Field(min_length=1)
    data: str


@edit(AddPicture, {"name": "Logo", "data": "iVBORw0KGgo="})
def add_picture(work: Work, payload: AddPicture) -> str:
    """Work out AddPicture."""
    media_type, width, height = read_picture(payload.data)
    same = next((p for p in work.project.pictures.values() if p.data == payload.data), None)
    if same is not None:
        raise RuleError(f"This picture is there already, as “{same.name}”.", field="data", ids=(same.id,))
    picture = Picture(work.ids.new(), payload.name, media_type, width, height, payload.data)
    work.put("picture", picture)
    work.outcome.placed = [picture.id]
    return f"picture {picture.name}"


class RemovePicture(Payload):
    """Take a picture out of the project; cells that show it are left without."""

    kind: Literal["remove-picture"] = "remove-picture"
    picture_id: Id


@edit(RemovePicture, {"picture_id": "p1"})
def remove_picture(work: Work, payload: RemovePicture) -> str:
    """Work out RemovePicture."""
    picture: Picture = work.project.get("picture", payload.picture_id)
    for cell in [c for c in work.project.title_cells.values() if c.picture_id == picture.id]:
        work.put("title_cell", replace(cell, picture_id=""))
    work.remove("picture", picture.id)
    return f"remove picture {picture.name}"
