"""Parts as they come from files and catalogues: facts missing, of no size, or no numbers. Nothing stops for them."""

from __future__ import annotations

import random
from dataclasses import replace
from unittest import TestCase

from jolly_core.cables.load import number_of
from jolly_core.checks import all_snags
from jolly_core.exchange import issue_check, read_project
from jolly_core.model import Part, Project
from jolly_core.reports import REPORTS, run_report
from jolly_core.scenes import generated_pages, page_leaves
from jolly_core.testing import DEMO, FONTS, Workbench
from jolly_core.wiring.places import PIN_ROOM, room_of

NUMBERS = (
    "many",
    "-5",
    "0",
    "1e9",
    "12,5",
    "3..4",
    "1/2",
    "24-230",
    "nan",
    "inf",
    "8 slots",
    "²",
    "10;20",
    "1e400",
    "0x10",
)
MEASURES = ("width_mm", "height_mm", "depth_mm", "diameter_mm", "weight_kg", "price")


def spoilt(part: Part, chance: random.Random, share: float) -> Part:
    """Return a part of whose facts a share is missing or makes no sense."""
    measure = {m: chance.choice((0.0, 0.001, 1e5)) if chance.random() < share else getattr(part, m) for m in MEASURES}
    ratings = dict(part.ratings)
    for key in part.ratings:
        if chance.random() < share:
            ratings[key] = chance.choice(NUMBERS)
            if chance.random() < 0.3:
                del ratings[key]
    return replace(
        part,
        ratings=ratings,
        units=() if chance.random() < share / 3 else part.units,
        width_mm=measure["width_mm"],
        height_mm=measure["height_mm"],
        depth_mm=measure["depth_mm"],
        diameter_mm=measure["diameter_mm"],
        weight_kg=measure["weight_kg"],
        price=measure["price"],
    )


class PoorParts(TestCase):
    def spoil(self, seed: int) -> Project:
        project = read_project((DEMO / "sample-store-dehumidifier.spool.json").read_bytes())
        chance = random.Random(seed)
        share = (0.05, 0.3, 0.8)[seed % 3]
        project.load("part", [spoilt(part, chance, share) for part in project.parts.values()])
        return project

    def test_all_lists_snags_pages_and_the_check_before_issue_are_there(self) -> None:
        for seed in range(6):
            with self.subTest(seed=seed):
                project = self.spoil(seed)
                codes = {snag.code for snag in all_snags(project)}
                self.assertTrue(codes, "what makes no sense is told somewhere")
                self.assertNotIn("check-stopped", codes)
                for key in REPORTS:
                    self.assertTrue(run_report(project, key).columns)
                for page in generated_pages(project):
                    self.assertTrue(list(page_leaves(project, page.id)), page.number)
                self.assertTrue(issue_check(project, FONTS))

    def test_only_a_number_counts_as_one(self) -> None:
        part = Part("p", "Sample", "S-1", "contactor", "Contactor")
        for said, number in (
            ("1,5", 1.5),
            (" 2.5 ", 2.5),
            *((n, 0.0) for n in NUMBERS if n not in ("-5", "1e9", "12,5")),
        ):
            told = replace(part, ratings={"ac3_a": said, "conductors_per_point": said})
            self.assertEqual(number, number_of(told, "ac3_a"), said)
            self.assertEqual(PIN_ROOM, room_of(told, "pole"), said)
        self.assertEqual(3, room_of(replace(part, ratings={"conductors_per_point": " 3 "}), "pole"))

    def test_pins_and_sheets_with_numbers_in_circles_are_names(self) -> None:
        bench = Workbench(frame="zones")
        for number in ("①", "²"):
            bench.new("add-sheet", number=number, title="Odd")
        following = bench.project.sheets[bench.new("add-sheet", number="", title="Next")]
        self.assertTrue(following.number.isdecimal(), following.number)
        for key in REPORTS:
            self.assertTrue(run_report(bench.project, key).columns)
