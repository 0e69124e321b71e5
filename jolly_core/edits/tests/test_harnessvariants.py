"""Variants of a harness: which wires, ends and branches each has, and the lists and boards that follow."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from jolly_core.harness import bundles, probes, scope_of, tree_in, wires_in
from jolly_core.model import RuleError
from jolly_core.reports import run_report
from jolly_core.scenes import generated_pages, page_scene
from jolly_core.scenes.base.primitives import Text
from jolly_core.testing import Workbench


class Variants(TestCase):
    """A board with three fans on branches; the short build has two of them."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.harness = self.bench.new("add-harness", code="WH-F")
        parts = (("XD1", "tamwick-tw-h6s"), *((f"XD{n}", "tamwick-tw-h2s") for n in (2, 3, 4)))
        self.nodes: dict[str, str] = {}
        for n, (tag, part) in enumerate(parts):
            self.nodes[tag] = self.bench.new(
                "add-connector", harness_id=self.harness, part_id=part, tag=tag, length_mm=200 + 100 * n
            )
        rows = [
            {"signal": f"F{n}{s}", "colour": colour, "size": "0.75", "start": f"-XD1:{pin}", "end": f"-XD{n + 1}:{k}"}
            for n in (1, 2, 3)
            for k, (s, colour) in enumerate((("+", "RD"), ("-", "BK")), start=1)
            for pin in (2 * n - 2 + k,)
        ]
        self.bench.do("draw-harness-wires", harness_id=self.harness, rows=rows)
        self.long = self.bench.new("add-variant", harness_id=self.harness, name="Long", quantity=5)
        self.short = self.bench.new("add-variant", harness_id=self.harness, name="Short", quantity=12)

    def numbers(self, variant: str) -> list[str]:
        return sorted(w.conductor.number for w in wires_in(self.bench.project, self.harness, variant))

    def report(self, key: str, variant: str) -> list[dict[str, Any]]:
        table = run_report(self.bench.project, key)
        keys = [c.key for c in table.columns]
        rows: list[dict[str, Any]] = [dict(zip(keys, row, strict=True)) for row in table.rows]
        return [row for row in rows if row["variant"] == variant]

    def texts(self, page_id: str) -> set[str]:
        items = page_scene(self.bench.project, page_id).items.values()
        return {p.words for item in items for p in item.prims if isinstance(p, Text)}

    def test_what_is_named_for_none_is_in_all(self) -> None:
        self.assertEqual(self.numbers(self.long), self.numbers(self.short))
        self.assertEqual(self.numbers(""), ["F1+", "F1-", "F2+", "F2-", "F3+", "F3-"])

    def test_an_end_in_one_variant_takes_its_wires_and_segment_with_it(self) -> None:
        self.bench.do("set-variants", harness_id=self.harness, variants=[self.long], node_id=self.nodes["XD4"])
        self.assertEqual(self.numbers(self.short), ["F1+", "F1-", "F2+", "F2-"])
        tree = tree_in(self.bench.project, self.harness, self.short)
        self.assertEqual((len(tree.nodes), len(tree.segments)), (3, 2))
        self.assertEqual({len(b.wires) for b in bundles(self.bench.project, self.harness, self.short).values()}, {2})
        self.assertEqual(len(self.numbers(self.long)), 6)
        conduct = [p for p in probes(self.bench.project, self.harness, self.short) if p.conducts]
        self.assertEqual(len(conduct), 4)

    def test_a_branch_takes_all_beyond_it(self) -> None:
        segment = next(s for s in self.bench.project.segments.values() if self.nodes["XD3"] in (s.a_id, s.b_id))
        self.bench.do("set-variants", harness_id=self.harness, variants=[self.long], segment_id=segment.id)
        self.assertNotIn(self.nodes["XD3"], scope_of(self.bench.project, self.harness, self.short).nodes)
        self.assertEqual(self.numbers(self.short), ["F1+", "F1-", "F3+", "F3-"])

    def test_wires_alone_may_be_in_one(self) -> None:
        key = next(w.conductor.key for w in wires_in(self.bench.project, self.harness) if w.conductor.number == "F3+")
        self.bench.do("set-variants", harness_id=self.harness, variants=[self.short], wires=[key])
        self.assertNotIn("F3+", self.numbers(self.long))
        self.bench.do("set-variants", harness_id=self.harness, variants=[self.short, self.long], wires=[key])
        self.assertIn("F3+", self.numbers(self.long))
        self.assertEqual(len(self.bench.project.variant_parts), 0)

    def test_lists_are_those_of_the_variant_times_how_many(self) -> None:
        self.bench.do("set-variants", harness_id=self.harness, variants=[self.long], node_id=self.nodes["XD4"])
        self.assertEqual({row["pieces"] for row in self.report("harness-wires", "Short")}, {12})
        self.assertEqual(len(self.report("harness-wires", "Short")), 4)
        plugs = next(row for row in self.report("harness-parts", "Short") if row["number"] == "TW-H2S")
        self.assertEqual((plugs["each"], plugs["total"]), (2, 24))
        metres = [row for row in self.report("harness-parts", "Long") if row["class"] == "wire"]
        total = sum(w.length_mm or 0 for w in wires_in(self.bench.project, self.harness, self.long))
        self.assertAlmostEqual(sum(float(str(row["each"])) for row in metres), total / 1000)
        self.assertEqual(len(self.report("harness-labels", "Short")), 1 + 3 + 8)

    def test_each_variant_has_a_board_of_its_own(self) -> None:
        self.bench.do("set-variants", harness_id=self.harness, variants=[self.long], node_id=self.nodes["XD4"])
        boards = [p for p in generated_pages(self.bench.project) if p.kind == "board"]
        self.assertEqual(
            [p.title for p in boards], ["Form board WH-F", "Form board WH-F Long", "Form board WH-F Short"]
        )
        shown = {page.variant: self.texts(page.id) for page in boards}
        self.assertIn("-XD4", shown[self.long])
        self.assertNotIn("-XD4", shown[self.short])
        self.assertIn("F3+", shown[self.long])
        self.assertNotIn("F3+", shown[self.short])

    def test_the_order_of_assembly(self) -> None:
        steps = [(row["act"], row["what"]) for row in self.report("assembly", "Long")]
        cuts = [what for act, what in steps if act == "cut"]
        self.assertEqual(len(cuts), 6, "three lengths of two types")
        self.assertIn("340 mm: F1-", str(cuts[0]))
        acts = [act for act, _ in steps]
        self.assertEqual(list(dict.fromkeys(acts)), ["cut", "crimp", "lay", "fill", "label", "test"])
        self.assertIn(("fill", "-XD2 TW-H2S: 1 F1+, 2 F1-"), steps)
        self.assertEqual(acts.count("lay"), 6)

    def test_what_cannot_be_is_refused(self) -> None:
        with self.assertRaises(RuleError) as caught:
            self.bench.do("add-variant", harness_id=self.harness, name=" Long ")
        self.assertIn("WH-F has a variant Long already", caught.exception.message)
        other = self.bench.new("add-harness", code="WH-G")
        with self.assertRaises(RuleError):
            self.bench.do("set-variants", harness_id=other, variants=[], node_id=self.nodes["XD4"])

    def test_what_goes_takes_what_was_said_of_it(self) -> None:
        self.bench.do("set-variants", harness_id=self.harness, variants=[self.long], node_id=self.nodes["XD4"])
        self.bench.do("remove-variant", variant_id=self.long)
        self.assertEqual((len(self.bench.project.variant_parts), len(self.numbers(self.short))), (0, 6))
        self.bench.do("add-variant", harness_id=self.harness, name="Third")
        self.bench.do("set-variants", harness_id=self.harness, variants=[self.short], node_id=self.nodes["XD4"])
        self.bench.do("remove-harness", harness_id=self.harness)
        self.assertEqual((len(self.bench.project.harness_variants), len(self.bench.project.strands)), (0, 0))
