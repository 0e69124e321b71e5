"""What can be said of parts: fields, markings, drafts, what is missing, how two differ; a part from pasted text."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.library import (
    check_part,
    conductor_count,
    core_orders,
    differences,
    like,
    missing,
    new_part,
    next_pins,
    part_classes,
    part_fields,
    part_from_text,
    symbol_for,
    unit_facts,
    unit_kinds,
    values_of,
    with_cores,
    with_units,
)
from jolly_core.library.fields import FieldSpec, checked
from jolly_core.model import FileError, Part, RuleError
from jolly_core.testing import DemoLibrary

LAMP_PAGE = """Manufacturer\tTamwick
Article number\tTW-L22N-G
Description\tIndicator light green, LED
Operating voltage\t24 V AC/DC
Mounting diameter\t2.2 cm
Terminals\tX1, X2
Weight\t38 g
Price\t€ 9,40
Degree of wonder\thigh"""


class Data(TestCase):
    def test_classes_name_only_fields_and_kinds_there_are(self) -> None:
        for kind in part_classes().values():
            self.assertLessEqual({*kind.ratings, *kind.wants}, set(part_fields()), kind.key)
            self.assertLessEqual(set(kind.units), set(unit_kinds()), kind.key)
            self.assertLessEqual(set(kind.wants), set(kind.ratings), kind.key)
            check_part(replace(new_part(kind.key), number="X", maker="Y"))
        for spec in unit_kinds().values():
            self.assertLessEqual(set(spec.details), set(unit_facts()), spec.key)

    def test_the_classes_of_a_panel_and_a_harness_are_there(self) -> None:
        wanted = {
            "contactor", "relay", "timer", "breaker", "motor-breaker", "fuse", "disconnector", "push-button", "lamp",
            "power-supply", "drive", "soft-starter", "transformer", "plc-card", "plc-rack", "terminal", "enclosure",
            "strip-accessory", "connector", "contact", "seal", "cable", "wire", "duct", "rail", "fan", "heater",
            "safety-relay", "temperature-sensor", "motor", "earth", "label", "auxiliary-block", "part-set",
        }  # fmt: skip
        self.assertLessEqual(wanted, set(part_classes()))

    def test_the_demo_library_lacks_nothing(self) -> None:
        parts = DemoLibrary().parts.values()
        self.assertGreater(len(parts), 400)
        self.assertEqual({p.number: missing(p) for p in parts if missing(p)}, {})
        known = {p.number for p in parts}
        for part in parts:
            self.assertLessEqual({*part.members, *part.accessories, *part.alternatives}, known, part.number)
            self.assertEqual(check_part(part), part)


class Fields(TestCase):
    def test_values_are_kept_as_their_fields_have_them(self) -> None:
        volts = FieldSpec("v", "Voltage", "V", "number")
        kind = FieldSpec("k", "Current", "", "choice", ("AC", "DC"))
        flag = FieldSpec("s", "Screened", "", "flag")
        for spec, typed, kept in (
            (volts, "24 V", "24"), (volts, " 1,5", "1.5"), (volts, "", ""), (volts, "400000", "400000"),
            (kind, "dc", "DC"), (flag, "Y", "yes"), (flag, "no", "no"),
        ):  # fmt: skip
            with self.subTest(typed):
                self.assertEqual(checked(spec, typed), kept)
        for spec, typed, words in (
            (volts, "many", "no number in V"),
            (kind, "XY", "AC, DC"),
            (flag, "so", "yes or no"),
        ):
            with self.subTest(typed), self.assertRaisesRegex(FileError, words):
                checked(spec, typed)

    def test_a_wrong_part_is_named_with_what_is_wrong(self) -> None:
        lamp = Part("", "Tamwick", "L1", "lamp", units=(("lamp", ("X1", "X2")),))
        for change, words in (
            ({"ratings": {"voltage_v": "much"}}, "L1: Voltage: “much” is no number in V"),
            ({"units": (("coil", ("A1",)),)}, "L1: the class Indicator light has no unit coil"),
            ({"mounting": "ceiling"}, "should be one of rail"),
            ({"width_mm": -1.0}, "less than nothing"),
            ({"details": ({}, {"colour": "BK"})}, "more units than there are"),
            ({"part_class": "rocket"}, "rocket"),
        ):
            with self.subTest(words), self.assertRaisesRegex(FileError, words):
                check_part(replace(lamp, **change))


class Markings(TestCase):
    def test_the_next_markings_are_the_usual_ones_that_are_free(self) -> None:
        units: list[tuple[str, tuple[str, ...]]] = []
        for kind, pins in (
            ("coil", ("A1", "A2")), ("pole", ("1", "2")), ("pole", ("3", "4")), ("no", ("13", "14")),
            ("nc", ("21", "22")), ("no", ("33", "34")), ("tno", ("47", "48")), ("pole", ("5", "6")),
        ):  # fmt: skip
            self.assertEqual(next_pins(units, kind), pins)
            units.append((kind, pins))

    def test_an_overload_relay_has_its_own(self) -> None:
        self.assertEqual(next_pins([], "nc", "overload"), ("95", "96"))
        self.assertEqual(next_pins([("nc", ("95", "96"))], "no", "overload"), ("97", "98"))

    @given(st.lists(st.sampled_from(("no", "nc", "co", "pole", "coil", "tno", "core", "cavity", "di")), max_size=30))
    def test_no_marking_is_given_twice_while_it_can_be_counted(self, kinds: list[str]) -> None:
        units: list[tuple[str, tuple[str, ...]]] = []
        for kind in kinds:
            units.append((kind, next_pins(units, kind)))
        counted = [u for u in units if u[0] != "coil"]
        self.assertEqual(len(set(counted)), len(counted))

    def test_the_symbol_of_a_unit_is_the_parts_own_by_standard(self) -> None:
        part = Part("", "", "", "contactor", symbols={"no": "limit-no", "no@na": "button-no"})
        self.assertEqual(symbol_for("no", "contactor", part, "iec"), "limit-no")
        self.assertEqual(symbol_for("no", "contactor", part, "na"), "button-no")
        self.assertEqual(symbol_for("nc", "contactor", part), "contact-nc")


class Drafts(TestCase):
    def test_a_shielded_signal_cable_with_numbered_cores(self) -> None:
        cable = with_cores(new_part("cable"), 3, "numbered", protective=False, section="0.5", shields=1)
        self.assertEqual([pins for _, pins in cable.units], [("1",), ("2",), ("3",), ("SH",)])
        self.assertEqual(conductor_count(cable), 3)
        self.assertEqual(cable.detail(0), {"role": "conductor", "section": "0.5"})
        self.assertEqual(missing(cable)["making"], ["outer diameter", "least bend radius"])

    def test_colours_by_an_order_and_the_protective_core_last(self) -> None:
        power = with_cores(new_part("cable"), 4, "power, 4 cores", protective=True)
        self.assertEqual([pins[0] for _, pins in power.units], ["BN", "BK", "GY", "GNYE"])
        numbered = with_cores(new_part("cable"), 7, "numbered", protective=True)
        self.assertEqual(numbered.units[-1][1], ("GNYE",))
        self.assertEqual(numbered.detail(6)["role"], "protective")
        long = with_cores(new_part("cable"), 22, "signal", protective=False)
        self.assertEqual([p[0] for _, p in long.units][19:], [core_orders()["signal"][19], "21", "22"])
        for count, shields in ((0, 0), (401, 0), (2, 3)):
            with self.subTest(count), self.assertRaises(RuleError):
                with_cores(new_part("cable"), count, "numbered", protective=False, shields=shields)
        with self.assertRaisesRegex(RuleError, "no order"):
            with_cores(new_part("cable"), 2, "rainbow", protective=False)

    def test_units_are_added_and_wrong_ones_refused(self) -> None:
        housing = with_units(replace(new_part("connector"), units=()), "cavity", 12)
        self.assertEqual([p[0] for _, p in housing.units], [str(n) for n in range(1, 13)])
        with self.assertRaisesRegex(RuleError, "no coils"):
            with_units(housing, "coil", 1)
        with self.assertRaisesRegex(RuleError, "at most"):
            with_units(housing, "cavity", 400)

    def test_one_like_another_has_no_number_of_its_own_yet(self) -> None:
        part = DemoLibrary().parts["tamwick-tw-l22-g"]
        again = like(part)
        self.assertEqual((again.id, again.number, again.version), ("", "", 1))
        self.assertEqual({d.field for d in differences(part, again)} - {"number", "order number"}, set())


class Facts(TestCase):
    def test_what_is_missing_is_said_for_each_purpose(self) -> None:
        bare = Part("", "", "", "contactor", mounting="rail")
        self.assertEqual(
            missing(bare),
            {
                "drawing": ["its units"],
                "layout": ["width", "height", "depth", "heat loss"],
                "ordering": ["maker", "number", "description", "supplier or order number"],
                "making": ["coil voltage", "coil current", "motor load, ac-3"],
            },
        )
        half = replace(bare, units=(("coil", ("A1", "")),), diameter_mm=22, depth_mm=40)
        self.assertEqual(missing(half)["drawing"], ["pins of a coil"])
        self.assertEqual(missing(half)["layout"], ["heat loss"])

    def test_differences_are_in_words(self) -> None:
        old = Part("", "Tamwick", "L1", "lamp", "Green", (("lamp", ("X1", "X2")),), {"voltage_v": "24"})
        new = replace(old, text="Emerald", ratings={"voltage_v": "24", "colour": "green"}, version=9, price=2.5)
        self.assertEqual(
            [(d.field, d.before, d.after) for d in differences(old, new)],
            [("description", "Green", "Emerald"), ("colour", "", "green"), ("price", "0", "2.5")],
        )
        self.assertEqual(differences(old, replace(old, version=7)), [])

    def test_counts_and_ratings_are_looked_up(self) -> None:
        part = DemoLibrary().parts["brindlework-bw-c09-24d"]
        values = {field: (text, number) for field, text, number in values_of(part)}
        self.assertEqual(values["coil_voltage_v"], ("24", 24.0))
        self.assertEqual((values["units.pole"][1], values["coil_kind"]), (3.0, ("dc", None)))


class Pasted(TestCase):
    def test_a_lamp_from_the_table_of_a_page(self) -> None:
        reading = part_from_text(LAMP_PAGE)
        part = reading.part
        self.assertEqual((part.part_class, part.maker, part.number), ("lamp", "Tamwick", "TW-L22N-G"))
        self.assertEqual(part.ratings, {"voltage_v": "24", "colour": "green"})
        self.assertEqual((part.diameter_mm, part.weight_kg, part.price, part.currency), (22.0, 0.038, 9.4, "EUR"))
        self.assertEqual((part.units, part.mounting), ((("lamp", ("X1", "X2")),), "door hole"))
        self.assertEqual(reading.left, ["Degree of wonder\thigh"])

    def test_contacts_get_usual_markings_and_sizes_their_unit(self) -> None:
        text = (
            "maker: Brindlework\ntype: C1\nControl voltage: 24 V DC\nAC3: 9 A\nContacts: 3P + 2NO + 1 NC\nWidth: 1 in"
        )
        part = part_from_text(text, "contactor").part
        self.assertEqual(part.ratings, {"coil_voltage_v": "24", "coil_kind": "DC", "ac3_a": "9"})
        self.assertEqual(part.units[-3:], (("no", ("13", "14")), ("no", ("23", "24")), ("nc", ("31", "32"))))
        self.assertEqual(part.width_mm, 25.4)

    def test_pins_alone_tell_the_kind_of_contact(self) -> None:
        part = part_from_text("Relay\nTerminal markings: A1-A2; 11-14-12; 23-24", "relay").part
        self.assertEqual([kind for kind, _ in part.units], ["coil", "co", "no"])

    def test_nothing_and_nonsense_are_refused_in_words(self) -> None:
        with self.assertRaisesRegex(FileError, "at least one line"):
            part_from_text("  \n ")
        with self.assertRaisesRegex(FileError, "Choose the class"):
            part_from_text("colour: loud")

    @given(st.text(max_size=200), st.sampled_from(sorted(part_classes())))
    def test_any_text_gives_a_part_that_holds_or_a_message(self, text: str, key: str) -> None:
        try:
            part = part_from_text(text, key).part
        except FileError:
            return
        self.assertEqual(part.part_class, key)
        self.assertLessEqual(set(part.ratings), set(part_classes()[key].ratings) | {"coil_kind"})
