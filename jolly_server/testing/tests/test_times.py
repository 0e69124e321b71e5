"""What tests took is measured where they run and kept by the one who counts."""

from __future__ import annotations

import io
import tempfile
from pathlib import Path
from unittest import TestCase, TestSuite, TextTestRunner
from unittest.mock import patch

from jolly_server.testing.times import Kept, Measured, MeasuredAfar, Watch, set_up_of


class Times(TestCase):
    def tests(self) -> list[TestCase]:
        class Short(TestCase):
            def one(self) -> None:
                """It is over at once."""

            def two(self) -> None:
                """So is this."""

        return [Short("one"), Short("two")]

    def test_each_test_and_what_stood_before_it_by_the_clock_and_of_the_process(self) -> None:
        clock = iter(range(100))
        with patch("time.perf_counter", lambda: next(clock)), patch("time.process_time", lambda: 0):
            runner = TextTestRunner(stream=io.StringIO(), resultclass=Measured)
            watch = Watch()
            self.assertEqual(watch.asked()[1], 0)
            result = runner.run(TestSuite(self.tests()))
        assert isinstance(result, Measured)
        one, two = self.tests()
        self.assertEqual([name for *_, name in result.took], [set_up_of(one), str(one), set_up_of(two), str(two)])
        self.assertTrue(all(wall >= 1 for wall, _, _ in result.took), result.took)

    def test_what_was_measured_in_a_worker_is_kept_and_written(self) -> None:
        afar = MeasuredAfar()
        afar.startTestRun()
        TestSuite(self.tests()).run(afar)
        tests = self.tests()
        with tempfile.TemporaryDirectory() as folder, patch("jolly_server.testing.times.FILE", f"{folder}/times"):
            kept = Kept(io.StringIO(), False, 0)
            for name, index, *args in (e for e in afar.events if e[0] == "add_took"):
                getattr(kept, name)(tests[index], *args)
            kept.stopTestRun()
            lines = Path(folder, "times").read_text(encoding="utf-8").splitlines()
        self.assertEqual([line.split("\t")[2] for line in lines[1::2]], [str(test) for test in tests])
        self.assertEqual(lines[0].split("\t")[2], set_up_of(tests[0]))
