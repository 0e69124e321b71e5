"""What a person, a broken program or somebody who tries can send is refused in words, never answered with 500."""

from __future__ import annotations

import io
import json
import zipfile
from typing import Any

from jolly_server.config.requests import depth_of, escaped_unstorable
from jolly_server.testing import KILN, DemoCase


class Refusals(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def raw(self, path: str, body: str) -> Any:
        return self.anna.post(f"/api{path}", body, content_type="application/json")

    def told(self, answer: Any) -> str:
        self.assertLess(answer.status_code, 500, answer.content[:300])
        self.assertGreaterEqual(answer.status_code, 400)
        return str(answer.json()["message"])

    def test_a_zero_byte_in_what_is_looked_for(self) -> None:
        sheet = next(s["id"] for s in self.anna.get(f"/api/projects/{KILN}").json()["sheets"])
        for path in (
            f"/projects/{KILN}/find?q=a%00b",
            f"/projects/{KILN}/sheets/{sheet}/offers?q=a%00b",
            "/library/parts?q=a%00b",
            f"/projects/{KILN}/find?q=a%ED%A0%80b",
        ):
            answer = self.anna.get(f"/api{path}")
            self.assertLess(answer.status_code, 500, path)
        self.assertIn("zero byte", self.told(self.anna.get(f"/api/projects/{KILN}/find?q=a%00b")))

    def test_half_a_character(self) -> None:
        self.assertIn("half of one", self.told(self.raw("/sign-in", '{"name": "\\ud800", "password": "x"}')))
        self.assertIn(
            "half of one", self.told(self.raw(f"/projects/{KILN}/roles", '{"name": "\\udc00", "role": "viewer"}'))
        )
        self.assertIn("half of one", self.told(self.raw(f"/projects/{KILN}/edits", '{"x": "a\\u0000b"}')))

    def test_json_nested_without_end(self) -> None:
        for body in ("[" * 100_000, '{"a":' * 100_000 + "1" + "}" * 100_000):
            self.assertIn("nested", self.told(self.raw(f"/projects/{KILN}/edits", body)))

    def test_what_is_whole_passes(self) -> None:
        self.assertFalse(escaped_unstorable(json.dumps("kiln 😀").encode()))
        self.assertFalse(escaped_unstorable(rb'"C:\\\\ud800"'))
        self.assertEqual(depth_of(json.dumps([{"a": ["]]]]", 1]}]).encode()), 3)

    def workbook(self, **parts: bytes) -> bytes:
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as book:
            for name, content in parts.items():
                book.writestr(name.replace("__", "/"), content)
        return out.getvalue()

    def test_workbooks_that_are_none(self) -> None:
        whole = self.workbook(**{"[Content_Types].xml": b"<Types", "xl__workbook.xml": b"<a><b></a>"})
        cut = bytearray(whole)
        cut[40:60] = b"\xff" * 20
        for content in (whole, bytes(cut), b"PK\x03\x04 nothing", b""):
            file = io.BytesIO(content)
            file.name = "points.xlsx"
            answer = self.anna.post(f"/api/projects/{KILN}/io/read", {"file": file})
            self.assertLess(answer.status_code, 500, content[:20])
