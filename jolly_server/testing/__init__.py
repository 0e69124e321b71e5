"""Help for server tests: the demo loaded, people signed in, requests as the browser makes them."""

from __future__ import annotations

from functools import cache
from typing import Any

from django.contrib.auth import get_user_model
from django.test import Client, TestCase
from django.test.client import ClientHandler

from jolly_core.model import Project
from jolly_server.demo.services import PROJECTS
from jolly_server.projects.store import forget, load_rows, loaded

from .seeding import seed_rows
from .warmth import as_seeded

KILN = "kiln-2"


@cache
def _way_in() -> ClientHandler:
    """Return what takes the requests of all people: each of its own would look through all files that are served."""
    handler = ClientHandler(enforce_csrf_checks=False)
    handler.load_middleware()
    return handler


@cache
def described() -> dict[str, dict[str, Any]]:
    """Return what the published description of the interface says of each path, by method."""
    client = Client()
    client.force_login(get_user_model().objects.earliest("pk"))
    paths: dict[str, dict[str, Any]] = client.get("/api/openapi.json").json()["paths"]
    return paths


def endpoints() -> list[tuple[str, str]]:
    """Return method and path of each endpoint."""
    return [(method, path) for path, methods in described().items() for method in methods]


class DemoCase(TestCase):
    """A test with the demo's library, people and project.

    Attributes:
        cold: whether nothing may be known of the project yet: what a test before has worked out is thrown away.
    """

    cold = False

    @classmethod
    def setUpTestData(cls) -> None:
        """Load the demo once for the class; each test sees it fresh, as the database takes back what a test did."""
        seed_rows()

    def setUp(self) -> None:
        """Leave nothing in memory of what the test before did."""
        if self.cold:
            forget()
        else:
            as_seeded(PROJECTS)

    def person(self, name: str) -> Client:
        """Return a client signed in as a person; "" as nobody, a new name as an account without projects."""
        client = Client()
        client.handler = _way_in()
        if name:
            user, _ = get_user_model().objects.get_or_create(username=name)
            client.force_login(user)
        return client

    def post(self, client: Client, path: str, body: dict[str, Any]) -> Any:
        """Post JSON to the API."""
        return client.post(f"/api{path}", body, content_type="application/json")

    def edit(self, client: Client, project_id: str = KILN, **edit: Any) -> Any:
        """Post an edit and return the response."""
        return self.post(client, f"/projects/{project_id}/edits", {"edit": edit})

    def accepted(self, client: Client, project_id: str = KILN, **edit: Any) -> dict[str, Any]:
        """Post an edit that must be accepted and return the answer."""
        response = self.edit(client, project_id, **edit)
        self.assertEqual(response.status_code, 200, response.content)
        answer: dict[str, Any] = response.json()
        return answer

    def stored(self, project_id: str = KILN) -> Project:
        """Return the project as its rows have it."""
        return load_rows(project_id)

    def assert_memory_is_stored(self, project_id: str = KILN) -> None:
        """Check that the project in memory equals its rows."""
        self.assertEqual(list(loaded(project_id).project.entities()), list(self.stored(project_id).entities()))

    def sheet(self, number: str) -> str:
        """Return the id of a sheet."""
        return next(s.id for s in self.stored().sheets.values() if s.number == number)

    def device(self, letters: str, number: int = 1) -> str:
        """Return the id of a device by its letters and number."""
        return next(d.id for d in self.stored().devices.values() if (d.letters, d.number) == (letters, number))
