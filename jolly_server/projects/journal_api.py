"""The journal over HTTP."""

from datetime import datetime

from django.http import HttpRequest
from ninja import Router, Schema

from .access import role_in
from .journal import BeforeAfter, JournalDetail, JournalLine, before_and_after, detail, find_entries, take_one_back

router = Router(tags=["journal"])


class TakenBack(Schema):
    """The revision after an edit was taken back."""

    revision: int


@router.get("/{project_id}/journal", response=list[JournalLine])
def journal(
    request: HttpRequest,
    project_id: str,
    who: str = "",
    object_id: str = "",
    sheet_id: str = "",
    since: datetime | None = None,
    until: datetime | None = None,
    words: str = "",
    before: int = 0,
) -> list[JournalLine]:
    """List edits, latest first, by person, object, sheet, time and words; `before` gives the next page."""
    role_in(request, project_id)
    return find_entries(
        project_id,
        who=who,
        object_id=object_id,
        sheet_id=sheet_id,
        since=since,
        until=until,
        words=words,
        before=before,
    )


@router.get("/{project_id}/journal/{revision}", response=JournalDetail)
def journal_entry(request: HttpRequest, project_id: str, revision: int) -> JournalDetail:
    """Say all about an edit: what it changed, whether it can be taken back, and what depends on it."""
    role_in(request, project_id)
    return detail(project_id, revision)


@router.get("/{project_id}/journal/{revision}/sheets/{sheet_id}", response=BeforeAfter)
def journal_sheet(request: HttpRequest, project_id: str, revision: int, sheet_id: str) -> BeforeAfter:
    """Give a sheet before and after an edit."""
    role_in(request, project_id)
    return before_and_after(project_id, revision, sheet_id)


@router.post("/{project_id}/journal/{revision}/take-back", response=TakenBack)
def take_back_entry(request: HttpRequest, project_id: str, revision: int) -> TakenBack:
    """Take one edit back when nothing later depends on it."""
    user, _ = role_in(request, project_id, "editor")
    return TakenBack(revision=take_one_back(project_id, user, revision))
