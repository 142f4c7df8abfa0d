"""The browser's fixtures serve the bench too."""

from tests.e2e.conftest import browser_context_args, browser_type_launch_args, server  # noqa: F401
