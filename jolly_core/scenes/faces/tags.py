"""Tags of devices on a layout: the product's tag, with the function or location where that alone is there twice."""

from __future__ import annotations

from collections import defaultdict
from typing import NamedTuple

from jolly_core.cabinet import placings_in
from jolly_core.drawing import ADVANCE
from jolly_core.model import Device, Project, derived
from jolly_core.tagging import path_of, product_tag, short_tag

from ..base.lettering import fit
from ..base.primitives import Prim, Rect, text

TAG_MM = 14.0
SMALLEST_TAG_MM = 5.0
ASPECT = 0.68  # of the tag's size


class LayoutTag(NamedTuple):
    """A tag as it stands on a device.

    Attributes:
        aspects: what tells it from others of the same tag on the surface, as "=R1", "" when there are none.
        product: the tag with its mark, as "-QA1".
    """

    aspects: str
    product: str

    @property
    def words(self) -> str:
        """Both in one line."""
        return self.aspects + self.product


@derived
def layout_tag(project: Project, placing_id: str) -> LayoutTag:
    """Return the tag of a placed device as it stands on its surface."""
    placing = project.placings[placing_id]
    return _tags(project, placing.enclosure_id, placing.surface)[placing_id]


@derived
def _tags(project: Project, enclosure_id: str, surface: str) -> dict[str, LayoutTag]:
    alike: dict[str, list[tuple[str, Device]]] = defaultdict(list)
    for placing in placings_in(project, enclosure_id, surface):
        device = project.devices[placing.device_id]
        alike[product_tag(project, device)].append((placing.id, device))
    found = {}
    for group in alike.values():
        functions = len({d.function_id for _, d in group}) > 1
        locations = len({d.location_id for _, d in group}) > 1
        for id, device in group:
            aspects = path_of(project.functions, device.function_id, "=") if functions else ""
            aspects += path_of(project.locations, device.location_id, "+") if locations else ""
            found[id] = LayoutTag(aspects, short_tag(project, device))
    return found


def tag_on_face(tag: LayoutTag, x: float, y: float, width: float, height: float, share: float = 0.5) -> list[Prim]:
    """Return a device's tag on its face: level where it is wide enough, else upward along its longer side.

    Args:
        x, y, width, height: the face, mm.
        share: how far down the middle of a level tag is.
    """
    wanted = max(len(tag.product), len(tag.aspects) * ASPECT) * ADVANCE
    level = min(TAG_MM, (width - 2) / wanted, height * 0.5)
    middle = y + height * share
    upward = min(TAG_MM, (height - 4) / (len(tag.words) * ADVANCE), width - 3)
    if level >= min(9.0, upward):
        size = max(level, SMALLEST_TAG_MM)
        shown, size = fit(tag.product, max(width - 2, 8), size, SMALLEST_TAG_MM)
        wide = len(shown) * ADVANCE * size + 2
        label: list[Prim] = [
            Rect(x + width / 2 - wide / 2, middle - size * 0.62, wide, size * 1.15, "thin", "paper"),
            text(x + width / 2, middle + size * 0.32, size, shown, anchor="middle", role="tag"),
        ]
        if tag.aspects:
            small = size * ASPECT
            wide = len(tag.aspects) * ADVANCE * small + 2
            top = middle - size * 0.62 - small * 1.15
            label.append(Rect(x + width / 2 - wide / 2, top, wide, small * 1.15, "thin", "paper"))
            label.append(text(x + width / 2, top + small * 0.94, small, tag.aspects, anchor="middle", role="tag"))
        return label
    shown, size = fit(tag.words, height - 4, max(upward, SMALLEST_TAG_MM), SMALLEST_TAG_MM)
    long = len(shown) * ADVANCE * size + 2
    return [
        Rect(x + width / 2 - size * 0.6, y + height / 2 - long / 2, size * 1.2, long, "thin", "paper"),
        text(x + width / 2 + size * 0.34, y + height / 2 + long / 2 - 1, size, shown, role="tag", upward=True),
    ]


def tag_below(tag: LayoutTag, x: float, y: float, width: float) -> list[Prim]:
    """Return a tag below a round device, x and y its lower left corner: what tells it apart under the tag, mm."""
    shown, size = fit(tag.product, width + 14, 9.0, SMALLEST_TAG_MM)
    prims: list[Prim] = [text(x + width / 2, y + size + 1, size, shown, anchor="middle", role="tag")]
    if tag.aspects:
        apart, small = fit(tag.aspects, width + 14, 7.0, SMALLEST_TAG_MM)
        prims.append(text(x + width / 2, y + size + small + 2, small, apart, anchor="middle", role="tag"))
    return prims
