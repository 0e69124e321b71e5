"""Who may do what in a project: asked here, at one level, by every endpoint."""

from django.contrib.auth.models import AbstractBaseUser
from django.http import HttpRequest
from ninja.errors import HttpError

from jolly_core.model import GoneError

from .models import Membership

_RANK = {"viewer": 0, "editor": 1, "owner": 2}


def role_in(request: HttpRequest, project_id: str, least: str = "viewer") -> tuple[AbstractBaseUser, str]:
    """Return the person and their role in the project.

    Raises:
        GoneError: they are no member; the project is not shown to exist.
        HttpError: their role is less than `least` (403).
    """
    user = request.user
    if not isinstance(user, AbstractBaseUser):
        raise GoneError("This project is not here, or you are not a member of it.", ids=(project_id,))
    role = Membership.objects.filter(project_id=project_id, user_id=user.pk).values_list("role", flat=True).first()
    if role is None:
        raise GoneError("This project is not here, or you are not a member of it.", ids=(project_id,))
    if _RANK[role] < _RANK[least]:
        raise HttpError(403, f"You are {role} of this project; this needs the role of {least}.")
    return user, role
