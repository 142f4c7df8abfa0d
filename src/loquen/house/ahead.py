"""Making what pages will ask for next, one thing whenever nobody waits for anything."""

from collections.abc import Callable
from typing import Any

from loquen.house.house import Visit
from loquen.store.documents.systems import Current

Later = Callable[[Callable[[], None]], None]
"""Has some work done when nobody waits for anything else."""


def make_ahead(visit: Visit, make: Callable[[Visit, Current], Any], systems: list[Current], later: Later) -> None:
    """Make of one system what is not made, and see to the next when a worker is free again."""
    unknown = [system for system in systems if not visit.knows(make, system)]
    if unknown:
        visit.kept(make, unknown[0])
        later(lambda: make_ahead(visit, make, unknown[1:], later))
