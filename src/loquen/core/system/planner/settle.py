"""Settling a plan: the changes of least effort found with which nothing falls short, pins kept.

The search is greedy with two orders, and then pruned. While something falls short, the checks are taken in turn, and the
levers that bear on one are tried from the cheapest, each from its least step, until one brings it up and nothing new down;
where none does, that which brings least new down. The other order tries every step, and takes the one that leaves least
amiss at once, even where one check only takes another's place; where no lever mends a check alone, it tries two cheap ones
at once: water that is too cold and too hard shocks until both are mended. Animals go last. No set of checks is left short
twice and none is larger than the one before, so it ends. At last every change without which nothing falls short again is
taken back, the dearest first: what stays is needed. What no lever in reach mends is named, and not said to be impossible.
"""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import combinations, islice

from loquen.core.graph.asking import number
from loquen.core.graph.keys import Key
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.roots.plan import Plan
from loquen.core.system.planner.lawful import lawful
from loquen.core.system.planner.levers import GIVEN_AWAY, LEVERS, Lever, singles, touches
from loquen.core.system.planner.standing import Changes, Standing, Takes, applied, difference, sensible
from loquen.core.system.planner.steps.changing import MOST_DAYS
from loquen.core.system.planner.steps.filters import brings_usual
from loquen.core.system.planner.words import Moved, moved
from loquen.core.system.told import verdict_of

MOST_MOVES = 14
NO_PINS: frozenset[Key] = frozenset()
PAIRED = 3.0
"""Levers up to this price are also tried two at once."""
MOST_STEPS = 8
EACH, DOUBLED = 1.5, 4.0
"""Effort of a change beside its price, and of glass for each time it is twice as large."""
ONE_STEP = 8.0
LIME = "lime"
FILTERS, FLOW = "filters", "turnover_fits"
"""The lever that buys a filter, and what it is bought for when another would do as well."""


@dataclass(frozen=True, slots=True)
class Move:
    """A change that the plan needs: what is turned, the checks that fall short without it, and what it takes more."""

    lever: Key
    label: str
    moved: tuple[Moved, ...]
    changes: Changes
    mends: tuple[str, ...]
    takes: Takes
    price: float


@dataclass(frozen=True, slots=True)
class Left:
    """A check that still falls short: why, the pins without which something would mend it, and whether animals die of it."""

    check: Key
    label: str
    reason: Sentence
    pins: tuple[Key, ...]
    kills: bool = False


@dataclass(frozen=True, slots=True)
class Settled:
    """A plan brought as far as levers reach: its changes, each needed, and what is left."""

    plan: Plan
    moves: tuple[Move, ...]
    left: tuple[Left, ...]
    before: Takes
    after: Takes
    asks: tuple[Sentence, ...] = ()
    """What has to be measured or asked after this, before all of it holds."""


@dataclass
class Trail:
    """Where a search stands, and which lever last moved which input."""

    now: Standing
    owners: dict[Key, Lever]


def settle(
    plan: Plan,
    library: Library,
    pins: frozenset[Key] = NO_PINS,
    months_ahead: float | None = None,
    levers: tuple[Lever, ...] = LEVERS,
) -> Settled:
    """The plan with the changes of least effort found that leave nothing short, none of them to a pinned input.

    Parameters:
        plan: Plan, one that does not contradict itself.
        pins: paths or beginnings of paths ("tank", "animals", "changes.weekdays") that stay as they are.
        months_ahead: months at which the animals' size is judged, or None for full grown.
        levers: what may be turned.
    Returns: Settled; `left` has the checks that nothing in reach mends.
    Source: balance
    """
    start = Standing(plan, library, months_ahead)
    end, groups = brought(start, pins, levers)
    moves = tuple(move_of(start, end, lever, changes, groups) for lever, changes in groups)
    left = tuple(left_of(end, key, levers, pins) for key in told_first(end))
    return Settled(end.plan, moves, left, start.takes(), end.takes(), end.asks())


def brought(
    start: Standing, pins: frozenset[Key] = NO_PINS, levers: tuple[Lever, ...] = LEVERS
) -> tuple[Standing, "Groups"]:
    """A plan brought as far as levers reach, and the changes that it takes, by lever."""
    free = tuple(lever for lever in levers if lever.held_by(pins) is None)
    # What lime holds in the tank may stand in the way of large changes: then hardness is poured with them.
    poured = tuple(lever for lever in free if lever.key != LIME)
    found: list[tuple[Standing, Groups]] = []
    for within, order in ((free, by_price), (free, by_reach), (poured, by_price)):
        if within is poured and any(rank(start, *one)[:2] == (0, False) for one in found):
            break
        # A step that breaks a rule may be taken back by what comes after it, so it is the end that is looked at.
        end, groups = pruned(start, searched(start, within, pins, order, strict=False))
        if lawful(start, end, mended=""):
            found.append((end, groups))
            # One change that mends all, and is no glass, can not be bettered.
            if not end.short and len(groups) <= 1 and effort(start, end, groups) <= ONE_STEP:
                break
    if not found:
        found.append(pruned(start, searched(start, free, pins, by_reach, strict=True)))
    end, groups = min(found, key=lambda one: rank(start, *one))
    return with_usual_flow(start, end, groups)


def with_usual_flow(start: Standing, end: Standing, groups: "Groups") -> tuple[Standing, "Groups"]:
    """The same changes, but a filter that is bought anyway brings what is usual in the glass that there is in the end."""
    bought = next(((lever, changes) for lever, changes in groups if lever.key == FILTERS), None)
    if bought is None or brings_usual(end):
        return end, groups
    lever, changes = bought
    for plan in lever.steps(end, FLOW):
        then = Standing(plan, start.library, start.months_ahead)
        if sensible(plan, start.library) and brings_usual(then) and then.short <= end.short:
            moved_now = difference(start.plan, plan)
            own = {path: value for path, value in moved_now.items() if any(touches(m, path) for m in lever.moves)}
            return then, [(one, own if had is changes else had) for one, had in groups]
    return end, groups


def ordered(now: Standing) -> list[Key]:
    """What falls short, in the order of the book: animals and glass before what hangs on them."""
    return [key for key, _ in now.sheet.wiring.checks if key in now.short]


KILLING = (
    "pairs_agree",
    "peace_kept",
    "treated",
    "dawn_breathes",
    "land_suits",
    "depth_suits",
    "none_leaves",
    "water_suits",
    "summer_borne",
    "winter_borne",
    "dead_heater_held",
    "stuck_heater_borne",
    "media_carry",
    "stays_covered",
    "copper_borne",
    "bag_opens",
    "uvb_reaches",
    "basks",
)
"""Checks of which animals die, those that die first on top."""


def told_first(end: Standing) -> list[Key]:
    """What is left, as it is told: what kills first, then the rest in the order of the book."""
    left = ordered(end)
    return sorted(left, key=lambda key: KILLING.index(key) if key in KILLING else len(KILLING))


Order = Callable[[Standing, Standing, Lever], tuple[float, ...]]


def by_price(now: Standing, then: Standing, lever: Lever) -> tuple[float, ...]:
    """The cheapest first, of those that bring least new down; of one lever the least step."""
    return (len(then.short - now.short), lever.price)


def by_reach(now: Standing, then: Standing, lever: Lever) -> tuple[float, ...]:
    """What leaves least amiss first."""
    return (len(then.short), lever.price)


Chain = tuple[tuple[Lever, Standing], ...]
"""Levers one after the other, and where the plan stands after each."""


def searched(start: Standing, levers: tuple[Lever, ...], pins: frozenset[Key], order: Order, strict: bool) -> Trail:
    trail = Trail(start, {})
    seen = {start.short}
    for _ in range(MOST_MOVES):
        chain = next_steps(trail.now, levers, pins, order, seen, strict)
        for lever, then in chain:
            for path in difference(trail.now.plan, then.plan):
                trail.owners[path] = lever
            trail.now = Standing(then.plan, start.library, start.months_ahead)
        if not chain:
            break
        seen.add(trail.now.short)
    return trail


def next_steps(
    now: Standing,
    levers: tuple[Lever, ...],
    pins: frozenset[Key],
    order: Order,
    seen: set[frozenset[Key]],
    strict: bool,
) -> Chain:
    """What mends the first check that anything mends: one lever, else two at once, and only then fewer animals."""
    kept = tuple(lever for lever in levers if lever.price < GIVEN_AWAY)
    away = tuple(lever for lever in levers if lever.price >= GIVEN_AWAY)
    short = ordered(now)
    for target in short:
        if found := best_step(now, target, kept, pins, order, seen, strict):
            return (found,)
    for target in short if order is by_reach else ():
        if found_two := pair(now, target, kept, pins, strict):
            return found_two
    for target in short:
        if found := best_step(now, target, away, pins, order, seen, strict):
            return (found,)
    return ()


def best_step(
    now: Standing,
    target: Key,
    levers: tuple[Lever, ...],
    pins: frozenset[Key],
    order: Order,
    seen: set[frozenset[Key]],
    strict: bool,
) -> tuple[Lever, Standing] | None:
    """The lever and its least step that brings a check up, by an order; None where none does and leaves less amiss."""
    found: list[tuple[tuple[float, ...], int, Lever, Standing]] = []
    for lever in candidates(now, target, levers, pins):
        cheapest = min(found, default=None)
        if order is by_price and cheapest is not None and (0, lever.price) > cheapest[0]:
            break
        for plan in lever.steps(now, target):
            then = now.other(plan)
            if not then.holds(target):
                continue
            # Where all is tried, one check may take another's place: a filter's warmth asks for a chiller.
            fewer = 1 if order is by_price else 0
            if then.short in seen or len(then.short) > len(now.short) - fewer:
                continue
            if not (lawful(now, then, target) if strict else sensible(plan, now.library)):
                continue
            found.append((order(now, then, lever), len(found), lever, then))
            if not then.short - now.short and (order is by_price or not then.short):
                break
    if not found:
        return None
    _, _, lever, then = min(found)
    return lever, then


def pair(now: Standing, target: Key, levers: tuple[Lever, ...], pins: frozenset[Key], strict: bool) -> Chain:
    """Two cheap levers that bring a check up together and nothing new down, one after the other; none where none do."""
    cheap = [lever for lever in candidates(now, target, levers, pins) if lever.price <= PAIRED]
    for one, other in combinations(cheap, 2):
        for plan in islice(one.steps(now, target), MOST_STEPS):
            half = now.other(plan) if sensible(plan, now.library) else None
            if half is None or not half.short <= now.short:
                continue
            for whole in islice(other.steps(half, target), MOST_STEPS):
                then = half.other(whole) if sensible(whole, now.library) else None
                if (
                    then is not None
                    and then.short < now.short
                    and target not in then.short
                    and (not strict or lawful(now, then, target))
                ):
                    return ((one, half), (other, then))
    return ()


def candidates(now: Standing, target: Key, levers: tuple[Lever, ...], pins: frozenset[Key]) -> Iterator[Lever]:
    """Levers that bear on a check, the cheapest first; what the check names itself among them."""
    own = [lever for lever in singles(now, target) if lever.held_by(pins) is None]
    bearing = [lever for lever in levers if lever.bears_on(now, target)]
    yield from sorted([*bearing, *own], key=lambda lever: lever.price)


Groups = list[tuple[Lever, Changes]]


def pruned(start: Standing, trail: Trail) -> tuple[Standing, Groups]:
    """The end of a trail without the changes it does not need, the dearest tried first."""
    groups: dict[int, tuple[Lever, Changes]] = {}
    for path, value in difference(start.plan, trail.now.plan).items():
        owner = trail.owners.get(path) or next(
            lever for moved, lever in trail.owners.items() if touches(moved, path)
        )
        groups.setdefault(id(owner), (owner, {}))[1][path] = value
    kept = sorted(groups.values(), key=lambda group: -group[0].price)
    end = trail.now
    shorter = True
    while shorter:
        shorter = False
        for group in list(kept):
            without = together(start.plan, [other for other in kept if other is not group])
            then = end.other(without) if sensible(without, start.library) else None
            if then is not None and then.short <= end.short:
                kept.remove(group)
                end, shorter = Standing(without, start.library, start.months_ahead), True
    return end, sorted(kept, key=lambda group: group[0].price)


def together(plan: Plan, groups: Groups) -> Plan:
    changes: Changes = {}
    for _, own in groups:
        changes.update(own)
    return applied(plan, changes)


def rank(start: Standing, end: Standing, groups: Groups) -> tuple[float, ...]:
    """Least left over, then no animal given away, then the least effort, then the fewest changes."""
    away = any(lever.price >= GIVEN_AWAY for lever, _ in groups)
    return (len(end.short), away, effort(start, end, groups), len(groups))


def effort(start: Standing, end: Standing, groups: Groups) -> float:
    """What changes ask of a keeper: each its price and a step of its own, glass more by how much larger it is, and every day
    a week beyond a few on which water is changed."""
    litres, before = number(end.sheet, "real_volume_l"), number(start.sheet, "real_volume_l")
    grown = math.log2(litres / before) if litres and before and litres > before else 0.0
    days = len(end.plan.changes.weekdays) - max(MOST_DAYS, len(start.plan.changes.weekdays))
    return sum(EACH + lever.price for lever, _ in groups) + DOUBLED * grown + EACH * max(0, days)


def move_of(start: Standing, end: Standing, lever: Lever, changes: Changes, groups: Groups) -> Move:
    without = end.other(together(start.plan, [group for group in groups if group[1] is not changes]))
    nodes = end.sheet.wiring.nodes
    mends = tuple(nodes[key].label for key in ordered(without) if key not in end.short)
    with_it, less = end.takes(), without.takes()
    more = Takes(*(getattr(with_it, name) - getattr(less, name) for name in Takes.__slots__))
    return Move(
        lever.key, lever.label, tuple(moved(end.sheet, start.plan, changes)), changes, mends, more, lever.price
    )


def left_of(end: Standing, key: Key, levers: tuple[Lever, ...], pins: frozenset[Key]) -> Left:
    """A check that is left, with the pins that hold what would mend it."""
    verdict = verdict_of(end.sheet, key)
    assert verdict is not None
    held = set()
    for lever in (*levers, *singles(end, key)):
        pin = lever.held_by(pins)
        if pin is None or pin in held or not lever.bears_on(end, key):
            continue
        if any(end.other(plan).holds(key) for plan in lever.steps(end, key) if sensible(plan, end.library)):
            held.add(pin)
    label = end.sheet.wiring.nodes[key].label
    return Left(key, label, verdict.reason, tuple(sorted(held)), key in KILLING)
