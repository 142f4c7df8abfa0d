"""What would fit a system as it stands: kinds, how many of each, and what binds."""

import math
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, replace

from loquen.core.graph.keys import Key
from loquen.core.graph.nodes import Verdict
from loquen.core.graph.sheet import Sheet
from loquen.core.library.rows.animals import Species
from loquen.core.library.whole import Library
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.told import verdict_of

MOST = 500
FIRST_ASKED = ("water_suits", "pairs_agree", "peace_kept", "length_enough", "litres_enough", "company_fits")
"""Checks that most often keep a kind out, asked before the rest."""
BODIES = {"shrimp": "Shrimps and crayfish", "snail": "Snails", "turtle": "Turtles", "frog": "Frogs and newts"}
BODIES["salamander"] = BODIES["frog"]
LEVELS = {"bottom": "Fish of the bottom", "middle": "Fish of the middle", "top": "Fish of the surface"}


@dataclass(frozen=True, slots=True)
class Fit:
    """A kind that fits: from how many on it is at ease, up to how many all holds, what then binds, and what is left.

    `used_frac` is the part of the balance that is used with the least of them.
    """

    species: str
    common: str
    scientific: str
    group: str
    least: int
    most: int
    binds: str
    used_frac: float | None


@dataclass(frozen=True, slots=True)
class KeptOut:
    """A check that keeps so many kinds out."""

    check: str
    count: int


@dataclass(frozen=True, slots=True)
class WhatFits:
    """What fits, by group and what it leaves to spare, and what keeps out the rest."""

    fits: tuple[Fit, ...]
    kept_out: tuple[KeptOut, ...]


def group_of(kind: Species) -> str:
    return BODIES.get(kind.shape) or LEVELS.get(kind.level, "Fish of every level")


def what_fits(plan: Plan, library: Library, months_ahead: float | None = None) -> WhatFits:
    """Every kind of the library that could join this plan, alone of its kind or in company, with nothing falling short.

    A check that falls short already must not get worse. Sorted by group, then by what is left of the balance.
    """
    if len(plan.animals) >= PLAN.limits["animals"]:
        return WhatFits((), ())
    now = sheet_of(plan, library, months_ahead)
    first = sheet_of(replace(plan, animals=(*plan.animals, Group("guppy", 1))), library, months_ahead)
    row = len(plan.animals)
    whole, by_number = (in_order(first, f"animals.{row}.{name}") for name in ("species", "number"))
    before = {key: verdict_of(now, key) for key in whole}
    labels = {key: first.wiring.nodes[key].label for key in whole}
    fits, out = [], Counter[str]()
    for kind in library.species.values():
        least = 1 if kind.alone else max(1, kind.group_least)
        alike = first.changed({f"animals.{row}.species": kind.key, f"animals.{row}.number": least})
        barred = next((key for key in whole if worse(before[key], verdict_of(alike, key))), None)
        if barred is not None:
            out[labels[barred]] += 1
            continue

        def amiss(number: int, alike: Sheet[Plan] = alike) -> Key | None:
            tried = alike.changed({f"animals.{row}.number": number})
            return next((key for key in by_number if worse(before[key], verdict_of(tried, key))), None)

        most, binds = (1, None) if kind.alone else largest(least, guess(now, alike, least), amiss)
        used = alike.look("balance_frac")
        fits.append(
            Fit(
                species=kind.key,
                common=kind.common,
                scientific=kind.scientific,
                group=group_of(kind),
                least=least,
                most=most,
                binds=labels[binds] if binds else "",
                used_frac=float(used) if isinstance(used, int | float) else None,
            )
        )
    fits.sort(key=lambda fit: (fit.group, math.inf if fit.used_frac is None else fit.used_frac, fit.common))
    return WhatFits(tuple(fits), tuple(KeptOut(label, count) for label, count in out.most_common()))


def in_order(sheet: Sheet[Plan], path: str) -> list[Key]:
    """The checks that an animal's kind touches, those first that most often bar one."""
    touched = sheet.wiring.users_of(path)
    keys = [key for key, _ in sheet.wiring.checks if key in touched]
    return sorted(keys, key=lambda key: FIRST_ASKED.index(key) if key in FIRST_ASKED else len(FIRST_ASKED))


def worse(before: Verdict | None, after: Verdict | None) -> bool:
    """Whether a check now falls short that did not, or by more than it did."""
    if after is None or after.state != "short":
        return False
    return before is None or before.state != "short" or after.margin < before.margin


def guess(now: Sheet[Plan], alike: Sheet[Plan], least: int) -> int:
    """About how many would use up the balance or the litres, each being in step with their number."""
    shares = []
    for used, whole in (("balance_frac", None), ("wanted_low_l", "real_volume_l")):
        before, after = now.look(used), alike.look(used)
        limit = alike.look(whole) if whole else 1.0
        if isinstance(after, int | float) and isinstance(limit, int | float):
            start = before if isinstance(before, int | float) else 0.0
            each = (after - start) / least
            shares.append((limit - start) / each if each > 0 else float(MOST))
    return max(least, min(MOST, int(min(shares, default=float(least)))))


def largest(least: int, guessed: int, amiss: Callable[[int], Key | None]) -> tuple[int, Key | None]:
    """The largest number with which nothing is amiss, and what is with one more; at most MOST of them."""
    low, high, found = least, guessed, amiss(guessed) if guessed > least else None
    step = 1
    while found is None and high < MOST:
        low, high, step = high, min(MOST, high + step), step * 2
        found = amiss(high)
    if found is None:
        return high, None
    while high - low > 1:
        middle = (low + high) // 2
        barred = amiss(middle)
        low, high, found = (low, middle, barred) if barred is not None else (middle, high, found)
    return low, found
