"""Whatever changed: who does what the shop's list says has what is drawn, and each drawing that differs is told."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field, replace
from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.cabinet import placing_of
from jolly_core.comparing import Job, difference, work_list
from jolly_core.comparing.builtsights import BEGIN
from jolly_core.comparing.sights import IN_NO_CABLE, NOWHERE_YET
from jolly_core.comparing.states import drawing
from jolly_core.comparing.worklist import ACTS as JOB_ORDER
from jolly_core.edits.tests.sequences import acts
from jolly_core.making import dossiers, end_label
from jolly_core.model import CoreError, Project
from jolly_core.scenes import Item, Text
from jolly_core.tagging import full_tag
from jolly_core.terminals import strip_rows, strips
from jolly_core.testing import rebuilt
from jolly_core.testing.strange import Workshop, perform_act


@dataclass
class Wire:
    """A wire in the panel: its number and type, what it is landed on, and the labels at its ends."""

    number: str
    type: str
    ends: list[str]
    labels: list[str]

    @property
    def looks(self) -> tuple[object, ...]:
        return self.number, self.type, tuple(sorted(self.ends)), tuple(sorted(self.labels))


@dataclass
class Shop:
    """What stands at the bench: wires, devices and terminals with their parts, by what is written on them."""

    wires: list[Wire] = field(default_factory=list)
    things: Counter[tuple[str, str]] = field(default_factory=Counter)
    strips: dict[str, list[str]] = field(default_factory=dict)
    places: Counter[tuple[str, str]] = field(default_factory=Counter)
    runs: Counter[tuple[str, str]] = field(default_factory=Counter)

    @classmethod
    def building(cls, project: Project) -> Shop:
        shop = cls()
        for d in dossiers(project).values():
            if d.runs not in ("direct", "open"):
                ends = [d.start.name, d.end.name]
                labels = [end_label(d.number, e) for e in ends] if d.runs in ("panel", "harness") else []
                shop.wires.append(Wire(d.number, d.type_name, ends, labels))
        for device in project.devices.values():
            part = project.part_of(device)
            tag, placing = full_tag(project, device), placing_of(project, device.id)
            shop.things[tag, part.number if part else ""] += 1
            if placing is not None:
                shop.places[tag, f"{placing.surface} {placing.x:g}, {placing.y:g} mm"] += 1
        for kind, table in (("rail", project.rails), ("duct", project.ducts)):
            for run in table.values():
                long = abs(run.x2 - run.x1) + abs(run.y2 - run.y1)
                where = f"{long:g} mm long, {run.surface} {run.x1:g}, {run.y1:g} to {run.x2:g}, {run.y2:g} mm"
                shop.runs[f"{kind} {project.parts[run.part_id].number}", where] += 1
        for strip in strips(project):
            order = shop.strips.setdefault(full_tag(project, strip), [])
            for row in strip_rows(project, strip.id):
                if row.unit:
                    name = f"{full_tag(project, strip)}:{row.number}"
                    shop.things[name, row.part.number if row.part else ""] += 1
                    order.append(name)
        return shop

    @property
    def looks(self) -> tuple[Any, ...]:
        strips = {
            t.replace("new ", ""): [n.replace("new ", "") for n in order] for t, order in self.strips.items() if order
        }
        return Counter(w.looks for w in self.wires), +self.things, strips, +self.places, +self.runs

    def find(self, job: Job, ends: list[str]) -> Wire:
        """Return the wire a job names, by its name and ends."""
        number = "" if " to " in job.what else job.what
        found = [w for w in self.wires if w.number == number and sorted(w.ends) == sorted(ends)]
        same = [w for w in found if w.type == job.kind] or found
        if not same:
            raise AssertionError(f"there is no wire {job.what} between {ends}: {job}")
        return same[0]

    def lay(self, job: Job) -> None:
        """Fit, move, exchange or remove a rail or duct."""
        if job.start:
            self.runs[job.what, _where(job.start)] -= 1
        if job.now_to:
            self.runs[job.what, _where(job.now_to)] += 1

    def clear(self, job: Job) -> None:
        """Take out and remove what goes, by the names it has."""
        if job.act == "take out":
            self.wires.remove(self.find(job, [job.start, job.end]))
        elif job.act == "remove":
            self.things[job.what, job.kind] -= 1
            order = self.strips.get(job.what.rpartition(":")[0], [])
            if job.what in order:
                order.remove(job.what)
            self.places = Counter({at: n for at, n in self.places.items() if at[0] != job.what})

    def call(self, jobs: list[Job]) -> Callable[[str], str]:
        """Give devices and terminals the names they have then, all at once; return what a pin is called then."""
        names = {j.what: j.now_to for j in jobs if j.act == "relabel" and not j.start}

        def called(pin: str) -> str:
            device, _, name = pin.rpartition(":")
            return names.get(pin) or (f"{names[device]}:{name}" if device in names else pin)

        self.things = Counter((called(name), part) for name, part in self.things.elements())
        self.places = Counter((called(name), at) for name, at in self.places.elements())
        self.strips = {called(tag): [called(name) for name in order] for tag, order in self.strips.items()}
        for wire in self.wires:
            wire.ends = [called(end) for end in wire.ends]
        return called

    def arrange(self, jobs: list[Job]) -> None:
        """Put devices and terminals where they are to stand: a terminal after the one before it, once that is there."""
        names = {j.what: j.now_to for j in jobs if j.act == "relabel" and not j.start}
        waiting: list[tuple[list[str], str, str]] = []
        for job in (j for j in jobs if j.act in ("move", "fit") and j.now_to):
            if not job.now_to.startswith("after "):
                if job.start:
                    self.places[job.what, _where(job.start)] -= 1
                self.places[job.what, _where(job.now_to)] += 1
                continue
            tag, _, number = job.what.rpartition(":")
            if job.act == "fit":
                tag = next((was for was, now in names.items() if now == tag), f"new {tag}" if tag in names else tag)
            if tag not in self.strips:
                tag = f"new {tag.removeprefix('new ')}"
            order = self.strips.setdefault(tag, [])
            if job.act == "move":
                order.remove(job.what)
            name = job.what if job.act == "move" else f"{tag}:new {number}"
            waiting.append((order, f"{tag}:{job.now_to.removeprefix('after ')}", name))
        while waiting:
            ready = [one for one in waiting if one[1].endswith(BEGIN) or one[1] in one[0]]
            assert ready, waiting
            for order, before, name in ready:
                waiting.remove((order, before, name))
                order.insert(0 if before.endswith(BEGIN) else order.index(before) + 1, name)

    def build(self, job: Job, called: Callable[[str], str], cables: set[str]) -> None:
        """Do what is left of a job, by the names that things have then."""
        if job.act == "fit":
            self.things[job.what, job.kind] += 1
        elif job.act == "exchange":
            self.things[job.what, job.start] -= 1
            self.things[job.what, job.now_to] += 1
        elif job.act == "put in":
            ends, number = [job.start, job.end], "" if " to " in job.what else job.what
            labels = [] if job.place in cables else [end_label(number, e) for e in ends]
            self.wires.append(Wire(number, job.kind, ends, labels))
        elif job.act == "re-land" and not job.end.startswith("core "):
            wire = self.find(job, [job.start, called(job.end)])
            wire.ends = [job.start, job.now_to]
            old = end_label(wire.number, job.end)
            wire.labels = [end_label(wire.number, job.now_to) if text == old else text for text in wire.labels]
        elif job.act == "relabel" and job.end:
            wire = self.find(job, [job.start, job.end])
            wire.number = job.now_to
            wire.labels = [end_label(wire.number, e) for e in wire.ends if wire.labels]
        elif job.act == "relabel" and job.start:
            wire = next(w for w in self.wires if job.start in w.labels)
            wire.labels[wire.labels.index(job.start)] = job.now_to


def _where(words: str) -> str:
    """Return where a thing stands in its enclosure, without in which and on which rail."""
    return words.partition(" in ")[0].partition(" on ")[0]


ROOMS = ("strips", "cables", "points", "cabinet", "harness", "anything", "rebuilding")


def changed(sequence: list[tuple[Any, ...]]) -> tuple[Project, Project]:
    """Return a project before and after random acts."""
    bench = Workshop()
    bench.new("add-sheet", title="Other", frame="zones")
    before = rebuilt(bench.project)
    for act in sequence:
        with suppress(CoreError, ValidationError):
            perform_act(bench, *act)
    return before, rebuilt(bench.project)


class RandomChanges(TestCase):
    # What fails is long to make smaller, and is told with all its jobs as it is.
    @settings(max_examples=60, phases=[Phase.generate], deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts(*ROOMS), min_size=1, max_size=10))
    def test_what_the_shop_has_done_is_what_is_drawn(self, sequence: list[tuple[Any, ...]]) -> None:
        before, after = changed(sequence)
        # Wires that run in nothing are drawn and cannot be built yet.
        jobs = [j for j in work_list(difference(before, after)) if not j.place.endswith((IN_NO_CABLE, NOWHERE_YET))]
        self.assertEqual(len({job.key for job in jobs}), len(jobs), "each job is ticked by itself")
        shop = Shop.building(before)
        for job in jobs:
            if job.what.startswith(("rail ", "duct ")):
                shop.lay(job)
        # Bridges and accessories are told apart by no label of their own.
        wired = ("take out", "put in", "re-land", "relabel")
        jobs = [j for j in jobs if j.act in wired or " " not in j.what]
        for job in jobs:
            shop.clear(job)
        shop.arrange(jobs)
        called = shop.call(jobs)
        cables = {full_tag(after, after.devices[c.device_id]) for c in after.cables.values()}
        for job in sorted(jobs, key=lambda j: JOB_ORDER.index(j.act)):
            shop.build(job, called, cables)
        built = Shop.building(after)
        # What stood nowhere on paper and does now, or no more, stands where it is.
        told = {name for name, _ in shop.places} & {name for name, _ in built.places}
        for state in (shop, built):
            state.places = Counter({at: n for at, n in state.places.items() if at[0] in told})
        self.assertEqual(shop.looks, built.looks, jobs)

    @settings(max_examples=25, phases=[Phase.generate], deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts(*ROOMS), min_size=1, max_size=8))
    def test_the_drawings_told_are_those_that_look_otherwise(self, sequence: list[tuple[Any, ...]]) -> None:
        before, after = changed(sequence)
        told = {s.sheet_id for s in difference(before, after).sheets}
        looks = []
        for state in (rebuilt(before), rebuilt(after)):
            drawn = {id: drawing(state, id).values() for id in state.sheets}
            looks.append({id: Counter(map(look, items)) for id, items in drawn.items()})
        one_by_one = {id for id in looks[0].keys() | looks[1].keys() if looks[0].get(id) != looks[1].get(id)}
        self.assertEqual(told, one_by_one)


def look(item: Item) -> tuple[object, ...] | None:
    """Return what is seen of an item of a drawing but its frame, which says where it is and in which state."""
    if item.kind == "frame":
        return None
    return item.kind, item.at, tuple(replace(p, link="") if isinstance(p, Text) else p for p in item.prims)
