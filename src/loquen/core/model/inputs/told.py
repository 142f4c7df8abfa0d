"""What a keeper told of a plan: which inputs, and on which day they were read."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from datetime import date

from loquen.core.model.parts.running import Told
from loquen.core.model.roots.plan import PLAN, Plan


def read_on(path: str, told_on: Iterable[str]) -> str:
    """The day on which an input was read; empty where none is known, or it never was."""
    return next((row.partition(" ")[2] for row in told_on if row.partition(" ")[0] == path), "")


def is_told(path: str, told_on: Iterable[str]) -> bool:
    """Whether the keeper told an input, on whatever day."""
    return any(row.partition(" ")[0] == path for row in told_on)


def with_told(plan: Plan, days: Mapping[str, str]) -> Plan:
    """The plan with some inputs told, each on its day, or on none."""
    kept = [row for row in plan.told.told_on if row.partition(" ")[0] not in days]
    rows = [f"{path} {day}".strip() for path, day in days.items()]
    return replace(plan, told=Told((*kept, *rows)))


def is_row(row: str) -> bool:
    """Whether a row names an input that there is, and a day or none."""
    path, _, day = row.partition(" ")
    if PLAN.entry_at(path) is None:
        return False
    try:
        return not day or bool(date.fromisoformat(day))
    except ValueError:
        return False
