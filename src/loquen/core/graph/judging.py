"""From a value and its limit to a verdict, the same way everywhere."""

from collections.abc import Mapping
from dataclasses import replace

from loquen.core.graph.nodes import Gauge, State, Verdict
from loquen.core.model.inputs.quantity import Sentence, Term, Untold, of, say

TIGHT_FRAC = 0.1
ROUNDING = 1e-9
"""Of a limit: what only rounding puts a value past it does not count."""


def state_of(margin: float, scale: float) -> State:
    """Short below zero, tight within a tenth of the limit, else holds."""
    if margin < -ROUNDING * abs(scale):
        return "short"
    return "tight" if margin < TIGHT_FRAC * abs(scale) else "holds"


def spare(margin: float, kind: str) -> Sentence:
    """How much is left, or how much is missing."""
    if margin < 0:
        return say("short by {by}", by=Term(-margin, kind))
    return say("{left} to spare", left=Term(margin, kind))


def over(margin: float, kind: str) -> Sentence:
    """How far under a limit a value stays, or how far it passes it."""
    if margin < 0:
        return say("{by} over", by=Term(-margin, kind))
    return say("{left} below the limit", left=Term(margin, kind))


def at_most(value: float, limit: float, kind: str, reason: Sentence, scale: float | None = None) -> Verdict:
    """A verdict on a value that must stay under its limit; `scale` sets what counts as tight."""
    margin = limit - value
    top = 1.25 * max(limit, value) or 1.0
    gauge = Gauge(value, top, kind, high=limit)
    return Verdict(state_of(margin, limit if scale is None else scale), margin, over(margin, kind), reason, gauge)


def at_least(value: float, limit: float, kind: str, reason: Sentence, scale: float | None = None) -> Verdict:
    """A verdict on a value that must reach its limit; `scale` sets what counts as tight."""
    margin = value - limit
    top = 1.25 * max(limit, value) or 1.0
    gauge = Gauge(value, top, kind, low=limit)
    return Verdict(state_of(margin, limit if scale is None else scale), margin, spare(margin, kind), reason, gauge)


def between(verdict: Verdict, near: bool) -> Verdict:
    """The verdict, but tight where it holds no more than the least."""
    if verdict.state != "holds" or not near:
        return verdict
    return Verdict("tight", verdict.margin, verdict.headline, verdict.reason, verdict.gauge)


def by_practice(verdict: Verdict, limit: float, leeway: float | None = None, borne: str = "borne") -> Verdict:
    """A rule of practice has a tolerance: tight, not short, within a tenth past its limit, or within a leeway; and it is said
    that the limit is passed, and how long that is borne."""
    if verdict.state != "short" or -verdict.margin > (TIGHT_FRAC * abs(limit) if leeway is None else leeway):
        return verdict
    return tight_past(verdict, borne)


def tight_past(verdict: Verdict, borne: str) -> Verdict:
    """Tight past its limit, in words that say so."""
    headline = Sentence(f"{verdict.headline.text}, {borne}", verdict.headline.terms)
    return replace(verdict, state="tight", headline=headline)


def asked_for(verdict: Verdict, wanted: Mapping[str, Untold]) -> Verdict:
    """A verdict that would stand on inputs nobody told: it neither holds nor falls short until they are."""
    if not wanted or verdict.state not in ("holds", "tight"):
        return verdict
    hows = dict.fromkeys(untold.how for untold in wanted.values())
    text = " ".join([verdict.reason.text, *hows])
    headline = say(next(iter(wanted.values())).headline)
    return replace(
        verdict,
        state="measure",
        headline=headline,
        reason=Sentence(text, verdict.reason.terms),
        asks=tuple(wanted),
    )


def no_harm(verdict: Verdict) -> Verdict:
    """Where nobody comes to harm, tight at worst, and said to be past its limit."""
    return tight_past(verdict, "harms nobody") if verdict.state == "short" else verdict


def within_band(value: float, low: float, high: float, kind: str, reason: Sentence) -> Verdict:
    """A verdict on a value that belongs between two limits; touching a limit is tight."""
    margin = min(value - low, high - value)
    if value < low:
        headline = say("short by {by}", by=Term(low - value, kind))
    elif value > high:
        headline = say("{by} over the band", by=Term(value - high, kind))
    else:
        headline = say("inside {low} to {high}", low=Term(low, kind, bare=True), high=Term(high, kind))
    gauge = Gauge(value, 1.25 * max(high, value), kind, high=high, low=low)
    return Verdict(state_of(margin, (high - low) / 2), margin, headline, reason, gauge)


def caution(value: float, name: str, limit: float, fine: Sentence, warning: Sentence) -> Verdict:
    """A verdict that asks for care above a limit but never says short."""
    kind = of(value, name).kind
    margin = limit - value
    state: State = "tight" if margin < 0 else "holds"
    reason = warning if margin < 0 else fine
    verdict = Verdict(
        state, margin, over(margin, kind), reason, Gauge(value, 1.25 * max(limit, value), kind, high=limit)
    )
    return tight_past(verdict, "to be looked at") if margin < 0 else verdict


HELD_MONTHS = 3.0
"""Months of readings that held, which weigh more than a rule of practice."""


def holds_for_you(verdict: Verdict, held_months: float | None) -> Verdict:
    """What only a rule of practice says no to, while months of readings hold: unusual, to be watched, never green."""
    if verdict.state != "short" or held_months is None or held_months < HELD_MONTHS:
        return verdict
    reason = Sentence(
        verdict.reason.text
        + " Unusual, and your readings have held for {held}: watch ammonia, nitrite and who is chased.",
        {**verdict.reason.terms, "held": Term(held_months, "months")},
    )
    return replace(tight_past(verdict, "holds for you"), reason=reason)
