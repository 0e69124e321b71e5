"""Every endpoint by role, walked from the published schema."""

from __future__ import annotations

from typing import Any
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from jolly_core.exchange import write_project
from jolly_core.model import Project
from jolly_server.testing import KILN, DemoCase, endpoints

OPEN = {("get", "/api/me"), ("post", "/api/sign-in"), ("post", "/api/demo-sign-in")}
FOR_EDITORS = {
    f"/api/projects/{{project_id}}/{act}"
    for act in (
        "edits",
        "preview",
        "undo",
        "redo",
        "cabinet/{enclosure_id}/landing",
        "harnesses/{harness_id}/space/ask",
        "io/read",
        "io/check/list",
        "io/check/points/{point_id}",
        "strip-layout/read",
        "harness/rows",
        "parts/{part_id}/keep",
        "make/jobs",
        "journal/{revision}/take-back",
        "title-blocks/keep",
        "stamps/{stamp_id}/keep",
        "stamps/{stamp_id}",
        "list-back",
        "recipe-file",
        "recipes/{recipe_id}/share",
        "shared-recipes/{shared_id}/forget",
        "revisions/freeze",
        "revisions/{revision_id}/papers",
    )
}
FOR_OWNERS = {f"/api/projects/{{project_id}}/{act}" for act in ("state", "starter", "delete", "invitations", "roles")}
# What each endpoint that takes something is sent, by the end of its path.
BODIES: dict[str, dict[str, Any]] = {
    "/copy": {"name": "Copy"},
    "/harness/rows": {"text": ""},
    "/io/check/points/{point_id}": {"value": 1},
    "/state": {"state": "open"},
    "/starter": {"starter": True},
    "/invitations": {"name": "guest", "role": "viewer"},
    "/roles": {"name": "vera", "role": "viewer"},
    "/leave": {"name": "guest"},
    "/parts/{part_id}/keep": {"shelf": "house"},
    "/keep": {"block_id": "none"},
    "/api/projects": {"name": "New"},
    "/password": {"old": "a", "new": "b"},
    "/lists/rows": {"kind": "keep-recipe", "name": "", "report": "devices", "columns": [{"key": "tag"}]},
    "/revisions/freeze": {"kind": "freeze-revision", "index": "", "text": ""},
    "/tick": {"since": "", "job": "", "done": False},
}
# What these answer when they may: there is nothing to delete for good, to keep, to take back.
REFUSED = {
    "/stamps/{stamp_id}/keep": 200,
    "/parts/{part_id}/keep": 422,  # it came from the library
    "/stamps/{stamp_id}": 404,
    "/blocks/{symbol_id}": 404,
    "/delete": 422,
    "/keep": 422,
    "/leave": 404,
    "/password": 422,
    "/{answer}": 404,
    "/space/ask": 422,  # no space model answers
    "/list-back": 400,  # no list
    "/recipe-file": 400,  # no recipe
    "/recipe.json": 404,
    "/forget": 200,
    "/share": 404,
    "/freeze": 422,
    "/papers": 404,
    "/papers.zip": 404,
    "/open": 404,
    "/states-compared": 404,
    "/states-compared/drawing": 404,
    "/states-compared/work-list/{format}": 404,
    "/shared-recipes/{shared_id}": 404,
    "/pack-runs/{run_id}": 404,
    "/pack-runs/{run_id}/pack.zip": 404,
    "/cancel": 404,
}


class ByRole(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        # A pack that is asked for is not written: who may ask is what is tried here.
        quiet = mock.patch("jolly_server.issuing.runs.subprocess.Popen")
        quiet.start()
        self.addCleanup(quiet.stop)
        self.person("guest")  # somebody with an account and no project
        # Something in the journal, so that there is an entry to look at.
        self.accepted(self.person("anna"), kind="change-settings", issued_on="today")
        self.accepted(self.person("anna"), kind="set-languages", languages=["de"])
        ids = [s.id for s in self.stored().symbols_on(self.sheet("30"))][:1]
        stamp = self.accepted(self.person("anna"), kind="keep-stamp", ids=ids, name="One")["placed"][0]
        self.values = self.found_in(self.stored(), stamp)

    def wanted(self, path: str) -> int:
        return next((status for end, status in REFUSED.items() if path.endswith(end)), 200)

    def found_in(self, project: Project, stamp_id: str) -> dict[str, Any]:
        """Return what stands in the addresses: ids of things that are there, and words that are known."""
        device = self.device("QA")
        return {
            "project_id": KILN,
            "sheet_id": self.sheet("30"),
            "device_id": device,
            "entity_id": next(s.id for s in project.symbols.values() if s.device_id == device),
            "kind": "parts",
            "format": "csv",
            "standard": "iec",
            "enclosure_id": next(iter(project.enclosures)),
            "cable_id": next(iter(project.cables.values())).device_id,
            "strip_id": next(iter(project.bridges.values())).strip_id,
            "harness_id": next(iter(project.harnesses)),
            "surface": "plate",
            "revision": 1,
            "picture_id": next(iter(project.pictures)),
            "invitation_id": 0,
            "shelf_id": "house",
            "part_id": "tamwick-tw-l22-g",
            "part_class_key": "lamp",
            "key": "none",
            "fault_key": "contactor-bridged",
            "answer": "take",
            "language": "de",
            "stamp_id": stamp_id,
            "point_id": next(iter(self.stored().io_points)),
            "symbol_id": "none",
            "id": "none",
            "name": "none.png",
            "list_id": "parts",
            "recipe_id": "none",
            "shared_id": "none",
            "run_id": "none",
            "revision_id": "none",
        }

    def call(self, client: Client, method: str, path: str) -> int:
        values = {**self.values, **({"format": "dxf"} if "layouts" in path or "boards" in path else {})}
        device = values["device_id"]
        url = path.format(**values)
        body: dict[str, Any] = {"sheet_id": "", "since": -1}
        if path.endswith(("edits", "preview", "landing")):
            body["edit"] = {"kind": "set-text", "device_id": device, "text": "from a test"}
        if method == "get":
            query: dict[str, str] = {
                "q": "a",
                "definition": "contact-no",
                "sheet_id": str(values["sheet_id"]),
                "since": "0",
                "id": str(values["entity_id"]),
            }
            return client.get(url, query).status_code
        if path.endswith("io/read"):
            return client.post(url, {"file": SimpleUploadedFile("list.csv", b"Tag,Type\nB1,DI\n")}).status_code
        if path.endswith("strip-layout/read"):
            return client.post(url, {"file": SimpleUploadedFile("strip.csv", b"Number,Kind\n1,fuse\n")}).status_code
        if path.endswith(("list-back", "recipe-file")):
            return client.post(url, {"file": SimpleUploadedFile("a.file", b"no list, no recipe")}).status_code
        if path.endswith("what-changed"):
            return client.post(
                url, {"file": SimpleUploadedFile("a.json", write_project(Project()).encode())}
            ).status_code
        if path.endswith("/piece"):
            body = {"ids": [values["entity_id"]]}
        if method == "delete":
            return client.delete(url).status_code
        body = next((b for end, b in BODIES.items() if path.endswith(end)), body)
        return client.post(url, body, content_type="application/json").status_code

    def test_a_stranger_gets_nowhere(self) -> None:
        for method, path in endpoints():
            if (method, path) not in OPEN:
                with self.subTest(f"{method} {path}"):
                    self.assertEqual(self.call(self.person(""), method, path), 401)

    def test_who_is_no_member_does_not_learn_that_the_project_exists(self) -> None:
        for method, path in endpoints():
            if "{project_id}" in path:
                with self.subTest(f"{method} {path}"):
                    self.assertEqual(self.call(self.person("nobody-of-this-project"), method, path), 404)

    def test_a_viewer_reads_and_changes_nothing(self) -> None:
        before = list(self.stored().entities())
        for method, path in endpoints():
            if "{project_id}" in path:
                with self.subTest(f"{method} {path}"):
                    denied = path in FOR_EDITORS | FOR_OWNERS or path.endswith("/leave")
                    wanted = 403 if denied else self.wanted(path)
                    self.assertEqual(self.call(self.person("vera"), method, path), wanted)
        self.assertEqual(list(self.stored().entities()), before)

    def test_an_editor_gets_everywhere_in_the_project(self) -> None:
        for method, path in sorted(endpoints(), reverse=True):
            if "{project_id}" in path and not path.endswith(("undo", "redo", "take-back")):
                with self.subTest(f"{method} {path}"):
                    denied = path in FOR_OWNERS or path.endswith("/leave")
                    self.assertEqual(self.call(self.person("jory"), method, path), 403 if denied else self.wanted(path))

    def test_an_owner_gets_everywhere_and_nobody_into_a_project_that_rests(self) -> None:
        for path in sorted(FOR_OWNERS):
            with self.subTest(path):
                self.assertEqual(self.call(self.person("anna"), "post", path), self.wanted(path))
        for state in ("archived", "binned"):
            self.post(self.person("anna"), f"/projects/{KILN}/state", {"state": state})
            for path in sorted(FOR_EDITORS):
                method = "delete" if path.endswith("{stamp_id}") else "post"
                with self.subTest(f"{state} {path}"):
                    self.assertEqual(self.call(self.person("jory"), method, path), 403)
            self.assertEqual(self.person("vera").get(f"/api/projects/{KILN}").status_code, 200)

    def test_posts_need_the_csrf_token(self) -> None:
        client = Client(enforce_csrf_checks=True)
        client.force_login(self.user("anna"))
        response = client.post(f"/api/projects/{KILN}/undo", {}, content_type="application/json")
        self.assertEqual(response.status_code, 403)

    def user(self, name: str) -> Any:
        from django.contrib.auth import get_user_model

        return get_user_model().objects.get(username=name)
