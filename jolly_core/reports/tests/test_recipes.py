"""Recipes: what a person asks of a report's rows, and what comes out."""

from __future__ import annotations

from dataclasses import replace
from typing import Any
from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.model import Project, Recipe, RuleError
from jolly_core.reports import (
    REPORTS,
    TESTS,
    Cooked,
    cook,
    full_report,
    plain_recipe,
    recipe_called,
    run_report,
    where_drawn,
)
from jolly_core.testing import DEMO, Workbench, rebuilt

KILN = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())


def recipe(report: str = "devices", columns: str = "tag number", **more: Any) -> Recipe:
    """Return a recipe with these columns by key."""
    return Recipe("r", "Mine", report, tuple({"key": k} for k in columns.split()), **more)


def cooked(project: Project = KILN, **more: Any) -> Cooked:
    return cook(project, recipe(**more))


def only(column: str, test: str, value: str = "") -> tuple[dict[str, str], ...]:
    return ({"column": column, "test": test, "value": value},)


def without_lengths() -> Project:
    """Return the kiln with cables of which nobody has said how long they are."""
    project = rebuilt(KILN)
    project.load("cable", [replace(c, length_m=0.0) for c in project.cables.values()])
    return project


class Choosing(TestCase):
    def test_columns_are_chosen_ordered_and_called_otherwise(self) -> None:
        mine = Recipe("r", "Mine", "devices", ({"key": "number", "heading": "Type"}, {"key": "tag"}))
        found = cook(KILN, mine)
        self.assertEqual([c.heading for c in found.columns], ["Type", "Tag"])
        whole = {(row[3], row[0]) for row in run_report(KILN, "devices").rows}
        self.assertEqual({tuple(row) for row in found.rows}, whole)

    def test_an_own_column_joins_pieces_and_leaves_no_gaps(self) -> None:
        mine = Recipe(
            "r", "Mine", "devices", ({"key": "tag"}, {"heading": "Part", "join": "{maker} {number}, {place}"})
        )
        by_tag = {str(row[0]): str(row[1]) for row in cook(KILN, mine).rows}
        rows = {str(r[0]): r for r in run_report(KILN, "devices").rows}
        qa1 = rows["=K2+KP2-QA1"]
        self.assertEqual(by_tag["=K2+KP2-QA1"], f"{qa1[2]} {qa1[3]}, {qa1[4]}")

    def test_every_filter_asks_what_it_says(self) -> None:
        rows = full_report(KILN, "devices").rows
        keys = [c.key for c in REPORTS["devices"].columns]
        place, price, maker = keys.index("location"), keys.index("price"), keys.index("maker")

        def count(column: str, test: str, value: str = "") -> int:
            return len(cooked(filters=only(column, test, value)).rows)

        self.assertEqual(count("location", "is", "+kp2"), sum(r[place] == "+KP2" for r in rows))
        inside = sum(str(r[place]) == "+KP2" or str(r[place]).startswith("+KP2+") for r in rows)
        self.assertEqual(count("location", "is at or within", "+KP2"), inside)
        self.assertEqual(count("location", "is at or within", "+KP"), 0)
        self.assertEqual(count("maker", "is empty") + count("maker", "is not empty"), len(rows))
        self.assertEqual(count("maker", "contains", "WICK"), sum("wick" in str(r[maker]).lower() for r in rows))
        dear = sum(isinstance(r[price], (int, float)) and r[price] > 40 for r in rows)  # type: ignore[operator]
        self.assertEqual(count("price", "is more than", "40"), dear)
        self.assertGreater(dear, 0)
        makers = sorted({str(r[maker]) for r in rows} - {""})[:2]
        two = count("maker", "is one of", "; ".join(makers))
        self.assertEqual(two, sum(count("maker", "is", m) for m in makers))
        for test in TESTS:
            self.assertIsInstance(count("maker", test, "x"), int)

    def test_all_filters_hold_together(self) -> None:
        both = only("location", "is", "+KP2") + only("class", "contains", "contactor")
        tags = [str(row[0]) for row in cooked(filters=both).rows]
        self.assertTrue(tags)
        self.assertTrue(all("+KP2" in tag for tag in tags))

    def test_what_is_not_there_is_refused_by_name(self) -> None:
        for mine, words in (
            (recipe(columns="tag weight"), "no column “weight”"),
            (recipe(report="devicez"), "no report “devicez”"),
            (recipe(columns=""), "at least one column"),
            (recipe(filters=only("tag", "smells of", "x")), "cannot ask “smells of”"),
            (recipe(groups=("moon",)), "no column “moon”"),
            (recipe(sums=("price",)), "when it is among the columns"),
            (recipe(columns="tag number tag"), "“tag” is among the columns twice"),
            (Recipe("r", "M", "devices", ({"join": "{tag}", "heading": "tag"},)), "is a column of the report"),
            (Recipe("r", "M", "devices", ({"join": "{sky}", "heading": "Sky"},)), "no column “sky”"),
        ):
            with self.subTest(words), self.assertRaises(RuleError) as caught:
                cook(KILN, mine)
            self.assertIn(words, caught.exception.message)


class Gathering(TestCase):
    def test_groups_have_headings_and_sums_that_add_up_to_all(self) -> None:
        found = cooked(columns="tag quantity sum", groups=("maker",), sums=("quantity", "sum"))
        self.assertGreater(len(found.groups), 2)
        self.assertEqual(sum(int(g.sums[1]) for g in found.groups), found.sums[1])
        self.assertEqual(found.sums[1], len(KILN.devices))
        self.assertTrue(found.groups[0].title.startswith("Maker: "))
        bench = Workbench()
        bench.place("lamp", 40, 16)
        bench.place("lamp", 40, 25, part_id="tamwick-tw-l22-g")
        titles = [g.title for g in cooked(bench.project, groups=("maker",)).groups]
        self.assertEqual(titles, ["Maker: Tamwick", "Maker: none"])

    def test_rows_that_are_alike_become_one_with_their_sum(self) -> None:
        found = cooked(
            columns="number quantity", merged=True, sums=("quantity",), filters=only("number", "is not empty")
        )
        numbers = [row[0] for row in found.rows]
        self.assertEqual(len(numbers), len(set(numbers)))
        for number, count in found.rows:
            same = [d for d in KILN.devices.values() if d.part_id and KILN.parts[d.part_id].number == number]
            self.assertEqual(count, len(same), number)

    def test_order_is_natural_numbers_are_numbers_and_a_stroke_turns_it_round(self) -> None:
        bench = Workbench()
        for line in range(11):
            bench.place("lamp", 40, 7 + 6 * line)
        up = [row[0] for row in cooked(bench.project, columns="tag", sort=("tag",)).rows]
        self.assertEqual(up[1:3], ["-PF2", "-PF3"])
        self.assertEqual(up[-1], "-PF11")
        down = [row[0] for row in cooked(bench.project, columns="tag", sort=("-tag",)).rows]
        self.assertEqual(down, up[::-1])

    def test_money_is_summed_for_each_currency(self) -> None:
        bench = Workbench()
        bench.place("lamp", 40, 16, part_id="tamwick-tw-l22-g")
        bench.place("coil", 40, 25, part_id="hollin-hr-k22")
        for part in list(bench.project.parts.values()):
            currency = "EUR" if part.id == "tamwick-tw-l22-g" else "USD"
            bench.do(
                "take-list",
                report="parts",
                cells=[
                    {"id": part.id, "column": "price", "value": "12,5"},
                    {"id": part.id, "column": "currency", "value": currency},
                ],
            )
        found = cooked(bench.project, columns="tag sum", sums=("sum",))
        self.assertEqual(found.sums[1], "12.50 EUR + 12.50 USD")


class Words(TestCase):
    def test_the_head_has_the_projects_fields_and_a_plain_recipe_has_none(self) -> None:
        self.assertIn(KILN.settings.name, cooked().head)
        self.assertEqual(cook(KILN, plain_recipe("devices")).head, "")
        self.assertEqual(cooked(head_on="none").head, "")

    def test_every_report_is_a_recipe_and_gives_its_own_rows(self) -> None:
        for key in REPORTS:
            with self.subTest(key):
                found = cook(KILN, recipe_called(KILN, key))
                self.assertEqual([tuple(r) for r in found.rows], [tuple(r) for r in run_report(KILN, key).rows])

    def test_a_blank_cell_says_why_and_a_row_leads_to_its_object(self) -> None:
        bench = Workbench()
        lamp = bench.place("lamp", 40, 16)
        (row,) = cooked(bench.project, columns="tag number price").rows
        self.assertEqual(row.lead, bench.device(lamp))
        self.assertEqual(row.whys["number"], "No part is chosen for it.")

    def test_rows_of_terminals_cables_cores_and_channels_lead_to_what_they_are_about(self) -> None:
        for key in (
            "terminals",
            "cables",
            "cores",
            "io",
            "wires",
            "wiring",
            "devices",
            "sheets",
            "spares",
            "references",
        ):
            with self.subTest(key):
                rows = [row for row in cook(KILN, plain_recipe(key)).rows if key != "io" or row[5]]
                known = {*KILN.symbols, *KILN.devices, *KILN.wires, *KILN.sheets, *KILN.continuations}
                self.assertTrue(rows)
                self.assertTrue(all(row.lead in known for row in rows))
        blank = [row for row in cook(without_lengths(), plain_recipe("cables")).rows if row[7] == ""]
        self.assertEqual(len(blank), len(KILN.cables))
        self.assertTrue(all("length is not known" in row.whys["length_m"] for row in blank))

    def test_what_a_row_leads_to_is_found_where_it_is_drawn(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 60, 16, part_id="hollin-hr-k22")
        far = bench.new("add-sheet", number="40")
        contact = bench.place("contact-no", 20, 25, sheet_id=far, device_id=bench.device(coil))
        self.assertEqual(where_drawn(bench.project, bench.device(coil)), (bench.sheet, coil), "at its lead")
        self.assertEqual(where_drawn(bench.project, contact), (far, contact))
        self.assertEqual(where_drawn(bench.project, far), (far, ""))
        self.assertEqual(where_drawn(bench.project, "hollin-hr-k22"), ("", ""))
        band = min(KILN.bands.values(), key=lambda b: b.id)
        sheet, selected = where_drawn(KILN, band.device_id)
        self.assertEqual(KILN.bands[selected].device_id, band.device_id)
        self.assertEqual(KILN.bands[selected].sheet_id, sheet)

    def test_an_empty_project_gives_every_report_without_rows_or_faults(self) -> None:
        for key in REPORTS:
            with self.subTest(key):
                self.assertIsInstance(cook(Project(), plain_recipe(key)).rows, list)


class Lists(TestCase):
    """Reports that are new: what is on them, checked against the model."""

    def test_parts_by_place_add_up_to_the_parts_list(self) -> None:
        whole = {(r[4], r[2]): r[1] for r in run_report(KILN, "parts").rows if r[4]}
        sums: dict[tuple[Any, Any], float] = {}
        for row in run_report(KILN, "parts-by-place").rows:
            sums[row[4], row[2]] = sums.get((row[4], row[2]), 0) + float(row[1])
        self.assertEqual({k: round(v, 2) for k, v in sums.items()}, {k: round(float(v), 2) for k, v in whole.items()})

    def test_what_has_no_length_has_no_price_in_all_and_says_why(self) -> None:
        found = cook(without_lengths(), recipe("parts", "unit price sum", filters=only("unit", "is", "no length")))
        self.assertGreater(len(found.rows), 5)
        for row in found.rows:
            self.assertEqual(row[2], "")
            self.assertIn("length is not known yet", row.whys["sum"])

    def test_wire_ferrules_and_labels_are_bought_too(self) -> None:
        rows = {str(r[5]): (r[1], r[2]) for r in run_report(KILN, "parts").rows if r[6] in ("Wire", "Ferrule", "Label")}
        metres = sum(float(r[4]) for r in run_report(KILN, "spools").rows)
        self.assertAlmostEqual(sum(float(q) for q, unit in rows.values() if unit == "m"), metres, places=1)
        self.assertEqual(rows["Label, wire"][0], 2 * len(run_report(KILN, "cut").rows))
        self.assertTrue(any(words.startswith("Ferrule ") for words in rows))

    def test_the_wiring_list_keeps_bundles_together_and_has_every_wire(self) -> None:
        rows = run_report(KILN, "wiring").rows
        bundles = [(r[0], r[1]) for r in rows]
        changes = sum(a != b for a, b in zip(bundles, bundles[1:], strict=False)) + 1
        self.assertEqual(changes, len(set(bundles)))
        laid = [r for r in run_report(KILN, "wires").rows if r[6] != "plugged on"]
        self.assertEqual(len(rows), len(laid))

    def test_cross_references_have_each_symbol_and_continuation_once(self) -> None:
        rows = run_report(KILN, "references").rows
        symbols = [s for s in KILN.symbols.values() if s.device_id]
        undrawn = [d for d in KILN.devices.values() if not KILN.units_of(d.id)]
        self.assertEqual(len(rows), len(symbols) + len(undrawn) + len(KILN.continuations))

    def test_spares_are_what_is_free(self) -> None:
        rows = run_report(KILN, "spares").rows
        channels = [r for r in rows if r[0] == "channel"]
        self.assertEqual(len(channels), len(run_report(KILN, "spare-channels").rows))
        cores = [r for r in run_report(KILN, "cores").rows if r[4] == "spare"]
        self.assertEqual(len([r for r in rows if r[0] == "core"]), len(cores))
        bench = Workbench()
        bench.place("coil", 60, 16, part_id="hollin-hr-k22")
        contacts = [r[2] for r in run_report(bench.project, "spares").rows if r[0] == "contact"]
        self.assertEqual(len(contacts), 4)

    def test_a_muted_snag_is_listed_with_its_reason(self) -> None:
        bench = Workbench()
        bench.place("lamp", 40, 16)
        rows = run_report(bench.project, "snags").rows
        code, lead = rows[0][3], rows[0].lead  # type: ignore[attr-defined]
        bench.do("mute-snag", key=f"{code}:{lead}", reason="Chosen with the customer")
        (muted,) = run_report(bench.project, "muted").rows
        self.assertEqual(muted[3], "Chosen with the customer")
        self.assertEqual(len(run_report(bench.project, "snags").rows), len(rows) - 1)
