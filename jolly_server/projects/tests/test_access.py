"""Every endpoint by role, walked from the published schema."""

from __future__ import annotations

from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from jolly_server.testing import KILN, DemoCase

OPEN = {("get", "/api/me"), ("post", "/api/sign-in"), ("post", "/api/demo-sign-in")}
FOR_EDITORS = {
    f"/api/projects/{{project_id}}/{act}" for act in ("edits", "preview", "undo", "redo", "io/read", "make/jobs")
}


class ByRole(DemoCase):
    def endpoints(self) -> list[tuple[str, str]]:
        paths = self.person("anna").get("/api/openapi.json").json()["paths"]
        return [(method, path) for path, methods in paths.items() for method in methods]

    def call(self, client: Client, method: str, path: str) -> int:
        device = self.device("QA")
        values = {
            "project_id": KILN,
            "sheet_id": self.sheet("30"),
            "device_id": device,
            "entity_id": next(s.id for s in self.stored().symbols.values() if s.device_id == device),
            "kind": "parts",
            "format": "csv",
            "standard": "iec",
            "enclosure_id": next(iter(self.stored().enclosures)),
            "harness_id": next(iter(self.stored().harnesses)),
            "surface": "plate",
        }
        if "layouts" in path:
            values["format"] = "dxf"
        url = path.format(**values)
        body: dict[str, Any] = {"sheet_id": "", "since": -1}
        if path.endswith(("edits", "preview")):
            body["edit"] = {"kind": "set-text", "device_id": device, "text": "from a test"}
        if method == "get":
            query = {"q": "a", "definition": "contact-no", "sheet_id": values["sheet_id"], "since": "0"}
            return client.get(url, query).status_code
        if path.endswith("io/read"):
            return client.post(url, {"file": SimpleUploadedFile("list.csv", b"Tag,Type\nB1,DI\n")}).status_code
        if path == "/api/projects":
            body = {"name": "New"}
        return client.post(url, body, content_type="application/json").status_code

    def test_a_stranger_gets_nowhere(self) -> None:
        for method, path in self.endpoints():
            if (method, path) not in OPEN:
                with self.subTest(f"{method} {path}"):
                    self.assertEqual(self.call(self.person(""), method, path), 401)

    def test_who_is_no_member_does_not_learn_that_the_project_exists(self) -> None:
        for method, path in self.endpoints():
            if "{project_id}" in path:
                with self.subTest(f"{method} {path}"):
                    self.assertEqual(self.call(self.person("nobody-of-this-project"), method, path), 404)

    def test_a_viewer_reads_and_changes_nothing(self) -> None:
        before = list(self.stored().entities())
        for method, path in self.endpoints():
            if "{project_id}" in path:
                with self.subTest(f"{method} {path}"):
                    wanted = 403 if path in FOR_EDITORS else 200
                    self.assertEqual(self.call(self.person("vera"), method, path), wanted)
        self.assertEqual(list(self.stored().entities()), before)

    def test_an_editor_gets_everywhere_in_the_project(self) -> None:
        for method, path in sorted(self.endpoints(), reverse=True):
            if "{project_id}" in path and not path.endswith(("undo", "redo")):
                with self.subTest(f"{method} {path}"):
                    self.assertEqual(self.call(self.person("jory"), method, path), 200)

    def test_posts_need_the_csrf_token(self) -> None:
        client = Client(enforce_csrf_checks=True)
        client.force_login(self.user("anna"))
        response = client.post(f"/api/projects/{KILN}/undo", {}, content_type="application/json")
        self.assertEqual(response.status_code, 403)

    def user(self, name: str) -> Any:
        from django.contrib.auth import get_user_model

        return get_user_model().objects.get(username=name)
