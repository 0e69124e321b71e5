"""The demo: its library, its projects, and the people in them."""

from __future__ import annotations

from pathlib import Path

from django.contrib.auth import get_user_model
from django.db import transaction

from jolly_core.exchange import read_project
from jolly_server.library.models import Shelf
from jolly_server.library.services import load_library
from jolly_server.library.shelves import HOUSE
from jolly_server.projects.models import Membership, ProjectRow
from jolly_server.projects.services import create_project

PROJECTS = {
    "kiln-2": "pellwick-kiln-2.spool.json",
    "dehumidifier": "sample-store-dehumidifier.spool.json",
}
# Made-up people: user name, first and last name, role in the demo projects.
PEOPLE = (
    ("anna", "Anna", "Marsh", Membership.Role.OWNER),
    ("jory", "Jory", "Brand", Membership.Role.EDITOR),
    ("vera", "Vera", "Holt", Membership.Role.VIEWER),
)


def is_seeded() -> bool:
    """Tell whether all of the demo is there: library, people and their projects."""
    names = [name for name, *_ in PEOPLE]
    return Shelf.objects.filter(pk=HOUSE, parts__isnull=False).exists() and Membership.objects.filter(
        project_id__in=PROJECTS, user__username__in=names
    ).count() == len(PROJECTS) * len(PEOPLE)


def seed(folder: Path) -> list[str]:
    """Load the demo where it is not loaded yet, and return what was done.

    People are made without a usable password; only the demo sign-in lets them in.

    Raises:
        FileError: a demo file is wrong.
    """
    done = []
    users = get_user_model().objects
    with transaction.atomic():
        shelf, new = Shelf.objects.get_or_create(pk=HOUSE, defaults={"name": "House library", "order": 1})
        if new or not shelf.parts.exists():
            done.append(f"library: {load_library(folder / 'library.json', shelf)} parts")
        people = []
        for name, first, last, role in PEOPLE:
            user, made = users.get_or_create(username=name, defaults={"first_name": first, "last_name": last})
            if made:
                user.set_unusable_password()
                # The owner of the demo may look at the administrator pages too; nobody can sign in so from outside.
                user.is_staff = user.is_superuser = role == Membership.Role.OWNER
                user.save()
            people.append((user, role))
        for project_id, file in PROJECTS.items():
            if not ProjectRow.objects.filter(pk=project_id).exists():
                project = read_project((folder / file).read_bytes())
                create_project(None, project, project_id)
                done.append(f"project {project_id}: {project.settings.name}")
            for user, role in people:
                Membership.objects.get_or_create(project_id=project_id, user_id=user.pk, defaults={"role": role})
    return done
