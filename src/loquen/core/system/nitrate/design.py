"""An experiment before it is made: how many weeks before, with and without, and what it would then be able to show."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise, product
from typing import Any

from loquen.core.fit.design import telling_odds, telling_odds_beside
from loquen.core.fit.likelihood import BLUR
from loquen.core.graph.asking import number
from loquen.core.graph.keys import Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.system.nitrate.entries import SOURCE_RANGE, UNMETERED_CHART, prior_of, readings_in
from loquen.core.system.nitrate.experiments import WIDE_RANGE

THIRD, HALF = 1 / 3, 1 / 2
SURE_OF_HALF = 0.8
LEAST_TO_PROMISE = 0.4
BEFORE, WITH, WITHOUT = (4, 6, 8, 12), (4, 6, 8, 12, 16), (0, 4)
DULLED = 1.1
"""Times wider that readings are for the few of them that are mistakes."""
LEAST_SHARE = 0.05


@dataclass(frozen=True, slots=True)
class Design:
    """Weeks with a reading in each, and the chance that a sink of a third and of a half of what is made is then seen."""

    weeks_before: int
    weeks_with: int
    weeks_without: int
    odds_third: float
    odds_half: float
    weeks_beside: int
    """With a reading in each, in this tank and another that is fed alike and goes without."""
    odds_half_beside: float
    sentence: Sentence


def design(sheet: Sheet[Plan], entries: Sequence[dict[str, Any]]) -> Design:
    """The shortest experiment in which half of what is made would be seen four times of five, or the longest there is."""
    tank = read_weekly(sheet)

    def odds(effect_frac: float, way: tuple[int, int, int]) -> float:
        before, with_it, without = way
        return telling_odds(
            effect_frac=effect_frac, weeks_before=before, weeks_with=with_it, weeks_without=without, **tank
        )

    ways = sorted(product(BEFORE, WITH, WITHOUT), key=lambda way: (sum(way), way[2]))
    chosen = next((way for way in ways if odds(HALF, way) >= SURE_OF_HALF), ways[-1])
    by_weeks = {weeks: telling_odds_beside(effect_frac=HALF, weeks=weeks, **tank) for weeks in WITH}
    beside = next((weeks for weeks, chance in by_weeks.items() if chance >= SURE_OF_HALF), WITH[-1])
    before, with_it, without = chosen
    had = min(before, readings_in(entries))
    third, half = odds(THIRD, chosen), odds(HALF, chosen)
    terms = {
        "before": Term(before, "count"),
        "with_it": Term(with_it, "count"),
        "without": Term(without, "count"),
        "half": Term(half, "share"),
        "third": Term(third, "share"),
        "had": Term(had, "count"),
        "beside": Term(beside, "count"),
        "odds_beside": Term(by_weeks[beside], "share"),
    }
    if half < LEAST_TO_PROMISE and by_weeks[beside] < LEAST_TO_PROMISE:
        text = "Too little is made here to see a sink by colour readings: {before} weeks before it and {with_it} with it show one of half with {half}. A photometer would show it sooner."
        return Design(*chosen, third, half, beside, by_weeks[beside], say(text, **terms))
    text = "A reading each week: {before} weeks before it, {with_it} with it"
    text += ", {without} without it again" if without else ""
    if had:
        text += " (you have {had} before)"
    text += ". Then {half} that a sink of half of what is made is seen, and {third} for one of a third."
    text += " Or beside another tank of the same feeding that goes without: {beside} weeks of readings in both, {odds_beside} for a half."
    return Design(
        *chosen, third, half, beside, by_weeks[beside], say(text + " Feed and change alike all the while.", **terms)
    )


def read_weekly(sheet: Sheet[Plan]) -> dict[str, float]:
    """This tank as an experiment in it is reckoned: read off a colour chart each week."""
    prior = prior_of(sheet)
    ratios = [math.log(b / a) for a, b in pairwise(UNMETERED_CHART[1:])]
    step_sd = sum(ratios) / len(ratios) / math.sqrt(12)
    return {
        "made_mg_l_d": prior["made_from_feed_mg_l_d"],
        "made_range_x": WIDE_RANGE,
        "source_mg_l": prior["source_report_mg_l"],
        "source_range_x": SOURCE_RANGE,
        "weekly_share": max(weekly_share(sheet), LEAST_SHARE),
        "reading_sd": DULLED * math.hypot(BLUR, step_sd),
    }


def weekly_share(sheet: Sheet[Plan]) -> float:
    """What is exchanged in a week, as one change."""
    share, gaps = number(sheet, "swapped_frac"), sheet.look("gaps_d")
    if share is None or isinstance(gaps, Missing):
        return 0.0
    return float(1 - (1 - min(share, 0.999)) ** (7 * len(gaps) / sum(gaps)))
