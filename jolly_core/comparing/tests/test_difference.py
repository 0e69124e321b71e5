"""What changed between two states: things by name, places on drawings, and the list for the shop."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from unittest import TestCase

from jolly_core.cabinet import placing_of
from jolly_core.comparing import Difference, difference, work_list
from jolly_core.edits import parse_edit, perform
from jolly_core.exchange import read_project, write_project
from jolly_core.making import labels
from jolly_core.model import Change, ChangeSet, Note, Project
from jolly_core.tagging import full_tag
from jolly_core.terminals import strip_rows
from jolly_core.testing import DemoLibrary, Workbench, demo, demo_anew, rebuilt


class States(TestCase):
    """A button wired to a lamp, a coil with a part, a terminal and a lamp by itself; another sheet beside."""

    def setUp(self) -> None:
        self.bench = bench = Workbench(frame="zones")
        self.other = bench.new("add-sheet", title="Other", frame="zones")
        self.button, self.lamp = bench.place("button-no", 40, 20), bench.place("lamp", 60, 20)
        self.coil, self.alone = bench.place("coil", 60, 40), bench.place("lamp", 40, 70)
        bench.do("assign-part", device_id=bench.device(self.coil), part_id="hollin-hr-k2")
        bench.wire((44, 20), (60, 20))
        self.strip = bench.new("make-strip", tag="XD1", count=3)
        self.before = self.state()

    def state(self) -> Project:
        return rebuilt(self.bench.project)

    def tag(self, symbol_id: str) -> str:
        return f"-{self.bench.tag(symbol_id)}"

    def changed(self) -> Difference:
        return difference(self.before, self.state())

    def words(self) -> list[str]:
        return [c.words for c in self.changed().changes]

    def reland(self) -> None:
        wire = next(w.id for w in self.bench.project.wires.values() if (w.x1, w.y1) == (44, 20))
        self.bench.do("delete-selection", ids=[wire])
        self.bench.wire((44, 20), (50, 20), (50, 40), (60, 40))

    def test_two_equal_states_do_not_differ(self) -> None:
        found = self.changed()
        self.assertEqual((found.changes, found.sheets), ((), ()))

    def test_five_changes_are_named_exactly_and_only_their_sheets(self) -> None:
        bench = self.bench
        names = [self.tag(s) for s in (self.button, self.lamp, self.coil, self.alone)]
        self.reland()
        bench.do("move-to-sheet", ids=[self.alone], sheet_id=self.other)
        bench.do("assign-part", device_id=bench.device(self.coil), part_id="hollin-hr-k4")
        bench.do("number-terminals", strip_id=self.strip, units=[2], start=7)
        bench.do("set-text", device_id=bench.device(self.button), text="Start")
        found, (button, lamp, coil, alone) = self.changed(), names
        self.assertEqual(
            self.words(),
            [
                f"device {coil}: part HR-K2, now HR-K4",
                f"device {alone}: sheet 30, now 31",
                f"device {button}: text none, now Start",
                f"wire 30-1 re-landed: {button}:14 to {lamp}:X1, now {button}:14 to {coil}:A1",
                "terminal -XD1:2: number 2, now 7",
                "part HR-K2 taken out",
                "part HR-K4 added",
            ],
        )
        self.assertEqual([s.number for s in found.sheets], ["30", "31"])
        jobs = [(j.act, j.what, j.start, j.end, j.now_to) for j in work_list(found)]
        self.assertEqual(
            jobs,
            [
                ("exchange", coil, "HR-K2", "", "HR-K4"),
                ("relabel", "-XD1:2", "", "", "-XD1:7"),
                ("re-land", "30-1", f"{button}:14", f"{lamp}:X1", f"{coil}:A1"),
            ],
        )

    def test_jobs_of_one_number_go_from_pin_to_pin_as_people_count(self) -> None:
        lamps = [self.bench.place("lamp", 100, 8 + 7 * n) for n in range(12)]
        self.before = self.state()
        self.bench.wire((100, 8), (100, 8 + 7 * 11))
        starts = [j.start for j in work_list(self.changed()) if j.act == "put in"]
        self.assertEqual(starts, [f"{self.tag(lamp)}:X1" for lamp in lamps[:-1]])
        self.assertNotEqual(starts, sorted(starts))

    def test_a_new_wire_is_told_with_the_places_it_is_between_while_nothing_is_placed(self) -> None:
        one, other = (self.bench.new("add-location", code=code, side="panel") for code in ("P1", "P2"))
        at = {self.button: one, self.lamp: one, self.coil: other, self.alone: one}
        for symbol_id, place in at.items():
            self.bench.do("set-place", device_id=self.bench.device(symbol_id), function_id="", location_id=place)
        self.before = self.state()
        self.bench.wire((44, 70), (60, 70), (60, 40))
        self.bench.wire((64, 20), (70, 20), (70, 66), (40, 66), (40, 70))
        jobs = work_list(self.changed())
        found = [(j.place, j.act) for j in jobs]
        self.assertEqual(set(found), {("+P1", "put in"), ("+P1 to +P2, in no cable yet", "put in")}, jobs)

    def test_a_field_called_as_a_fact_of_its_sheet_hides_none(self) -> None:
        sheet = self.bench.project.sheets[self.other]
        self.before.sheets[self.other] = replace(self.before.sheets[self.other], fields={"title": "My own"})
        self.bench.project.sheets[self.other] = replace(sheet, title="Fans", fields={"title": "Another"})
        (said,) = [c.words for c in self.changed().of("sheet")]
        self.assertIn("title Other, now Fans", said)
        self.assertIn("own title My own, now Another", said)

    def test_the_other_way_round_it_is_taken_back(self) -> None:
        self.reland()
        self.bench.do("delete-selection", ids=[self.alone])
        back = difference(self.state(), self.before)
        self.assertEqual([(c.kind, c.act) for c in back.changes], [("device", "added"), ("wire", "re-landed")])
        self.assertEqual([j.act for j in work_list(back)], ["fit", "re-land"])
        (sheet,) = back.sheets
        self.assertEqual(len(sheet.added), 2, "the lamp, and the wire as it was")

    def test_a_wire_of_another_type_comes_out_and_a_new_one_goes_in(self) -> None:
        made = self.bench.new("add-wire-type", name="Thick", colour="BK", cross_section_mm2=2.5, category="signal")
        wire = next(w.id for w in self.bench.project.wires.values())
        self.bench.do("set-wire-type", ids=[wire], wire_type_id=made)
        change, added = self.changed().changes
        self.assertEqual((change.act, change.facts), ("changed", ("type", "colour", "size")))
        self.assertEqual(added.words, "wire type Thick added")
        self.assertEqual([(j.act, j.kind) for j in work_list(self.changed())][-1], ("put in", "Thick"))

    def test_a_wire_that_comes_out_is_told_from_others_of_its_number_by_its_ends(self) -> None:
        wire = next(w.id for w in self.bench.project.wires.values())
        self.bench.do("delete-selection", ids=[wire])
        button, lamp = self.tag(self.button), self.tag(self.lamp)
        self.assertEqual(self.words(), [f"wire 30-1 taken out: {button}:14 to {lamp}:X1"])

    def test_another_number_is_a_label(self) -> None:
        wire = next(w.id for w in self.bench.project.wires.values())
        self.bench.do("fix-wire-number", wire_id=wire, number="W7")
        self.assertEqual(self.words(), ["wire 30-1: number 30-1, now W7"])
        self.assertEqual([(j.act, j.now_to) for j in work_list(self.changed())], [("relabel", "W7")])

    def test_a_tag_is_of_the_device_and_not_of_its_wires(self) -> None:
        self.bench.do("set-tag", device_id=self.bench.device(self.lamp), tag="PF9")
        self.assertEqual(self.words(), ["device -PF1: tag -PF1, now -PF9"])
        self.assertEqual([(j.act, j.what, j.now_to) for j in work_list(self.changed())], [("relabel", "-PF1", "-PF9")])

    def test_files_that_were_not_copied_from_each_other_are_told_apart_by_tags_and_numbers(self) -> None:
        """The same drawing made twice has other ids throughout."""
        twin = States("setUp")
        twin.setUp()
        later = Workbench(frame="zones")
        later.ids.new()  # from here on its ids are other ones
        later.new("add-sheet", title="Other", frame="zones")
        later.place("button-no", 40, 20)
        later.place("lamp", 60, 20)
        later.wire((44, 20), (60, 20))
        found = difference(twin.before, later.project)
        self.assertEqual(
            [c.words for c in found.of("device")],
            ["device -KF1 taken out", "device -PF2 taken out", "device -XD1 taken out"],
        )
        self.assertEqual([c for c in found.of("wire") if c.act != "changed"], [])
        self.assertEqual(found.of("sheet"), [])

    def test_drawings_that_look_the_same_do_not_differ_whatever_their_ids_are(self) -> None:
        self.bench.do("place-note", sheet_id=self.bench.sheet, x=20, y=70, text="Old")
        self.bench.do("add-point", tag="B1", text="Hatch")
        self.before = self.state()
        text = write_project(self.before)
        ids = sorted({id for _, e in self.before.entities() for id in [str(e.id)] if len(id) > 8}, key=len)
        other = text
        for id in ids:
            if id not in self.before.parts:
                other = other.replace(f'"{id}"', f'"z{id}"')
        found = difference(self.before, read_project(other))
        self.assertEqual((found.changes, found.sheets), ((), ()))
        again = read_project(other)
        note = Note("n", again.sheets_in_order()[0].id, 40, 60, "New")
        again.apply(ChangeSet([Change("note", "n", None, note)]))
        (sheet,) = difference(self.before, again).sheets
        self.assertEqual((len(sheet.added), sheet.gone, sheet.other), (1, (), ()))


class Built(TestCase):
    """Jobs at a panel that was built."""

    def setUp(self) -> None:
        self.before, self.after = demo_anew(), demo()

    def jobs(self, **edit: object) -> list[tuple[str, ...]]:
        perform(self.after, parse_edit(edit))
        found = work_list(difference(self.before, self.after))
        return [(j.act, j.what, j.start, j.end, j.now_to, j.place) for j in found]

    def cable(self, tag: str) -> str:
        return next(d.id for d in self.after.devices.values() if full_tag(self.after, d) == tag)

    def test_two_cores_that_change_places_are_landed_anew_at_both_ends(self) -> None:
        tag = "=K2+KP2-WD1"
        jobs = self.jobs(kind="swap-cores", device_id=self.cable(tag), first=1, second=2)
        self.assertEqual({(act, place) for act, _, _, _, _, place in jobs}, {("re-land", tag)})
        self.assertEqual(len(jobs), 4)
        self.assertEqual({(old, new) for *_, old, new, _ in jobs}, {("core BN", "core BK"), ("core BK", "core BN")})

    def test_a_cable_with_another_tag_is_a_label_and_its_cores_are_left_alone(self) -> None:
        jobs = self.jobs(kind="set-tag", device_id=self.cable("=K2+KP2-WD1"), tag="WD77")
        self.assertEqual(
            [(act, what, now) for act, what, _, _, now, _ in jobs], [("relabel", "=K2+KP2-WD1", "=K2+KP2-WD77")]
        )

    def test_wires_that_run_in_no_cable_any_more_come_out(self) -> None:
        band = next(b for b in self.after.bands.values() if b.device_id == self.cable("=K2+KP2-WD1"))
        jobs = self.jobs(kind="delete-selection", ids=[band.id])
        self.assertEqual({act for act, *_ in jobs if act != "remove"}, {"take out"})
        self.assertGreaterEqual(len(jobs), 4)
        told = [c.words for c in difference(self.before, self.after).of("wire")]
        self.assertEqual([words for words in told if "colour" in words], [], "a core has that of its cable")

    def test_what_is_engraved_otherwise_is_another_nameplate(self) -> None:
        doors = (p.device_id for p in self.after.placings.values() if p.surface == "door")
        on_door = next(id for id in doors if self.after.devices[id].text)
        name, old = full_tag(self.after, self.after.devices[on_door]), self.after.devices[on_door].text
        jobs = self.jobs(kind="set-text", device_id=on_door, text="Stop all")
        own = f"-{name.rpartition('-')[2]}"
        place = next(place for *_, place in jobs)
        self.assertEqual(jobs, [("exchange", f"nameplate of {name}", f"{old}, {own}", "", f"Stop all, {own}", place)])
        told = [c.words for c in difference(self.before, self.after).of("device")]
        self.assertEqual(told, [f"device {name}: text {old}, now Stop all"])
        jobs = self.jobs(kind="change-settings", name="Kiln 9")
        hosts = {full_tag(self.after, self.after.devices[e.device_id]) for e in self.after.enclosures.values()}
        plates = {what.removeprefix("nameplate of ") for _, what, *_ in jobs}
        self.assertEqual(plates, {name, *hosts}, "what an enclosure belongs to is on its plate")

    def test_labels_of_wires_are_exchanged_where_what_they_say_is_called_otherwise(self) -> None:
        """A device with another tag, and a terminal with another number: each label that is printed otherwise."""

        def printed(project: Project) -> Counter[str]:
            return Counter(label.text for label in labels(project) if label.kind == "wire")

        device = next(d.id for d in self.after.devices.values() if full_tag(self.after, d) == "=P1+KP2-FC1")
        perform(self.after, parse_edit({"kind": "set-tag", "device_id": device, "tag": "FC77"}))
        strip = self.cable("=P1+KP2-XD1")
        unit = next(r.unit for r in strip_rows(self.after, strip) if r.number == "2")
        jobs = self.jobs(kind="number-terminals", strip_id=strip, units=[unit], start=71)
        was, now = printed(self.before), printed(self.after)
        told = [(old, new) for act, _, old, _, new, _ in jobs if act == "relabel" and old]
        self.assertGreater(len(told), 4)
        self.assertEqual((Counter(o for o, _ in told), Counter(n for _, n in told)), (was - now, now - was))
        self.assertEqual(len(jobs) - len(told), 2, "the device and the terminal themselves")
        self.assertLess(len(set(told)), len(told), "two wires of one number end at one pin")
        keys = [job.key for job in work_list(difference(self.before, self.after))]
        self.assertEqual(len(set(keys)), len(keys), "and each of their labels is ticked by itself")

    def test_what_other_things_are_called_is_told_of_those_alone(self) -> None:
        """A cable, a terminal where a core ends, a sheet with devices: each is called otherwise, and that is all."""
        strip = self.cable("=K2+KP2-XD1")
        row = next(r for r in strip_rows(self.after, strip) if r.field)
        sheet = next(s for s in self.after.sheets.values() if s.number == "30")
        edits = (
            {"kind": "set-tag", "device_id": self.cable("=K2+KP2-WD1"), "tag": "WD77"},
            {"kind": "number-terminals", "strip_id": strip, "units": [row.unit], "start": 177},
            {"kind": "change-sheets", "sheets": [{"sheet_id": sheet.id, "number": "930"}], "follow": False},
        )
        for edit in edits:
            perform(self.after, parse_edit(edit))
        found = difference(self.before, self.after)
        told = {(c.kind, c.act, c.facts) for c in found.changes}
        self.assertLessEqual({("device", "changed", ("tag",)), ("terminal", "changed", ("number",))}, told)
        self.assertEqual(
            {c.kind for c in found.changes}, {"device", "terminal", "sheet"}, [c.words for c in found.changes]
        )
        self.assertEqual({j.act for j in work_list(found)}, {"relabel"})

    def test_what_stands_elsewhere_is_moved_and_what_it_pushes_along_is_not(self) -> None:
        """A button in the door; the last terminal of a strip put first, so that all after it count one more."""
        device = self.cable("=K2+KD2-SF1")
        placing = placing_of(self.after, device)
        assert placing is not None
        jobs = self.jobs(kind="move-in-layout", ids=[placing.id], dx=0, dy=-40)
        ((act, what, was, _, now, _),) = jobs
        self.assertEqual((act, what, was.split()[0], now.split()[0]), ("move", "=K2+KD2-SF1", "door", "door"))
        self.assertNotEqual(was, now)
        self.assertIn("position", self.after_words())

        strip = self.cable("=P1+KP2-XD1")
        rows = [r for r in strip_rows(self.after, strip) if r.unit]
        numbers = [r.number for r in rows]
        jobs = self.jobs(kind="move-strip-items", strip_id=strip, keys=[f"u{rows[-1].unit}"], to=0)
        moved = [(what, was, now) for act, what, was, _, now, _ in jobs if act == "move" and was.startswith("after")]
        self.assertEqual(moved, [(f"=P1+KP2-XD1:{numbers[-1]}", f"after {numbers[-2]}", "after the strip's begin")])

    def after_words(self) -> str:
        return "; ".join(c.words for c in difference(self.before, self.after).changes)

    def test_a_harness_wire_and_a_cable_of_another_length_are_made_anew(self) -> None:
        """A segment of a harness made longer, a cable longer: in the lists, and on the list for the shop."""
        segment = next(iter(self.after.segments.values()))
        jobs = self.jobs(kind="set-segment", segment_id=segment.id, length_mm=segment.length_mm + 100)
        changes = difference(self.before, self.after).of("wire")
        self.assertGreater(len(changes), 1)
        self.assertEqual({c.facts for c in changes}, {("length",)})
        self.assertRegex(changes[0].words, r"length \d+(\.\d)? mm, now \d+(\.\d)? mm")
        self.assertEqual([act for act, *_ in jobs].count("take out"), len(changes))
        self.assertEqual({now.split(" ", 1)[1] for act, _, _, _, now, _ in jobs if act == "put in"}, {"mm long"})
        tag = "=K2+KP2-WD1"
        cable = next(c for c in self.after.cables.values() if c.device_id == self.cable(tag))
        jobs = self.jobs(kind="set-cable", device_id=cable.device_id, length_m=77.0)
        ((_, _, was, _, now, _),) = [job for job in jobs if job[0] == "exchange"]
        self.assertEqual(now, "77 m long")
        self.assertNotEqual(was, now)

    def test_the_unit_in_which_lengths_are_shown_is_no_change_of_any(self) -> None:
        perform(self.after, parse_edit({"kind": "change-settings", "length_unit": "in"}))
        found = difference(self.before, self.after)
        self.assertEqual(([c.words for c in found.changes], work_list(found)), ([], []))

    def test_rails_and_ducts_are_told_and_fitted_moved_or_cut_anew(self) -> None:
        on_grid = [d for d in self.after.ducts.values() if not any(v % 5 for v in (d.x1, d.y1, d.x2, d.y2))]
        duct, other, *_ = on_grid
        perform(self.after, parse_edit({"kind": "move-in-layout", "ids": [duct.id], "dx": 5, "dy": 0}))
        run = {"enclosure_id": duct.enclosure_id, "part_id": duct.part_id, "x1": 60, "y1": 30, "x2": 160, "y2": 30}
        perform(self.after, parse_edit({"kind": "draw-run", "what": "duct", **run}))
        jobs = self.jobs(kind="remove-from-layout", ids=[other.id])
        told = {(act, what.split()[0], bool(was), bool(now)) for act, what, was, _, now, _ in jobs}
        self.assertLessEqual(
            {("move", "duct", True, True), ("fit", "duct", False, True), ("remove", "duct", True, False)}, told
        )
        words = self.after_words()
        self.assertIn("position plate", words)
        self.assertIn("taken out", words)

    def test_a_card_that_begins_at_another_address_is_told(self) -> None:
        card = next(iter(self.after.cards.values()))
        perform(
            self.after,
            parse_edit({"kind": "address-card", "device_id": card.device_id, "scheme": card.scheme, "start": "60.0"}),
        )
        self.assertIn(f"first address {card.start}, now 60.0", self.after_words())

    def test_a_card_in_another_rack_or_slot_is_told_and_put_there(self) -> None:
        card = next(iter(self.after.cards.values()))
        name = full_tag(self.after, self.after.devices[card.device_id])
        outcome = perform(self.after, parse_edit({"kind": "add-rack", "text": "Remote"}))
        rack = self.after.racks[outcome.placed[0]]
        tag = full_tag(self.after, self.after.devices[rack.device_id])
        for slot, old, new in ((2, "no slot", f"slot 2 of {tag}"), (3, f"slot 2 of {tag}", f"slot 3 of {tag}")):
            was, changes = self.after.cards[card.id], ChangeSet()
            changes.record("card", card.id, was, replace(was, rack_id=rack.id, slot=slot))
            self.after.apply(changes)
            found = difference(self.before, self.after)
            self.assertIn((name, old, new), [(j.what, j.start, j.now_to) for j in work_list(found) if j.act == "move"])
            self.assertIn(f"now {slot} of {tag}", "; ".join(c.words for c in found.of("device")))
            self.before = rebuilt(self.after)

    def test_a_further_part_on_a_device_is_fitted_and_taken_off(self) -> None:
        relay = next(d for d in self.after.devices.values() if full_tag(self.after, d).endswith("-QA1"))
        name, aux = full_tag(self.after, relay), "brindlework-bw-ax22"
        onto = {"kind": "add-part", "device_id": relay.id, "part_id": aux}
        perform(self.after, parse_edit(onto), library=DemoLibrary())
        jobs = work_list(difference(self.before, self.after))
        number = self.after.parts[aux].number
        self.assertEqual([(j.act, j.what, j.kind) for j in jobs], [("fit", f"{number} on {name}", number)])
        taken_off = work_list(difference(self.after, self.before))
        self.assertEqual([(j.act, j.what) for j in taken_off], [("remove", f"{number} on {name}")])

    def test_a_bridge_and_an_end_bracket_are_told_and_put_in(self) -> None:
        strip = self.cable("=P1+KP2-XD1")
        first, second = [r.unit for r in strip_rows(self.after, strip) if r.unit][:2]
        bridge = {"kind": "bridge-terminals", "strip_id": strip, "units": [first, second]}
        accessory = {
            "kind": "add-strip-accessory",
            "strip_id": strip,
            "accessory": "end-bracket",
            "at": f"u{second}",
        }
        for edit in (bridge, accessory):
            perform(self.after, parse_edit(edit))
        found = difference(self.before, self.after)
        self.assertEqual(len(found.of("bridge")), 1)
        self.assertEqual(len(found.of("accessory")), 1)
        fitted = [(j.what.split()[0], j.now_to) for j in work_list(found) if j.act == "fit"]
        self.assertIn(("bridge", ""), fitted)
        self.assertIn(("=P1+KP2-XD1", "after 2"), fitted)
        back = work_list(difference(self.after, self.before))
        self.assertEqual({j.act for j in back if j.what.startswith("bridge")}, {"remove"})
        last = [r.unit for r in strip_rows(self.after, strip) if r.unit][-1]
        order = {"kind": "move-strip-items", "strip_id": strip, "keys": [f"u{last}"], "to": 0}
        perform(self.after, parse_edit(order))
        now_called = next(r.number for r in strip_rows(self.after, strip) if r.unit == second)
        places = [j.now_to for j in work_list(difference(self.before, self.after)) if j.what.startswith("=P1+KP2-XD1 ")]
        self.assertEqual((places, now_called), (["after 2"], "3"), "labels are exchanged last")
