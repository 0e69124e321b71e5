"""Signing in and out, and the demo's button."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.cache import cache
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


PATIENT = override_settings(JOLLY=replace(settings.JOLLY, sign_in_tries=3, sign_in_wait_s=120))


@PATIENT
class Patience(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        cache.clear()
        self.addCleanup(cache.clear)
        get_user_model().objects.create_user("ruth", password="kiln-and-barley")

    def enter(self, password: str, name: str = "ruth") -> Any:
        return self.post(self.person(""), "/sign-in", {"name": name, "password": password})

    def test_after_some_wrong_tries_even_the_right_password_waits(self) -> None:
        for _ in range(3):
            self.assertEqual(self.enter("wrong").status_code, 403)
        waiting = self.enter("kiln-and-barley")
        self.assertEqual((waiting.status_code, "Wait 2 min" in waiting.json()["message"]), (429, True))
        self.assertEqual(self.enter("kiln-and-barley", "RUTH ").status_code, 429, "another spelling does not help")
        self.assertEqual(self.enter("wrong", "olaf").status_code, 403, "others need not wait")

    def test_a_right_one_in_between_begins_anew(self) -> None:
        for password in ("a", "b", "kiln-and-barley", "c", "d"):
            self.enter(password)
        self.assertEqual(self.enter("kiln-and-barley").status_code, 200)

    def test_the_administrator_pages_wait_too(self) -> None:
        get_user_model().objects.create_superuser("root", password="kiln-and-barley")
        client = self.person("")
        for _ in range(3):
            client.post("/admin/login/", {"username": "root", "password": "x"})
        client.post("/admin/login/", {"username": "root", "password": "kiln-and-barley"})
        self.assertNotIn("_auth_user_id", client.session)


class Passwords(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        cache.clear()
        self.addCleanup(cache.clear)
        self.user = get_user_model().objects.create_user("ruth", password="kiln-and-barley")

    def test_changed_with_the_old_one_and_signed_out_elsewhere(self) -> None:
        here, there = self.person(""), self.person("")
        for client in (here, there):
            self.post(client, "/sign-in", {"name": "ruth", "password": "kiln-and-barley"})
        wrong = self.post(here, "/password", {"old": "guess", "new": "turner-carriage-9"})
        self.assertEqual(wrong.status_code, 422)
        weak = self.post(here, "/password", {"old": "kiln-and-barley", "new": "1234"})
        self.assertEqual((weak.status_code, "short" in weak.json()["message"]), (422, True))
        done = self.post(here, "/password", {"old": "kiln-and-barley", "new": "turner-carriage-9"})
        self.assertEqual(done.status_code, 200)
        self.assertEqual(here.get("/api/me").json()["name"], "ruth")
        self.assertEqual(there.get("/api/me").json()["name"], "")
        enter = self.post(self.person(""), "/sign-in", {"name": "ruth", "password": "turner-carriage-9"})
        self.assertEqual(enter.status_code, 200)

    def test_demo_people_have_none_to_change(self) -> None:
        client = self.person("anna")
        self.assertFalse(client.get("/api/me").json()["has_password"])
        self.assertEqual(self.post(client, "/password", {"old": "", "new": "turner-carriage-9"}).status_code, 422)

    def test_accounts_are_made_on_the_administrator_pages_by_staff_only(self) -> None:
        self.assertEqual(self.person("vera").get("/admin/auth/user/").status_code, 302)
        anna = self.person("anna")
        self.assertContains(anna.get("/admin/auth/user/"), "jory")
        form = {"username": "olaf", "usable_password": "true"}
        form |= {"password1": "turner-carriage-9", "password2": "turner-carriage-9"}
        anna.post("/admin/auth/user/add/", form)
        self.assertEqual(
            self.post(self.person(""), "/sign-in", {"name": "olaf", "password": "turner-carriage-9"}).status_code, 200
        )

    @DEMO
    def test_the_demo_lets_one_be_any_of_its_people_and_nobody_else(self) -> None:
        for name, wanted in (("vera", "vera"), ("ruth", "anna"), ("", "anna")):
            self.assertEqual(self.post(self.person(""), "/demo-sign-in", {"name": name}).json()["name"], wanted)
