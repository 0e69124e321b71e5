"""What is said of tests that failed."""

from __future__ import annotations

import contextlib
import io
from unittest import TestCase, TestSuite, TextTestRunner

from jolly_server.testing.runner import Runner, last_words


class Words(TestCase):
    def test_the_last_words_of_a_failure_are_what_stands_behind_the_last_place_in_the_code(self) -> None:
        said = (
            "Traceback (most recent call last):\n"
            '  File "story.py", line 3, in test_door\n'
            "    expect(door).to_be_open()\n"
            "    ^^^^^^^^^^^^^^^^^^^^^^^^^\n"
            "AssertionError: Door expected to be open\n"
            "Call log:\n"
            "  - waited for the door\n"
            "    - it is shut\n"
        )
        self.assertEqual(last_words(said), "AssertionError: Door expected to be open Call log: - waited for the door")
        self.assertEqual(last_words(""), "")

    def test_the_end_names_each_test_that_failed_once_with_why(self) -> None:
        class Odd(TestCase):
            def runTest(self) -> None:
                self.assertEqual(1, 2)

            def tearDown(self) -> None:
                raise ValueError("left open")

        class Fine(TestCase):
            def runTest(self) -> None:
                self.assertEqual(1, 1)

        class Unset(TestCase):
            @classmethod
            def setUpClass(cls) -> None:
                raise ValueError("no such place")

            def runTest(self) -> None:
                self.fail("it was not set up")

        suite = TestSuite([Odd(), Fine(), Unset()])
        result = TextTestRunner(stream=io.StringIO()).run(suite)
        with contextlib.redirect_stdout(io.StringIO()) as printed:
            self.assertEqual(Runner().suite_result(suite, result), 3)
        counts, *failed = printed.getvalue().splitlines()
        self.assertEqual(counts, "1 passed, 2 failed")
        self.assertEqual([line.split(" (")[0] for line in failed], ["failed: runTest", "failed: setUpClass"])
        self.assertTrue(failed[0].endswith(": AssertionError: 1 != 2"), failed[0])
