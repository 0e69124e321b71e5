"""Addresses by bytes: analog cards do not collide with digital ones, and what overlaps is told."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.checks import project_snags
from jolly_core.model import Part, RuleError
from jolly_core.plc import address, card_of, channels, parse_start, spans_of
from jolly_core.reports import run_report
from jolly_core.testing import Workbench


class Spans(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        for id, kinds in (
            ("di8", ["di"] * 8),
            ("ai4", ["ai"] * 4),
            ("ao2", ["ao"] * 2),
            ("mix", ["di"] * 6 + ["ai"] * 2),
        ):
            units = tuple((kind, (str(n),)) for n, kind in enumerate(kinds, start=1))
            self.bench.library.parts[id] = Part(id, "Maker", id.upper(), "plc-card", units=units)

    def add(self, part: str, **values: object) -> str:
        return self.bench.new("add-card", part_id=part, **values)

    def first(self, card: str) -> list[str]:
        return [r.address for r in channels(self.bench.project, card)]

    def overlaps(self) -> list[str]:
        return [s.message for s in project_snags(self.bench.project) if s.code == "address-overlap"]

    def test_cards_in_any_order_do_not_collide(self) -> None:
        one, two, three, four = (self.add(part) for part in ("di8", "ai4", "di8", "ai4"))
        self.assertEqual(self.first(one)[0], "I0.0")
        self.assertEqual(self.first(two), ["IW256", "IW258", "IW260", "IW262"])
        self.assertEqual(self.first(three)[0], "I1.0")
        self.assertEqual(self.first(four)[0], "IW264")
        self.assertEqual(self.first(self.add("ao2")), ["QW256", "QW258"])
        self.assertEqual(self.overlaps(), [])

    def test_an_analog_card_with_bits_does_not_begin_at_zero(self) -> None:
        self.add("di8")
        card = self.add("ai4", scheme="byte.bit")
        self.assertEqual(self.first(card)[:2], ["I256.0", "I258.0"])
        self.assertEqual(self.overlaps(), [])

    def test_a_word_at_zero_covers_two_bytes(self) -> None:
        one, two = self.add("di8", start="1.0"), self.add("ai4", scheme="word", start="0")
        (message,) = self.overlaps()
        self.assertIn("share bits: IW0 and I1.0", message)
        act = next(s.act for s in project_snags(self.bench.project) if s.code == "address-overlap")
        assert act is not None
        self.bench.do(**act.payload())
        self.assertEqual(self.overlaps(), [])
        self.assertTrue(one and two)

    def test_a_card_whose_start_is_none_of_its_scheme_is_told_and_the_others_keep_their_addresses(self) -> None:
        bench = self.bench
        odd, fit = self.add("ai4", scheme="word", start="256"), self.add("di8")
        card = card_of(bench.project, odd)
        assert card is not None
        bench.project.load("card", [replace(card, scheme="byte.bit")])  # as a file of another hand may have it
        self.assertEqual([""] * 4, self.first(odd))
        self.assertEqual("I0.0", self.first(fit)[0])
        self.assertEqual([], self.overlaps())
        (snag,) = (s for s in project_snags(bench.project) if s.code == "address-start")
        self.assertIn("has no addresses. The first address should be byte.bit such as 0.0", snag.message)
        self.assertTrue(run_report(bench.project, "addresses").columns)
        self.assertTrue(self.add("di8"), "a further card finds its place")
        assert snag.act is not None
        bench.do(**snag.act.payload())
        self.assertEqual(["I256.0", "I258.0"], self.first(odd)[:2])
        self.assertEqual([], [s for s in project_snags(bench.project) if s.code == "address-start"])

    def test_a_mixed_card_has_its_words_behind_its_bits(self) -> None:
        card = self.add("mix")
        self.assertEqual(self.first(card), [f"I0.{n}" for n in range(6)] + ["I2.0", "I4.0"])
        self.assertEqual(self.overlaps(), [])

    def test_words_begin_at_even_bytes(self) -> None:
        for start in ("1", "x", "0.0"):
            with self.assertRaises(RuleError):
                parse_start("word", start)
        self.assertEqual(address("word", "256", 3, "AO"), "QW260")

    @settings(max_examples=40, deadline=None)
    @given(
        st.lists(
            st.tuples(
                st.sampled_from(("di8", "ai4", "ao2", "mix")), st.sampled_from((None, "byte.bit", "whole", "word"))
            ),
            min_size=1,
            max_size=7,
        )
    )
    def test_cards_that_go_on_never_share_a_bit(self, wanted: list[tuple[str, str | None]]) -> None:
        self.setUp()
        for part, scheme in wanted:
            self.add(part, **({"scheme": scheme} if scheme else {}))
        seen: set[tuple[str, int]] = set()
        for card in self.bench.project.cards.values():
            for space, low, high, _ in spans_of(self.bench.project, card):
                places = {(space, n) for n in range(low, high)}
                self.assertFalse(places & seen)
                seen |= places
        self.assertEqual(self.overlaps(), [])
