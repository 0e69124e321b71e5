"""A private library is its owner's: nobody else sees its parts, makers and changes, or changes its files."""

from __future__ import annotations

from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from jolly_core.model import Part
from jolly_server.library.models import LibraryFile, LibraryPart, PartVersion, Shelf
from jolly_server.library.storing import store_parts
from jolly_server.testing import KILN, DemoCase, described

PNG = b"\x89PNG\r\n\x1a\n" + b"\0" * 20


class Private(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna, self.jory, self.stranger = self.person("anna"), self.person("jory"), self.person("nobody")
        owner = self.anna.session["_auth_user_id"]
        shelf = Shelf.objects.create(pk="own", name="Anna's own", order=99, owner_id=owner)
        units = (("lamp", ("X1", "X2")),)
        store_parts([Part("secret", "Hidden Works", "HW-1", "lamp", units=units)], shelf, by="anna", act="added")

    def listed(self, client: Any, path: str) -> str:
        answer = client.get(f"/api{path}")
        self.assertEqual(answer.status_code, 200)
        return str(answer.json())

    def test_makers_and_changes_are_the_owners(self) -> None:
        for path in ("/library/makers", "/library/changes", "/library/parts?q=HW-1"):
            self.assertIn("Hidden" if "makers" in path else "secret", self.listed(self.anna, path), path)
            for other in (self.jory, self.stranger):
                shown = self.listed(other, path)
                self.assertNotIn("Hidden", shown, path)
                self.assertNotIn("secret", shown, path)
        self.assertTrue(PartVersion.objects.filter(part_id="secret").exists())

    def test_another_persons_part_is_not_assigned_or_previewed(self) -> None:
        lamp = next(d["id"] for d in self.lamps())
        edit = {"kind": "assign-part", "device_id": lamp, "part_id": "secret"}
        for act in ("preview", "edits"):
            answer = self.post(self.jory, f"/projects/{KILN}/{act}", {"edit": edit})
            self.assertEqual(answer.status_code, 422, act)
            self.assertIn("neither in the project nor in the library", answer.json()["message"])
        edit["part_id"] = "HW-1"
        self.assertEqual(self.post(self.jory, f"/projects/{KILN}/edits", {"edit": edit}).status_code, 422)
        self.assertEqual(self.post(self.anna, f"/projects/{KILN}/edits", {"edit": edit}).status_code, 200)
        self.assertTrue(LibraryPart.objects.filter(pk="secret").exists())

    def lamps(self) -> list[dict[str, str]]:
        from jolly_server.projects.store import loaded

        project = loaded(KILN).project
        return [{"id": d.id} for d in project.devices.values() if d.letters == "PF"]

    def put(self, client: Any, content: bytes) -> str:
        answer = client.post("/api/library/files", {"file": SimpleUploadedFile("plan.png", content)})
        self.assertEqual(answer.status_code, 200, answer.content)
        return str(answer.json())

    def test_a_file_is_never_exchanged_for_another_of_its_name(self) -> None:
        self.assertEqual(self.put(self.anna, PNG), "plan.png")
        self.assertEqual(self.put(self.stranger, PNG), "plan.png")
        self.assertEqual(self.put(self.stranger, PNG + b"other"), "plan-2.png")
        self.assertEqual(bytes(LibraryFile.objects.get(pk="plan.png").data), PNG)

    def shelf_state(self) -> list[tuple[str, str, str]]:
        return [(p.pk, p.number, p.maker) for p in LibraryPart.objects.filter(shelf_id="own")] + [
            (s.pk, s.name, str(s.owner_id)) for s in Shelf.objects.filter(pk="own")
        ]

    def endpoints(self) -> list[tuple[str, str, list[str]]]:
        """Return method, path and content types of every endpoint of the library, from the published schema."""
        return [
            (method, path, list(about.get("requestBody", {}).get("content", {})))
            for path, methods in described().items()
            if path.startswith("/api/library/")
            for method, about in methods.items()
        ]

    def called(self, client: Any, method: str, path: str, types: list[str]) -> Any:
        """Call an endpoint with all that names the private library and its part, as somebody would who knows them."""
        values = {
            "part_id": "secret",
            "shelf_id": "own",
            "format": "json",
            "standard": "iec",
            "kind": "lamp",
            "part_class_key": "lamp",
        }
        values |= {"key": "none", "id": "none", "name": "none.png"}
        url = path.format(**values)
        record = {"id": "secret", "maker": "Taken", "number": "HW-2", "part_class": "lamp", "version": 1}
        if method == "get":
            return client.get(
                url, {"q": "HW-1", "shelf": "own", "ids": "secret", "limit": 50, "name": "x", "key": "lamp"}
            )
        if method == "delete":
            return client.delete(url)
        if "multipart/form-data" in types:
            table = b"Maker;Part number;Class\nTaken;HW-1;Indicator light\n"
            return client.post(url, {"file": SimpleUploadedFile("parts.csv", table), "shelf": "own", "mapping": ""})
        body: dict[str, Any] = {
            "shelf": "own",
            "ids": ["secret"],
            "record": record,
            "part_id": "secret",
            "act": "like",
            "name": "Mine now",
        }
        body |= {"part_class": "lamp", "unit": "", "kind": "text", "choices": [], "own": False}
        return client.post(url, body, content_type="application/json")

    def test_every_endpoint_of_the_library_by_role(self) -> None:
        before = self.shelf_state()
        found = self.endpoints()
        self.assertGreater(len(found), 30)
        for method, path, types in found:
            for who, client in (
                ("a colleague", self.jory),
                ("a viewer", self.person("vera")),
                ("a stranger", self.stranger),
            ):
                with self.subTest(f"{method} {path} as {who}"):
                    answer = self.called(client, method, path, types)
                    self.assertLess(answer.status_code, 500)
                    shown = b"".join(answer) if answer.streaming else answer.content
                    for word in (b"Hidden Works", b"Anna's own"):
                        self.assertNotIn(word, shown)
                    self.assertEqual(self.shelf_state(), before)
            with self.subTest(f"{method} {path} signed out"):
                self.assertEqual(self.called(self.person(""), method, path, types).status_code, 401)
        self.assertIn(b"Hidden Works", self.called(self.anna, "get", "/api/library/part/{part_id}", []).content)
