"""Whatever a recipe asks for, no row is lost or made up, sums add up, and its file brings back nothing unasked."""

from __future__ import annotations

import csv
import io
import json
from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from openpyxl import load_workbook

from jolly_core.exchange import read_list, read_project, write_list, write_project
from jolly_core.model import Recipe
from jolly_core.reports import BACK, REPORTS, TESTS, cook, full_report, plain_recipe
from jolly_core.reports.recipes import MONEY
from jolly_core.testing import DEMO, FONTS

KILN = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
DRYER = read_project((DEMO / "sample-store-dehumidifier.spool.json").read_bytes())
QUICK = settings(max_examples=25, deadline=None)


@st.composite
def recipes(draw: st.DrawFn, report: str = "") -> Recipe:
    """Recipes over any report: some of its columns, a filter or none, groups, order, sums, gathered or not."""
    key = report or draw(st.sampled_from(sorted(REPORTS)))
    columns = REPORTS[key].columns
    every = [c.key for c in columns]
    chosen = draw(st.lists(st.sampled_from(every), min_size=1, max_size=6, unique=True))
    numbers = [c.key for c in columns if c.number and c.key in chosen]
    sums = draw(st.lists(st.sampled_from(numbers), unique=True)) if numbers else []
    test = draw(st.sampled_from(sorted(TESTS)))
    filters = draw(st.sampled_from([(), ({"column": draw(st.sampled_from(every)), "test": test, "value": "1"},)]))
    sort = draw(st.lists(st.sampled_from([*every, *(f"-{k}" for k in every)]), max_size=2))
    return Recipe(
        "r",
        "Any",
        key,
        tuple({"key": k} for k in chosen),
        filters,
        tuple(draw(st.lists(st.sampled_from(every), max_size=2, unique=True))),
        tuple(sums),
        tuple(sort),
        merged=draw(st.booleans()),
    )


class AnyRecipe(TestCase):
    @QUICK
    @given(recipes(), st.sampled_from([KILN, DRYER]))
    def test_rows_are_those_of_the_report_that_pass_however_they_are_ordered(
        self, recipe: Recipe, project: object
    ) -> None:
        assert project is KILN or project is DRYER
        whole = KILN if project is KILN else DRYER
        found = cook(whole, replace(recipe, merged=False))
        keys = [c.key for c in REPORTS[recipe.report].columns]
        places = [keys.index(c["key"]) for c in recipe.columns]
        rows = [
            tuple(row[n] for n in places)
            for row in full_report(whole, recipe.report).rows
            if all(TESTS[f["test"]](row[keys.index(f["column"])], f["value"]) for f in recipe.filters)
        ]
        self.assertEqual(sorted(map(repr, map(tuple, found.rows))), sorted(map(repr, rows)))

    @QUICK
    @given(recipes())
    def test_gathered_rows_have_the_same_sums_and_no_two_are_alike(self, recipe: Recipe) -> None:
        apart, merged = (cook(KILN, replace(recipe, merged=m)) for m in (False, True))
        self.assertLessEqual(len(merged.rows), len(apart.rows))
        for n, name in enumerate(merged.names):
            if name in recipe.sums and name not in MONEY:
                one, other = (sum(v for r in c.rows if isinstance(v := r[n], (int, float))) for c in (apart, merged))
                self.assertAlmostEqual(one, other, places=3)
        for group in merged.groups:
            same = [repr([v for n, v in enumerate(r) if merged.names[n] not in recipe.sums]) for r in group.rows]
            if not {"price", "sum"} & set(recipe.sums):
                self.assertEqual(len(same), len(set(same)))

    @QUICK
    @given(recipes())
    def test_sums_of_groups_add_up_to_that_of_all(self, recipe: Recipe) -> None:
        found = cook(KILN, recipe)
        if not recipe.sums or not recipe.groups:
            return
        for n, name in enumerate(found.names):
            if name in recipe.sums and name not in MONEY:
                parts = [v for g in found.groups if isinstance(v := g.sums[n], (int, float))]
                whole = found.sums[n]
                self.assertAlmostEqual(sum(parts), whole if isinstance(whole, (int, float)) else 0, places=3)

    @QUICK
    @given(recipes(), st.sampled_from([",", ";", "tab"]), st.sampled_from([".", ","]))
    def test_its_csv_and_json_have_each_row_once(self, recipe: Recipe, separator: str, decimal: str) -> None:
        wanted = len(cook(KILN, recipe).rows)
        mine = replace(recipe, separator=separator, decimal=decimal, encoding="utf-8")
        text = write_list(KILN, mine, "csv", FONTS).decode()
        mark = "\t" if separator == "tab" else separator
        rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=mark))
        self.assertEqual([len(r) for r in rows], [len(recipe.columns)] * (wanted + 1))
        self.assertEqual(len(json.loads(write_list(KILN, mine, "json", FONTS))), wanted)

    @settings(max_examples=12, deadline=None)
    @given(st.sampled_from(sorted(BACK)).flatmap(recipes), st.sampled_from([KILN, DRYER]))
    def test_an_xlsx_that_nobody_edited_brings_nothing_back(self, recipe: Recipe, project: object) -> None:
        whole = KILN if project is KILN else DRYER
        content = write_list(whole, replace(recipe, merged=False), "xlsx", FONTS)
        found = read_list(whole, content)
        self.assertEqual((found.cells, found.refused, found.ignored), ([], [], []))
        page = load_workbook(io.BytesIO(content)).worksheets[0]
        self.assertFalse([c for row in page.iter_rows() for c in row if c.data_type == "f"])


class Kept(TestCase):
    def test_every_report_can_be_kept_as_a_recipe_and_read_from_the_file(self) -> None:
        for key in REPORTS:
            recipe = replace(plain_recipe(key), id=f"r-{key}")
            project = read_project(write_project(DRYER))
            project.load("recipe", [recipe])
            self.assertEqual(read_project(write_project(project)).recipes[recipe.id], recipe)
