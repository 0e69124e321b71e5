"""A cable's cores as people write them in a table."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.library import conductor_count, cores_told, with_cores
from jolly_core.model import FileError, Part

CABLE = Part("c", "Quill", "QL-9", "cable")


def names(part: Part) -> list[str]:
    return [pins[0] for _, pins in part.units]


class Words(TestCase):
    def test_each_common_way_of_writing_is_read(self) -> None:
        for word, cores, size in (
            ("7", "1 2 3 4 5 6 7", {}),
            ("2 cores", "1 2", {}),
            ("3G1.5", "BU BN GNYE", {"cross_section_mm2": "1.5"}),
            ("4g2,5 mm²", "BN BK GY GNYE", {"cross_section_mm2": "2.5"}),
            ("5 G 10mm2", "BU BN BK GY GNYE", {"cross_section_mm2": "10"}),
            ("7G1.5", "1 2 3 4 5 6 GNYE", {"cross_section_mm2": "1.5"}),
            ("3x0.75", "1 2 3", {"cross_section_mm2": "0.75"}),
            ("3 × 2.5", "1 2 3", {"cross_section_mm2": "2.5"}),
            ("4xAWG16", "1 2 3 4", {"awg": "16"}),
            ("3 AWG 2/0", "1 2 3", {"awg": "2/0"}),
        ):
            with self.subTest(word):
                told = cores_told(CABLE, word)
                self.assertEqual((" ".join(names(told)), told.ratings), (cores, size))
                roles = [told.detail(i)["role"] for i in range(len(told.units))]
                self.assertEqual(roles.count("protective"), cores.count("GNYE"))

    def test_pairs_go_two_by_two(self) -> None:
        told = cores_told(CABLE, "3x2x0.5")
        self.assertEqual([told.detail(i)["pair"] for i in range(6)], ["1", "1", "2", "2", "3", "3"])
        self.assertEqual(told.ratings, {"cross_section_mm2": "0.5"})
        self.assertEqual(conductor_count(told), 6)

    def test_a_screened_cable_gets_its_shield(self) -> None:
        told = cores_told(Part("c", "Quill", "QL-9", "cable", ratings={"screened": "yes"}), "4x0.5")
        self.assertEqual(told.units[-1], ("shield", ("SH",)))
        self.assertEqual(conductor_count(told), 4)

    def test_what_is_no_such_word_is_refused_and_says_what_to_write(self) -> None:
        for word, words in (
            ("many", "4G2.5"),
            ("4 2.5", "4G2.5"),
            ("0", "says no cores"),
            ("900", "says no cores"),
            ("1G2.5", "needs others beside it"),
            ("4G2x0.5", "none is in a pair"),
            ("3x0", "more than 0 mm²"),
            ("3xAWG77", "not a wire gauge"),
        ):
            with self.subTest(word), self.assertRaisesRegex(FileError, words):
                cores_told(CABLE, word)
        with self.assertRaisesRegex(FileError, "only a cable has cores.*Motor"):
            cores_told(Part("m", "Oddie", "M", "motor"), "4G2.5")

    def test_cores_that_are_there_keep_their_colours_when_the_word_says_no_other(self) -> None:
        signal = with_cores(CABLE, 4, "signal", protective=False, section="0.5")
        self.assertIs(cores_told(signal, "4"), signal)
        thicker = cores_told(signal, "4x0.75")
        self.assertEqual(names(thicker), ["WH", "BN", "GN", "YE"])
        self.assertEqual(thicker.ratings, {"cross_section_mm2": "0.75"})
        self.assertFalse(any("section" in facts for facts in thicker.details))
        self.assertEqual(names(cores_told(signal, "4G0.5"))[-1], "GNYE")
        self.assertEqual(names(cores_told(signal, "3x0.5")), ["1", "2", "3"])

    @given(st.integers(2, 60), st.sampled_from("Gx"), st.sampled_from(["", "0.5", "1.5", "16"]))
    def test_the_count_is_what_was_written_and_reading_again_changes_nothing(
        self, count: int, times: str, area: str
    ) -> None:
        word = f"{count}{times}{area}"
        told = cores_told(CABLE, word)
        self.assertEqual(conductor_count(told), count)
        self.assertEqual(names(told).count("GNYE"), 1 if times == "G" else 0)
        self.assertEqual(len(set(names(told))), count)
        self.assertEqual(cores_told(told, word), told)
