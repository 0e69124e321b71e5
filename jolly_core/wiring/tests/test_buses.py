"""The buses a project usually has, from the wire types it has."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.model import Project
from jolly_core.testing import Workbench, reordered
from jolly_core.wiring import usual_buses


def named(project: Project) -> dict[str, list[str]]:
    """Return the names of the conductors' types by the label of the bus."""
    return {b.label: [project.wire_types[id].name for id in b.type_ids] for b in usual_buses(project)}


class UsualBuses(TestCase):
    def bench(self, standard: str = "iec") -> Workbench:
        bench = Workbench(frame="zones")
        for type_id in list(bench.project.wire_types):
            bench.do("remove-wire-type", wire_type_id=type_id)
        if standard != bench.project.settings.standard:
            bench.do("change-settings", standard=standard)
        return bench

    def test_of_the_usual_types_of_the_standard(self) -> None:
        bench = self.bench()
        bench.do("take-wire-types", standard="iec")
        three = ["Power"] * 3
        self.assertEqual(
            named(bench.project),
            {
                "L1 L2 L3": three,
                "L1 L2 L3 PE": [*three, "Protective"],
                "L1 L2 L3 N": [*three, "Neutral"],
                "L1 L2 L3 N PE": [*three, "Neutral", "Protective"],
                "L1 N PE": ["Power", "Neutral", "Protective"],
                "24 V 0 V": ["24 V DC", "0 V DC"],
            },
        )

    def test_types_named_by_phase_come_in_their_order(self) -> None:
        bench = self.bench()
        for name, colour in (("L3 grey", "GY"), ("L1 brown", "BN"), ("L2 black", "BK"), ("N", "BU")):
            bench.new("add-wire-type", name=name, colour=colour, cross_section_mm2=4, category="power")
        self.assertEqual(named(bench.project)["L1 L2 L3 N"], ["L1 brown", "L2 black", "L3 grey", "N"])

    def test_of_several_that_do_the_one_made_first_is_taken(self) -> None:
        bench = self.bench()
        for name in ("Motors", "Heaters", "Fans"):
            bench.new("add-wire-type", name=name, colour="BK", cross_section_mm2=4, category="power")
        for seed in range(4):  # whatever steps back and forth have done to their order
            self.assertEqual(named(reordered(bench.project, seed)), {"L1 L2 L3": ["Motors"] * 3})

    def test_what_has_no_type_is_left_out(self) -> None:
        bench = self.bench("na")
        bench.new("add-wire-type", name="Power", colour="BK", awg="12", category="power")
        bench.new("add-wire-type", name="Field supply", colour="BK", awg="12", category="power", outside=True)
        self.assertEqual(named(bench.project), {"L1 L2 L3": ["Power"] * 3})
        bench.new("add-wire-type", name="Grounded", colour="WH", awg="12", category="power")
        self.assertEqual(named(bench.project)["L1 L2 L3 N"], [*["Power"] * 3, "Grounded"])

    def test_a_project_without_power_has_none(self) -> None:
        bench = self.bench()
        bench.new("add-wire-type", name="24 V", colour="RD", cross_section_mm2=1, category="control-dc")
        self.assertEqual(usual_buses(bench.project), [])
