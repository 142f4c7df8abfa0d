"""What was tried against nitrate, judged by the readings before and since."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from loquen.core.errors import NamedCase
from loquen.core.events.kinds.keeping import Tried
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import days_since
from loquen.core.fit import nitrate as fitting
from loquen.core.fit.nitrate import Fitted
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.nitrate.entries import ended, prior_of

LEAST_BEFORE = 3
"""Readings before, without which no effect is told from what was."""
BEFORE_D = 365
"""How long before still tells of the same tank."""
WIDE_RANGE = 5.0
"""90 % times or divided by of what is made: the readings before say it, the plan hardly."""
NO_BEFORE = "no readings before"


@dataclass(frozen=True, slots=True)
class Experiment:
    """Something that was tried, and what the log says of it."""

    entry: str
    since: float
    until: float | None
    verdict: str
    odds: float | None
    low: float
    likely: float
    high: float
    sentence: Sentence


def experiments(
    sheet: Sheet[Plan], log: Sequence[Logged], entries: Sequence[dict[str, Any]], now: datetime
) -> tuple[Experiment, ...]:
    """Each experiment judged by the readings before and since; without those before nothing is said of it."""
    found = []
    for row in log:
        tried = row.event
        if not isinstance(tried, Tried):
            continue
        since = -days_since(row.at, now)
        until = ended(tried, now)
        rows = [entry for entry in entries if until is None or entry["day"] <= until]
        name = tried.what or tried.note or "experiment"
        before = [
            entry for entry in rows if entry["kind"] == "reading" and since - BEFORE_D <= entry["day"] <= since
        ]
        if len(before) < LEAST_BEFORE:
            found.append(
                Experiment(name, since, until, NO_BEFORE, None, 0.0, 0.0, 0.0, without_before(name, len(before)))
            )
            continue
        prior = {**prior_of(sheet, since), "made_range_x": WIDE_RANGE}
        try:
            fitted = fitting.fit(prior=prior, log=rows)
        except NamedCase:
            continue
        assert fitted.effect_mg_l_d is not None
        low, likely, high = (value / NITRATE_PER_N for value in fitted.effect_mg_l_d)
        read_since = sum(entry["kind"] == "reading" and entry["day"] > since for entry in rows)
        sentence = verdict_words(fitted, name, read_since, prior)
        found.append(
            Experiment(name, since, until, str(fitted.verdict), fitted.effect_odds, low, likely, high, sentence)
        )
    return tuple(found)


def without_before(name: str, read: int) -> Sentence:
    """That nothing can be said of what was tried, and how it could."""
    text = (
        "No verdict: {read} readings before {name}, and what it does can not be told from what was. Take it out for some "
        "weeks with a reading in each, or set the tank beside another that is fed alike."
    )
    if read == 1:
        text = text.replace("{read} readings", "one reading")
    if read == 0:
        text = text.replace("{read} readings", "no reading")
    return say(text, name=name, read=Term(read, "count"))


def verdict_words(fitted: Fitted, name: str, read_since: int, prior: dict[str, Any]) -> Sentence:
    """An experiment's verdict in a sentence."""
    assert fitted.effect_mg_l_d is not None
    low, likely, high = (value / NITRATE_PER_N for value in fitted.effect_mg_l_d)
    terms = {
        "likely": Term(likely, "nitrate_rate"),
        "low": Term(low, "nitrate_rate"),
        "high": Term(high, "nitrate_rate"),
        "odds": Term(fitted.effect_odds or 0.0, "share"),
        "name": Term(name),
    }
    if fitted.verdict == "real":
        return say("Real: {name} takes {likely}, {low} to {high}.", **terms)
    if fitted.verdict == "nothing to see":
        return say("Nothing to see: {name} takes at most {high}, less than a quarter of what is made.", **terms)
    more = weeks_wanted(fitted, read_since, prior)
    terms["more"] = Term(more, "count")
    text = (
        "Can not tell yet: {low} to {high}, {odds} that it takes anything. About {more} more weekly readings would."
    )
    if more > 26:
        text = (
            "Can not tell, {low} to {high}: a sink under a third of what is made can not be seen with such a chart in months. "
            "A photometer would."
        )
    return say(text, **terms)


def weeks_wanted(fitted: Fitted, read_since: int, prior: dict[str, Any]) -> float:
    """Weekly readings until an effect of the likely size, a third of what is made at least, would be told from none."""
    assert fitted.effect_mg_l_d is not None
    low, likely, high = fitted.effect_mg_l_d
    deviation = (high - low) / (2 * 1.645)
    size = max(abs(likely), 0.33 * fitted.made_mg_l_d[1])
    # The interval shrinks about with the number of readings.
    wanted = max(read_since, 2) * 1.645 * deviation / size
    return float(max(1, math.ceil(wanted - read_since)))
