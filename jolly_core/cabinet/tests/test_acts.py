"""Acts on a layout: pushing along, bringing into line, swapping, typed places, copies, planned devices, proposals."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.cabinet import (
    Outline,
    Thing,
    enclosures,
    joined_by,
    layout_faults,
    outline,
    placing_of,
    placings_in,
    propose,
    routes,
    surface_size,
    surfaces_of,
    tray,
)
from jolly_core.edits import compute, parse_edit
from jolly_core.edits.base.history import take_back
from jolly_core.edits.cabinet.layingout import figures
from jolly_core.edits.draw.offers import offers
from jolly_core.exchange import read_project
from jolly_core.model import RuleError
from jolly_core.tagging import full_tag
from jolly_core.testing import DEMO, DemoLibrary, Workbench

RAIL, DUCT = "brindlework-bw-r35", "brindlework-bw-d4060"
RELAY, BREAKER, DRIVE = "hollin-hr-k22", "quillon-ql-c16-3p", "orrery-drives-od-v0-25"


class Plate(TestCase):
    """Devices planned on a rail of an enclosure."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        self.place = b.new("add-location", code="P", side="panel")
        self.enclosure = b.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=self.place)
        self.rail = b.new("draw-run", what="rail", part_id=RAIL, **self.ends(20, 200, 530, 200))

    def ends(self, x1: float, y1: float, x2: float, y2: float) -> dict[str, object]:
        return {"enclosure_id": self.enclosure, "x1": x1, "y1": y1, "x2": x2, "y2": y2}

    def plan(self, x: float, y: float = 200, part: str = RELAY, count: int = 1, surface: str = "plate") -> list[str]:
        where = {"enclosure_id": self.enclosure, "surface": surface, "x": x, "y": y}
        return self.bench.do("plan-device", part_id=part, count=count, **where).placed

    def box(self, id: str) -> Outline:
        return outline(self.bench.project, self.bench.project.placings[id])

    def xs(self, ids: list[str]) -> list[float]:
        return [self.box(id).x for id in ids]

    def arrange(self, how: str, *ids: str) -> None:
        self.bench.do("arrange-in-layout", ids=list(ids), how=how)

    def faults(self, code: str) -> list[str]:
        enclosure = self.bench.project.enclosures[self.enclosure]
        return [f.message for f in layout_faults(self.bench.project, enclosure) if f.code == code]


class Acts(Plate):
    def test_planned_devices_stand_there_before_they_are_drawn_and_are_drawn_as_these(self) -> None:
        (first,) = self.plan(60)
        project = self.bench.project
        device = project.devices[project.placings[first].device_id]
        self.assertEqual(full_tag(project, device), "+P-KF1")
        self.assertEqual(tray(project), [])
        symbol = self.bench.place("coil", 20, 20, device_id=device.id)
        self.assertEqual(self.bench.device(symbol), device.id)
        placing = placing_of(project, device.id)
        assert placing is not None
        self.assertEqual(placing.id, first)
        with self.assertRaisesRegex(RuleError, "does not go into an enclosure"):
            self.plan(60, part=self.cable())

    def test_planned_devices_are_offered_first_where_they_are_drawn_until_they_are(self) -> None:
        b = self.bench
        ends = {"enclosure_id": self.enclosure, "y": 200}
        for part, x in ((RELAY, 30), (BREAKER, 120)):
            b.do("plan-device", part_id=part, x=x, **ends)
        b.do("plan-device", part_id="tamwick-tw-l22-g", surface="door", x=100, text="Running", **ends)

        def offered(words: str) -> list[tuple[str, str]]:
            return [(o.definition, o.tag) for o in offers(b.project, words, b.sheet, []) if o.device_id]

        self.assertEqual(offered("coil"), [("coil", "+P-KF1")])
        self.assertEqual(offered("lamp"), [("lamp", "+P-PF1")])
        self.assertEqual(offered("running"), [("lamp", "+P-PF1")], "by its text, too")
        self.assertEqual(offered("motor breaker"), [], "of another class")
        devices = len(b.project.devices)
        (breaker,) = (o for o in offers(b.project, "breaker", b.sheet, []) if o.device_id)
        symbol = b.place(breaker.definition, 20, 40, device_id=breaker.device_id)
        self.assertEqual((b.symbol(symbol).units, len(b.project.devices)), ((1, 2, 3), devices))
        self.assertEqual(offered("breaker"), [])

    def cable(self) -> str:
        return next(p.id for p in self.bench.library.parts.values() if p.part_class == "cable")

    def test_what_clips_on_nothing_is_drawn_to_neighbours_ducts_and_lines_else_to_the_grid(self) -> None:
        b = self.bench
        b.do("draw-run", what="duct", part_id=DUCT, **self.ends(20, 500, 530, 500))
        (drive,) = self.plan(100, 350, part=DRIVE)  # 90 × 220, its top at 240
        near, far = 193.0, 197.0
        for x, y, wanted in (
            (near, 352, (190, 240)),  # 3 mm beside the drive: at its side, their tops in line
            (far, 361, (195, 250)),  # further: the nearest of the grid
            (300, 592, (300, 520)),  # 2 mm below the duct, whose lower edge is at 520: against it, as tall as 140
            (303, 200, (305, 130)),
        ):
            part = "orrery-drives-od-ss0-25" if x in (300, 303) else DRIVE
            (made,) = self.plan(x, y, part=part)
            box = self.box(made)
            self.assertEqual((box.x, box.y), wanted, (x, y))
            b.do("remove-from-layout", ids=[made])
        b.do("move-in-layout", ids=[drive], dx=0, dy=17.5)
        self.assertEqual(self.box(drive).y, 260, "2.5 mm above the duct at 480: against it")

    def test_what_is_put_between_others_pushes_them_along(self) -> None:
        ids = self.plan(60, count=3)
        self.assertEqual(self.xs(ids), [60, 105, 150])
        new = self.plan(400)
        self.bench.do("move-in-layout", ids=new, dx=-280, dy=0, push=True)
        self.assertEqual(
            self.xs(new), [105], "its left edge came into the first half of the second: it takes its place"
        )
        self.assertEqual(self.xs(ids), [60, 150, 195])
        self.bench.do("move-in-layout", ids=new, dx=80, dy=0, push=True)
        self.assertEqual((self.xs(new), self.xs(ids)), ([195], [60, 150, 240]), "in the second half it stands behind")
        outcome = self.bench.do("remove-from-layout", ids=[ids[0]])
        self.assertEqual(outcome.label, "take 1 out of the layout")
        device = self.bench.new("plan-device", part_id=RELAY, enclosure_id=self.enclosure, x=300, y=200)
        self.assertEqual(self.xs([device]), [300])

    def test_devices_are_brought_into_line_spread_closed_up_and_mirrored(self) -> None:
        a, b, c = (self.plan(x)[0] for x in (60, 160, 400))
        self.arrange("spread-across", a, b, c)
        self.assertEqual(self.xs([a, b, c]), [60, 230, 400])
        self.arrange("close-up", a, b, c)
        self.assertEqual(self.xs([a, b, c]), [60, 105, 150])
        self.arrange("right", a, c)
        self.assertEqual(self.xs([a]), [150])
        self.bench.do("set-position", id=a, from_left=300)
        self.arrange("mirror", a, b, c)
        self.assertEqual(self.xs([a, b, c]), [105, 300, 255])

    def test_loose_devices_line_up_both_ways(self) -> None:
        a, b = self.plan(60, 400, part=DRIVE)[0], self.plan(300, 430, part=DRIVE)[0]
        self.arrange("top", a, b)
        self.assertEqual(self.box(a).y, self.box(b).y)
        self.arrange("column", a, b)
        self.assertEqual(self.box(b).x, 60)
        self.bench.do("set-position", id=b, from_left=210, from_below=100)
        box = self.box(b)
        self.assertEqual((box.x, 750 - box.y - box.height), (210, 100))
        self.arrange("swap", a, b)
        self.assertEqual(self.box(a).x, 210)
        (relay,) = self.plan(60)
        with self.assertRaisesRegex(RuleError, "does not clip on a rail, the other does"):
            self.arrange("swap", a, relay)
        with self.assertRaisesRegex(RuleError, "Choose two devices to swap"):
            self.bench.do("arrange-in-layout", ids=[a, b, relay], how="swap")

    def test_two_of_one_rail_swap_and_those_between_keep_their_gaps(self) -> None:
        narrow, middle = self.plan(60), self.plan(120)
        (wide,) = self.plan(200, part=BREAKER)
        gap = self.box(wide).x - (self.box(middle[0]).x + self.box(middle[0]).width)
        ends = self.box(wide).x + self.box(wide).width
        self.arrange("swap", narrow[0], wide)
        self.assertEqual(self.box(wide).x, 60)
        self.assertEqual(self.box(narrow[0]).x + self.box(narrow[0]).width, ends)
        between = self.box(narrow[0]).x - (self.box(middle[0]).x + self.box(middle[0]).width)
        self.assertEqual(between, gap)

    def test_rails_move_with_all_on_them_to_a_typed_place(self) -> None:
        ids = self.plan(60, count=2)
        self.bench.do("set-position", id=self.rail, from_below=400)
        self.assertEqual(self.bench.project.rails[self.rail].y1, 350)
        self.assertEqual([self.box(i).y + self.box(i).height / 2 for i in ids], [350, 350])

    def test_clearances_are_kept_when_placing_and_named_when_not(self) -> None:
        part = self.bench.library.parts[RELAY]
        wide = {**part.ratings, "clear_beside_mm": "10", "clear_above_mm": "50"}
        self.bench.library.parts[RELAY] = replace(part, ratings=wide)
        ids = self.plan(60, count=2)
        self.assertEqual(self.xs(ids), [60, 115])
        self.assertEqual(self.faults("clearance"), [])
        self.bench.do("draw-run", what="duct", part_id=DUCT, **self.ends(20, 110, 530, 110))
        top = self.box(ids[0]).y
        self.assertEqual(len(self.faults("clearance")), 2)
        self.assertIn(
            f"+P-KF1: {top - 130:.0f} mm to duct D1 above, needs 50 mm. Move it down {50 - top + 130:.0f} mm.",
            self.faults("clearance"),
        )
        self.bench.do("set-position", id=ids[1], from_left=107)
        self.assertIn("+P-KF1: 2 mm to +P-KF2 on its right, needs 10 mm. Move it left 8 mm.", self.faults("clearance"))

    def test_crossing_ducts_and_rails_under_ducts_are_named_with_the_place(self) -> None:
        self.bench.do("draw-run", what="duct", part_id=DUCT, **self.ends(20, 400, 530, 400))
        self.bench.do("draw-run", what="duct", part_id=DUCT, **self.ends(300, 300, 300, 600))
        self.assertEqual(
            self.faults("duct-on-duct"),
            ["Ducts D2 and D1 cross 300 mm from the left, 350 mm from below. End one at the other, or cut it in two."],
        )
        self.bench.do("draw-run", what="duct", part_id=DUCT, **self.ends(100, 100, 100, 250))
        self.assertEqual(self.faults("rail-under-duct"), ["Rail R1 runs under duct D1. Shorten or move one."])

    def test_walls_and_gland_plates_are_built_on_where_the_part_has_them(self) -> None:
        project = self.bench.project
        self.assertEqual(surfaces_of(project, project.enclosures[self.enclosure]), ["plate", "door"])
        with self.assertRaisesRegex(RuleError, "has no left side wall to build on"):
            self.plan(50, 100, surface="left", part=DRIVE)
        big = self.bench.new("add-enclosure", part_id="brindlework-bw-e81230g", location_id=self.place)
        other = project.enclosures[big]
        self.assertEqual(surfaces_of(project, other), ["plate", "door", "left", "right", "gland"])
        self.assertEqual([surface_size(project, other, s) for s in ("left", "gland")], [(300, 1200), (600, 180)])
        where = {"enclosure_id": big, "surface": "left", "x": 50, "y": 300}
        self.bench.do("plan-device", part_id=DRIVE, **where)
        self.assertEqual([p.surface for p in placings_in(project, big)], ["left"])

    def test_every_act_is_taken_back_whole(self) -> None:
        ids = self.plan(60, count=3)
        before = dict(self.bench.project.entities())
        self.bench.do("set-position", id=ids[1], from_left=140)
        before = dict(self.bench.project.entities())
        for how in ("spread-across", "close-up", "left", "swap"):
            chosen = ids[:2] if how == "swap" else ids
            outcome = self.bench.do("arrange-in-layout", ids=chosen, how=how)
            self.bench.project.apply(take_back(self.bench.project, outcome.changes))
            self.assertEqual(dict(self.bench.project.entities()), before)


class Copies(Plate):
    def test_a_like_panel_is_laid_out_like_the_first_also_mirrored(self) -> None:
        b = self.bench
        second = b.new("add-location", code="Q", side="panel")
        for n, place in enumerate((self.place, second)):
            for k in range(2):
                symbol = b.place("coil", 20 + 20 * k, 20 + 20 * n, part_id=RELAY)
                b.do("set-place", device_id=b.device(symbol), function_id="", location_id=place)
        by_tag = {full_tag(b.project, d): d.id for d in b.project.devices.values()}
        first = [by_tag["+P-KF1"], by_tag["+P-KF2"]]
        b.do("place-devices", enclosure_id=self.enclosure, device_ids=first, x=60, y=200)
        b.do("draw-run", what="duct", part_id=DUCT, **self.ends(20, 100, 530, 100))
        like = b.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=second)
        outcome = b.do("copy-layout", from_id=self.enclosure, to_id=like, mirrored=True)
        placed = {full_tag(b.project, b.project.devices[p.device_id]): p for p in placings_in(b.project, like)}
        self.assertEqual(sorted(placed), ["+Q-KF1", "+Q-KF2"])
        self.assertEqual([outline(b.project, placed[t]).x for t in sorted(placed)], [550 - 105, 550 - 150])
        self.assertEqual(sum(d.enclosure_id == like for d in b.project.ducts.values()), 1)
        with self.assertRaisesRegex(RuleError, "is laid out already"):
            b.do("copy-layout", from_id=self.enclosure, to_id=like)
        b.project.apply(take_back(b.project, outcome.changes))
        other = b.new("add-enclosure", part_id="brindlework-bw-e81030", location_id=second)
        with self.assertRaisesRegex(RuleError, "has another plate"):
            b.do("copy-layout", from_id=self.enclosure, to_id=other)


class Proposals(TestCase):
    def test_the_demo_is_laid_out_within_a_tenth_of_the_hand_without_faults(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        for enclosure in enclosures(project):
            before = figures(project, enclosure)
            edit = parse_edit({"kind": "lay-out", "enclosure_id": enclosure.id})
            outcome = compute(project, edit, library=DemoLibrary())
            self.assertEqual(outcome.remarks, [])
            self.assertEqual([row[0] for row in outcome.table][:2], ["Wires", "Routed"])
            self.assertEqual(figures(project, enclosure), before, "nothing is changed by a preview")
            project.apply(outcome.changes)
            after = figures(project, enclosure)
            self.assertEqual((after.placed, after.routed, after.faults), (before.placed, before.routed, 0))
            self.assertLess(after.wires_m, before.wires_m * 1.1)
            project.apply(take_back(project, outcome.changes))
            self.assertEqual(figures(project, enclosure), before)

    def test_zones_lie_below_each_other_and_clearances_are_kept(self) -> None:
        things = [Thing(f"b{n}", "breaker", 54, 90, True, order=n) for n in range(6)]
        things += [Thing(f"k{n}", "relay", 23, 80, True, order=n) for n in range(6)]
        things += [Thing("d", "drive", 120, 240, False, above=100, below=100)]
        things += [Thing("x", "terminal", 200, 48, True)]
        found = propose(things, joined_by([("b0", "k5"), ("b0", "k5"), ("k1", "k1")]), (750, 1150), 40)
        self.assertEqual(found.left, [])
        middles = {t.id: found.places[t.id][1] + t.height / 2 for t in things}
        self.assertLess(max(middles[f"b{n}"] for n in range(6)), min(middles[f"k{n}"] for n in range(6)))
        self.assertLess(max(middles[f"k{n}"] for n in range(6)), middles["x"])
        level = sorted(y1 for _, y1, _, y2 in found.ducts if y1 == y2)
        top = found.places["d"][1]
        above = max(y for y in level if y < top)
        below = min(y for y in level if y > top + 240)
        self.assertGreaterEqual(top - (above + 20), 100 - 1e-6)
        self.assertGreaterEqual(below - 20 - top - 240, 100 - 1e-6)
        boxes = [Outline(*found.places[t.id][:2], t.width, t.height, 0) for t in things]
        self.assertFalse(any(a.overlaps(b) for n, a in enumerate(boxes) for b in boxes[n + 1 :]))

    def test_what_finds_no_room_is_named_and_nothing_to_lay_out_is_refused(self) -> None:
        found = propose([Thing(f"b{n}", "breaker", 54, 90, True) for n in range(40)], {}, (350, 450), 40)
        self.assertTrue(found.left)
        self.assertEqual(len(found.left) + len(found.places), 40)
        self.assertEqual(propose([], {}, (350, 450), 40).places, {})
        bench = Workbench(frame="zones")
        place = bench.new("add-location", code="P", side="panel")
        enclosure = bench.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=place)
        with self.assertRaisesRegex(RuleError, "Choose a part for the rails first"):
            bench.do("lay-out", enclosure_id=enclosure)
        with self.assertRaisesRegex(RuleError, "nothing to lay out yet"):
            bench.do("lay-out", enclosure_id=enclosure, rail_part_id=RAIL, duct_part_id=DUCT)

    def test_from_nothing_it_places_what_waits_for_plate_and_door(self) -> None:
        bench = Workbench(frame="zones")
        place = bench.new("add-location", code="P", side="panel")
        door = bench.new("add-location", code="D", parent_id=place, side="door")
        for n in range(4):
            symbol = bench.place("coil", 20 + 20 * n, 20, part_id=RELAY)
            bench.do("set-place", device_id=bench.device(symbol), function_id="", location_id=place)
        bench.wire((24, 20), (40, 20))
        lamp = bench.device(bench.place("lamp", 20, 60, part_id="tamwick-tw-l22-g"))
        bench.do("set-place", device_id=lamp, function_id="", location_id=door)
        enclosure = bench.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=place)
        bench.do("lay-out", enclosure_id=enclosure, rail_part_id=RAIL, duct_part_id=DUCT)
        self.assertEqual(tray(bench.project), [])
        self.assertEqual(sum(p.surface == "door" for p in placings_in(bench.project, enclosure)), 1)
        self.assertTrue(all(r.length_mm for r in routes(bench.project).values()))
