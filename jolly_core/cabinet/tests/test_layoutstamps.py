"""Layouts kept as stamps: a rail with all on it, a door group, put down with what waits or with what is planned."""

from __future__ import annotations

import json
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.cabinet import Outline, outline, placings_in, tray
from jolly_core.edits.cabinet.stamps import layout_from_text, layout_to_text
from jolly_core.edits.pieces.stampbody import is_layout
from jolly_core.model import FileError, RuleError
from jolly_core.tagging import full_tag, product_tag
from jolly_core.testing import Workbench

RAIL, DUCT = "brindlework-bw-r35", "brindlework-bw-d4060"
RELAY, BREAKER, LAMP = "hollin-hr-k22", "quillon-ql-c16-3p", "tamwick-tw-l22-g"


class Kept(TestCase):
    """Two like panels; the first has a rail with three relays and a breaker, a duct above, and a lamp in the door."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        self.panels = [b.new("add-location", code=code, side="panel") for code in ("P1", "P2")]
        part = "brindlework-bw-e6825"
        self.one, self.two = (b.new("add-enclosure", part_id=part, location_id=p) for p in self.panels)
        self.rail = self.run_in(self.one, "rail", 40, 200, 500, 200)
        self.duct = self.run_in(self.one, "duct", 40, 100, 500, 100)
        self.plan(self.one, RELAY, 60, count=3)
        self.plan(self.one, BREAKER, 300)
        self.plan(self.one, LAMP, 200, surface="door")

    def run_in(self, enclosure: str, what: str, *ends: float) -> str:
        x1, y1, x2, y2 = ends
        values = {"enclosure_id": enclosure, "x1": x1, "y1": y1, "x2": x2, "y2": y2}
        return self.bench.new("draw-run", what=what, part_id=RAIL if what == "rail" else DUCT, **values)

    def plan(self, enclosure: str, part: str, x: float, *, count: int = 1, surface: str = "plate") -> list[str]:
        where = {"enclosure_id": enclosure, "surface": surface, "x": x, "y": 200}
        return self.bench.do("plan-device", part_id=part, count=count, **where).placed

    def keep(self, *ids: str, name: str = "Row") -> str:
        return self.bench.new("keep-layout", ids=list(ids), name=name)

    def put(self, stamp: str, enclosure: str, x: float = 40, y: float = 100, **values: object) -> list[str]:
        return self.bench.do("put-layout", stamp_id=stamp, enclosure_id=enclosure, x=x, y=y, **values).placed

    def boxes(self, enclosure: str, surface: str = "plate") -> list[tuple[str, Outline]]:
        project = self.bench.project
        found = [(p.device_id, outline(project, p)) for p in placings_in(project, enclosure, surface)]
        return sorted(found, key=lambda pair: (pair[1].x, pair[1].y))

    def tags(self, enclosure: str) -> list[str]:
        project = self.bench.project
        return [product_tag(project, project.devices[id]) for id, _ in self.boxes(enclosure)]

    def test_a_rail_brings_all_on_it_and_is_put_down_alike_with_new_devices(self) -> None:
        stamp = self.keep(self.rail, self.duct)
        self.put(stamp, self.two)
        one, two = self.boxes(self.one), self.boxes(self.two)
        self.assertEqual([b for _, b in one], [b for _, b in two])
        self.assertTrue({id for id, _ in one}.isdisjoint({id for id, _ in two}))
        project = self.bench.project
        self.assertEqual({full_tag(project, project.devices[id])[:3] for id, _ in two}, {"+P2"})
        rails = [r for r in project.rails.values() if r.enclosure_id == self.two]
        ducts = [d for d in project.ducts.values() if d.enclosure_id == self.two]
        self.assertEqual([(r.x1, r.y1, r.x2, r.y2, r.part_id) for r in rails], [(40, 200, 500, 200, RAIL)])
        self.assertEqual([(d.x1, d.y1, d.part_id) for d in ducts], [(40, 100, DUCT)])
        self.assertEqual({p.rail_id for p in placings_in(project, self.two)}, {rails[0].id})

    def test_what_waits_is_taken_first_by_its_tag_then_as_it_is_drawn(self) -> None:
        stamp = self.keep(self.rail)
        b = self.bench
        waiting = []
        for x in (10, 30):
            symbol = b.place("coil", x, 40, part_id=RELAY)
            b.do("set-place", device_id=b.device(symbol), function_id="", location_id=self.panels[1])
            waiting.append(b.device(symbol))
        # the second has the tag of the last place, the first no place of its own
        b.do("set-tag", device_id=waiting[1], tag=self.tags(self.one)[2])
        b.do("set-tag", device_id=waiting[0], tag="KF70")
        self.put(stamp, self.two)
        here = [id for id, _ in self.boxes(self.two)]
        self.assertEqual((here[0], here[2]), (waiting[0], waiting[1]))
        self.assertEqual([d.id for d in tray(b.project) if d.id in waiting], [])

    def test_without_planning_places_stay_empty_and_it_says_so(self) -> None:
        stamp = self.keep(self.rail)
        before = len(self.bench.project.devices)
        self.put(stamp, self.two, plan=False)
        self.assertEqual((len(self.bench.project.devices), self.boxes(self.two)), (before, []))
        self.assertEqual(self.bench.done[-1].remarks, ["4 of 4 places stay empty: nothing waits for them."])

    def test_a_door_group_goes_onto_doors_alone(self) -> None:
        lamp = next(p for p in self.bench.project.placings.values() if p.surface == "door")
        stamp = self.keep(lamp.id)
        with self.assertRaisesRegex(RuleError, "Row was kept from the door. Put it down there."):
            self.put(stamp, self.two)
        self.put(stamp, self.two, surface="door", x=100, y=200)
        self.assertEqual([(b.x, b.y) for _, b in self.boxes(self.two, "door")], [(100, 200)])

    def test_it_is_moved_in_from_the_edge_and_refused_where_it_does_not_fit(self) -> None:
        stamp = self.keep(self.rail, self.duct)
        self.put(stamp, self.two, x=400, y=700)
        self.assertEqual(max(r.x2 for r in self.bench.project.rails.values() if r.enclosure_id == self.two), 550)
        small = self.bench.new("add-enclosure", part_id="brindlework-bw-e30421", location_id=self.panels[1])
        with self.assertRaisesRegex(RuleError, "Row is 460 × .* mm, the surface 250 × 350 mm. It does not fit."):
            self.put(stamp, small)

    def test_things_of_two_surfaces_or_none_of_a_layout_are_refused(self) -> None:
        lamp = next(p for p in self.bench.project.placings.values() if p.surface == "door")
        with self.assertRaisesRegex(RuleError, "must stand on one surface"):
            self.keep(self.rail, lamp.id)
        with self.assertRaisesRegex(RuleError, "Only devices, rails, ducts and lanes are kept"):
            self.keep(self.bench.sheet)
        self.keep(self.rail)
        with self.assertRaisesRegex(RuleError, "already a stamp “Row”"):
            self.keep(self.duct)

    def test_layouts_and_circuits_are_not_put_down_in_each_others_place(self) -> None:
        layout = self.keep(self.rail)
        with self.assertRaisesRegex(RuleError, "Put it down on the Cabinet bench"):
            self.bench.do("put-stamp", sheet_id=self.bench.sheet, stamp_id=layout, x=10, y=10)
        coil = self.bench.place("coil", 10, 40)
        circuit = self.bench.new("keep-stamp", ids=[coil], name="Coil")
        with self.assertRaisesRegex(RuleError, "Put it down on a sheet"):
            self.put(circuit, self.two)

    def test_its_name_is_changed_and_its_layout_stays(self) -> None:
        stamp = self.keep(self.rail)
        body = self.bench.project.stamps[stamp].body
        self.bench.do("change-stamp", stamp_id=stamp, name="Relays", text="for every field")
        kept = self.bench.project.stamps[stamp]
        self.assertEqual((kept.name, kept.text, kept.body), ("Relays", "for every field", body))

    def test_lanes_come_along(self) -> None:
        lane = self.bench.new("draw-lane", enclosure_id=self.one, points=[[40, 300], [40, 400], [200, 400]])
        stamp = self.keep(lane)
        self.put(stamp, self.two, x=100, y=100)
        (made,) = (n for n in self.bench.project.lanes.values() if n.enclosure_id == self.two)
        self.assertEqual(made.points, (100, 100, 100, 200, 260, 200))

    def test_the_body_is_checked(self) -> None:
        text = self.bench.project.stamps[self.keep(self.rail)].body
        self.assertTrue(is_layout(text))
        self.assertEqual(layout_to_text(layout_from_text(text)), text)
        changes: tuple[dict[str, object], ...] = (
            {"places": [["p", "", "", 0, 0, 7]]},
            {"rails": [{}]},
            {"width": "wide"},
        )
        for change in changes:
            raw = json.loads(text)
            raw["layout"] |= change
            with self.assertRaises(FileError):
                layout_from_text(json.dumps(raw))

    @given(st.floats(-500, 1500), st.floats(-500, 1500))
    def test_wherever_it_is_put_nothing_sticks_out(self, x: float, y: float) -> None:
        stamp = next((s.id for s in self.bench.project.stamps.values()), None) or self.keep(self.rail, self.duct)
        panel = self.bench.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=self.panels[1])
        self.put(stamp, panel, x=x, y=y)
        for _, box in self.boxes(panel):
            inside = box.x >= 0 and box.y >= 0 and box.x + box.width <= 550 and box.y + box.height <= 750
            self.assertTrue(inside, box)
