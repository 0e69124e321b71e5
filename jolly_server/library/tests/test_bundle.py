"""A library as a zip with pictures and data sheets; files that are not what they say; work that is stopped."""

from __future__ import annotations

import io
import zipfile
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from jolly_core.model import RuleError
from jolly_server.library.filing import file_name, keep_file
from jolly_server.library.models import LibraryFile, LibraryPart
from jolly_server.library.progress import stop, teller, told
from jolly_server.testing import DemoCase

PNG = b"\x89PNG\r\n\x1a\n" + b"0" * 40


class Files(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def put(self, name: str, content: bytes) -> Any:
        return self.anna.post("/api/library/files", {"file": SimpleUploadedFile(name, content)})

    def read(self, act: str, content: bytes, name: str = "parts.zip") -> Any:
        body = {"file": SimpleUploadedFile(name, content), "shelf": "house", "mapping": ""}
        return self.anna.post(f"/api/library/import/{act}", body)

    def test_a_file_is_kept_by_a_safe_name_and_given_out_inert(self) -> None:
        name = self.put("Data sheets/TW L22.PDF", b"%PDF-1.7 x").json()
        self.assertEqual(name, "TW-L22.pdf")
        out = self.anna.get(f"/api/library/files/{name}")
        self.assertIn("attachment", out.headers["Content-Disposition"])
        self.assertEqual(out.headers["X-Content-Type-Options"], "nosniff")
        self.assertEqual(self.anna.get("/api/library/files/none.png").status_code, 404)
        for odd in ("../../etc/passwd", "", ".svg", "a b\\c.SVG"):
            self.assertNotIn("/", file_name(odd))

    def test_what_is_not_what_its_ending_says_is_refused(self) -> None:
        for name, content, words in (
            ("a.png", b"GIF89a", "not what its ending says"),
            ("a.svg", b"<html>", "not what its ending says"),
            ("a.exe", b"MZ", "no picture or data sheet"),
            ("a.pdf", b"%PDF" + b"0" * 5_000_001, "larger than 5 MB"),
            ("a.stl", b"\0" * 80 + (3).to_bytes(4, "little") + b"\0" * 100, "not what its ending says"),
            ("a.glb", b"PK\3\4", "not what its ending says"),
            ("a.gltf", b'{"asset": {"version": "2.0"}, "buffers": [{"uri": "beside.bin"}]}', "not what its ending"),
            ("b.gltf", b"[]", "not what its ending says"),
        ):
            answer = self.put(name, content)
            self.assertEqual(answer.status_code, 422, name)
            self.assertIn(words, answer.json()["message"])
        self.assertEqual(LibraryFile.objects.count(), 0)

    def test_pictures_in_space_are_kept_as_stl_and_gltf(self) -> None:
        binary = b"\0" * 80 + (2).to_bytes(4, "little") + b"\0" * 100
        words = b"solid box\nfacet normal 0 0 0\nouter loop\n"
        inside = b'{"asset": {"version": "2.0"}, "buffers": [{"uri": "data:application/octet-stream;base64,AAAA"}]}'
        for name, content, media in (
            ("a.stl", binary, "model/stl"),
            ("b.stl", words, "model/stl"),
            ("c.gltf", inside, "model/gltf+json"),
            ("d.glb", b"glTF\2\0\0\0", "model/gltf-binary"),
        ):
            self.assertEqual(self.put(name, content).json(), name)
            out = self.anna.get(f"/api/library/files/{name}")
            self.assertEqual((out.content, out.headers["Content-Type"]), (content, media))

    def test_out_as_a_zip_and_in_again_with_its_files(self) -> None:
        keep_file("lamp.png", PNG)
        keep_file("lamp.glb", b"glTF\2")
        LibraryPart.objects.filter(pk="tamwick-tw-l22-g").update(picture="lamp.png", solid="lamp.glb")
        out = self.anna.get("/api/library/export.zip?ids=tamwick-tw-l22-g").content
        with zipfile.ZipFile(io.BytesIO(out)) as bundle:
            self.assertEqual(sorted(bundle.namelist()), ["files/lamp.glb", "files/lamp.png", "parts.json"])
        self.assertEqual(out, self.anna.get("/api/library/export.zip?ids=tamwick-tw-l22-g").content)
        LibraryFile.objects.all().delete()
        LibraryPart.objects.filter(pk="tamwick-tw-l22-g").delete()
        look = self.read("look", out).json()
        self.assertEqual((look["counts"]["new"], look["files"]), (1, 2))
        self.assertEqual(LibraryFile.objects.count(), 0, "nothing is taken in by looking")
        self.assertEqual(self.read("take", out).json(), {"taken": 1, "left": 0})
        self.assertEqual(bytes(LibraryFile.objects.get(pk="lamp.png").data), PNG)

    def test_a_zip_that_cannot_be_read_says_why(self) -> None:
        def packed(**files: bytes) -> bytes:
            out = io.BytesIO()
            with zipfile.ZipFile(out, "w") as bundle:
                for name, content in files.items():
                    bundle.writestr(name.replace("_", "."), content)
            return out.getvalue()

        for content, words in (
            (b"PK nonsense", "not a zip file"),
            (packed(a_png=PNG), "it has 0"),
            (packed(a_csv=b"x", b_csv=b"y"), "it has 2"),
            (packed(a_csv=b"Number\nN-1\n", b_png=b"no"), "not what its ending says"),
        ):
            answer = self.read("look", content)
            self.assertIn(answer.status_code, (400, 422))
            self.assertIn(words, answer.json()["message"])


class Progress(DemoCase):
    def test_it_is_told_under_a_name_and_can_be_stopped(self) -> None:
        tell = teller(7, "work-1", "Reading rows", 10)
        self.assertEqual(told(7, "work-1")["total"], 0)
        tell(3)
        self.assertEqual(told(7, "work-1"), {"stage": "Reading rows", "done": 3, "total": 10})
        self.assertEqual(told(8, "work-1")["total"], 0, "somebody else's work")
        stop(7, "work-1")
        with self.assertRaisesRegex(RuleError, "Nothing was taken in"):
            tell(10)

    def test_a_stopped_taking_in_leaves_the_library_as_it_was(self) -> None:
        anna = self.person("anna")
        before = LibraryPart.objects.count()
        self.assertTrue(anna.post("/api/library/import/stop?name=w9").json())
        rows = "".join(f"Tamwick;N-{n};Indicator light;Lamp\n" for n in range(20))
        body = {
            "file": SimpleUploadedFile("p.csv", f"Maker;Number;Class;Description\n{rows}".encode()),
            "shelf": "house",
        }
        answer = anna.post("/api/library/import/take", {**body, "mapping": "", "name": "w9"})
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(LibraryPart.objects.count(), before)
        self.assertEqual(anna.get("/api/library/import/progress?name=none").json()["done"], 0)
