"""Filters of other sizes or more of them, and air."""

import math
from collections.abc import Iterable, Iterator
from dataclasses import replace

from loquen.core.graph.asking import number
from loquen.core.graph.keys import Key
from loquen.core.library.whole import Library
from loquen.core.model.parts.running import Filter
from loquen.core.model.roots.plan import Plan
from loquen.core.system.planner.practice import usual
from loquen.core.system.planner.standing import Standing

STONES_LPH = (60.0, 120.0, 240.0, 480.0, 960.0)
MOST_FILTERS = 6
BRISK = usual("brisk_times")
"""Of the most turnover that is usual, what a proposed filter brings at most; keepers' practice, unverified."""
NEAR_USUAL = usual("near_usual_frac")
"""Of the turnover that is usual, what a proposed filter brings at least."""


def surface(now: Standing, _: Key) -> Iterator[Plan]:
    """The surface moved, then air through stones."""
    air = now.plan.air
    for movement in ("ripple", "strong"):
        if ("still", "ripple", "strong").index(movement) > ("still", "ripple", "strong").index(
            air.surface_movement
        ):
            yield replace(now.plan, air=replace(air, surface_movement=movement))
    for lph in STONES_LPH:
        if lph > air.stones_lph:
            yield replace(now.plan, air=replace(air, surface_movement="strong", stones_lph=lph))


def filter_of(key: str, library: Library) -> Filter:
    """A library filter as a row of a plan."""
    model = library.filter_models[key]
    return Filter(
        filter_kind=model.kind,
        media=model.media_key,
        media_l=model.media_l,
        rated_lph=model.rated_lph,
        holds_l=model.holds_l,
        filter_w=model.watts,
    )


def sold_filters(kind: str, library: Library) -> list[Filter]:
    """The filters of a kind that are sold, the smallest first."""
    models = [(model.rated_lph, key) for key, model in library.filter_models.items() if model.kind == kind]
    return [filter_of(key, library) for _, key in sorted(models)]


def storms(now: Standing) -> bool:
    """Whether filters turn the water over far more often than its animals want."""
    turns, high = number(now.sheet, "turnover_per_h"), number(now.sheet, "turnover_high_per_h")
    return turns is not None and high is not None and turns > BRISK * high


def flow_of(rows: Iterable[Filter], library: Library) -> float:
    """What filters really move, L/h."""
    kinds = library.filter_kinds
    return sum(row.measured_lph or row.rated_lph * kinds[row.filter_kind].flow_share for row in rows)


def filters(now: Standing, _: Key) -> Iterator[Plan]:
    """A canister of another size in place of the smallest filter, then more beside them, up to six; none that turns the
    water over far more often than they want."""
    turns, litres, high = (
        number(now.sheet, key) for key in ("turnover_per_h", "real_volume_l", "turnover_high_per_h")
    )
    most = math.inf if turns is None or high is None else max(turns, BRISK * high)
    for plan in filtered(now.plan, now.library):
        more_lph = flow_of(plan.filters, now.library) - flow_of(now.plan.filters, now.library)
        if turns is None or not litres or turns + more_lph / litres <= most:
            yield plan


def brings_usual(now: Standing) -> bool:
    """Whether filters turn the water over about as often as is usual for its animals, or nobody can say how often that is."""
    turns, low = number(now.sheet, "turnover_per_h"), number(now.sheet, "turnover_low_per_h")
    return turns is None or low is None or turns >= NEAR_USUAL * low


def filtered(plan: Plan, library: Library) -> Iterator[Plan]:
    own = plan.filters
    sold = sold_filters("canister", library)
    weakest = min(range(len(own)), key=lambda i: own[i].rated_lph, default=None)
    if weakest is not None:
        for model in sorted(sold, key=lambda model: abs(model.rated_lph - own[weakest].rated_lph)):
            if model.rated_lph != own[weakest].rated_lph:
                kept = replace(model, maturity_frac=own[weakest].maturity_frac)
                yield replace(plan, filters=(*own[:weakest], kept, *own[weakest + 1 :]))
    for more in range(1, MOST_FILTERS - len(own) + 1):
        # Several more are of the largest: nobody hangs four small ones side by side.
        for model in sold if more == 1 else sold[-1:]:
            yield replace(plan, filters=(*own, *[model] * more))
