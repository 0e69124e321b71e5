"""Members, roles and invitations."""

from __future__ import annotations

from typing import Any

from jolly_server.testing import KILN, DemoCase


class People(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")
        self.ruth = self.person("ruth")

    def roles(self) -> dict[str, tuple[str, bool]]:
        rows = self.anna.get(f"/api/projects/{KILN}/members").json()
        return {m["name"]: (m["role"], m["waiting"]) for m in rows}

    def act(self, client: Any, what: str, **body: str) -> Any:
        return self.post(client, f"/projects/{KILN}/{what}", body)

    def test_an_invitation_waits_until_it_is_taken(self) -> None:
        self.assertEqual(self.act(self.anna, "invitations", name="Ruth", role="editor").status_code, 200)
        self.assertEqual(self.roles()["ruth"], ("editor", True))
        self.assertEqual(self.ruth.get(f"/api/projects/{KILN}").status_code, 404, "not before it is taken")
        (waiting,) = self.ruth.get("/api/invitations").json()
        self.assertEqual((waiting["project"], waiting["by"], waiting["role"]), ("Kiln 2", "Anna Marsh", "editor"))
        stranger = self.post(self.person("olaf"), f"/invitations/{waiting['id']}/take", {})
        self.assertEqual(stranger.status_code, 404, "nobody takes another's invitation")
        self.assertEqual(self.post(self.ruth, f"/invitations/{waiting['id']}/take", {}).json(), [])
        self.assertEqual(self.roles()["ruth"], ("editor", False))
        self.accepted(self.ruth, kind="change-settings", site="by Ruth")

    def test_one_declined_or_withdrawn_is_gone(self) -> None:
        for how in ("decline", "withdraw"):
            self.act(self.anna, "invitations", name="ruth", role="viewer")
            (waiting,) = self.ruth.get("/api/invitations").json()
            if how == "decline":
                self.post(self.ruth, f"/invitations/{waiting['id']}/decline", {})
            else:
                self.act(self.anna, "leave", name="ruth")
            self.assertNotIn("ruth", self.roles())
            self.assertEqual(self.ruth.get("/api/invitations").json(), [])

    def test_only_accounts_there_are_and_nobody_twice(self) -> None:
        unknown = self.act(self.anna, "invitations", name="nobody", role="viewer")
        self.assertEqual((unknown.status_code, "administrator" in unknown.json()["message"]), (422, True))
        twice = self.act(self.anna, "invitations", name="jory", role="viewer")
        self.assertEqual((twice.status_code, "already" in twice.json()["message"]), (422, True))

    def test_roles_take_effect_at_once(self) -> None:
        jory = self.person("jory")
        self.accepted(jory, kind="change-settings", site="a")
        self.act(self.anna, "roles", name="jory", role="viewer")
        self.assertEqual(self.edit(jory, kind="change-settings", site="b").status_code, 403)
        self.act(self.anna, "leave", name="jory")
        self.assertEqual(jory.get(f"/api/projects/{KILN}").status_code, 404)

    def test_a_project_keeps_an_owner(self) -> None:
        for what, body in (("roles", {"name": "anna", "role": "editor"}), ("leave", {"name": "anna"})):
            refused = self.act(self.anna, what, **body)
            self.assertEqual((refused.status_code, "needs an owner" in refused.json()["message"]), (422, True))
        self.assertEqual(self.roles()["anna"], ("owner", False))
        self.act(self.anna, "roles", name="jory", role="owner")
        self.assertEqual(self.act(self.anna, "leave", name="anna").status_code, 200)

    def test_a_member_leaves_by_themselves_and_takes_nobody_else_out(self) -> None:
        vera = self.person("vera")
        self.assertEqual(self.act(vera, "leave", name="jory").status_code, 403)
        self.assertEqual(self.act(vera, "leave", name="vera").status_code, 200)
        self.assertNotIn("vera", self.roles())

    def test_who_asks_for_a_sheet_ahead_does_not_look_at_it_yet(self) -> None:
        jory = self.person("jory")
        looked, ahead = self.sheet("30"), self.sheet("10")
        jory.get(f"/api/projects/{KILN}/sheets/{looked}/view")
        whole = jory.get(f"/api/projects/{KILN}/sheets/{ahead}/view?ahead=true").json()["view"]
        self.assertEqual(whole, jory.get(f"/api/projects/{KILN}/sheets/{ahead}/view?ahead=true").json()["view"])
        self.assertTrue(whole["whole"])
        news = self.anna.get(f"/api/projects/{KILN}/changes?since=0").json()
        self.assertEqual(news["people"], [{"name": "Jory Brand", "sheet_id": looked}])

    def test_who_is_here_and_where(self) -> None:
        sheet = self.sheet("30")
        self.person("jory").get(f"/api/projects/{KILN}/changes?since=0&sheet_id={sheet}")
        news = self.anna.get(f"/api/projects/{KILN}/changes?since=0").json()
        self.assertEqual(news["people"], [{"name": "Jory Brand", "sheet_id": sheet}])
