"""Who works in a project: members, roles, invitations."""

from typing import Any, Literal

from django.contrib.auth import get_user_model
from django.db import transaction
from django.http import HttpRequest
from ninja import Router, Schema
from ninja.errors import HttpError

from jolly_core.model import GoneError

from .access import person, role_in
from .models import ROWS, Invitation, Membership

router = Router(tags=["people"])
Role = Literal["owner", "editor", "viewer"]


class Member(Schema):
    """Somebody in a project, or invited to it (`waiting`)."""

    name: str
    full_name: str
    role: str
    waiting: bool
    me: bool


class NewRole(Schema):
    """A role for somebody by account name."""

    name: str
    role: Role


class Who(Schema):
    """Somebody by account name."""

    name: str


class InvitationLine(Schema):
    """An invitation that waits for the person."""

    id: int
    project: str
    number: str
    role: str
    by: str


def _full(user: Any) -> str:
    return str(user.get_full_name() or user.get_username())


def _members(project_id: str, me: Any) -> list[Member]:
    rows = Membership.objects.filter(project_id=project_id).select_related("user").order_by("user__username")
    waiting = Invitation.objects.filter(project_id=project_id).select_related("user").order_by("user__username")
    there = [(r.user, r.role, False) for r in rows] + [(r.user, r.role, True) for r in waiting]
    return [
        Member(name=u.get_username(), full_name=_full(u), role=role, waiting=waits, me=u.pk == me.pk)
        for u, role, waits in there
    ]


@router.get("/projects/{project_id}/members", response=list[Member])
def members(request: HttpRequest, project_id: str) -> list[Member]:
    """List who is in the project, and who is invited."""
    user, _ = role_in(request, project_id)
    return _members(project_id, user)


@router.post("/projects/{project_id}/invitations", response=list[Member])
def invite(request: HttpRequest, project_id: str, payload: NewRole) -> list[Member]:
    """Invite somebody who has an account; the invitation waits in their list of projects."""
    user, _ = role_in(request, project_id, "owner", still=True)
    guest = get_user_model().objects.filter(username__iexact=payload.name.strip(), is_active=True).first()
    if guest is None:
        raise HttpError(422, f"There is no account “{payload.name}”. An administrator can make one.")
    if Membership.objects.filter(project_id=project_id, user_id=guest.pk).exists():
        raise HttpError(422, f"{_full(guest)} is in this project already. Change the role in the list.")
    Invitation.objects.update_or_create(
        project_id=project_id, user_id=guest.pk, defaults={"role": payload.role, "by_id": user.pk}
    )
    return _members(project_id, user)


@router.post("/projects/{project_id}/roles", response=list[Member])
def set_role(request: HttpRequest, project_id: str, payload: NewRole) -> list[Member]:
    """Give a member another role; an owner remains."""
    user, _ = role_in(request, project_id, "owner", still=True)
    with transaction.atomic():
        found = Membership.objects.filter(project_id=project_id, user__username=payload.name)
        if not found.update(role=payload.role):
            raise GoneError(f"{payload.name} is no longer in this project.")
        _an_owner_remains(project_id)
    return _members(project_id, user)


@router.post("/projects/{project_id}/leave", response=list[Member])
def remove_member(request: HttpRequest, project_id: str, payload: Who) -> list[Member]:
    """Take somebody or an invitation out of the project: an owner anybody, each member themselves."""
    user, role = role_in(request, project_id)
    mine = payload.name == user.get_username()
    if role != "owner" and not mine:
        raise HttpError(403, f"You are {role} of this project; only an owner takes others out.")
    with transaction.atomic():
        gone, _ = Membership.objects.filter(project_id=project_id, user__username=payload.name).delete()
        also, _ = Invitation.objects.filter(project_id=project_id, user__username=payload.name).delete()
        if not gone and not also:
            raise GoneError(f"{payload.name} is no longer in this project.")
        _an_owner_remains(project_id)
    return _members(project_id, user)


def _an_owner_remains(project_id: str) -> None:
    if not Membership.objects.filter(project_id=project_id, role=Membership.Role.OWNER).exists():
        raise HttpError(422, "A project needs an owner. Make somebody else owner first.")


@router.get("/invitations", response=list[InvitationLine])
def my_invitations(request: HttpRequest) -> list[InvitationLine]:
    """List the invitations that wait for the person."""
    rows = list(Invitation.objects.filter(user__id=person(request).pk).select_related("by"))
    facts = {s.project_id: s for s in ROWS["settings"].objects.filter(project_id__in=[r.project_id for r in rows])}
    return [
        InvitationLine(
            id=r.pk,
            project=facts[r.project_id].name,
            number=facts[r.project_id].number,
            role=r.role,
            by=_full(r.by) if r.by else "",
        )
        for r in rows
        if r.project_id in facts
    ]


@router.post("/invitations/{invitation_id}/{answer}", response=list[InvitationLine])
def answer_invitation(
    request: HttpRequest, invitation_id: int, answer: Literal["take", "decline"]
) -> list[InvitationLine]:
    """Take or decline an invitation."""
    user = person(request)
    with transaction.atomic():
        row = Invitation.objects.filter(pk=invitation_id, user__id=user.pk).first()
        if row is None:
            raise GoneError("This invitation is no longer there.")
        if answer == "take":
            Membership.objects.get_or_create(project_id=row.project_id, user_id=user.pk, defaults={"role": row.role})
        row.delete()
    return my_invitations(request)
