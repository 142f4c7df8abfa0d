"""The likely values of what happens in water, by name."""

from functools import cache
from types import SimpleNamespace

from loquen.core.data.tables import constants


@cache
def table() -> SimpleNamespace:
    """Those of cycle.toml and course.toml."""
    rows = {**constants("cycle.toml"), **constants("course.toml")}
    return SimpleNamespace(**{name: float(row.value) for name, row in rows.items()})
