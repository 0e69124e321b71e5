"""The catalogue of faults over drawn machines: what is clean is told clean, and every kind of fault is told rightly."""

from __future__ import annotations

import random
from collections import Counter
from functools import cache
from unittest import TestCase
from unittest.mock import patch

from jolly_core.checks import all_snags
from jolly_core.model import Project
from jolly_core.planting import FAULTS, HARMS, FaultKind, FaultPlace, PlantedFault, told_of, unseen
from jolly_core.tagging import full_tag
from jolly_core.testing import Workbench, demo
from jolly_core.testing.machines import Machine

SEEDS = range(100, 106)
# What a machine that is only drawn still lacks: parts, places, a layout; and what a drive's terminals leave open.
UNDONE = {"no-part", "not-routed", "terminal-part", "outside-frame", "unconnected-pin"}
LEAST = 80
SHARE = 0.95


@cache
def machine(seed: int) -> Machine:
    return Machine(seed)


def names_it(project: Project, planted: PlantedFault) -> bool:
    """Return whether a snag of the right sort points at the fault: its things, what came with it, its sheet or tags."""
    at = set(planted.spot.at)
    symbols = [project.symbols[id] for id in at if id in project.symbols]
    marks = [project.continuations[id] for id in at if id in project.continuations]
    wires = [project.wires[id] for id in at if id in project.wires]
    bands = [project.bands[id] for id in at if id in project.bands]
    sheets = {thing.sheet_id for things in (symbols, marks, wires, bands) for thing in things}
    devices = {thing.device_id for things in (symbols, bands) for thing in things} | (at & project.devices.keys())
    tags = [full_tag(project, project.devices[id]).rsplit("-", 1)[-1] for id in devices if id in project.devices]
    for snag in planted.snags:
        if snag.code in planted.kind.codes:
            is_new = bool(snag.ids) and not any(snag.ids[0] in table for table in project.tables.values())
            by_name = devices & {snag.device_id, *snag.ids} or any(tag in snag.message for tag in tags)
            if at & set(snag.ids) or is_new or by_name or snag.sheet_id in sheets:
                return True
    return False


class Clean(TestCase):
    def test_nothing_is_told_of_machines_with_nothing_wrong(self) -> None:
        for seed in range(100, 130):
            drawn = Machine(seed)
            codes = UNDONE if drawn.bonded else UNDONE | {"return-unearthed"}
            told = [f"{s.code}: {s.message}" for s in all_snags(drawn.bench.project) if s.code not in codes]
            self.assertEqual(told, [], drawn.words)


class Catalogue(TestCase):
    long = True

    def matrix(self, projects: list[Project], each: int) -> tuple[Counter[str], Counter[str], list[str]]:
        """Return how many faults of each kind were told and named, how many were not, and those in words."""
        found: Counter[str] = Counter()
        missed: Counter[str] = Counter()
        words = []
        for n, project in enumerate(projects):
            for kind in FAULTS.values():
                for planted in told_of(project, kind, random.Random(n), each):
                    if planted.is_told and names_it(project, planted):
                        found[kind.key] += 1
                        continue
                    missed[kind.key] += 1
                    words.append(f"{kind.key} in {n}: {[f'{s.code}: {s.message}' for s in planted.snags]}")
        return found, missed, words

    def test_every_kind_is_found_and_rightly_named(self) -> None:
        found, missed, words = self.matrix([machine(seed).bench.project for seed in SEEDS], 1)
        table = "\n".join(f"{key:26}{found[key]:5}{missed[key]:5}" for key in FAULTS)
        table = f"\nkind, found, missed\n{table}\n" + "\n".join(words)
        self.assertGreaterEqual(len(FAULTS), LEAST)
        self.assertGreaterEqual(found.total() / (found.total() + missed.total()), SHARE, table)
        self.assertEqual([key for key in FAULTS if missed[key] > found[key]], [], table)
        never = [key for key in FAULTS if not found[key]]
        self.assertEqual(never, [], f"The machines have no place for these: draw one that has.{table}")

    def test_in_the_demo_projects(self) -> None:
        found, missed, words = self.matrix([demo(), demo("sample-store-dehumidifier")], 1)
        self.assertGreaterEqual(found.total() / (found.total() + missed.total()), SHARE, "\n".join(words))

    def test_the_project_is_the_same_after_a_trial(self) -> None:
        project = machine(SEEDS[0]).bench.project
        before, told = list(project.entities()), list(all_snags(project))
        for kind in FAULTS.values():
            told_of(project, kind, random.Random(1), 1)
        self.assertEqual(list(project.entities()), before)
        self.assertEqual(list(all_snags(project)), told)


class Unnoticed(TestCase):
    """Would anybody notice?"""

    @staticmethod
    def spots(project: Project) -> list[FaultPlace]:
        return [FaultPlace((s.id,), lambda t, s=s: t.delete(s.id)) for s in project.symbols.values()]  # type: ignore[misc]

    def test_what_nothing_tells_is_listed_the_worst_first(self) -> None:
        project = machine(SEEDS[0]).bench.project
        kinds = {
            harm: FaultKind(
                harm, f"Something with {harm}", harm, frozenset({"no-such-code"}), lambda p: iter(self.spots(p))
            )
            for harm in reversed(HARMS)
        }
        with patch.dict(FAULTS, kinds, clear=True):
            count, found = unseen(project, each=2)
        self.assertEqual(count, 8)
        self.assertEqual([u.harm for u in found], [harm for harm in HARMS for _ in range(2)])
        for one in found:
            self.assertIn(one.symbol_id, project.symbols)
            self.assertTrue(one.name and one.place)

    def test_nothing_is_unseen_where_all_is_told(self) -> None:
        kind = next(k for k in FAULTS.values() if k.key == "contactor-bridged")
        with patch.dict(FAULTS, {kind.key: kind}, clear=True):
            count, found = unseen(machine(SEEDS[0]).bench.project)
        self.assertGreater(count, 0)
        self.assertEqual(found, [])

    def test_an_empty_project_has_no_places(self) -> None:
        self.assertEqual(unseen(Workbench().project), (0, []))
