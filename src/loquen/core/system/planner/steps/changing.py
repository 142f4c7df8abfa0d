"""Other changes: which days, how much, easy on animals and keeper or not."""

from collections.abc import Iterator
from dataclasses import replace

from loquen.core.data import library
from loquen.core.graph.engine import Key
from loquen.core.model.plan import Plan
from loquen.core.system.planner.standing import Standing

MOST_AT_ONCE, DELICATE_AT_ONCE, MOST_DAYS = 0.5, 0.3, 3
"""Of its water that a proposed plan changes at a time, and days a week, where that holds; keepers' practice, unverified."""
SHARES = tuple(n / 100 for n in range(10, 80, 5))


def delicate(plan: Plan) -> bool:
    """Whether any of its animals bears little at a change."""
    return any(library.species()[group.species].shock_class == "sensitive" for group in plan.animals)


def is_easy(plan: Plan, weekdays: tuple[str, ...], change_frac: float) -> bool:
    """Whether such changes take little enough at once for these animals, on few enough days for a keeper."""
    most = DELICATE_AT_ONCE if delicate(plan) else MOST_AT_ONCE
    return change_frac <= most and len(weekdays) <= MOST_DAYS


def regimes_that_hold(now: Standing, easy: bool) -> Iterator[Plan]:
    """The regime of least work that holds on the days the keeper is there, of those that are easy or of the others."""
    found = now.sheet.look("regimes")
    limit = now.plan.changes.target_nitrate_mg_l
    for row in found if isinstance(found, tuple) else ():
        holds = row.peak_nitrate_mg_l <= limit and not row.shocks
        if holds and is_easy(now.plan, row.weekdays, row.change_frac) == easy:
            rhythm = {"regime": "weekdays", "weekdays": row.weekdays, "change_frac": row.change_frac}
            yield replace(now.plan, changes=replace(now.plan.changes, **rhythm))
            return


def regime(now: Standing, _: Key) -> Iterator[Plan]:
    """The regime of least work that is easy on animals and keeper."""
    return regimes_that_hold(now, True)


def hard_regime(now: Standing, _: Key) -> Iterator[Plan]:
    """The regime of least work that takes much at once, or many days."""
    return regimes_that_hold(now, False)


def shares(now: Standing, easy: bool) -> Iterator[Plan]:
    """Other shares on the days that there are, those nearest to the present one first."""
    changes = now.plan.changes
    for frac in sorted(SHARES, key=lambda frac: abs(frac - changes.change_frac)):
        if (frac <= (DELICATE_AT_ONCE if delicate(now.plan) else MOST_AT_ONCE)) == easy:
            yield replace(now.plan, changes=replace(changes, change_frac=frac))


def share(now: Standing, _: Key) -> Iterator[Plan]:
    """Shares that are easy on these animals."""
    return shares(now, True)


def large_share(now: Standing, _: Key) -> Iterator[Plan]:
    """Shares that are much at once, for a keeper with no more days."""
    return shares(now, False)
