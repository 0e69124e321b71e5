"""Where things of a layout would land if they were let go, and the kept layouts one can put down."""

from __future__ import annotations

from typing import Literal

from ninja import Schema
from typing_extensions import TypedDict

from jolly_core.cabinet import outline, room_about
from jolly_core.edits import AnyEdit, compute
from jolly_core.edits.cabinet.stamps import layout_from_text
from jolly_core.edits.pieces.stampbody import is_layout
from jolly_core.library import KeptStamp, Library
from jolly_core.model import Duct, Placing, Project, Rail, RuleError
from jolly_core.tagging import natural
from jolly_server.library.services import kept_stamps

Corners = tuple[float, float, float, float]  # left, top, right, bottom in mm on the surface


class LayoutStamp(TypedDict):
    """A kept layout: its size in mm, and how many devices stand in it."""

    id: str
    name: str
    text: str
    origin: Literal["project", "library"]
    surface: str
    width: float
    height: float
    places: int


class LandedThing(TypedDict):
    """Where a device, rail or duct would be: its outline, and that with the room its part asks for."""

    id: str
    box: Corners
    room: Corners


class Landing(TypedDict):
    """What would land or move if something were let go; with a `problem` nothing would."""

    problem: str
    things: list[LandedThing]


class LandingIn(Schema):
    """The edit that letting go would be."""

    edit: AnyEdit


def landing(project: Project, library: Library, enclosure_id: str, surface: str, edit: AnyEdit) -> Landing:
    """Return where an edit would put things on a surface; nothing is changed.

    Raises:
        GoneError: what it concerns is no longer there.
    """
    try:
        outcome = compute(project, edit, library=library)
    except RuleError as error:
        return {"problem": error.message, "things": []}
    things: list[LandedThing] = []
    here = (enclosure_id, surface)
    with project.trial() as tried:
        project.commit(tried, outcome.changes)
        for change in outcome.changes:
            after = change.after
            if isinstance(after, Placing) and (after.enclosure_id, after.surface) == here:
                box = outline(project, after)
                corners = (box.x, box.y, box.x + box.width, box.y + box.height)
                things.append({"id": after.id, "box": corners, "room": room_about(project, after)})
            elif isinstance(after, Rail | Duct) and (after.enclosure_id, after.surface) == here:
                corners = (after.x1, after.y1, after.x2, after.y2)
                things.append({"id": after.id, "box": corners, "room": corners})
    return {"problem": "", "things": things}


def layout_stamps(project: Project) -> list[LayoutStamp]:
    """Return the kept layouts of the project and the library, by name."""
    own = [KeptStamp(s.id, s.name, s.text, s.body) for s in project.stamps.values()]
    named = {s.name for s in own}
    shelved = [s for s in kept_stamps() if s.name not in named]
    found: list[LayoutStamp] = []
    groups: tuple[tuple[Literal["project", "library"], list[KeptStamp]], ...] = (("project", own), ("library", shelved))
    for origin, stamps in groups:
        for stamp in sorted((s for s in stamps if is_layout(s.body)), key=lambda s: (natural(s.name), s.id)):
            kept = layout_from_text(stamp.body)
            found.append(
                {
                    "id": stamp.id,
                    "name": stamp.name,
                    "text": stamp.text,
                    "origin": origin,
                    "surface": kept.surface,
                    "width": kept.width,
                    "height": kept.height,
                    "places": len(kept.places),
                }
            )
    return found
