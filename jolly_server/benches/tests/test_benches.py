"""What the benches show, point lists from files, generated pages as views, the pack by command."""

from __future__ import annotations

import io
import tempfile
import zipfile
from pathlib import Path
from typing import Any

import xlsxwriter
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from pydantic import TypeAdapter

from jolly_server.benches.cabinet import CabinetView
from jolly_server.benches.cabinetways import WireWay
from jolly_server.benches.harnessshapes import HarnessChange, HarnessView
from jolly_server.projects.store import loaded
from jolly_server.testing import KILN, DemoCase

BASE = f"/api/projects/{KILN}"


class Benches(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.vera, self.jory = self.person("vera"), self.person("jory")

    def see(self, path: str) -> dict[str, Any]:
        answer = self.vera.get(f"{BASE}/{path}")
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        found: dict[str, Any] = answer.json()
        return found

    def waiting(self) -> list[dict[str, Any]]:
        found: list[dict[str, Any]] = self.vera.get(f"{BASE}/planned-terminals").json()
        return found

    def test_terminals_follow_an_edit_at_once(self) -> None:
        line = self.see("terminals")["strips"][0]
        self.assertEqual((line["tag"], line["place"], line["count"], line["free"]), ("=K2+KP2-XD1", "+KP2", 8, 0))
        self.assertEqual((line["width_mm"], line["room_mm"], line["rail"]), (68.6, 346.0, "=K2+KP2-UC1"))
        at = f"terminals/{line['id']}"
        strip = self.see(at)
        self.assertEqual([r["number"] for r in strip["rows"]], ["End bracket", *"12345678", "End bracket"])
        row = next(r for r in strip["rows"] if r["number"] == "5")
        self.assertEqual((row["field"][0]["name"], row["field"][0]["core"]), ("=K2+KF2-MA1:U1", "BN"))
        self.accepted(self.jory, kind="set-tag", device_id=self.device("MA"), tag="MA9")
        self.accepted(self.jory, kind="number-terminal", strip_id=strip["id"], unit=5, number="U")
        row = next(r for r in self.see(at)["rows"] if r["number"] == "U")
        self.assertEqual((row["field"][0]["name"], row["own_number"]), ("=K2+KF2-MA9:U1", "U"))
        upright = self.see(f"{at}?upright=true")["scene"]
        self.assertGreater(upright["width"], upright["height"])
        self.assertGreater(strip["scene"]["height"], strip["scene"]["width"])

    def test_a_strip_is_made_planned_and_waits_in_the_tray_until_it_is_drawn(self) -> None:
        made = self.accepted(self.jory, kind="make-strip", text="Reserve", count=3, start=7)["placed"][0]
        view = self.see("terminals")
        self.assertEqual((view["waiting"], view["loose"]), (3, []))
        strip = self.see(f"terminals/{made}")
        self.assertEqual(
            [(r["number"], r["planned"], r["place"]) for r in strip["rows"]], [(n, True, "") for n in "789"]
        )
        self.assertEqual([s["code"] for s in strip["found"]], ["terminal-part", "terminal-planned"])
        (planned,) = self.waiting()
        self.assertEqual([t["number"] for t in planned["terminals"]], ["7", "8", "9"])
        self.assertEqual({t["symbol"] for t in planned["terminals"]}, {"terminal"})
        self.accepted(self.jory, kind="set-terminals", strip_id=made, units=[1, 2, 3], spare=True)
        self.assertEqual((self.waiting(), self.see("terminals")["waiting"]), ([], 0))

    def test_what_is_proposed_comes_with_its_part_and_is_gone_when_taken(self) -> None:
        strip = next(s["id"] for s in self.see("terminals")["strips"] if s["tag"] == "=Q1+KP2-XD1")
        offered = self.see(f"terminals/{strip}?spare_percent=0")["proposed"]
        self.assertEqual([p["what"] for p in offered], ["earth", "end-bracket", "end-bracket"])
        self.assertEqual([p["part"] for p in offered], ["QL-T2-5E", "QL-EB", "QL-EB"])
        keys = [p["key"] for p in offered]
        self.accepted(self.jory, kind="take-proposals", strip_id=strip, keys=keys, spare_percent=0)
        self.assertEqual(self.see(f"terminals/{strip}?spare_percent=0")["proposed"], [])

    def test_cables_show_cores_spares_and_the_drop_with_its_why(self) -> None:
        first, second = self.see("cables")["cables"][:2]
        self.assertEqual([c["name"] for c in first["cores"]], ["BN", "BK", "GY", "GNYE"])
        self.assertEqual(round(first["drop"]["volts"], 2), 3.18)
        self.assertIn("√3 × 6.5 A × 35 m", first["drop"]["why"])
        self.assertEqual((first["capacity"]["carried_a"], first["capacity"]["load_a"]), (17.4, 6.5))
        self.assertTrue(first["capacity"]["enough"])
        self.assertEqual([c["name"] for c in second["cores"] if not c["from"]], ["BK", "VT"])
        self.accepted(self.jory, kind="set-cable", device_id=first["id"], length_m=0)
        self.assertIn("Type the cable's length", self.see("cables")["cables"][0]["drop_missing"])

    def test_the_cabinet_shows_every_panel_wire_with_its_way(self) -> None:
        found = self.see("cabinet")
        enclosure = found["enclosure"]
        self.assertEqual((len(enclosure["routes"]), found["tray"], enclosure["faults"]), (63, [], []))
        self.assertTrue(all(r["length_mm"] for r in enclosure["routes"]))
        self.assertEqual(enclosure["heat"]["rise_k"], 7.31)
        TypeAdapter(CabinetView).validate_python(found)  # written without being checked, see config/answers
        door = self.see("cabinet?surface=door")["enclosure"]["scene"]["items"]
        self.assertEqual(sum(i["kind"] == "placing" for i in door), 14)
        self.accepted(self.jory, kind="remove-from-layout", ids=[enclosure["boxes"][0]["id"]])
        after = self.see("cabinet")
        self.assertEqual(len(after["tray"]), 1)
        self.assertTrue(any("is not placed yet" in r["missing"] for r in after["enclosure"]["routes"]))

    def test_a_harness_says_its_paths_bundles_and_coverings_and_goes_out_as_pdf_and_dxf(self) -> None:
        found = self.see("harness")
        TypeAdapter(HarnessView).validate_python(found)  # written without being checked, see config/answers
        harness = found["harness"]
        curve = next(s for s in harness["segments"] if s["form"] == "curve" and s["extra_mm"])
        self.assertEqual(round(curve["length_mm"] - curve["base_mm"], 2), curve["extra_mm"])
        self.assertGreater(curve["bend_mm"], curve["needs_bend_mm"])
        self.assertGreater(len(curve["points"]), 8)
        self.assertEqual({c["part"] for c in harness["coverings"]}, {"TW-TB13", "TW-TP19"})
        self.assertEqual([n["part"] for n in harness["nodes"] if n["sort"] == "clip"], ["TW-CL8"])
        self.assertEqual([s["wires"] for s in harness["sheets"]], [10, 3])
        for format, begin in (("pdf", b"%PDF"), ("dxf", b"  0\nSECTION")):
            answer = self.vera.get(f"{BASE}/boards/{harness['id']}.{format}")
            self.assertEqual(answer.status_code, 200)
            self.assertTrue(answer.content.startswith(begin), answer.content[:20])
        self.assertEqual(self.vera.get(f"{BASE}/boards/nothing.dxf").status_code, 404)

    def test_of_a_harness_only_what_changed_is_given_and_it_comes_to_the_same(self) -> None:
        first = self.see("harness/changes")
        TypeAdapter(HarnessChange).validate_python(first)  # written without being checked, see config/answers
        self.assertTrue(first["whole"])
        sections = first["put"]
        self.assertEqual(set(sections["items"]), set(sections["prims"]))
        self.assertEqual(self.see(f"harness/changes?since={first['revision']}")["put"], {})
        segment = max(sections["segments"].values(), key=lambda s: s["length_mm"])
        self.accepted(self.jory, kind="set-segment", segment_id=segment["id"], length_mm=segment["length_mm"] + 100)
        change = self.see(f"harness/changes?since={first['revision']}")
        self.assertFalse(change["whole"])
        self.assertEqual(list(change["put"]["segments"]), [segment["id"]])
        tables = [id for id in change["put"]["prims"] if id.startswith("table:")]
        self.assertLess(len(tables), 2, "but for that of the splice, whose legs got longer, tables are only moved")
        for name in set(change["put"]) | set(change["drop"]):
            kept = {k: v for k, v in sections[name].items() if k not in change["drop"].get(name, [])}
            sections[name] = kept | change["put"].get(name, {})
        self.assertEqual(self.see("harness/changes")["put"], sections)
        whole = self.see("harness")["harness"]
        self.assertEqual([i["id"] for i in whole["scene"]["items"]], sections["order"]["order"]["items"])
        self.assertEqual({w["key"]: w for w in whole["wires"]}, sections["wires"])

    def test_lengths_of_wires_are_in_the_unit_of_the_project(self) -> None:
        enclosure = self.see("cabinet")["enclosure"]
        routes = [r for r in enclosure["routes"] if r["length_mm"] is not None]
        self.assertTrue(all(r["length"] == f"{r['length_mm']:g} mm" for r in routes))
        metres = sum(r["length_mm"] for r in routes) / 1000
        self.assertTrue(enclosure["routed"].endswith(f"panel wires routed, {metres:.2f} m"), enclosure["routed"])
        pieces = self.vera.get(f"{BASE}/cabinet/{enclosure['id']}/ways?things={routes[0]['key']}").json()[0]["pieces"]
        self.assertTrue(all(shown == f"{length:.0f}" for _, length, shown in pieces), pieces)
        self.accepted(self.person("anna"), kind="change-settings", length_unit="in")
        enclosure = self.see("cabinet")["enclosure"]
        for was, now in zip(routes, [r for r in enclosure["routes"] if r["length_mm"] is not None], strict=True):
            self.assertEqual(f"{was['length_mm'] / 25.4:.2f} in", now["length"])
        self.assertTrue(enclosure["routed"].endswith(f"{metres / 0.3048:.2f} ft"), enclosure["routed"])
        found = self.vera.get(f"{BASE}/cabinet/{enclosure['id']}/ways?things={routes[0]['key']}").json()
        self.assertTrue(all(shown == f"{length / 25.4:.2f}" for _, length, shown in found[0]["pieces"]))

    def test_ways_are_given_for_what_is_chosen(self) -> None:
        enclosure = self.see("cabinet")["enclosure"]

        def ways(things: str) -> dict[str, Any]:
            found = self.vera.get(f"{BASE}/cabinet/{enclosure['id']}/ways?things={things}").json()
            TypeAdapter(list[WireWay]).validate_python(found)
            return {way["key"]: way for way in found}

        every = ways("all")
        self.assertEqual(set(every), {r["key"] for r in enclosure["routes"]})
        self.assertTrue(all(w["legs"] for w in every.values()))
        for route in enclosure["routes"]:
            spare = route["length_mm"] - sum(mm for _, mm, _ in every[route["key"]]["pieces"])
            self.assertTrue(-0.5 < spare < 10, route)  # rounded up to 10 mm
        self.assertEqual(ways(""), {})
        one = next(iter(every))
        self.assertEqual(list(ways(one)), [one])
        lane = every[one]["lanes"][0]
        self.assertEqual(set(ways(lane)), {key for key, w in every.items() if lane in w["lanes"]})
        project = loaded(KILN).project
        placing = next(p for p in project.placings.values() if project.devices[p.device_id].letters == "QA")
        self.assertEqual(set(ways(placing.id)), set(ways(placing.device_id)))
        self.assertGreater(len(ways(placing.id)), 3)

    def test_where_something_would_land_is_said_with_its_room_and_changes_nothing(self) -> None:
        left, right = (e["id"] for e in self.see("cabinet")["enclosures"])

        def ask(enclosure: str, **edit: object) -> dict[str, Any]:
            at = f"/projects/{KILN}/cabinet/{enclosure}/landing"
            found: dict[str, Any] = self.post(self.jory, at, {"edit": edit}).json()
            return found

        def boxes(enclosure: str) -> dict[str, Any]:
            found = self.see(f"cabinet?enclosure_id={enclosure}")["enclosure"]["boxes"]
            return {b["tag"]: b for b in found}

        before = boxes(right)
        transformer = before["=P1+KP2-BC1"]
        (thing,) = ask(right, kind="move-in-layout", ids=[transformer["id"]], dx=15, dy=0)["things"]
        x1, y1, x2, y2 = thing["box"]
        self.assertAlmostEqual(x1, transformer["x"] + 15, delta=4, msg="where it stands or in line with what is near")
        self.assertEqual(thing["room"], [x1 - 5, y1, x2 + 5, y2], "its part asks for 5 mm beside")
        self.assertEqual(boxes(right), before)
        supply = boxes(left)["=K2+KP2-TB1"]
        off = ask(left, kind="move-in-layout", ids=[supply["id"]], dx=0, dy=110)
        self.assertEqual((off["things"], "Drop it on one." in off["problem"]), ([], True))

    def test_a_kept_layout_is_offered_in_every_enclosure_and_not_on_sheets(self) -> None:
        rail = next(r["id"] for r in self.see("cabinet")["enclosure"]["rails"])
        stamp = self.accepted(self.jory, kind="keep-layout", ids=[rail], name="Feeder row")["placed"][0]
        (kept,) = self.see("cabinet")["stamps"]
        self.assertEqual((kept["id"], kept["places"], kept["origin"]), (stamp, 5, "project"))
        on_sheets: list[dict[str, Any]] = self.vera.get(f"{BASE}/stamps").json()
        self.assertNotIn(stamp, [s["id"] for s in on_sheets])
        self.post(self.jory, f"/projects/{KILN}/stamps/{stamp}/keep", {})
        self.accepted(self.jory, kind="remove-stamp", stamp_id=stamp)
        (shelved,) = self.see("cabinet")["stamps"]
        self.assertEqual((shelved["name"], shelved["origin"]), ("Feeder row", "library"))

    def test_the_harness_shows_segments_wires_and_connectors(self) -> None:
        harness = self.see("harness")["harness"]
        self.assertEqual([s["wires"] for s in harness["segments"]], [12, 6, 4, 4, 2, 1])
        self.assertEqual({w["length_mm"] for w in harness["wires"]}, {940.0, 910.0, 630.0, 160.0})
        self.assertEqual(len(harness["connectors"]), 5)

    def test_an_empty_project_has_benches_that_say_so(self) -> None:
        made = self.post(self.jory, "/projects", {"name": "New"}).json()["id"]
        for bench, key in (("terminals", "strips"), ("cables", "cables"), ("io", "points"), ("cabinet", "enclosures")):
            self.assertEqual(self.jory.get(f"/api/projects/{made}/{bench}").json()[key], [])
        self.assertIsNone(self.jory.get(f"/api/projects/{made}/harness").json()["harness"])
        self.assertEqual(self.jory.get(f"/api/projects/{made}/make").json()["wires"], [])
        self.assertEqual(self.jory.get(f"/api/projects/{made}/pack.zip").status_code, 200)

    def test_strip_and_cable_lead_to_what_shows_them_a_sheet_or_a_page(self) -> None:
        anna = self.person("anna")

        def ids() -> list[str]:
            first = anna.get(f"/api/projects/{KILN}/terminals").json()["strips"][0]
            strip = anna.get(f"/api/projects/{KILN}/terminals/{first['id']}").json()
            cable = anna.get(f"/api/projects/{KILN}/cables").json()["cables"][0]
            return [strip["plan_id"], cable["plan_id"]]

        pages = ids()
        self.assertTrue(all(id.startswith("plan:") for id in pages))
        for kind, page in zip(("terminal-plan", "cable-plan"), pages, strict=True):
            self.accepted(anna, kind="add-sheet", sheet_kind=kind, device_id=page.rsplit(":", 1)[-1])
        sheets = ids()
        self.assertFalse(any(id.startswith("plan:") for id in sheets))
        for id in (*sheets, *pages):
            found = anna.get(f"/api/projects/{KILN}/sheets/{id}/view").json()
            self.assertEqual(found["sheet_gone"], id in pages, "the page is where its sheet is")

    def test_generated_pages_are_views_like_sheets_and_follow_edits(self) -> None:
        pages = {p["number"]: p["id"] for p in self.vera.get(BASE).json()["pages"]}
        counts = (("T", 10), ("C", 18), ("P", 5), ("F", 4), ("B", 1))
        numbers = [f"{letter}{n}" for letter, count in counts for n in range(1, count + 1)]
        self.assertEqual(list(pages), numbers)
        view = self.see(f"sheets/{pages['T1']}/view")
        text = str(view["view"]["put"]["items"])
        self.assertIn("=K2+KF2-MA1:U1", text)
        answer = self.post(
            self.jory,
            f"/projects/{KILN}/edits",
            {
                "edit": {"kind": "set-tag", "device_id": self.device("MA"), "tag": "MA9"},
                "sheet_id": pages["T1"],
                "since": view["revision"],
            },
        ).json()
        self.assertIn("=K2+KF2-MA9:U1", str(answer["view"]["put"]["items"]))
        self.assertTrue(self.see("sheets/plan:terminals:none/view")["sheet_gone"])
        pdf = self.vera.get(f"{BASE}/drawing.pdf", {"sheet_id": pages["C2"]})
        self.assertTrue(pdf.content.startswith(b"%PDF-"))


class PointLists(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.jory, self.vera = self.person("jory"), self.person("vera")

    def read(self, content: bytes, name: str = "points.csv") -> Any:
        return self.jory.post(f"{BASE}/io/read", {"file": SimpleUploadedFile(name, content)})

    def test_nothing_is_taken_in_before_it_was_shown(self) -> None:
        text = "Tag,Text,Type,Connected to\nB1,Hatch shut,DI,limit switch\nB7,Pit low,DI,float\nB8,,what,\n"
        found = self.read(text.encode()).json()
        self.assertEqual(
            [(line["tag"], line["change"]) for line in found["rows"]],
            [("B1", "changed"), ("B7", "added"), ("B8", "faulty")],
        )
        self.assertEqual([(f["row"], f["column"]) for f in found["faults"]], [(4, "Type")])
        self.assertEqual(found["gone"][:5], ["B2", "B3", "B4", "Y1", "Y2"])
        self.assertEqual(len(self.stored().io_points), 59)
        self.accepted(self.jory, kind="take-in-points", points=found["points"])
        texts = {p.tag: p.text for p in self.stored().io_points.values()}
        self.assertEqual((texts["B1"], texts["B7"], len(texts)), ("Hatch shut", "Pit low", 60))
        self.assert_memory_is_stored()

    def test_a_workbook_is_read_too(self) -> None:
        out = io.BytesIO()
        book = xlsxwriter.Workbook(out)
        page = book.add_worksheet()
        page.write_row(0, 0, ["Signal", "Description", "I/O type", "Device"])
        page.write_row(1, 0, ["B9", "Door", "digital input", "switch"])
        book.close()
        found = self.read(out.getvalue(), "points.xlsx").json()
        self.assertEqual(found["points"][0]["tag"], "B9")

    def test_without_known_headings_the_columns_are_given_to_be_said(self) -> None:
        content = b"Code,What\nB1,DI\n"
        found = self.read(content, "a.csv").json()
        self.assertIn("No column is headed Tag", found["problem"])
        self.assertEqual([c["heading"] for c in found["columns"]], ["Code", "What"])
        said = {"file": SimpleUploadedFile("a.csv", content), "mapping": '{"Code": "tag", "What": "io_type"}'}
        self.assertEqual(self.jory.post(f"{BASE}/io/read", said).json()["points"][0]["tag"], "B1")
        said = {"file": SimpleUploadedFile("a.csv", content), "mapping": "[1]"}
        self.assertEqual(self.jory.post(f"{BASE}/io/read", said).status_code, 400)

    def test_the_map_says_what_takes_each_place(self) -> None:
        spaces = {m["space"]: m for m in self.jory.get(f"{BASE}/io/map").json()}
        self.assertEqual([spaces[k]["title"] for k in ("I", "Q")], ["inputs", "outputs"])
        first = spaces["I"]["rows"][0]["cells"]
        self.assertEqual([c["text"] for c in first[:2]], ["0.0", "0.1"])
        self.assertEqual((first[0]["point"], first[7]["point"]), ("B1 Hatch closed", "S14 Stop the turner"))
        words = [row for row in spaces["I"]["rows"] if row["name"] == "256"]
        self.assertEqual((words[0]["cells"][0]["size"], words[0]["cells"][0]["address"]), (16, "IW256"))

    def test_needs_are_counted_by_place_and_cards_of_a_maker_proposed(self) -> None:
        points = [{"tag": f"X{n}", "io_type": "DI"} for n in range(20)]
        self.accepted(self.jory, kind="take-in-points", points=points)
        view = self.jory.get(f"{BASE}/io").json()
        need = next(n for n in view["needs"] if n["io_type"] == "DI")
        self.assertEqual((need["points"], need["channels"], need["needed"], need["lacking"]), (58, 40, 70, 30))
        self.assertEqual([(c["part"]["number"], c["count"]) for c in need["cards"]], [("HR-DI32", 1)])
        by = self.jory.get(f"{BASE}/io", {"by": "location", "maker": "Nobody"}).json()
        self.assertEqual(by["maker"], view["maker"], "without cards of a maker those of the project's are proposed")
        self.assertEqual({n["place"] for n in by["needs"]}, {"", "+KP2", "+KF2", "+KD2"})
        self.assertEqual(self.jory.get(f"{BASE}/io", {"by": "colour"}).status_code, 422)

    def test_the_list_goes_out_and_in_without_a_change(self) -> None:
        for format in ("csv", "xlsx"):
            content = self.vera.get(f"{BASE}/points.{format}").content
            found = self.read(content, f"points.{format}").json()
            self.assertEqual({r["change"] for r in found["rows"]}, {"same"}, format)
            self.assertEqual((found["faults"], found["gone"], len(found["rows"])), ([], [], 59))
        self.assertEqual(self.vera.get(f"{BASE}/points.pdf").status_code, 404)

    def test_what_is_no_list_is_refused_in_words(self) -> None:
        for content, name, words in (
            (b"PK\x03\x04", "a.xlsx", "not an XLSX workbook"),
            (b"", "a.csv", "empty"),
        ):
            answer = self.read(content, name)
            self.assertEqual((answer.status_code, words in answer.json()["message"]), (400, True), answer.content)


class Pack(DemoCase):
    def test_the_button_and_the_command_give_the_same_zip(self) -> None:
        answer = self.person("vera").get(f"{BASE}/pack.zip")
        self.assertIn('filename="PM-0417-B.zip"', answer["Content-Disposition"])
        with tempfile.TemporaryDirectory() as folder:
            out = Path(folder) / "pack.zip"
            call_command("issue_pack", "PM-0417", out=out, stderr=io.StringIO())
            self.assertEqual(out.read_bytes(), answer.content)
        with zipfile.ZipFile(io.BytesIO(answer.content)) as archive:
            names = set(archive.namelist())
        wanted = {
            "00-contents.pdf",
            "drawing.pdf",
            "parts-list.xlsx",
            "wire-list.csv",
            "terminal-plan.pdf",
            "core-plan.pdf",
            "io-list.xlsx",
            "cut-list.csv",
            "cut-list.json",
            "labels.csv",
            "plate-UC1.dxf",
            "form-board-WH-T1.pdf",
        }
        self.assertLessEqual(wanted, names)

    def test_layouts_and_boards_as_files(self) -> None:
        vera = self.person("vera")
        enclosure, harness = next(iter(self.stored().enclosures)), next(iter(self.stored().harnesses))
        for path, start in (
            (f"layouts/{enclosure}/plate.dxf", b"  0\nSECTION"),
            (f"layouts/{enclosure}/door.pdf", b"%PDF-"),
            (f"boards/{harness}.pdf?tiled=true", b"%PDF-"),
            ("cut-list.json", b"{"),
        ):
            answer = vera.get(f"{BASE}/{path}")
            self.assertTrue(answer.content.startswith(start), path)
        self.assertEqual(vera.get(f"{BASE}/layouts/{enclosure}/cellar.dxf").status_code, 404)
        self.assertIn("has no roof to build on", vera.get(f"{BASE}/layouts/{enclosure}/roof.dxf").content.decode())
        self.assertEqual(vera.get(f"{BASE}/layouts/none/plate.dxf").status_code, 404)
