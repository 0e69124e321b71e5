"""What the Harness bench shows by section and id, so that a browser is told only what is other than it has."""

from __future__ import annotations

from typing import cast

from jolly_core.model import Project, derived_few
from jolly_server.projects.store import Loaded
from jolly_server.projects.versions import KEEP_SUBJECTS, View, difference
from jolly_server.shapes.sceneshapes import BareItem

from .harness import harness_bench
from .harnessshapes import HarnessAround, HarnessChange, HarnessFacts, HarnessOrder, HarnessSections, HarnessView

_LISTS = ("nodes", "segments", "wires", "connectors")
_KEYS = {"wires": "key"}  # what the values of a list are told apart by, where that is not their id


def harness_change(held: Loaded, harness_id: str, variant_id: str, since: int) -> HarnessChange:
    """Return what changed of the bench since a revision, all of it where that is no longer known."""
    subject = f"harness:{harness_id}:{variant_id}"
    before = held.shown.at(subject, since)
    view = cast(View, harness_sections(held.project, harness_id, variant_id))
    held.shown.note(subject, held.revision, view)
    return cast(HarnessChange, {"revision": held.revision, **difference(before, view)})


@derived_few(KEEP_SUBJECTS)
def harness_sections(project: Project, harness_id: str, variant_id: str) -> HarnessSections:
    """Return what the bench shows of a harness, or the first, as it is in a variant."""
    return sections_of(harness_bench(project, harness_id, variant_id))


def sections_of(view: HarnessView) -> HarnessSections:
    """Return what the bench shows by section and id."""
    harness = view["harness"]
    facts = None
    if harness is not None:
        facts = cast(HarnessFacts, {k: v for k, v in harness.items() if k not in ("scene", *_LISTS)})
    around: HarnessAround = {
        "harnesses": view["harnesses"],
        "free": view["free"],
        "others": view["others"],
        "facts": facts,
    }
    scene = harness["scene"] if harness else None
    items = scene["items"] if scene else []
    lists = {
        name: {value[_KEYS.get(name, "id")]: value for value in harness[name]} if harness else {}  # type: ignore[literal-required]
        for name in _LISTS
    }
    order = {name: list(values) for name, values in lists.items()}
    size = (scene["width"], scene["height"]) if scene else None
    return cast(
        HarnessSections,
        {
            "around": {"around": around},
            "order": {"order": cast(HarnessOrder, {"size": size, "items": [i["id"] for i in items], **order})},
            "items": {i["id"]: cast(BareItem, {k: v for k, v in i.items() if k != "prims"}) for i in items},
            "prims": {i["id"]: i["prims"] for i in items},
            **lists,
        },
    )
