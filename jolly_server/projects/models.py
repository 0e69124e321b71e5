"""Stored projects: one row for each project, member and journal entry; rows of entities are in `entityrows.py`."""

from django.conf import settings
from django.db import models

from .entityrows import ROWS, EntityRow

__all__ = ["ROWS", "EntityRow", "Invitation", "JournalEntry", "Membership", "Presence", "ProjectRow"]


class ProjectRow(models.Model):
    """A stored project; its facts are entities, only what lists need is repeated by the mapper."""

    class State(models.TextChoices):
        OPEN = "open"
        ARCHIVED = "archived"
        BINNED = "binned"

    id = models.CharField(max_length=40, primary_key=True)
    revision = models.PositiveIntegerField(default=0)
    edited_at = models.DateTimeField(auto_now=True)
    edited_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    state = models.CharField(max_length=8, choices=State.choices, default=State.OPEN)
    starter = models.BooleanField(default=False)  # offered to its members as the start of new projects


class Membership(models.Model):
    """What a person may do in a project."""

    class Role(models.TextChoices):
        OWNER = "owner"
        EDITOR = "editor"
        VIEWER = "viewer"

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="members")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role.choices)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "user"], name="one_role_each")]


class Invitation(models.Model):
    """An owner's offer of a role to somebody with an account; it waits until they take or decline it."""

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="invitations")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=10, choices=Membership.Role.choices)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "user"], name="one_invitation_each")]


class JournalEntry(models.Model):
    """One edit as it was stored.

    `live` is true until the entry is taken back (an edit or redo by an undo, an undo by a redo). `key` is the
    browser's name for the request, so that one sent twice by the network is done once.
    """

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="journal")
    revision = models.PositiveIntegerField()
    user = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    act = models.CharField(max_length=6, choices=[("edit", "edit"), ("undo", "undo"), ("redo", "redo")])
    label = models.CharField(max_length=250)
    payload_kind = models.CharField(max_length=40, blank=True)
    key = models.CharField(max_length=40, blank=True, default="")
    changes = models.TextField()
    live = models.BooleanField(default=True)
    target = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "revision"], name="one_entry_a_revision"),
            models.UniqueConstraint(fields=["project", "key"], condition=~models.Q(key=""), name="each_request_once"),
        ]
        indexes = [models.Index(fields=["project", "user", "live", "act", "revision"], name="journal_undo")]


class Presence(models.Model):
    """Who is in a project, on which sheet ("" for none), and which they saw last."""

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="present")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    sheet_id = models.CharField(max_length=40, blank=True)
    last_sheet_id = models.CharField(max_length=40, blank=True, default="")
    seen_at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "user"], name="one_presence_each")]
