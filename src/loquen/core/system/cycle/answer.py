"""Is it done? Yes, no or not known, by a rule, with the evidence and the odds."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from loquen.core.events.kinds.water import Dosed
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import ReadAt, days_since, read_interval, readings
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.system.cycle import replay
from loquen.core.system.cycle.setup import Begun
from loquen.core.timeline.process.constants import table

Answer = Literal["yes", "no", "not known"]
FRESH_D = 2.0
"""Days that a reading tells of today."""
SURE = 0.9


@dataclass(frozen=True, slots=True)
class Done:
    """Whether a cycle is done, why, and what stands for it."""

    answer: Answer
    sentence: Sentence
    rule: Sentence
    evidence: tuple[Sentence, ...]


def is_it_done(begun: Begun, log: Sequence[Logged], now: datetime, odds: float, library: Library) -> Done:
    """The answer of a system's log today; a run whose nitrite nobody read is never done."""
    own = replay.since_start(begun, log)
    last = {what: latest(own, what, now) for what in ("ammonia", "nitrite")}
    evidence = tuple(told(what, row, now, library) for what, row in last.items())
    if begun.fishless:
        return fishless(begun, own, last, evidence, odds, library)
    return inhabited(begun, own, last, evidence, now, odds, library)


def latest(log: Sequence[Logged], what: str, now: datetime) -> ReadAt | None:
    """The newest reading of something that still tells of today."""
    rows = [row for row in readings(log, what) if days_since(row.at, now) <= FRESH_D]
    return rows[-1] if rows else None


def told(what: str, row: ReadAt | None, now: datetime, library: Library) -> Sentence:
    """A reading in words, or that there is none."""
    if row is None:
        return say("{what}: not read in the last {days}", what=what.capitalize(), days=Term(FRESH_D, "days"))
    read = read_interval(row.read, library)
    ago = max(0.0, days_since(row.at, now))
    terms = {"what": Term(what.capitalize()), "ago": Term(ago * 24, "hours"), "low": Term(read.low, what)}
    if math.isinf(read.high):
        return say("{what}: over {low}, {ago} ago", **terms)
    return say("{what}: {low} to {high}, {ago} ago", high=Term(read.high, what), **terms)


def under(row: ReadAt | None, limit: float, library: Library) -> bool | None:
    """Whether a reading lies under a limit: by the middle of its interval; None for none."""
    return None if row is None else read_interval(row.read, library).middle < limit


def fishless(
    begun: Begun,
    own: Sequence[Logged],
    last: dict[str, ReadAt | None],
    evidence: tuple[Sentence, ...],
    odds: float,
    library: Library,
) -> Done:
    """Done when a full dose is gone, as ammonia and as nitrite, a day after it was given."""
    c = table()
    limit = Term(c.dose_read_under_mg_l, "ammonia")
    rule = say(
        "Done when ammonia and nitrite both read under {limit} a day after a full dose of {dose}.",
        limit=limit,
        dose=Term(begun.asked.full_dose_mg_l_n, "ammonia"),
    )
    low = {what: under(row, c.dose_read_under_mg_l, library) for what, row in last.items()}
    if plain := by_levels(low, rule, evidence):
        return plain
    rows = [row for row in last.values() if row is not None]
    read_at = min(row.at for row in rows)
    full = [
        row
        for row in own
        if isinstance(row.event, Dosed)
        and row.event.what == "ammonia"
        and replay.dosed_mg_l(begun, row.event) >= 0.9 * begun.asked.full_dose_mg_l_n
    ]
    gaps = [days_since(row.at, read_at) for row in full if row.at < read_at]
    if any(0.75 <= gap <= 1.3 for gap in gaps[-3:]) and max(row.at for row in full) <= read_at:
        return Done("yes", say("Yes: a full dose was gone within a day."), rule, evidence)
    if odds >= SURE:
        text = "Very likely, {odds}: give a full dose, and read both a day later to be sure."
        return Done("not known", say(text, odds=Term(odds, "share")), rule, evidence)
    text = "Not known: both read low, but no full dose was given a day before. {odds} that it would be gone."
    return Done("not known", say(text, odds=Term(odds, "share")), rule, evidence)


def inhabited(
    begun: Begun,
    own: Sequence[Logged],
    last: dict[str, ReadAt | None],
    evidence: tuple[Sentence, ...],
    now: datetime,
    odds: float,
    library: Library,
) -> Done:
    """Clear for a week, and bacteria enough for what is made."""
    c = table()
    rule = say(
        "Done when ammonia and nitrite read clear on {days} in a row, with bacteria enough for what is made: low readings "
        "of a lightly loaded tank alone prove nothing.",
        days=Term(c.clear_days, "days"),
    )
    if begun.asked.load_mg_l_d_n <= 0 and begun.asked.soil_ammonia_mg_l_n <= 0:
        return Done("no", say("No: nothing in it makes ammonia, so nothing grows."), rule, evidence)
    low = {what: under(row, 2 * c.clear_under_mg_l, library) for what, row in last.items()}
    if plain := by_levels(low, rule, evidence):
        return plain
    clear_since = {what: since_clear(own, what, 2 * c.clear_under_mg_l, library) for what in last}
    days = min(days_since(moment, now) if moment else 0.0 for moment in clear_since.values())
    if days >= c.clear_days - 1 and odds >= SURE:
        text = "Yes: clear for {days}, and {odds} that its bacteria take what is made."
        return Done("yes", say(text, days=Term(days, "days"), odds=Term(odds, "share")), rule, evidence)
    if odds < 0.5:
        text = "No: it reads clear, but {odds} at most that its bacteria already take what is made."
        return Done("no", say(text, odds=Term(odds, "share")), rule, evidence)
    text = "Not known: clear for {days} so far, and {odds} that its bacteria take what is made."
    return Done("not known", say(text, days=Term(days, "days"), odds=Term(odds, "share")), rule, evidence)


def by_levels(low: dict[str, bool | None], rule: Sentence, evidence: tuple[Sentence, ...]) -> Done | None:
    """What the last readings alone decide: something still stands, or was not read; None where both read low."""
    if False in low.values():
        return Done("no", say("No: there is still {what} in it.", what=names(low, False)), rule, evidence)
    if None in low.values():
        text = "Not known: nobody read {what} in the last days."
        return Done("not known", say(text, what=names(low, None)), rule, evidence)
    return None


def since_clear(own: Sequence[Logged], what: str, limit: float, library: Library) -> datetime | None:
    """Since when every reading lay under a limit."""
    found = None
    for row in reversed(readings(own, what)):
        if not under(row, limit, library):
            break
        found = row.at
    return found


def names(low: dict[str, bool | None], state: bool | None) -> str:
    return " and ".join(what for what, found in low.items() if found is state)
