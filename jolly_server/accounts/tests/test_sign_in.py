"""Signing in and out, and the demo's button."""

from __future__ import annotations

from dataclasses import replace

from django.conf import settings
from django.contrib.auth import get_user_model
from django.test import override_settings

from jolly_server.testing import DemoCase

DEMO = override_settings(JOLLY=replace(settings.JOLLY, demo=True))


class SignIn(DemoCase):
    def test_with_name_and_password(self) -> None:
        get_user_model().objects.create_user("ruth", password="kiln-and-barley")
        client = self.person("")
        wrong = self.post(client, "/sign-in", {"name": "ruth", "password": "x"})
        self.assertEqual((wrong.status_code, wrong.json()["message"]), (403, "Name or password is wrong."))
        self.assertEqual(
            self.post(client, "/sign-in", {"name": "ruth", "password": "kiln-and-barley"}).status_code, 200
        )
        self.assertEqual(client.get("/api/me").json()["name"], "ruth")
        self.assertEqual(client.get("/api/projects").json(), [])
        self.post(client, "/sign-out", {})
        self.assertEqual(client.get("/api/projects").status_code, 401)

    def test_demo_people_have_no_password(self) -> None:
        self.assertEqual(self.post(self.person(""), "/sign-in", {"name": "anna", "password": ""}).status_code, 403)

    @DEMO
    def test_the_demo_button_only_from_the_same_machine(self) -> None:
        client = self.person("")
        self.assertTrue(client.get("/api/me").json()["demo"])
        far = client.post("/api/demo-sign-in", {}, content_type="application/json", REMOTE_ADDR="203.0.113.9")
        self.assertEqual(far.status_code, 403)
        self.assertEqual(self.post(client, "/demo-sign-in", {}).json()["full_name"], "Anna Marsh")

    def test_no_demo_button_without_the_demo(self) -> None:
        self.assertFalse(self.person("").get("/api/me").json()["demo"])
        self.assertEqual(self.post(self.person(""), "/demo-sign-in", {}).status_code, 403)

    def test_pages_allow_nothing_from_outside(self) -> None:
        policy = self.person("").get("/")["Content-Security-Policy"]
        self.assertIn("default-src 'self'", policy)
        self.assertNotIn("http", policy)
