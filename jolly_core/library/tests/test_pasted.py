"""Pasted lines of made-up makers: what each says of a part, or that it is left over; never half of it."""

from __future__ import annotations

import json
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.library import part_from_text
from jolly_core.library.quantities import decimal_sign, number_of_text, quantity

# class | line | what is kept, as JSON, or "left"; "units" counts the units by kind.
CORPUS = r"""
contactor | Manufacturer: Brindlework | {"maker": "Brindlework"}
contactor | Article number: BW-C25-24D | {"number": "BW-C25-24D"}
contactor | Coil voltage: 24VDC | {"coil_voltage_v": "24", "coil_kind": "DC"}
contactor | Coil voltage: 230 V AC, 50/60 Hz | {"coil_voltage_v": "230", "coil_kind": "AC"}
contactor | Rated control supply voltage: 24...240 V | left
contactor | Rated control supply voltage: 24-240 V AC/DC | left
contactor | Control voltage: 110 Vac | {"coil_voltage_v": "110", "coil_kind": "AC"}
contactor | Coil voltage: 24 V or 48 V | left
contactor | Coil voltage: 0,024 kV DC | {"coil_voltage_v": "24", "coil_kind": "DC"}
contactor | Poles: 3 | {"units": {"coil": 1, "pole": 3}}
contactor | Number of poles: 4P | {"units": {"coil": 1, "pole": 4}}
contactor | Auxiliary contacts: 1 NO + 1 NC | {"units": {"coil": 1, "no": 1, "nc": 1}}
contactor | Auxiliary contacts: 2NO/1NC | {"units": {"coil": 1, "no": 2, "nc": 1}}
contactor | Auxiliary contacts: 1 NO and 1 early break | left
contactor | Contacts: 3 poles, 1 NO | {"units": {"coil": 1, "pole": 3, "no": 1}}
contactor | Contact configuration: 3-pole + 1 NO contact | {"units": {"coil": 1, "pole": 3, "no": 1}}
contactor | Poles: several | left
contactor | Poles: 300 | left
contactor | AC3: 25 A | {"ac3_a": "25"}
contactor | Motor load, AC-3 (A)	25 | {"ac3_a": "25"}
contactor | Rated current AC-3: 25 A at 40 °C | left
contactor | Power dissipation: 2,3 W | {"loss_w": "2.3"}
contactor | Power loss: 2300 mW | {"loss_w": "2.3"}
contactor | Heat loss: 2.3 W (typ.) | left
contactor | Width: 45 mm | {"width_mm": 45.0}
contactor | Width: 1.77" | {"width_mm": 44.958}
contactor | Width: 2.76″ | {"width_mm": 70.104}
contactor | Width [in]	1.77 | {"width_mm": 44.958}
contactor | Width (mm)	45 | {"width_mm": 45.0}
contactor | Width: 4.5 cm | {"width_mm": 45.0}
contactor | Width: 2 3/4 in | {"width_mm": 69.85}
contactor | Width: 2-3/4 inch | {"width_mm": 69.85}
contactor | Width: 3/4" | {"width_mm": 19.05}
contactor | Width: 1½ in. | {"width_mm": 38.1}
contactor | Width: 45 mm (1.77 in) | {"width_mm": 45.0}
contactor | Width: 45 mm (2.77 in) | left
contactor | Width: 45...52 mm | left
contactor | Width: -45 mm | left
contactor | Width: 45 kg | left
contactor | Height: 0,082 m | {"height_mm": 82.0}
contactor | Height: 1,082 | left
contactor | Height: approx. 82 mm | {"height_mm": 82.0}
contactor | Depth: 113 mm without push-on block | left
contactor | Dimensions: 45 x 82 x 113 mm | {"width_mm": 45.0, "height_mm": 82.0, "depth_mm": 113.0}
contactor | Dimensions: 45mm × 82mm × 113mm | {"width_mm": 45.0, "height_mm": 82.0, "depth_mm": 113.0}
contactor | Dimensions (W x H x D): W 45 x H 82 x D 113 mm | {"width_mm": 45.0, "height_mm": 82.0, "depth_mm": 113.0}
contactor | Dimensions: 1.77" x 3.23" x 4.45" | {"width_mm": 44.958, "height_mm": 82.042, "depth_mm": 113.03}
contactor | Dimensions: 45 x 82 x 113 x 9 mm | left
contactor | Dimensions: 45 x see drawing | left
contactor | Weight: 1.2 lbs | {"weight_kg": 0.544311}
contactor | Weight: 11 oz | {"weight_kg": 0.311845}
contactor | Weight: 1 lb 3 oz | {"weight_kg": 0.538641}
contactor | Weight: 1 250 g | {"weight_kg": 1.25}
contactor | Weight: 1.250,5 g | {"weight_kg": 1.2505}
contactor | Weight: 1,250 g | left
contactor | Weight: 0,45 kg | {"weight_kg": 0.45}
contactor | Weight: 450 g (15.9 oz) | {"weight_kg": 0.45}
contactor | Price: 1.248,90 EUR | {"price": 1248.9, "currency": "EUR"}
contactor | Price: 1,248.90 USD | {"price": 1248.9, "currency": "USD"}
contactor | Price: € 12,50 | {"price": 12.5, "currency": "EUR"}
contactor | Price: £1'248.90 | {"price": 1248.9, "currency": "GBP"}
contactor | List price: 12.50 each | {"price": 12.5, "currency": ""}
contactor | Price: 12.50 EUR / 100 pcs | left
contactor | Price: 1.248 EUR | left
contactor | Price: on request | left
contactor | Mounting: DIN rail 35 mm | {"mounting": "rail"}
contactor | Colour of the housing: grey | left
contactor | Order code: CS-20480 | {"order_number": "CS-20480"}
contactor | Description: Contactor 25 A, coil 24 V DC | {"text": "Contactor 25 A, coil 24 V DC"}
contactor | Approvals: three of them | left
relay | Contacts: 2 changeovers | {"units": {"coil": 1, "co": 2}}
relay | Contacts: 4 CO | {"units": {"coil": 1, "co": 4}}
relay | Contacts: 2 C/O contacts | {"units": {"coil": 1, "co": 2}}
relay | Contact load: 6 A | {"contact_a": "6"}
relay | Contact load: 6000 mA | {"contact_a": "6"}
relay | Contact load: 6 A / 250 V | left
motor-breaker | Setting range: 6.3...10 A | {"setting_min_a": "6.3", "setting_max_a": "10"}
motor-breaker | Setting range: 0,63 – 1 A | {"setting_min_a": "0.63", "setting_max_a": "1"}
motor-breaker | Setting range: 10 to 6.3 A | left
motor-breaker | Setting from: 6,3 A | {"setting_min_a": "6.3"}
motor-breaker | Breaking capacity: 50 kA | {"breaking_ka": "50"}
motor-breaker | Breaking capacity: 10 000 A | {"breaking_ka": "10"}
breaker | Tripping characteristic: c | {"characteristic": "C"}
breaker | Tripping characteristic: slow | left
breaker | Rated current: 16 A | {"rated_a": "16"}
breaker | Rated current: 16/20 A | left
lamp | Supply voltage: 24 V | {"voltage_v": "24"}
lamp | Voltage: 24 V AC/DC | {"voltage_v": "24"}
lamp | Mounting hole: 22,5 mm | {"hole_mm": "22.5"}
lamp | Cut-out: 22.5 mm x 30 mm | left
terminal | Conductor cross-section: 0.5...4 mm² | {"cross_section_min_mm2": "0.5", "cross_section_max_mm2": "4"}
terminal | Rated cross-section: 4 mm2 | {"cross_section_max_mm2": "4"}
terminal | Levels: 2 | {"levels": "2"}
terminal | Levels: 1.5 | left
cable | Outer diameter: 8.1 mm | {"outer_diameter_mm": "8.1"}
cable | Screened: yes | {"screened": "yes"}
cable | Screened: partly | left
drive | Power: 3 hp | {"power_kw": "2.2371"}
drive | Power: 2200 W | {"power_kw": "2.2"}
drive | Supply voltage: 380...480 V | left
drive | Heat loss: 80 W | {"loss_w": "80"}
"""


def lines() -> list[tuple[str, str, str]]:
    found = [row.split(" | ") for row in CORPUS.strip().splitlines()]
    return [(a, b, c) for a, b, c in found]


class Corpus(TestCase):
    def test_a_hundred_lines(self) -> None:
        self.assertGreaterEqual(len(lines()), 100)
        for class_key, line, wanted in lines():
            with self.subTest(line):
                bare = part_from_text("Remark: none", class_key).part
                reading = part_from_text(line, class_key)
                if wanted == "left":
                    self.assertEqual((reading.left, reading.understood), ([line], []))
                    self.assertEqual(reading.part, bare, "nothing of it is taken")
                    continue
                self.assertEqual(reading.left, [])
                for key, value in json.loads(wanted).items():
                    if key == "units":
                        kinds = [k for k, _ in reading.part.units]
                        self.assertEqual({k: kinds.count(k) for k in kinds}, value)
                    elif key in reading.part.ratings or isinstance(value, str) and not hasattr(reading.part, key):
                        self.assertEqual(reading.part.ratings.get(key), value)
                    else:
                        self.assertEqual(getattr(reading.part, key), value)

    def test_counts_of_several_lines_add_up(self) -> None:
        part = part_from_text("Poles: 3\nAuxiliary contacts: 1 NO + 1 NC\nCoil voltage: 24 V DC", "contactor").part
        self.assertEqual([k for k, _ in part.units], ["coil", "pole", "pole", "pole", "no", "nc"])
        self.assertEqual(dict(part.units[-2:])["no"], ("13", "14"))
        twice = part_from_text("Poles: 3\nNumber of poles: 3\nNumber of poles: 4", "contactor")
        self.assertEqual([k for k, _ in twice.part.units].count("pole"), 3)
        self.assertEqual(twice.left, ["Number of poles: 4"], "it contradicts")

    def test_what_is_said_twice_differently_is_left(self) -> None:
        reading = part_from_text("Width: 45 mm\nWidth: 52 mm\nHeat loss: 2 W\nHeat loss: 3 W", "contactor")
        self.assertEqual(reading.left, ["Width: 52 mm", "Heat loss: 3 W"])
        self.assertEqual((reading.part.width_mm, reading.part.ratings["loss_w"]), (45.0, "2"))

    def test_the_text_around_decides_what_a_sign_in_doubt_means(self) -> None:
        german = part_from_text("Width: 45,5 mm\nPrice: 1.248 EUR\nWeight: 1,250 kg", "contactor")
        self.assertEqual((german.part.price, german.part.weight_kg, german.left), (1248.0, 1.25, []))
        english = part_from_text("Width: 45.5 mm\nPrice: 1,248 EUR\nWeight: 1.250 kg", "contactor")
        self.assertEqual((english.part.price, english.part.weight_kg, english.left), (1248.0, 1.25, []))


class Numbers(TestCase):
    @given(st.integers(0, 9_999_999), st.integers(0, 99))
    def test_every_writing_of_a_number_reads_the_same(self, whole: int, cents: int) -> None:
        wanted = float(f"{whole}.{cents:02d}")
        for group, sign in ((".", ","), (",", "."), (" ", ","), ("\u202f", "."), ("'", "."), ("", ","), ("", ".")):
            text = f"{whole:,}".replace(",", group) + f"{sign}{cents:02d}"
            self.assertEqual(number_of_text(text), wanted, text)

    @given(st.text(alphabet="0123456789.,/ -'½VAmgkin…\"()DC", max_size=14))
    def test_any_text_is_read_whole_or_not_at_all(self, text: str) -> None:
        for unit in ("mm", "kg", "V"):
            found = quantity(text, unit)
            if found is not None:
                self.assertLessEqual(found.low, found.high)
                self.assertTrue(any(letter.isdigit() or letter == "½" for letter in text))
        self.assertIn(decimal_sign(text), ("", ".", ","))
