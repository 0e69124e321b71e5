"""Checks of what is built: each finds what is wrong, names it, and is silent once it is put right."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from unittest import TestCase
from unittest.mock import patch

from jolly_core.cabinet import routes
from jolly_core.checks import BUILT_CHECKS, CHECKS, PROJECT_CHECKS, Snag, all_snags, project_check, project_snags
from jolly_core.exchange import read_project
from jolly_core.model import RuleError
from jolly_core.testing import DEMO, Workbench, rebuilt

from .test_checks import declared


class Registry(TestCase):
    def test_snags_of_a_code_stand_in_the_order_people_read_their_names(self) -> None:
        def trial(_: object) -> Iterator[Snag]:
            for n in (10, 9, 100, 2):
                yield Snag("trial", "warning", f"-KF{n} is in the way.", (f"s{n}",), "", 0, 0, bench="cabinet")

        with patch.dict(PROJECT_CHECKS, {"trial": (trial, "Whether something is in the way.")}):
            found = project_snags(Workbench().project)
        tags = [s.message.split()[0] for s in found if s.code == "trial"]
        self.assertEqual(tags, ["-KF2", "-KF9", "-KF10", "-KF100"])

    def test_each_has_help_and_a_code_of_its_own(self) -> None:
        self.assertTrue(all(help for _, help in PROJECT_CHECKS.values()))
        self.assertFalse(set(CHECKS) & set(PROJECT_CHECKS))
        for decorator, known in (("project_check", PROJECT_CHECKS), ("built_check", BUILT_CHECKS)):
            self.assertTrue(declared(decorator), decorator)
            self.assertEqual(declared(decorator) - known.keys(), set(), "declared and not known to whoever asks")
        self.assertFalse(set(BUILT_CHECKS) & (set(CHECKS) | set(PROJECT_CHECKS)))

    def test_a_second_claim_to_a_code_is_refused(self) -> None:
        for taken in ("layout", "no-part"):
            with self.assertRaisesRegex(RuntimeError, taken):
                project_check(taken, "again")(lambda project: iter(()))


class Walls(TestCase):
    """Two lamps on one wire, each in a location of its own."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.sides = {
            side: self.bench.new("add-location", code=side[0].upper(), side=side)
            for side in ("panel", "field", "machine")
        }
        self.lamps = [self.bench.place("lamp", x, 20) for x in (20, 60)]
        self.bench.wire((24, 20), (60, 20))

    def put(self, *sides: str) -> None:
        for lamp, side in zip(self.lamps, sides, strict=True):
            place = self.sides[side] if side else ""
            device = self.bench.device(lamp)
            if self.bench.project.devices[device].location_id != place:
                self.bench.do("set-place", device_id=device, function_id="", location_id=place)

    def in_the_door(self, side: str) -> list[str]:
        """Put both lamps into the door of an enclosure at a location; return their devices."""
        b, lamps = self.bench, [self.bench.device(lamp) for lamp in self.lamps]
        enclosure = b.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=self.sides[side])
        for lamp in lamps:
            b.do("assign-part", device_id=lamp, part_id="tamwick-tw-l22-g")
        b.do("place-devices", enclosure_id=enclosure, surface="door", device_ids=lamps, x=100, y=100, gap_mm=5)
        return lamps

    def found(self) -> dict[str, str]:
        return {s.code: s.message for s in project_snags(self.bench.project) if s.code != "not-routed"}

    def test_inside_a_panel_nothing_is_wrong_but_that_nothing_is_laid_out(self) -> None:
        self.put("panel", "panel")
        self.assertEqual(self.found(), {})
        (snag,) = project_snags(self.bench.project)
        self.assertEqual((snag.code, snag.place), ("not-routed", None))
        self.assertIn("One conductor has no length and is not cut (30-1): no enclosure is laid out yet", snag.message)
        self.bench.do("add-enclosure", part_id="brindlework-bw-e6825", location_id=self.sides["panel"])
        found = {s.code: s.message for s in project_snags(self.bench.project)}
        self.assertIn("is not placed yet", found["not-routed"])
        self.assertIn("2 devices are not placed yet", found["not-placed"])

    def test_what_stands_in_an_enclosure_of_another_panel_is_told_and_moved_there(self) -> None:
        b = self.bench
        self.put("panel", "panel")
        lamps = self.in_the_door("panel")
        self.assertNotIn("placed-elsewhere", self.found())
        other = b.new("add-location", code="Q", side="panel")
        b.do("set-place", device_id=lamps[1], function_id="", location_id=other)
        (snag,) = [s for s in project_snags(b.project) if s.code == "placed-elsewhere"]
        self.assertRegex(snag.message, r"^\+Q-PF\d stands in \+P-UC1, but its location is \+Q: its wires are not")
        b.do("set-place", device_id=lamps[1], function_id="", location_id=self.sides["field"])
        (snag,) = [s for s in project_snags(b.project) if s.code == "placed-elsewhere"]
        self.assertIn("its location is +F", snag.message)
        assert snag.act is not None
        b.do(**snag.act.payload())
        self.assertNotIn("placed-elsewhere", self.found())
        self.assertEqual(b.project.devices[lamps[1]].location_id, self.sides["panel"])

    def test_a_wire_within_a_box_in_the_field_is_measured(self) -> None:
        b = self.bench
        self.put("field", "field")
        self.in_the_door("field")
        (route,) = routes(b.project).values()
        self.assertGreater(route.length_mm or 0, 0)
        self.assertNotIn("placed-elsewhere", self.found())
        self.assertNotIn("field-wire", self.found())

    def test_an_end_without_a_location_is_named(self) -> None:
        self.put("panel", "")
        self.assertEqual(
            self.found(), {"field-wire": "30-1 +P-PF1:X2 to -PF2:X1: -PF2 has no location. Say where it is."}
        )
        (snag,) = project_snags(self.bench.project)
        self.assertEqual(
            (snag.bench, snag.subject, snag.device_id), ("draw", self.bench.sheet, self.bench.device(self.lamps[1]))
        )

    def test_of_an_end_without_a_device_no_cable_is_asked(self) -> None:
        """A contact that nobody has given to a coil yet is told as that alone: where its wire runs is not known."""
        bench = self.bench
        self.put("panel", "panel")
        bench.place("contact-no", 80, 20)
        bench.wire((64, 20), (80, 20))
        self.assertIn("no-device", {s.code for s in all_snags(bench.project)})
        self.assertEqual(self.found(), {})

    def test_through_the_wall_a_wire_needs_a_terminal_and_a_cable(self) -> None:
        self.put("panel", "field")
        self.assertIn("leaves the panel without a terminal", self.found()["jumps-wall"])
        self.assertIn("in no cable", self.found()["field-wire"])
        (strip,) = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=40, y1=18, x2=40, y2=22).placed
        self.bench.do("set-place", device_id=self.bench.device(strip), function_id="", location_id=self.sides["panel"])
        self.assertEqual(set(self.found()), {"field-wire"})
        band = self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=50, y1=18, x2=50, y2=22)
        self.assertEqual(set(self.found()), {"cable-cores"})
        cable = self.bench.project.bands[band].device_id
        self.bench.do("assign-part", device_id=cable, part_id="quillon-ql-yy2x1")
        self.assertEqual(self.found(), {})

    def test_between_field_and_machine_a_cable_is_enough(self) -> None:
        self.put("field", "machine")
        self.assertEqual(set(self.found()), {"field-wire"})
        self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=50, y1=18, x2=50, y2=22, part_id="quillon-ql-yy2x1")
        self.assertEqual(self.found(), {})


class Waiting(TestCase):
    def test_points_without_a_channel_are_one_snag(self) -> None:
        bench = Workbench()
        bench.do("take-in-points", points=[{"tag": f"B{n}", "io_type": "DI"} for n in range(9)])
        (snag,) = project_snags(bench.project)
        self.assertEqual(snag.message, "9 points wait for a channel: B0, B1, B2, B3, B4, B5 ….")
        card = bench.new("add-card", part_id="hollin-hr-di16")
        bench.do("allocate-points", ids=list(bench.project.io_points), device_id=card)
        self.assertEqual([s.code for s in project_snags(bench.project)], ["channel-undrawn"])


class Stopped(TestCase):
    """A check that comes upon what no rule holds for says so, and hides nothing of the others or of itself."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.bench.place("coil", 20, 20)
        self.usual = [s.message for s in all_snags(self.bench.project)]
        self.assertTrue(self.usual)

    def _one_and_then_none(self, *given: object) -> Iterator[Snag]:
        yield Snag("odd", "warning", "The first is told.", (), str(given[1]) if len(given) > 1 else "", 0, 0)
        raise RuleError("The second has no size. Say it in its part.", ids=("x1",))

    def stopped(self, table: dict[str, tuple[Any, str]]) -> list[Snag]:
        with patch.dict(table, {"odd": (self._one_and_then_none, "Things without a size.")}):
            found = all_snags(rebuilt(self.bench.project))
        messages = [s.message for s in found]
        self.assertEqual([], [m for m in self.usual if m not in messages], "nothing else is hidden")
        self.assertIn("The first is told.", messages)
        return [s for s in found if s.code == "check-stopped"]

    def test_of_the_project_of_a_sheet_and_of_what_is_built_from_it(self) -> None:
        sheet = next(iter(self.bench.project.sheets))
        for table, where in ((PROJECT_CHECKS, ""), (CHECKS, sheet), (BUILT_CHECKS, "")):
            (snag,) = self.stopped(table)
            self.assertEqual(
                "Not all could be checked (Things without a size): The second has no size. Say it in its part.",
                snag.message,
            )
            self.assertEqual(("error", ("x1",), where), (snag.severity, snag.ids, snag.sheet_id))

    def test_in_usual_projects_no_check_stops(self) -> None:
        for name in ("pellwick-kiln-2", "sample-store-dehumidifier"):
            project = read_project((DEMO / f"{name}.spool.json").read_bytes())
            self.assertNotIn("check-stopped", {s.code for s in all_snags(project)})
