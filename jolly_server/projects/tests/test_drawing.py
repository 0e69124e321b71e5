"""What the Draw bench asks over HTTP: stamps, copies, jumps, wiring habits, blocks, muted snags, printing."""

from __future__ import annotations

from dataclasses import replace
from typing import Any
from unittest.mock import patch

from jolly_core.edits.pieces.pieces import piece_from_json
from jolly_core.planting import FAULTS
from jolly_server.library.models import LibraryStamp
from jolly_server.testing import KILN, DemoCase

OTHER = "dehumidifier"


class Drawing(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def ask(self, path: str, project_id: str = KILN) -> Any:
        """Get a path of a project."""
        answer = self.anna.get(f"/api/projects/{project_id}/{path}")
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()

    def lead(self, letters: str, number: int = 1) -> str:
        """Return the first symbol of a device."""
        device = self.device(letters, number)
        return min(s.id for s in self.stored().symbols.values() if s.device_id == device)

    def test_a_copy_is_pasted_into_another_project_and_follows_its_habits(self) -> None:
        sheet = self.sheet("30")
        ids = [s.id for s in self.stored().symbols_on(sheet)][:4]
        copied = self.post(self.anna, f"/projects/{KILN}/piece", {"ids": ids}).json()
        self.assertEqual(len(list(piece_from_json(copied).of("symbol"))), 4)
        target = next(s for s in self.stored(OTHER).sheets.values() if s.kind == "schematic")
        new = self.accepted(self.anna, OTHER, kind="add-sheet", number="9", after_id=target.id)["placed"][0]
        answer = self.accepted(self.anna, OTHER, kind="paste-piece", sheet_id=new, x=24, y=20, piece=copied)
        project = self.stored(OTHER)
        self.assertEqual(len([i for i in answer["placed"] if i in project.symbols]), 4)
        self.assert_memory_is_stored(OTHER)
        gone = self.post(self.anna, f"/projects/{KILN}/piece", {"ids": ["zz"]})
        self.assertEqual(gone.status_code, 404)

    def test_stamps_with_pictures_and_kept_in_the_library(self) -> None:
        found = self.ask("stamps")
        names = {s["name"]: s for s in found}
        self.assertIn("Direct starter", names)
        self.assertIn("Power kW", [q["name"] for q in names["Direct starter"]["questions"]])
        picture = self.ask(f"stamps/{names['Direct starter']['id']}/picture")
        self.assertTrue({"symbol", "wire"} <= {i["kind"] for i in picture["items"]})
        ids = [s.id for s in self.stored().symbols_on(self.sheet("30"))][:3]
        stamp = self.accepted(self.anna, kind="keep-stamp", ids=ids, name="Three of them")["placed"][0]
        for _ in range(2):
            kept = self.post(self.anna, f"/projects/{KILN}/stamps/{stamp}/keep", {}).json()
        self.assertEqual([s["name"] for s in kept if s["origin"] == "library"], ["Three of them"])
        library = LibraryStamp.objects.get()
        self.assertIn(library.pk, [s["id"] for s in self.ask("stamps", OTHER)])
        sheet = self.accepted(self.anna, OTHER, kind="add-sheet", number="9")["placed"][0]
        self.accepted(self.anna, OTHER, kind="put-stamp", sheet_id=sheet, stamp_id=library.pk, x=24, y=20)
        left = self.anna.delete(f"/api/projects/{KILN}/stamps/{library.pk}").json()
        self.assertFalse([s for s in left if s["origin"] == "library"])
        self.assertEqual(self.anna.delete(f"/api/projects/{KILN}/stamps/{library.pk}").status_code, 404)

    def test_the_snags_of_the_whole_project_are_counted(self) -> None:
        path = f"/api/projects/{KILN}/snags/count"
        self.assertEqual(self.anna.get(path).json(), {"count": 0})
        coil = next(s for s in self.stored().symbols.values() if s.definition == "coil")
        self.accepted(self.anna, kind="delete-selection", ids=[coil.id])
        found = self.anna.get(f"/api/projects/{KILN}/snags").json()["open"]
        self.assertGreater(len(found), 0)
        self.assertEqual(self.anna.get(path).json(), {"count": sum(not s["cause"] for s in found)})
        self.assertEqual(self.person("nobody").get(path).status_code, 404)

    def test_faults_are_planted_on_trial_and_nothing_of_it_stays(self) -> None:
        path = f"/api/projects/{KILN}/faults"
        before = list(self.stored().entities())
        kinds = self.anna.get(path).json()
        self.assertEqual(kinds[0]["harm"], "fire or shock")
        for name in ("anna", "vera"):
            found = self.person(name).get(f"{path}/contactor-bridged").json()
            self.assertGreater(found["count"], 0)
            self.assertEqual(found["unseen"], [])
        deaf = replace(FAULTS["contactor-bridged"], codes=frozenset())
        with patch.dict(FAULTS, {"contactor-bridged": deaf}):
            found = self.anna.get(f"{path}/contactor-bridged").json()
        self.assertEqual(len(found["unseen"]), found["count"])
        self.assertIn(found["unseen"][0]["symbol_id"], self.stored().symbols)
        self.assertEqual(list(self.stored().entities()), before)
        self.assert_memory_is_stored()
        self.assertEqual(self.person("nobody").get(path).status_code, 404)
        self.assertEqual(self.person("nobody").get(f"{path}/contactor-bridged").status_code, 404)
        self.assertEqual(self.anna.get(f"{path}/no-such").status_code, 404)

    def test_a_load_is_followed_to_its_source_by_whoever_may_read(self) -> None:
        path = f"/api/projects/{KILN}/trace?id="
        project = self.stored()
        motor = next(s for s in project.symbols.values() if s.definition == "motor")
        for name in ("anna", "vera"):
            found = self.person(name).get(path + motor.id).json()
            self.assertEqual((found["members"][0]["role"], found["members"][-1]["symbol_id"]), ("source", motor.id))
            self.assertTrue(all(m["sheet_id"] in project.sheets for m in found["members"] if m["symbol_id"]))
            self.assertEqual(found["lit"][0]["number"], project.sheets[found["lit"][0]["sheet_id"]].number)
            paper = self.person(name).get(f"{path.replace('trace?', 'trace.pdf?')}{motor.id}&inline=true")
            self.assertEqual((paper.headers["Content-Disposition"], paper.content[:5]), ("inline", b"%PDF-"))
        self.assertEqual(self.person("nobody").get(path + motor.id).status_code, 404)
        self.assertEqual(self.anna.get(path + "gone").status_code, 404)
        self.assertEqual(self.person("nobody").get(path.replace("trace?", "trace.pdf?") + motor.id).status_code, 404)
        self.assertEqual(self.anna.get(path.replace("trace?", "trace.pdf?") + "gone").status_code, 404)
        free = self.accepted(self.anna, kind="add-sheet", number="98", frame="zones")["placed"][0]
        type_id = next(iter(project.wire_types))
        points = [[20, 20], [60, 20]]
        self.accepted(self.anna, kind="draw-wire", sheet_id=free, points=points, wire_type_id=type_id)
        (wire,) = self.stored().wires_on(free)
        refused = self.anna.get(path + wire.id)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("Nothing here takes a current", refused.content.decode())

    def test_a_stamp_by_kw_finds_its_parts_in_the_stored_library(self) -> None:
        sheet = self.accepted(self.anna, kind="add-sheet", number="61", frame="zones")["placed"][0]
        edit = {
            "kind": "put-stamp",
            "sheet_id": sheet,
            "stamp_id": "direct-starter",
            "x": 20,
            "y": 14,
            "rows": [{"Motor": "Cooling fan", "Power kW": "1.5"}],
        }
        table = self.post(self.anna, f"/projects/{KILN}/preview", {"edit": edit}).json()["table"]
        self.assertEqual({row[1]: row[2] for row in table[1:]}["Motor protective breaker"], "BW-M4")
        self.assertFalse([s for s in self.stored().symbols.values() if s.sheet_id == sheet])
        self.accepted(self.anna, **edit)
        self.assert_memory_is_stored()
        texts = {d.text for d in self.stored().devices.values()}
        self.assertIn("Cooling fan", texts)

    def test_jumps_lead_to_every_place_of_a_device(self) -> None:
        places = self.ask(f"places/{self.lead('QA')}")
        self.assertGreater(len({p["sheet_id"] for p in places}), 1)
        self.assertEqual(places, sorted(places, key=lambda p: int(p["sheet"])))
        self.assertEqual(self.ask("places/none"), [])

    def test_wiring_habits_say_what_is_used(self) -> None:
        habits = self.ask("wiring-habits")
        self.assertEqual(sum(t["used"] for t in habits["types"]), habits["wires"])
        self.assertEqual(next(c["usual"] for c in habits["letters"] if c["id"] == "contactor"), "QA")
        self.accepted(self.anna, kind="put-tag-rule", part_class="lamp", letters="H")
        again = self.ask("wiring-habits")
        self.assertEqual(next(c["own"] for c in again["letters"] if c["id"] == "lamp"), "H")

    def test_a_snag_is_muted_with_a_reason_and_heard_again(self) -> None:
        sheet = self.accepted(self.anna, kind="add-sheet", number="61", frame="zones")["placed"][0]
        self.accepted(self.anna, kind="place-symbol", sheet_id=sheet, definition="coil", x=40, y=40)
        snag = next(s for s in self.ask("snags")["open"] if s["code"] == "coil-unused" and s["subject"] == sheet)
        self.accepted(self.anna, kind="mute-snag", key=snag["key"], reason="Reserve")
        found = self.ask("snags")
        self.assertNotIn(snag["key"], [s["key"] for s in found["open"]])
        muted = next(s for s in found["muted"] if s["key"] == snag["key"])
        self.assertEqual(muted["reason"], "Reserve")
        self.accepted(self.anna, kind="unmute-snag", mute_id=muted["mute_id"])
        self.assertIn(snag["key"], [s["key"] for s in self.ask("snags")["open"]])

    def test_a_sheet_opens_as_pdf_in_the_browser_to_be_printed(self) -> None:
        answer = self.anna.get(f"/api/projects/{KILN}/drawing.pdf", {"sheet_id": self.sheet("30"), "inline": "true"})
        self.assertEqual(answer["Content-Disposition"], "inline")
        self.assertTrue(answer.content.startswith(b"%PDF"))

    def test_a_viewer_looks_but_does_not_keep(self) -> None:
        vera = self.person("vera")
        self.assertEqual(vera.get(f"/api/projects/{KILN}/stamps").status_code, 200)
        self.assertEqual(self.post(vera, f"/projects/{KILN}/stamps/direct-starter/keep", {}).status_code, 403)
        self.assertEqual(vera.delete(f"/api/projects/{KILN}/stamps/direct-starter").status_code, 403)
