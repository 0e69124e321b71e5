"""Django's test runner, closing with one plain line of counts."""

import gc
from typing import Any

from django.conf import settings
from django.test.runner import DiscoverRunner, ParallelTestSuite

from .times import Kept, Measured, RunnerAfar

# Collections of rubbish: projects are large and hold few rings, and to look for those takes a tenth of the time.
RARELY = (100_000, 20, 20)
# Passwords of tests need not be hard to guess; making each of them so takes seconds.
QUICK_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


def last_words(traceback: str) -> str:
    """Return what a traceback says is wrong, on one line: what stands behind the last place in the code."""
    lines = traceback.splitlines()
    places = [number for number, line in enumerate(lines) if line.startswith('  File "')]
    said = [line.strip() for line in lines[places[-1] + 1 if places else 0 :] if not line.startswith("    ")]
    return " ".join(filter(None, said))[:300]


class LongFirst(ParallelTestSuite):
    """Begins with the classes that say they are `long`, so that no worker is left with one when the others are done."""

    runner_class = RunnerAfar

    def __init__(self, subsuites: list[Any], *args: Any, **kwargs: Any) -> None:
        def is_short(suite: Any) -> bool:
            return not any(getattr(test, "long", False) for test in suite)

        super().__init__(sorted(subsuites, key=is_short), *args, **kwargs)


class Runner(DiscoverRunner):
    """Prints "N passed, N failed" after the usual result; gives each worker a whole copy of the database."""

    parallel_test_suite = LongFirst

    def get_resultclass(self) -> Any:
        """Return what notes results and how long each took."""
        return super().get_resultclass() or (Kept if self.parallel > 1 else Measured)

    def setup_test_environment(self, **kwargs: Any) -> None:
        """Set up as usual, with a quick way of keeping passwords and no limits of time."""
        from hypothesis import settings as hypothesis

        hypothesis.register_profile("untimed", deadline=None)  # a busy machine is slower, not wrong
        hypothesis.load_profile("untimed")
        gc.set_threshold(*RARELY)
        super().setup_test_environment(**kwargs)
        settings.PASSWORD_HASHERS = QUICK_HASHERS

    def setup_databases(self, **kwargs: Any) -> Any:
        """Make the test database, and a copy for each worker once nothing of it waits in a write-ahead log."""
        workers, self.parallel = self.parallel, 1
        made = super().setup_databases(**kwargs)
        self.parallel = workers
        if workers > 1:
            for connection, _, created in made:
                if created:
                    connection.close()
                    for number in range(workers):
                        connection.creation.clone_test_db(str(number + 1), self.verbosity, keepdb=self.keepdb)
        return made

    def suite_result(self, suite: Any, result: Any, **kwargs: Any) -> int:
        """Print the counts and which failed with their last words, and return how many failed."""
        wrong = [*result.failures, *result.errors, *((t, "") for t in getattr(result, "unexpectedSuccesses", ()))]
        words = {str(test): said for test, said in reversed(wrong)}
        # What fails as its class or module is set up is none of the tests that were run.
        run = {str(test) for test, _ in wrong if test.countTestCases()}
        print(f"{result.testsRun - len(run)} passed, {len(words)} failed", flush=True)
        for test, said in sorted(words.items()):
            print(f"failed: {test}: {last_words(said)}", flush=True)
        return int(super().suite_result(suite, result, **kwargs))
