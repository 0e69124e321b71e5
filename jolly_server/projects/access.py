"""Who may do what in a project: asked here, at one level, by every endpoint."""

from django.contrib.auth.models import AbstractBaseUser
from django.http import HttpRequest
from ninja.errors import HttpError

from jolly_core.model import GoneError

from .models import ProjectRow
from .quick import membership

_RANK = {"viewer": 0, "editor": 1, "owner": 2}
_STILL: dict[str, str] = {
    ProjectRow.State.ARCHIVED: "This project is archived: it can be read, not changed. Its owner can open it again.",
    ProjectRow.State.BINNED: "This project is in the bin. Its owner can restore it from the list of projects.",
}


def person(request: HttpRequest) -> AbstractBaseUser:
    """Return who is signed in.

    Raises:
        HttpError: nobody is (401); the API asks before, this says so to the types.
    """
    user = request.user
    if not isinstance(user, AbstractBaseUser):
        raise HttpError(401, "Please sign in.")
    return user


def role_in(
    request: HttpRequest, project_id: str, least: str = "viewer", *, still: bool = False
) -> tuple[AbstractBaseUser, str]:
    """Return the person and their role in the project.

    Args:
        still: whether it is allowed though the project is archived or in the bin; reading always is.

    Raises:
        GoneError: they are no member; the project is not shown to exist.
        HttpError: their role is less than `least`, or the project is not to be changed (403).
    """
    user, role, _ = role_and_revision(request, project_id, least, still=still)
    return user, role


def role_and_revision(
    request: HttpRequest, project_id: str, least: str = "viewer", *, still: bool = False
) -> tuple[AbstractBaseUser, str, int]:
    """Return the person, their role and the project's stored revision; otherwise as `role_in`."""
    user = request.user
    gone = GoneError("This project is not here, or you are not a member of it.", ids=(project_id,))
    if not isinstance(user, AbstractBaseUser):
        raise gone
    found = membership(project_id, user.pk)
    if found is None:
        raise gone
    role, state, revision = found
    if _RANK[role] < _RANK[least]:
        raise HttpError(403, f"You are {role} of this project; this needs the role of {least}.")
    if least != "viewer" and not still and state in _STILL:
        raise HttpError(403, _STILL[state])
    return user, role, revision
