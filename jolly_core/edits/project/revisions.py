"""Freezing a revision: what the revision table says, and which sheets get its index."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from jolly_core.checks import causes
from jolly_core.model import Project, Revision, RuleError
from jolly_core.tagging import revisions

from ..base.edit import ConductorKey, Id, Payload, Text, Work, edit


class FreezeRevision(Payload):
    """Freeze the project as a revision; the sheets named get its index, all others keep theirs.

    Without sheets it is the first revision, or every sheet is issued anew.
    """

    own_door: ClassVar[str] = (
        "A revision is frozen with the sheets that changed and its papers: on the Issue bench under Revisions, or by "
        "POST /api/projects/{project_id}/revisions/freeze."
    )
    kind: Literal["freeze-revision"] = "freeze-revision"
    index: Text
    text: ConductorKey = ""
    issued_on: Text = ""
    drawn_by: Text = ""
    checked_by: Text = ""
    released_by: Text = ""
    sheet_ids: Annotated[list[Id], Field(max_length=5000)] | None = None
    reason: ConductorKey = ""


@edit(FreezeRevision, {"index": "C", "text": "Hatch switch added", "checked_by": "J. Brand", "sheet_ids": ["s1"]})
def freeze_revision(work: Work, payload: FreezeRevision) -> str:
    """Work out FreezeRevision."""
    project = work.project
    index = payload.index.strip()
    _may_freeze(project, index, payload)
    named = payload.sheet_ids if payload.sheet_ids is not None else list(project.sheets)
    ids = [project.get("sheet", id).id for id in named]
    s = project.settings
    drawn_by = payload.drawn_by.strip() or s.drawn_by
    made = Revision(
        work.ids.new(),
        index,
        payload.text.strip(),
        payload.issued_on.strip(),
        drawn_by,
        payload.checked_by.strip(),
        payload.released_by.strip(),
        tuple(ids),
        payload.reason.strip(),
    )
    work.put("revision", made)
    issued_on, checked_by = made.issued_on or s.issued_on, made.checked_by or s.checked_by
    work.put("settings", replace(s, revision=index, issued_on=issued_on, checked_by=checked_by))
    work.outcome.placed.append(made.id)
    return f"freeze revision {index}"


def _may_freeze(project: Project, index: str, payload: FreezeRevision) -> None:
    if not index:
        raise RuleError("Give the revision an index, for example C.", field="index")
    if any(r.index == index for r in project.revisions.values()):
        last = revisions(project)[-1].index
        raise RuleError(f"Revision {index} is frozen already. Choose another index; the last is {last}.", field="index")
    if not project.sheets:
        raise RuleError("There is no sheet yet: nothing can be frozen.", field="index")
    errors = [s for s, _ in causes(project) if s.severity == "error"]
    if errors and not payload.reason.strip():
        count = f"{len(errors)} error{'s are' if len(errors) > 1 else ' is'} left, the first: {errors[0].message}"
        raise RuleError(f"{count} Mend this first, or give the reason why it is frozen so; it is kept.", field="reason")


class RemoveRevision(Payload):
    """Take the last revision out of the table again, as when it was frozen by mistake; what was issued stays issued."""

    kind: Literal["remove-revision"] = "remove-revision"
    revision_id: Id


@edit(RemoveRevision, {"revision_id": "v1"})
def remove_revision(work: Work, payload: RemoveRevision) -> str:
    """Work out RemoveRevision."""
    project = work.project
    revision: Revision = project.get("revision", payload.revision_id)
    ordered = revisions(project)
    if ordered[-1].id != revision.id:
        raise RuleError(f"Only the last revision can be taken out, {ordered[-1].index}.", field="revision_id")
    work.remove("revision", revision.id)
    if len(ordered) > 1:
        work.put("settings", replace(project.settings, revision=ordered[-2].index))
    return f"take out revision {revision.index}"


def next_index(project: Project) -> str:
    """Return the index that the next revision would have, which is the one that is being worked on.

    Example:
        >>> next_index(Project())
        'A'
    """
    frozen = revisions(project)
    return index_after(frozen[-1].index if frozen else "", project.settings.revision)


def index_after(last: str, stated: str) -> str:
    """Return the index behind that of the last frozen revision: the next letter, or the next number.

    Args:
        last: "" while none is frozen.
        stated: what the project says, which is worked on until the first is frozen.

    Example:
        >>> index_after("B", "B"), index_after("09", ""), index_after("Z", ""), index_after("", "P1")
        ('C', '10', 'ZA', 'P1')
    """
    if not last:
        return stated or "A"
    if last.isdecimal():
        return str(int(last) + 1).zfill(len(last))
    if last[-1].isalpha() and last[-1] not in "Zz":
        return last[:-1] + chr(ord(last[-1]) + 1)
    return f"{last}A"
