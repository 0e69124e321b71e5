"""Django's test runner, closing with one plain line of counts."""

from typing import Any

from django.test.runner import DiscoverRunner


class Runner(DiscoverRunner):
    """Prints "N passed, N failed" after the usual result."""

    def suite_result(self, suite: Any, result: Any, **kwargs: Any) -> int:
        """Print the counts and return how many tests failed."""
        wrong = [*result.failures, *result.errors, *((t, "") for t in getattr(result, "unexpectedSuccesses", ()))]
        failed = len({str(test) for test, _ in wrong})
        print(f"{result.testsRun - failed} passed, {failed} failed", flush=True)
        return int(super().suite_result(suite, result, **kwargs))
