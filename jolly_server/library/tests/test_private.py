"""A private library is its owner's: nobody else sees its parts, makers and changes, or changes its files."""

from __future__ import annotations

from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from jolly_core.model import Part
from jolly_server.library.models import LibraryFile, LibraryPart, PartVersion, Shelf
from jolly_server.library.storing import store_parts
from jolly_server.testing import KILN, DemoCase

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
