"""Other changes: which days, how much, easy on animals and keeper or not."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import chain

from loquen.core.graph.judging import TIGHT_FRAC
from loquen.core.graph.keys import Key
from loquen.core.library.whole import Library
from loquen.core.model.roots.plan import Plan
from loquen.core.system.planner.practice import usual
from loquen.core.system.planner.standing import Standing

MOST_AT_ONCE, DELICATE_AT_ONCE = usual("change_at_once_frac"), usual("delicate_at_once_frac")
MOST_DAYS = int(usual("change_days_a_week"))
EASY, BRISK, HARD = range(3)
SHARES = tuple(n / 100 for n in range(10, 80, 5))


def delicate(plan: Plan, library: Library) -> bool:
    """Whether any of its animals bears little at a change."""
    return any(library.species[group.species].shock_class == "sensitive" for group in plan.animals)


def roughness(plan: Plan, weekdays: tuple[str, ...], change_frac: float, library: Library) -> int:
    """How much such changes ask of animals and keeper: easy; brisk, where delicate ones get what others have; hard, where it
    is much at once, or many days."""
    if change_frac > MOST_AT_ONCE or len(weekdays) > MOST_DAYS:
        return HARD
    return BRISK if delicate(plan, library) and change_frac > DELICATE_AT_ONCE else EASY


def regimes_that_hold(now: Standing, rough: int, of_limit: float = 1.0) -> Iterator[Plan]:
    """The regime of least work, of those as rough, that holds nitrate within a part of the limit."""
    found = now.sheet.look("regimes")
    limit = of_limit * now.plan.changes.target_nitrate_mg_l
    for row in found if isinstance(found, tuple) else ():
        holds = row.peak_nitrate_mg_l <= limit and not row.shocks
        if holds and roughness(now.plan, row.weekdays, row.change_frac, now.library) == rough:
            rhythm = {"regime": "weekdays", "weekdays": row.weekdays, "change_frac": row.change_frac}
            yield replace(now.plan, changes=replace(now.plan.changes, **rhythm))
            return


def regime(now: Standing, _: Key) -> Iterator[Plan]:
    """The regime of least work that is easy on animals and keeper."""
    return regimes_that_hold(now, EASY)


def hard_regime(now: Standing, _: Key) -> Iterator[Plan]:
    """The regime of least work that takes more than delicate ones like, then that which takes much at once, or many days."""
    return chain(regimes_that_hold(now, BRISK), regimes_that_hold(now, HARD))


def regimes_to_propose(now: Standing) -> Iterator[Plan]:
    """Regimes from the easiest, of each kind first that which holds with some nitrate to spare."""
    for rough in (EASY, BRISK, HARD):
        yield from regimes_that_hold(now, rough, 1 - TIGHT_FRAC)
        yield from regimes_that_hold(now, rough)


def shares(now: Standing, easy: bool) -> Iterator[Plan]:
    """Other shares on the days that there are, those nearest to the present one first."""
    changes = now.plan.changes
    for frac in sorted(SHARES, key=lambda frac: abs(frac - changes.change_frac)):
        if (frac <= (DELICATE_AT_ONCE if delicate(now.plan, now.library) else MOST_AT_ONCE)) == easy:
            yield replace(now.plan, changes=replace(changes, change_frac=frac))


def share(now: Standing, _: Key) -> Iterator[Plan]:
    """Shares that are easy on these animals."""
    return shares(now, True)


def large_share(now: Standing, _: Key) -> Iterator[Plan]:
    """Shares that are much at once, for a keeper with no more days."""
    return shares(now, False)
