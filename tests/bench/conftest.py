"""The browser's fixtures serve the bench too; what passes three times its budget fails."""

import re

import pytest

from tests.e2e.conftest import browser_context_args, browser_type_launch_args, nursery, server  # noqa: F401

MOST_OVER = 3
BUDGET = re.compile(r"budget_(\d+)_ms")


@pytest.hookimpl(wrapper=True)
def pytest_runtest_call(item):
    yield
    budget = BUDGET.search(item.name)
    timed = item.funcargs.get("benchmark")
    if budget and timed is not None and timed.stats is not None:
        milliseconds = timed.stats.stats.median * 1000
        if milliseconds > MOST_OVER * int(budget[1]):
            pytest.fail(f"{milliseconds:.0f} ms, over {MOST_OVER} times its budget of {budget[1]} ms")
