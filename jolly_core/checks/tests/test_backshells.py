"""A backshell is told when its housing does not name it, or when the bundle is too thick for it."""

from __future__ import annotations

from dataclasses import replace

from jolly_core.checks import Snag, project_snags
from jolly_core.harness.tests.test_sharing import Shared
from jolly_core.model import AddOn


class Backshells(Shared):
    def told(self) -> list[Snag]:
        return [s for s in project_snags(self.bench.project) if s.code == "harness-backshell"]

    def give(self, part_id: str) -> None:
        project, part = self.bench.project, self.bench.library.part(part_id)
        assert part is not None
        project.load("part", [part])
        project.load("add_on", [AddOn("shell", self.one, part_id)])

    def test_one_that_the_housing_names_and_that_is_wide_enough_is_fine(self) -> None:
        self.assertEqual([], self.told())
        self.give("tamwick-tw-bs6")
        self.assertEqual([], self.told())

    def test_one_of_another_housing_is_told_in_each_harness_with_the_one_that_goes_with_it(self) -> None:
        self.give("tamwick-tw-bs2")
        found = self.told()
        self.assertEqual(["WH-A", "WH-B"], [s.message.split(":")[0] for s in found])
        for snag in found:
            self.assertEqual("error", snag.severity)
            self.assertIn("the backshell TW-BS2 on -XD1 does not go with TW-H6S: TW-BS6 does.", snag.message)

    def test_one_that_is_too_narrow_for_the_thickest_bundle_is_told_with_its_diameter(self) -> None:
        self.give("tamwick-tw-bs6")
        project = self.bench.project
        shell = project.parts["tamwick-tw-bs6"]
        for widest, count in (("5", 0), ("4", 1), ("3", 2), ("", 0), ("wide", 0)):
            project.load("part", [replace(shell, ratings={**shell.ratings, "outer_diameter_mm": widest})])
            found = [s.message for s in self.told()]
            self.assertEqual(count, len(found), (widest, found))
            if found:
                self.assertRegex(found[0], r"the backshell TW-BS6 on -XD1 does not take the bundle of ⌀ 4\.\d mm\.")

    def test_without_a_list_of_its_housing_only_the_width_counts(self) -> None:
        self.give("tamwick-tw-bs12")
        project = self.bench.project
        housing = project.parts["tamwick-tw-h6s"]
        self.assertEqual(2, len(self.told()))
        bare = {key: value for key, value in housing.ratings.items() if key != "backshells"}
        project.load("part", [replace(housing, ratings=bare)])
        self.assertEqual([], self.told())
