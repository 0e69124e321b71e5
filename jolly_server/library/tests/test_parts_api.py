"""Parts over HTTP: drafted, saved with their history, on shelves; fields that people add; parts in a project."""

from __future__ import annotations

from typing import Any

from jolly_server.library.models import LibraryPart, PartValue, Shelf
from jolly_server.library.search import Filter, filters_in, search
from jolly_server.testing import KILN, DemoCase

GREEN = "tamwick-tw-l22-g"


class Library(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna, self.jory = self.person("anna"), self.person("jory")

    def read(self, path: str) -> Any:
        response = self.anna.get(f"/api{path}")
        self.assertEqual(response.status_code, 200, response.content)
        return response.json()

    def record(self, part_id: str = GREEN, **changes: object) -> dict[str, Any]:
        record: dict[str, Any] = self.read(f"/library/part/{part_id}")["record"]
        return {**record, **changes}

    def keep(self, record: dict[str, Any], shelf: str = "house", who: Any = None) -> Any:
        return self.post(who or self.anna, "/library/part", {"shelf": shelf, "record": record})

    def test_a_changed_part_has_a_history_and_is_found_by_its_new_words(self) -> None:
        answer = self.keep(self.record(text="Emerald pilot light", ratings={"colour": "green", "voltage_v": "24 V"}))
        self.assertEqual((answer.status_code, answer.json()["record"]["version"]), (200, 2), answer.content)
        self.keep(self.record(price=11.5), who=self.jory)
        page = self.read(f"/library/part/{GREEN}")
        self.assertEqual([(h["version"], h["by"]) for h in page["history"]], [(3, "jory"), (2, "anna")])
        self.assertEqual(page["history"][0]["changed"][0]["field"], "price")
        self.assertEqual([m.part.id for m in search("emerald pilot")], [GREEN])
        self.assertIn(GREEN, [m.part.id for m in search(filters=[Filter("price", "=", "11.5")])])
        self.assertTrue(any(p["id"] == KILN for p in page["projects"]))
        again = self.keep(self.record())
        self.assertEqual(again.json()["record"]["version"], 3, "nothing changed, so it is no new version")

    def test_libraries_are_renamed_and_removed_with_word_of_where_they_are_used(self) -> None:
        uses = self.read("/library/shelves/house/uses")
        self.assertEqual([u["id"] for u in uses][0], KILN)
        self.assertGreater(uses[0]["parts"], 20)
        made = self.post(self.anna, "/library/shelves", {"name": "Try-outs"}).json()
        id = next(s["id"] for s in made if s["name"] == "Try-outs")
        self.keep(self.record(id="", number="T-1"), shelf=id)
        named = self.post(self.anna, f"/library/shelves/{id}/name", {"name": made[0]["name"].upper()})
        self.assertEqual(named.status_code, 422, "the name is taken")
        renamed = self.post(self.anna, f"/library/shelves/{id}/name", {"name": "  Old try-outs "}).json()
        self.assertIn("Old try-outs", [s["name"] for s in renamed])
        left = self.anna.delete(f"/api/library/shelves/{id}").json()
        self.assertNotIn("Old try-outs", [s["name"] for s in left])
        self.assertFalse(LibraryPart.objects.filter(number="T-1").exists())
        last = self.anna.delete("/api/library/shelves/house")
        self.assertEqual(last.status_code, 422)
        self.assertIn("last library of the company", last.json()["message"])
        self.assertTrue(LibraryPart.objects.filter(shelf_id="house").exists())

    def test_what_another_has_changed_since_is_not_written_over(self) -> None:
        mine, theirs = self.record(price=12.5), self.record(text="Emerald")
        self.assertEqual(self.keep(theirs, who=self.jory).status_code, 200)
        answer = self.keep(mine)
        self.assertEqual(answer.status_code, 409)
        self.assertIn(
            "jory changed TW-L22-G while you were at it: description is Emerald now", answer.json()["message"]
        )
        record = self.record()
        self.assertEqual((record["text"], record["version"]), ("Emerald", 2))
        self.assertNotEqual(record["price"], 12.5)
        self.assertEqual(self.keep(self.record(price=12.5)).status_code, 200)

    def test_a_set_is_not_kept_with_itself_inside(self) -> None:
        part = next(p for p in LibraryPart.objects.exclude(members="[]")[:1])
        record = self.record(part.pk)
        answer = self.keep({**record, "members": [record["number"]]})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("contains itself", answer.json()["message"])

    def test_what_is_wrong_is_refused_in_words_and_nothing_is_changed(self) -> None:
        for record, words in (
            (self.record(number=" "), "Give the part its number"),
            (self.record(ratings={"voltage_v": "much"}), "no number in V"),
            (self.record(id="", number="TW-L22-R"), "has Tamwick TW-L22-R already"),
            (self.record(part_class="rocket"), "no part class"),
            (self.record(width_mm="wide"), "should be a number"),
        ):
            with self.subTest(words):
                answer = self.keep(record)
                self.assertIn(answer.status_code, (400, 422))
                self.assertIn(words, answer.json()["message"])
        self.assertEqual(self.read(f"/library/part/{GREEN}")["record"]["version"], 1)

    def test_shelves_are_ordered_read_only_or_ones_own(self) -> None:
        made = self.post(self.anna, "/library/shelves", {"name": "Mine", "own": True}).json()
        mine = next(s["id"] for s in made if s["name"] == "Mine")
        self.post(self.anna, "/library/shelves", {"name": "Company", "read_only": True})
        company = Shelf.objects.get(name="Company").pk
        self.assertNotIn("Mine", [s["name"] for s in self.jory.get("/api/library/shelves").json()])
        self.assertEqual(self.keep(self.record(id=""), mine).status_code, 200)
        for shelf, words in ((company, "read only"), ("gone", "is gone")):
            self.assertIn(words, self.keep(self.record(id=""), shelf).json()["message"])
        own = LibraryPart.objects.get(shelf_id=mine).pk
        self.assertIn("not yours", self.jory.get(f"/api/library/part/{own}").json()["message"])
        self.assertEqual([p["id"] for p in self.jory.get("/api/library/parts?q=tw-l22-g").json()].count(own), 0)
        self.assertIn(own, [p["id"] for p in self.read("/library/parts?q=tw-l22-g")])
        ordered = self.post(self.anna, "/library/shelves/order", {"ids": [mine, "house", company]}).json()
        self.assertEqual([s["id"] for s in ordered], [mine, "house", company])
        self.assertIn("already", self.post(self.anna, "/library/shelves", {"name": "mine"}).json()["message"])

    def test_a_part_taken_out_leaves_projects_whole(self) -> None:
        used = next(iter(self.stored().parts))
        self.assertEqual(self.post(self.anna, "/library/parts/remove", {"shelf": "house", "ids": [used]}).json(), 1)
        self.assertEqual(self.anna.get(f"/api/library/part/{used}").status_code, 422)
        self.assertFalse(PartValue.objects.filter(part_id=used).exists())
        self.assertIn(used, [p["id"] for p in self.read(f"/projects/{KILN}/parts")["parts"]])
        self.assertIn("taken out of the library", self.read("/library/changes")[0]["act"])

    def test_drafts_step_by_step(self) -> None:
        def step(**body: object) -> dict[str, Any]:
            answer = self.post(self.anna, "/library/draft", body)
            self.assertEqual(answer.status_code, 200, answer.content)
            made: dict[str, Any] = answer.json()
            return made

        cable = step(act="new", part_class="cable")["record"]
        filled = step(act="cores", record=cable, count=3, order="numbered", section="0.25", shields=1)
        self.assertEqual([u[1][0] for u in filled["record"]["units"]], ["1", "2", "3", "SH"])
        record = {**filled["record"], "maker": "Quillon", "number": "QL-X3", "text": "Signal cable"}
        record["ratings"] = {"outer_diameter_mm": "4", "bend_radius_mm": "30"}
        checked = step(act="check", record=record)
        self.assertEqual(checked["missing"], {"ordering": ["supplier or order number"]})
        self.assertEqual(self.keep(record).json()["record"]["id"], "quillon-ql-x3")
        housing = step(act="units", record=step(act="new", part_class="connector")["record"], kind="cavity", count=8)
        self.assertEqual(len(housing["record"]["units"]), 12)
        self.assertEqual(step(act="like", part_id=GREEN)["record"]["number"], "")
        read = step(act="text", text="Brand: Tamwick\nType: TW-9\nLamp green\nWonder: high")
        self.assertEqual((read["record"]["part_class"], read["left"]), ("lamp", ["Wonder: high"]))

    def test_a_field_that_people_add_is_offered_kept_and_searched(self) -> None:
        body = {"part_class": "lamp", "name": "Lens depth", "unit": "mm", "kind": "number"}
        self.assertEqual(self.post(self.anna, "/library/own-fields", body).json()[0]["key"], "lens_depth_mm")
        lamp = next(c for c in self.read("/library/kinds")["classes"] if c["key"] == "lamp")
        self.assertIn("lens_depth_mm", lamp["fields"])
        record = self.record()
        record["ratings"]["lens_depth_mm"] = "12"
        self.keep(record)
        found = self.read("/library/parts?part_class_key=lamp&filters=lens_depth_mm>=10")
        self.assertEqual([p["id"] for p in found], [GREEN])
        self.assertIn("already", self.post(self.anna, "/library/own-fields", body).json()["message"])


class Fields(DemoCase):
    def test_a_contactor_by_coil_contacts_and_load(self) -> None:
        asked = filters_in(["coil_voltage_v=24", "coil_kind=DC", "units.no>=2", "ac3_a>=9"])
        found = [m.part for m in search(part_class_key="contactor", filters=asked, limit=200)]
        self.assertTrue(found)
        for part in found:
            self.assertGreaterEqual(part.count("no"), 2)
            self.assertGreaterEqual(float(part.ratings["ac3_a"]), 9)
            self.assertEqual((part.ratings["coil_voltage_v"], part.ratings["coil_kind"]), ("24", "DC"))
        everything = [p for m in search(part_class_key="contactor", limit=200) for p in [m.part]]
        wanted = {p.id for p in everything if p.count("no") >= 2 and float(p.ratings["ac3_a"]) >= 9}
        wanted &= {p.id for p in everything if (p.ratings["coil_voltage_v"], p.ratings["coil_kind"]) == ("24", "DC")}
        self.assertEqual({p.id for p in found}, wanted)

    def test_counts_typed_among_the_words(self) -> None:
        found = [m.part for m in search("contactor 24 3NO", limit=200)]
        self.assertTrue(found and all(p.count("no") >= 3 for p in found))

    def test_no_filter_is_refused(self) -> None:
        answer = self.person("anna").get("/api/library/parts?filters=colour")
        self.assertEqual(answer.status_code, 400)
        self.assertIn("is no filter", answer.json()["message"])


class InProject(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def parts(self) -> dict[str, Any]:
        found: dict[str, Any] = self.anna.get(f"/api/projects/{KILN}/parts").json()
        return found

    def test_the_demo_has_nothing_stale_and_every_part_is_used(self) -> None:
        for part in self.parts()["parts"]:
            self.assertEqual(part["stale"], [], part["number"])
            self.assertEqual(part["missing"], {}, part["number"])
            self.assertTrue(part["quantity"], part["number"])

    def test_stale_on_the_device_and_at_the_foot_of_the_list_until_refreshed_and_undone(self) -> None:
        device = self.stored().devices[self.device("QA")]
        record = self.anna.get(f"/api/library/part/{device.part_id}").json()["record"]
        self.post(self.anna, "/library/part", {"shelf": "house", "record": {**record, "text": "Another text"}})

        def stale() -> tuple[list[str], list[str]]:
            card = self.anna.get(f"/api/projects/{KILN}/devices/{device.id}").json()
            foot = self.anna.get(f"/api/projects/{KILN}/reports/parts/rows").json()["foot"]
            return [d["field"] for d in card["stale"]], foot

        fields, foot = stale()
        self.assertEqual(fields, ["description"])
        self.assertEqual(foot, [f"{record['number']} differs from the library: description"])
        self.accepted(self.anna, kind="refresh-parts")
        self.assertEqual(stale(), ([], []))
        self.post(self.anna, f"/projects/{KILN}/undo", {})
        self.assertEqual(stale()[0], ["description"])
        for format in ("xlsx", "pdf", "csv"):
            self.assertEqual(self.anna.get(f"/api/projects/{KILN}/reports/parts/{format}").status_code, 200)

    def test_candidates_for_a_device_with_reasons_and_mapping(self) -> None:
        found = self.anna.get(f"/api/projects/{KILN}/devices/{self.device('QA')}/parts").json()
        self.assertTrue(found[0]["reasons"][0]["good"])
        self.assertTrue(all(m["then"] for m in found[0]["mapping"]))
        typed = self.anna.get(f"/api/projects/{KILN}/devices/{self.device('QA')}/parts?q=c18-24d-62").json()
        self.assertEqual([f["number"] for f in typed], ["BW-C18-24D-62"])

    def test_accessories_are_offered_and_put_on(self) -> None:
        device = self.device("QA")
        self.accepted(self.anna, kind="assign-part", device_id=device, part_id="BW-C09-24D-11")
        offered = self.anna.get(f"/api/projects/{KILN}/devices/{device}/add-ons").json()
        self.assertIn("BW-AX22", [p["number"] for p in offered["accessories"]])
        self.accepted(self.anna, kind="add-part", device_id=device, part_id="BW-AX22")
        on = self.anna.get(f"/api/projects/{KILN}/devices/{device}/add-ons").json()["on"]
        self.assertEqual([p["number"] for p in on], ["BW-AX22"])
        self.assert_memory_is_stored()


class OwnClasses(DemoCase):
    def test_a_class_made_on_the_way_is_listed_searched_and_extended(self) -> None:
        anna = self.person("anna")
        draft = {"act": "new", "class_name": "Air curtain", "like": "fan", "iec": "GX"}
        made = self.post(anna, "/library/draft", draft).json()
        key = made["record"]["part_class"]
        self.assertEqual((key, made["spec"]["name"]), ("own:Air curtain|fan|GX", "Air curtain"))
        self.assertEqual(made["record"]["units"], [["load", ["1", "2"]]])
        names = [c["name"] for c in anna.get("/api/library/kinds").json()["classes"]]
        self.assertNotIn("Air curtain", names, "no part has it yet")
        record = {**made["record"], "maker": "Brindlework", "number": "BW-AC1", "text": "Air curtain"}
        self.assertEqual(self.post(anna, "/library/part", {"shelf": "house", "record": record}).status_code, 200)
        self.post(anna, "/library/own-fields", {"part_class": key, "name": "Throw", "unit": "m", "kind": "number"})
        spec = next(c for c in anna.get("/api/library/kinds").json()["classes"] if c["key"] == key)
        self.assertIn("throw_m", spec["fields"])
        found = anna.get("/api/library/parts", {"part_class_key": key}).json()
        self.assertEqual([(p["number"], p["class_name"]) for p in found], [("BW-AC1", "Air curtain")])

    def test_a_class_that_cannot_be_is_refused(self) -> None:
        anna = self.person("anna")
        for name, like in (("Fan|x", "fan"), ("Curtain", "rocket"), ("Enclosure fan", "fan")):
            answer = self.post(anna, "/library/draft", {"act": "new", "class_name": name, "like": like})
            self.assertEqual(answer.status_code, 400, name)
        bad = {"id": "", "maker": "M", "number": "N", "part_class": "own:X|rocket"}
        self.assertEqual(self.post(anna, "/library/part", {"shelf": "house", "record": bad}).status_code, 400)
