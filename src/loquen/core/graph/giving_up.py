"""Giving up what nobody waits for any more: long work tries one sheet after another, and asks before each."""

from collections.abc import Callable
from contextvars import ContextVar

nobody_waits: ContextVar[Callable[[], bool] | None] = ContextVar("nobody_waits", default=None)
"""What says so, in the work that is going on; None where it is to be done in any case."""


class GivenUp(BaseException):
    """Work that was given up half way; no fault, so that nothing takes it for one and keeps it."""


def heed() -> None:
    """Go on, or raise GivenUp where nobody waits for what is being worked out."""
    asked = nobody_waits.get()
    if asked is not None and asked():
        raise GivenUp
