"""The lists against a second opinion that reads only the file: no difference on demos and strange projects."""

from __future__ import annotations

import json
from collections import Counter
from dataclasses import replace
from typing import Any
from unittest import TestCase
from unittest.mock import patch

from jolly_core.cabinet import Route, routes
from jolly_core.cables import cable_cores, cable_drop
from jolly_core.exchange import write_project
from jolly_core.harness import pin_groups
from jolly_core.making import cut_list, spool_plan
from jolly_core.model import Project
from jolly_core.plc import channels
from jolly_core.reports import run_report
from jolly_core.tagging import contact_table
from jolly_core.testing import DRYER, Workbench, demo
from jolly_core.testing.strange import strange
from jolly_core.wiring import all_conductors, all_nets, net_of
from opinion.addresses import channel_addresses
from opinion.book import Book
from opinion.cables import gathered, plan_wrongs
from opinion.compared import differences
from opinion.conductors import wrongs
from opinion.making import conducting, drop, sizes, spools
from opinion.names import end, pin_names, tag
from opinion.nets import nets, potentials
from opinion.purchase import contacts, pieces
from opinion.terminals import targets
from opinion.ways import lengths

SEEDS = 105


class SameAnswer(TestCase):
    long = True

    def test_both_demos(self) -> None:
        self.assertEqual(differences(demo()), [])
        self.assertEqual(differences(demo(DRYER)), [])

    def test_an_empty_project(self) -> None:
        self.assertEqual(differences(Workbench().project), [])


class Strange(TestCase):
    """Some of the strange projects; in parts, so that they can be made beside each other."""

    long = True
    first, count = 0, SEEDS // 3

    def test_strange_projects(self) -> None:
        for seed in range(self.first, self.first + self.count):
            with self.subTest(seed=seed):
                self.assertEqual(differences(strange(seed).project), [])


class MoreStrange(Strange):
    first = SEEDS // 3


class StillMoreStrange(Strange):
    first = 2 * SEEDS // 3


class Generator(TestCase):
    def test_a_seed_gives_the_same_project_each_time_and_another_one_another(self) -> None:
        one, same, other = (write_project(strange(seed, 20).project) for seed in (4, 4, 5))
        self.assertEqual(one, same)
        self.assertNotEqual(one, other)

    def test_all_that_is_to_meet_is_in_some_of_them(self) -> None:
        named = ("block:", "bridge", "continuation", "poles", "second panel", "card", "two bands of a cable")
        kept = ("enclosures", "placings", "ducts", "harnesses", "segments", "harness_variants", "channel_circuits")
        kinds = dict.fromkeys((*named, *kept, "planned", "unplaced", "two habits"), False)
        habits = set()
        for seed in range(30):
            project = strange(seed).project
            kinds["block:"] |= any(s.definition.startswith("block:") for s in project.symbols.values())
            kinds["bridge"] |= bool(project.bridges)
            kinds["continuation"] |= bool(project.continuations)
            bands = Counter(band.device_id for band in project.bands.values())
            kinds["two bands of a cable"] |= max(bands.values(), default=0) > 1
            kinds["card"] |= bool(project.cards)
            kinds["poles"] |= any(len(s.units) > 1 for s in project.symbols.values())
            for table in kept:
                kinds[table] |= bool(getattr(project, table))
            kinds["planned"] |= any(i.planned for i in project.strip_items.values())
            kinds["unplaced"] |= 0 < len(project.placings) < len(project.devices)
            habits.add(project.settings.standard)
            kinds["second panel"] |= len({d.location_id for d in project.devices.values()}) > 1
        kinds["two habits"] = len(habits) == 2
        self.assertEqual([kind for kind, there in kinds.items() if not there], [])


class ByHand(TestCase):
    """The second opinion itself, on drawings small enough to be looked at."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")

    @property
    def book(self) -> Book:
        return Book(write_project(self.bench.project))

    def test_a_net_of_strokes_and_marks_and_a_potential_over_a_terminal(self) -> None:
        b = self.bench
        lamp, terminal = b.place("lamp", 10, 20), b.place("terminal", 30, 20)
        self.assertEqual(max(self.book.pins(self.book.kinds["symbol"][lamp]))[1:], (14, 20))
        b.wire((14, 20), (30, 20))
        b.do("place-continuation", sheet_id=b.sheet, x=20, y=20, name="A")
        other = b.place("lamp", 10, 40)
        b.do("place-continuation", sheet_id=b.sheet, x=14, y=40, name="A")
        found = next(net for net in nets(self.book) if (lamp, 1) in net)
        self.assertEqual(found, {(lamp, 1), (other, 1), (terminal, 0)})
        self.assertEqual(len(next(p for p in potentials(self.book) if (lamp, 1) in p)), 4)

    def test_strokes_that_cross_do_not_join(self) -> None:
        b = self.bench
        one, two = b.place("lamp", 10, 20), b.place("lamp", 40, 20)
        b.wire((14, 20), (40, 20))
        b.wire((26, 10), (26, 30))
        self.assertIn({(one, 1), (two, 0)}, nets(self.book))

    def test_what_is_wrong_with_conductors_is_said(self) -> None:
        a, b, c, d = (("s", n) for n in range(4))
        whole = [{a, b, c}, {d}]
        self.assertEqual(wrongs(whole, [(a, b), (b, c)]), [])
        self.assertRegex(wrongs(whole, [(a, b)])[0], "1 conductors for 3 pins")
        self.assertRegex(wrongs(whole, [(a, b), (a, b)])[0], "not all of")
        self.assertRegex(wrongs(whole, [(a, b), (b, c), (c, d)])[0], "joins two nets")

    def test_names_and_contacts_and_pieces(self) -> None:
        b = self.bench
        coil = b.place("coil", 40, 20, part_id="brindlework-bw-c09-24d-11")
        contact = b.place("contact-nc", 10, 30, device_id=b.device(coil))
        book = self.book
        self.assertEqual(tag(book, book.kinds["device"][b.device(coil)]), "-QA1")
        self.assertEqual(pin_names(book, book.kinds["symbol"][contact]), ["21", "22"])
        self.assertEqual(end(book, (contact, 1)), "-QA1:22")
        self.assertEqual(dict(contacts(book)[b.device(coil)]), {"13-14": 1, "21-22": 1})
        self.assertEqual(dict(pieces(book)), {"brindlework-bw-c09-24d-11": 1})

    def test_a_band_gathers_what_falls_apart_where_it_cuts_and_of_a_ring_nothing_for_certain(self) -> None:
        b = self.bench
        one, two, three = (b.place("lamp", 40, 20 + 10 * n) for n in range(3))
        left = b.place("lamp", 10, 20)
        b.wire((14, 20), (40, 20))
        b.wire((30, 20), (30, 30), (40, 30))
        band = {"x1": 20, "y1": 18, "x2": 20, "y2": 22, "part_id": "quillon-ql-yy2x1"}
        b.do("draw-band", sheet_id=b.sheet, **band)
        (cable,) = b.project.cables.values()
        wired = [((left, 1), (one, 0)), ((one, 0), (two, 0)), ((two, 1), (three, 0))]
        sure, maybe = gathered(self.book, wired)[cable.device_id]
        self.assertEqual((sure, maybe), ({wired[0]}, set(wired[:2])))
        b.wire((14, 20), (14, 26), (30, 26))  # a second way around the band
        self.assertEqual(gathered(self.book, wired)[cable.device_id], (set(), set(wired[:2])))

    def test_a_terminal_is_joined_with_the_other_ends_of_its_conductors(self) -> None:
        b = self.bench
        lamp, terminal, coil = b.place("lamp", 10, 20), b.place("terminal", 30, 20), b.place("coil", 50, 20)
        b.wire((14, 20), (30, 20))
        b.wire((34, 20), (50, 20))
        found = targets(self.book, [((lamp, 1), (terminal, 0)), ((terminal, 1), (coil, 0))])
        self.assertEqual(found, {("-XD1", "1"): Counter({"-PF1:X2": 1, "-KF1:A1": 1})})
        book = Book(write_project(demo()))
        every = targets(book, [(c.start, c.end) for c in all_conductors(demo()).values()])
        self.assertGreater(len(every), 100, "nearly all terminals of the demo are known")

    def test_what_is_wrong_with_a_core_plan_is_said(self) -> None:
        units = [["core", ["1"]], ["core", ["GNYE"]], ["shield", ["SH"]]]
        entities = {"device": [{"id": "d", "part_id": "p"}], "part": [{"id": "p", "units": units}]}
        book = Book(json.dumps({"entities": entities}))
        a, b = ((("s", n), ("s", n + 1)) for n in range(2))
        self.assertEqual(plan_wrongs(book, "d", [(1, a), (2, None), (3, None), (0, b)]), [])
        self.assertRegex(plan_wrongs(book, "d", [(1, a)])[0], "the part has 3")
        self.assertEqual(plan_wrongs(book, "d", [(1, a), (2, a), (3, None)]), ["a conductor has two cores"])
        self.assertEqual(plan_wrongs(book, "d", [(1, None), (2, None), (3, a)]), ["a shield serves as a core"])
        self.assertRegex(plan_wrongs(book, "d", [(1, None), (2, None), (3, None), (0, a)])[0], "core 1 is spare")

    def test_a_core_has_the_size_of_its_cable_and_another_wire_that_of_its_type(self) -> None:
        b = self.bench
        one, two = b.place("lamp", 10, 20), b.place("lamp", 40, 20)
        b.wire((14, 20), (40, 20))
        c = ((one, 1), (two, 0))
        self.assertEqual(sizes(self.book, [c], {}), {c: "1 mm²"})
        b.do("draw-band", sheet_id=b.sheet, x1=20, y1=18, x2=20, y2=22, part_id="quillon-ql-yy2x4")
        (cable,) = b.project.cables.values()
        self.assertEqual(sizes(self.book, [c], {c: (cable.device_id, 2)}), {c: "4 mm²"})
        self.assertEqual(sizes(self.book, [c], {c: (cable.device_id, 0)}), {c: "1 mm²"})

    def test_a_wire_in_a_ring_of_lanes(self) -> None:
        """Ring (0,0)-(400,300), pins (150,20) and (300,280), allowances 60: 20 + 650 + 20 + 120 = 810 (rules: Ways)."""
        placed, devices, symbols = [], [], []
        for id, (x, y) in (("a", (150.0, 20.0)), ("b", (300.0, 280.0))):
            place = {"enclosure_id": "e", "surface": "plate", "rail_id": "", "x": x, "y": y}
            placed.append({"id": f"p{id}", "device_id": id, **place})
            devices.append({"id": id, "part_id": "part", "location_id": ""})
            symbols.append({"id": f"s{id}", "device_id": id, "definition": "coil", "units": [1]})
        flat = {"width_mm": 0.0, "height_mm": 0.0, "diameter_mm": 0.0, "details": []}
        ring = [0.0, 0.0, 400.0, 0.0, 400.0, 300.0, 0.0, 300.0, 0.0, 0.0]
        entities: dict[str, list[dict[str, Any]]] = {
            "settings": [{"id": "s", "end_allowance_mm": 60.0, "length_step_mm": 5.0, "free_run_mm": 150.0}],
            "enclosure": [{"id": "e", "left_id": "", "device_id": "box"}],
            "lane": [{"id": "l", "enclosure_id": "e", "surface": "plate", "points": ring, "categories": []}],
            "placing": placed,
            "device": [*devices, {"id": "box", "part_id": "", "location_id": ""}],
            "symbol": symbols,
            "part": [{"id": "part", "part_class": "relay", "units": [["coil", ["A1", "A2"]]], **flat}],
        }
        c = (("sa", 0), ("sb", 0))
        self.assertEqual(lengths(Book(json.dumps({"entities": entities})), [c]), {c: 810.0})
        entities["lane"][0]["points"] = ring[:4]
        self.assertEqual(lengths(Book(json.dumps({"entities": entities})), [c]), {c: 20 + 150 + 280 + 120})
        entities["lane"] = []
        self.assertEqual(lengths(Book(json.dumps({"entities": entities})), [c]), {c: None})
        entities["lane"] = [
            {"id": id, "enclosure_id": "e", "surface": "plate", "points": points, "categories": []}
            for id, points in (("l", ring[:4]), ("m", ring[4:8]))
        ]
        self.assertEqual(
            lengths(Book(json.dumps({"entities": entities})), [c]), {c: None}, "two lanes that nothing joins"
        )

    def test_spools_are_the_fewest_for_few_and_bounded_for_many(self) -> None:
        self.assertEqual(spools([520, 500, 410, 390, 360, 350, 160, 150], 1000), (3, 3))
        self.assertEqual(spools([1200, 900, 200], 1000), (3, 3))
        self.assertEqual(spools([300.0] * 12, 1000), (4, 4))
        least, most = spools([520, 500, 410, 390, 360, 350, 160, 150, 980, 990], 1000)
        self.assertEqual((least, most), (5, 6))

    def test_a_drop_as_worked_in_the_rules(self) -> None:
        three = (15.5, 35, 2.5, 400, 0.84, 3)
        self.assertAlmostEqual(drop(*three) or 0, 1.89, 2)
        direct = (5, 20, 1.5, 24, 1.0, 1)
        self.assertAlmostEqual(drop(*direct) or 0, 13.3, 1)
        self.assertIsNone(drop(5, 20, 1.3, 24, 1.0, 1))

    def test_what_the_wires_of_a_harness_join(self) -> None:
        shapes = {"c": "cavity", "x": "splice"}
        symbols = [
            {"id": f"{kind}{n}", "device_id": f"{kind}{n}", "definition": shapes[kind], "units": [1]}
            for kind, n in (("c", 1), ("c", 2), ("c", 3), ("x", 1))
        ]
        nodes = [{"id": f"n{s['id']}", "harness_id": "h", "device_id": s["device_id"]} for s in symbols]
        entities: dict[str, object] = {"harness": [{"id": "h"}], "symbol": symbols, "node": nodes}
        book = Book(json.dumps({"entities": entities}))
        wires = [(("c1", 0), ("x1", 0)), (("c2", 0), ("x1", 0))]
        self.assertEqual(conducting(book, wires), {"h": {frozenset({("c1", 0), ("c2", 0)})}})
        self.assertEqual(conducting(book, wires[:1]), {"h": set()})

    def test_addresses_are_counted_on(self) -> None:
        """From 1.2 the 7th input is 2.0; octal 17 goes on with 20; ten bits before words are one word (rules: I/O)."""
        for scheme, start, kinds, last in (
            ("byte.bit", "1.2", ["di"] * 7, "I2.0"),
            ("octal", "17", ["do"] * 2, "Q20"),
            ("whole", "100", ["ai"] * 3, "I102"),
            ("slot", "3", ["di"] * 6, "I3/5"),
            ("word", "256", ["ai"] * 2, "IW258"),
            ("word", "256", [*["di"] * 10, "ai"], "IW258"),
        ):
            entities = {
                "settings": [{"id": "s", "input_prefix": "I", "output_prefix": "Q"}],
                "device": [{"id": "d", "part_id": "p"}],
                "part": [{"id": "p", "units": [[kind, []] for kind in kinds]}],
                "card": [{"id": "c", "device_id": "d", "scheme": scheme, "start": start}],
            }
            found = channel_addresses(Book(json.dumps({"entities": entities})))
            self.assertEqual(list(found.values())[-1], last, (scheme, start))


class Told(TestCase):
    """What the project would say wrongly is told: each of its answers is made wrong once."""

    def test_each_answer_made_wrong(self) -> None:
        projects = [demo(), *(p for p in (strange(seed).project for seed in range(1, 9)) if p.cards or p.harnesses)]
        projects.append(loaded())
        first, *others = all_conductors(projects[0]).values()
        for told, name, wrong in (
            ("nets", "all_nets", lambda p: all_nets(p)[1:]),
            ("potentials", "net_of", lambda p, key, potential: net_of(p, key)),
            ("conductors", "all_conductors", lambda p: {c.key: c for c in others}),
            ("conductors", "all_conductors", lambda p: {first.key: replace(first, end=first.start)}),
            ("wire list", "run_report", lambda p, key: replace(report := run_report(p, key), rows=report.rows[1:])),
            ("parts list", "run_report", lambda p, key: replace(run_report(p, key), rows=[])),
            ("names", "full_tag", lambda p, device: "CR1"),
            ("names", "pin_name", lambda p, pin, sheet_id: "X:0"),
            ("contact table", "contact_table", lambda p, lead: contact_table(p, lead)[:-1]),
            ("core plan", "cable_cores", lambda p, id: [replace(row, conductor=None) for row in cable_cores(p, id)]),
            ("core plan", "cable_cores", lambda p, id: cable_cores(p, id)[1:]),
            ("terminal plan", "run_report", lambda p, key: replace(run_report(p, key), rows=[])),
            ("addresses", "channels", lambda p, device_id: channels(p, device_id)[1:]),
            ("sizes", "run_report", lambda p, key: replace(report := run_report(p, key), rows=report.rows[1:])),
            ("lengths", "routes", lambda p: {}),
            ("lengths", "routes", lambda p: {k: longer(r, 5.1) for k, r in routes(p).items()}),
            ("lengths", "routes", lambda p: {k: longer(r, -0.1) for k, r in routes(p).items()}),
            ("cut list", "cut_list", lambda p: cut_list(p)[1:]),
            ("cut list", "cut_list", lambda p: [*cut_list(p), cut_list(p)[0]]),
            ("spools", "spool_plan", lambda p: [replace(r, spools=r.spools + 1) for r in spool_plan(p)]),
            ("spools", "spool_plan", lambda p: [replace(r, metres=r.metres + 1) for r in spool_plan(p)]),
            ("metres", "needs", lambda p: {}),
            ("drop", "cable_drop", lambda p, c: replace(drop := cable_drop(p, c), percent=drop.percent + 0.001)),
            ("continuity", "pin_groups", lambda p, id: pin_groups(p, id)[1:]),
        ):
            with self.subTest(told, name=name), patch(f"opinion.compared.{name}", wrong):
                self.assertTrue(any(w.startswith(told) for p in projects for w in differences(p)))


def loaded() -> Project:
    """Return a lamp on a cable that says its load."""
    b = Workbench(frame="zones")
    for x in (10, 40):
        b.place("lamp", x, 20)
    b.wire((14, 20), (40, 20))
    band = {"x1": 20, "y1": 18, "x2": 20, "y2": 22, "part_id": "quillon-ql-yy2x1-5"}
    device = b.project.bands[b.new("draw-band", sheet_id=b.sheet, **band)].device_id
    b.do("set-cable", device_id=device, length_m=20, load_a=5, voltage_v=24, power_factor=1)
    return b.project


def longer(route: Route, by: float) -> Route:
    """Return a route with another length."""
    return replace(route, length_mm=route.length_mm + by if route.length_mm is not None else None)
