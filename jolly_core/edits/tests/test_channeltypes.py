"""Wire types of drawn channels: those drawn of their feed and return, AC control and neutral where they are."""

from __future__ import annotations

from jolly_core.checks import all_snags
from jolly_core.library import usual_wire_types

from ..channels.types import types_of_channel
from .test_channeldrawing import Case


class Types(Case):
    def preset(self, standard: str) -> None:
        """Give the project the wire types of a preset in place of its own."""
        bench = self.bench
        if bench.project.settings.standard != standard:
            bench.do("change-settings", standard=standard)
        self.types = {str(t["name"]): bench.new("add-wire-type", **t) for t in usual_wire_types(standard)}
        bench.do("delete-sheet", sheet_id=bench.sheet)
        for id in (bench.blue, bench.red, bench.pe):
            bench.do("remove-wire-type", wire_type_id=id)

    def named(self, feed: str, back: str) -> tuple[str, str, str]:
        """Return the names of the types of a channel between two potentials: feed, return, signal."""
        found = types_of_channel(self.bench.project, feed, back)
        of = self.bench.project.wire_types
        return of[found.feed].name, of[found.back].name, of[found.signal].name

    def by_place(self) -> dict[str, set[str]]:
        """Return the wire types at the marks of each name."""
        project = self.bench.project
        found: dict[str, set[str]] = {}
        for mark in project.continuations.values():
            for w in project.wires_on(mark.sheet_id):
                if (mark.x, mark.y) in ((w.x1, w.y1), (w.x2, w.y2)):
                    found.setdefault(mark.name, set()).add(project.wire_types[w.type_id].name)
        return found

    def test_by_the_names_where_nothing_is_drawn(self) -> None:
        self.preset("na")
        self.assertEqual(self.named("24 V", "0 V"), ("Control DC",) * 3)
        for feed in ("L1", "120 V AC", "L"):
            self.assertEqual(self.named(feed, "N"), ("Control AC", "Control neutral", "Control AC"), feed)
        self.assertEqual(self.named("120 V AC", "X2")[1], "Control neutral", "grounded by the habit")
        self.assertEqual(self.named("L1", "L2"), ("Control AC",) * 3, "between two phases there is no neutral")

    def test_in_the_other_habit_only_what_is_called_so_is_the_neutral(self) -> None:
        self.preset("iec")
        self.assertEqual(self.named("230 V AC", "N"), ("Control AC", "Neutral", "Control AC"))
        self.assertEqual(self.named("230 V AC", "0 V AC"), ("Control AC",) * 3)

    def test_a_load_of_alternating_current_returns_on_the_neutral(self) -> None:
        self.preset("na")
        self.list(("Y1", "DO", "lamp"), ("Y2", "DO", "valve"))
        self.bench.do("draw-channels", feed="L1", back="N")
        self.assertEqual(self.by_place(), {"L1": {"Control AC"}, "N": {"Control neutral"}})
        self.assertFalse([s for s in all_snags(self.bench.project) if s.code == "neutral-type"])

    def test_what_is_drawn_of_a_potential_says_its_type(self) -> None:
        self.preset("iec")
        bench, types = self.bench, self.types
        sheet = bench.new("add-sheet", number="9", frame="zones")
        for y, name, kind in ((10, "24 V", "24 V DC"), (20, "0 V", "0 V DC")):
            bench.do("draw-wire", sheet_id=sheet, points=[[10, y], [30, y]], wire_type_id=types[kind])
            bench.do("place-continuation", sheet_id=sheet, x=30, y=y, name=name, toward="right")
        self.assertEqual(self.named("24 V", "0 V"), ("24 V DC", "0 V DC", "Control DC"))
        self.list(("B1", "DI", "limit switch"), ("Y1", "DO", "lamp"))
        bench.do("draw-channels")
        self.assertEqual(self.by_place(), {"24 V": {"24 V DC"}, "0 V": {"0 V DC"}})
        at_cards = {w.type_id for w in bench.project.wires.values()} - {types["24 V DC"], types["0 V DC"]}
        self.assertEqual(at_cards, {types["Control DC"]})

    def test_a_type_that_is_asked_for_stands_for_all_but_the_neutral(self) -> None:
        self.preset("na")
        self.list(("Y1", "DO", "lamp"))
        self.bench.do("draw-channels", feed="L1", back="N", wire_type_id=self.types["Foreign voltage"])
        self.assertEqual(self.by_place(), {"L1": {"Foreign voltage"}, "N": {"Control neutral"}})
