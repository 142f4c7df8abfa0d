"""Nitrate readings and changes: what is really made, what the source brings, and whether a new sink does anything."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from loquen.core.errors import NamedCase, UnknownKey
from loquen.core.fit.likelihood import ANYTHING, BLUR, alternatives, likelihood, within
from loquen.core.fit.posterior import SAMPLES, Posterior, sampled
from loquen.core.model.records.readings import Interval, interval
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.physics.ranges import within as in_range

Verdict = Literal["real", "can not tell yet", "nothing to see"]
Triple = tuple[float, float, float]
OF_A_RANGE = 1.645
EFFECT_OF_MADE = (-1.0, 2.0)
"""Prior of a sink's effect, in parts of what is made: flat, and never cut at zero."""
NOTHING_UNDER = 0.25
"""Of what is made: an effect that is surely smaller is nothing to see."""
TOO_FAST = 3.0
"""Times all that feed could make: a rise that no tank makes."""
LIKELIER = 10.0
SURELY_WRONG = 0.8
WIDE_RANGE = 10.0
"""90 % times or divided by of what is made, once most readings say that the plan is mistaken."""
LOG_MOST = math.log(600.0)
"""Of a first level, mg/L of the ion."""


@dataclass(frozen=True, slots=True)
class Fitted:
    """What a log says, each as 5, 50 and 95 %, nitrate as the ion."""

    made_mg_l_d: Triple
    source_mg_l: Triple
    effect_mg_l_d: Triple | None
    verdict: Verdict | None
    asks: tuple[Mapping[str, Any], ...]
    effect_odds: float | None
    """Probability that the sink takes anything at all."""
    level_mg_l: Triple
    """At the last entry, after it."""


@dataclass(frozen=True, slots=True)
class Step:
    """An entry in its order: a reading with its interval, or a change with its share."""

    day: float
    read: Interval | None = None
    share: float = 0.0
    blur: float = BLUR


def fit(*, prior: Mapping[str, Any], log: Sequence[Mapping[str, Any]]) -> Fitted:
    """What a log of nitrate readings and changes says.

    Equation: dN/dt = made − effect (from its date), N → N + share·(source − N) at a change; censored log-normal
        readings; samples of the posterior
    Parameters:
        prior: made_from_feed_mg_l_d and made_range_x, source_report_mg_l and source_range_x (90 % times or divided
            by), sink_date_day or None, chart (steps), kit_says "ion" or "n".
        log: entries with day, kind "reading" (value as text, when "before the change" or "after the change", blur where it
            is known) or "change" (share).
    Returns: a Fitted.
    Raises: NamedCase "nothing_read"; OutOfRange; UnknownKey.
    Source: practice
    """
    in_range("made_from_feed_mg_l_d", prior["made_from_feed_mg_l_d"], 0, 1000, "mg/L/d")
    in_range("source_report_mg_l", prior["source_report_mg_l"], 0, 1000, "mg/L")
    chart = tuple(prior.get("chart") or ())
    says = prior.get("kit_says", "ion")
    if says not in ("ion", "n"):
        raise UnknownKey("what a kit may say", says)
    as_said = steps_of(log, chart, NITRATE_PER_N if says == "n" else 1.0)
    found, wide = posterior(prior, as_said), False
    if 2 * len(strange_days(doubts(prior, as_said, found))) > sum(step.read is not None for step in as_said):
        # Most of what was read is not what is mistaken: the plan is.
        prior, wide = {**prior, "made_range_x": WIDE_RANGE}, True
        found = posterior(prior, as_said)
    other = posterior(prior, steps_of(log, chart, 1.0 if says == "n" else NITRATE_PER_N))
    asks: list[Mapping[str, Any]] = [{"about": "plan"}] if wide else []
    if other.log_evidence - found.log_evidence > math.log(LIKELIER):
        asks.append({"about": "as_ion" if says == "n" else "as_n"})
    asks += [{"about": "reading", "day": day} for day in impossible(prior, as_said, found)]
    return told(prior, as_said, found, tuple(asks))


def told(
    prior: Mapping[str, Any], steps: Sequence[Step], found: Posterior, asks: tuple[Mapping[str, Any], ...]
) -> Fitted:
    """The figures of a posterior."""
    made, source, _, effect = parameters(found.samples, prior)
    verdict, odds, size = None, None, None
    if prior.get("sink_date_day") is not None:
        size = found.quantiles(effect)
        share = found.quantiles(effect / made)
        odds = found.mean(effect > 0)
        if size[0] > 0:
            verdict = "real"
        elif share[2] < NOTHING_UNDER:
            verdict = "nothing to see"
        else:
            verdict = "can not tell yet"
    level = list(levels(found.samples, prior, steps))[-1]
    return Fitted(
        made_mg_l_d=found.quantiles(made),  # type: ignore[arg-type]
        source_mg_l=found.quantiles(source),  # type: ignore[arg-type]
        effect_mg_l_d=size,  # type: ignore[arg-type]
        verdict=verdict,  # type: ignore[arg-type]
        asks=asks,
        effect_odds=odds,
        level_mg_l=found.quantiles(level),  # type: ignore[arg-type]
    )


def steps_of(log: Sequence[Mapping[str, Any]], chart: Sequence[float], factor: float) -> tuple[Step, ...]:
    """Entries in their order: on one day what was read before the change, the change, what was read after it."""
    rank = {"before the change": 0, "after the change": 2}
    rows = []
    for n, entry in enumerate(log):
        if entry["kind"] == "change":
            in_range("share", entry["share"], 0, 1, "share")
            rows.append(((entry["day"], 1, n), Step(entry["day"], share=entry["share"])))
        else:
            place = rank[entry.get("when") or "before the change"]
            read = interval(str(entry["value"]), tuple(chart)).scaled(factor)
            rows.append(((entry["day"], place, n), Step(entry["day"], read, blur=entry.get("blur", BLUR))))
    steps = tuple(step for _, step in sorted(rows, key=lambda row: row[0]))
    first = next((n for n, step in enumerate(steps) if step.read), None)
    if first is None:
        raise NamedCase("nothing_read")
    return steps[first:]


# Parameters of a sample: ln made, ln source, ln level at the first reading, effect as a part of what is made.


def parameters(samples: NDArray[np.float64], prior: Mapping[str, Any]) -> tuple[NDArray[np.float64], ...]:
    """Made, source, first level and effect of samples."""
    made = np.exp(samples[0])
    effect = samples[3] * made if len(samples) > 3 else np.zeros_like(made)
    return made, np.exp(samples[1]), np.exp(samples[2]), effect


def levels(samples: NDArray[np.float64], prior: Mapping[str, Any], steps: Sequence[Step]) -> Any:
    """The level at every step, before it for a reading, after it for a change."""
    made, source, level, effect = parameters(samples, prior)
    sink = prior.get("sink_date_day")
    day = steps[0].day
    for step in steps:
        without = with_sink = step.day - day
        if sink is None or step.day <= sink:
            with_sink = 0.0
        elif day < sink:
            with_sink = step.day - sink
        level = np.maximum(level + made * without - effect * with_sink, 0.0)
        level = level + step.share * (source - level)
        day = step.day
        yield level


def spreads(prior: Mapping[str, Any]) -> tuple[tuple[float, float], tuple[float, float]]:
    """Middle and standard deviation of ln made and ln source."""
    return (
        (
            math.log(max(prior["made_from_feed_mg_l_d"], 1e-3)),
            math.log(prior.get("made_range_x") or 1.6) / OF_A_RANGE,
        ),
        (
            math.log(max(prior["source_report_mg_l"], 0.05)),
            math.log(prior.get("source_range_x") or 1.3) / OF_A_RANGE,
        ),
    )


def posterior(prior: Mapping[str, Any], steps: Sequence[Step]) -> Posterior:
    """Samples of what a log leaves of a prior."""
    chance = np.random.default_rng(2)
    (made, made_s), (source, source_s) = spreads(prior)
    first = steps[0].read
    assert first is not None
    low, high = math.log(max(first.low, 0.1)), math.log(first.high if math.isfinite(first.high) else 3 * first.low)
    middle, wide = (low + high) / 2, (high - low) / 2 + BLUR
    means, widths = [made, source, middle], [1.3 * made_s, 1.3 * source_s, wide]
    if prior.get("sink_date_day") is not None:
        means, widths = [*means, 0.5], [*widths, 0.9]
    m, s = np.array(means)[:, None], np.maximum(np.array(widths), 1e-3)[:, None]
    z = chance.standard_normal((len(means), SAMPLES))
    log_first = -0.5 * (z**2).sum(axis=0) - np.log(s).sum() - len(means) / 2 * math.log(2 * math.pi)

    def target(samples: NDArray[np.float64]) -> NDArray[np.float64]:
        total = gaussian(samples[0], made, made_s) + gaussian(samples[1], source, source_s)
        # A level of which nothing is known beforehand: flat, so its logarithm weighs as the level itself.
        total = total + np.where(samples[2] < LOG_MOST, samples[2], -np.inf)
        if len(samples) > 3:
            inside = (samples[3] >= EFFECT_OF_MADE[0]) & (samples[3] <= EFFECT_OF_MADE[1])
            total = np.where(inside, total - math.log(EFFECT_OF_MADE[1] - EFFECT_OF_MADE[0]), -np.inf)
        for step, level in zip(steps, levels(samples, prior, steps), strict=True):
            if step.read is not None:
                total = total + np.log(likelihood(level, step.read, alternatives(step.read), step.blur))
        return total

    return sampled(m + s * z, log_first, target)


def gaussian(x: NDArray[np.float64], middle: float, deviation: float) -> NDArray[np.float64]:
    """Logarithm of a normal density."""
    d = max(deviation, 1e-3)
    return np.asarray(-0.5 * ((x - middle) / d) ** 2 - math.log(d) - 0.5 * math.log(2 * math.pi))


def doubts(prior: Mapping[str, Any], steps: Sequence[Step], found: Posterior) -> list[tuple[Step, float]]:
    """Every reading with the chance that it is a mistake."""
    read = []
    for step, level in zip(steps, levels(found.samples, prior, steps), strict=True):
        if step.read is not None:
            sound, chance = (1 - ANYTHING) * within(level, step.read, step.blur), ANYTHING / alternatives(step.read)
            read.append((step, found.mean(chance / (sound + chance))))
    return read


def strange_days(read: Sequence[tuple[Step, float]]) -> set[float]:
    """Days of those that are surely mistakes."""
    return {step.day for step, wrong in read if wrong > SURELY_WRONG}


def impossible(prior: Mapping[str, Any], steps: Sequence[Step], found: Posterior) -> tuple[float, ...]:
    """Days of readings that physics forbids: to be asked about, never dropped in silence."""
    read = doubts(prior, steps, found)
    days = strange_days(read)
    fastest = TOO_FAST * prior["made_from_feed_mg_l_d"]
    for (before, wrong_before), (after, wrong_after) in pairwise(read):
        assert before.read is not None
        assert after.read is not None
        if after.read.low > before.read.high + fastest * (after.day - before.day):
            days.add(before.day if wrong_before > wrong_after else after.day)
    least_source = prior["source_report_mg_l"] / (prior.get("source_range_x") or 1.3)
    for change, after in pairwise(steps):
        if (
            change.share
            and after.read
            and after.day == change.day
            and after.read.high < change.share * least_source
        ):
            days.add(after.day)
    return tuple(sorted(days))
