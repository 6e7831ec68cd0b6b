"""Django's test runner, telling which tests took longest (``--durations`` of unittest itself came with Python 3.12)."""

from __future__ import annotations

import time
import unittest
from typing import Any, ClassVar

from django.test.runner import DiscoverRunner, ParallelTestSuite, RemoteTestResult, RemoteTestRunner

SHOWN = 10


class TimedResult(unittest.TextTestResult):
    """A result that notes how long each test took, in seconds. One run has one runner, so the notes are kept by the class."""

    took: ClassVar[dict[str, float]] = {}

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802 (the name is unittest's)
        self.began = time.perf_counter()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802 (the name is unittest's)
        super().stopTest(test)
        self.took.setdefault(test.id(), time.perf_counter() - self.began)

    def note(self, test: unittest.TestCase, seconds: float) -> None:
        """What another process took for a test."""
        self.took[test.id()] = seconds


class RemoteResult(RemoteTestResult):
    """What a process of several tells of its tests: their times, too."""

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802 (the name is unittest's)
        self.began = time.perf_counter()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802 (the name is unittest's)
        self.events.append(("note", self.test_index, time.perf_counter() - self.began))
        super().stopTest(test)


class RemoteRunner(RemoteTestRunner):
    """Runs tests in a process of several."""

    resultclass = RemoteResult


class TimedSuite(ParallelTestSuite):
    """Tests spread over processes."""

    runner_class = RemoteRunner


class TimedRunner(DiscoverRunner):
    """Django's runner with a list of the slowest tests at its end."""

    parallel_test_suite = TimedSuite

    def get_resultclass(self) -> type[unittest.TextTestResult]:
        return TimedResult

    def suite_result(self, suite: unittest.TestSuite, result: Any, **kwargs: Any) -> int:
        print(f"The {SHOWN} slowest tests:")
        for test, seconds in sorted(TimedResult.took.items(), key=lambda one: -one[1])[:SHOWN]:
            print(f"  {seconds:7.1f} s  {test}")
        return super().suite_result(suite, result, **kwargs)
