"""Any part goes out as a table or a record and comes in again as it was."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.exchange import check_rows, guessed_mapping, parts_table, read_cells, table_csv, table_xlsx
from jolly_core.library import (
    check_part,
    differences,
    new_part,
    own_class_key,
    part_class,
    part_classes,
    part_fields,
    with_units,
)
from jolly_core.model import Part, from_record, to_record

CLASSES = [*part_classes(), own_class_key("House class", "relay")]
words = st.text("abcdefgÄüß 0123456789-+=@", min_size=1, max_size=14).map(lambda t: " ".join(f"x {t}".split()))
amount = st.floats(0.1, 9999, allow_nan=False).map(lambda v: round(v, 2))


def value_for(draw: Any, key: str) -> str:
    """Return a value a field may have."""
    spec = part_fields()[key]
    if spec.form:
        return "16" if key == "awg" else spec.example
    if spec.whole:
        return str(draw(st.integers(1, 40)))
    if spec.kind == "number":
        # ranges run upwards, whatever is drawn; a section beside a gauge is that gauge's
        within = {"_min_": st.floats(0.1, 9), "_max_": st.floats(10, 99)}
        chosen = next((v for name, v in within.items() if name in key), st.just(1.5) if "section" in key else amount)
        return f"{min(draw(chosen), spec.most or 9999):g}"
    if spec.kind == "choice":
        return str(draw(st.sampled_from(spec.choices)))
    return "yes" if spec.kind == "flag" else str(draw(words))


@st.composite
def parts(draw: Any) -> Part:
    """Make a part of any class with some of its ratings, more units and buying data."""
    kind = part_class(draw(st.sampled_from(CLASSES)))
    part = new_part(kind.key)
    for unit in draw(st.lists(st.sampled_from(kind.units), max_size=3)) if kind.units else []:
        part = with_units(part, unit, 1)
    ratings = (
        {key: value_for(draw, key) for key in draw(st.sets(st.sampled_from(kind.ratings)))} if kind.ratings else {}
    )
    return check_part(
        replace(
            part,
            id="p",
            maker=draw(words),
            number=draw(words),
            text=draw(words),
            ratings=ratings,
            width_mm=draw(amount),
            price=draw(amount),
            order_number=draw(words),
            accessories=tuple(draw(st.lists(words, max_size=2))),
        )
    )


class Round(TestCase):
    @settings(max_examples=120, deadline=None)
    @given(parts())
    def test_a_record_says_all_of_it(self, part: Part) -> None:
        again = from_record("part", json.loads(json.dumps(to_record(part))))
        self.assertEqual(again, part)
        self.assertEqual(check_part(part), part, "what is kept is kept the same again")
        self.assertEqual(differences(part, part), [])

    @settings(max_examples=120, deadline=None)
    @given(parts())
    def test_a_table_in_either_format_changes_nothing(self, part: Part) -> None:
        table = parts_table([part])
        for name, content in (("p.csv", table_csv(table)), ("p.xlsx", table_xlsx(table))):
            cells = read_cells(content, name, formulas=True)
            rows = check_rows(cells, guessed_mapping([h.strip() for h in cells[0]]), lambda maker, number: part)
            self.assertEqual(rows[0].problems, [], name)
            self.assertEqual((rows[0].state, rows[0].changes), ("same", []), name)
