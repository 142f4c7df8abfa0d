"""Is it done? Yes, no or not known, by a rule, with the evidence and the odds."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from loquen.core.events.kinds.water import Dosed
from loquen.core.events.ledger import Logged
from loquen.core.events.readings import LEAST_TOLD_MG_L, ReadAt, days_since, is_zero, read_interval, readings
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.system.cycle import replay
from loquen.core.system.cycle.setup import Begun
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.rates import warm_of
from loquen.core.timeline.tending.clear import settled

Answer = Literal["yes", "no", "not known"]
FRESH_D = 2.0
"""Days that a reading tells of today."""
SURE = 0.9
WITHIN_STEP = 1.25
"""Times a level that the step of a chart reaches, on which it is read."""


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


def zero(row: ReadAt | None, library: Library) -> bool | None:
    """Whether a reading can not be told from nothing on its kit; None for none."""
    return None if row is None else is_zero(row.read, library)


@dataclass(frozen=True, slots=True)
class Settled:
    """Levels of ammonia and nitrite, mg/L N, that a filter settles at under its load, where its animals may live in them;
    nothing where they may not, or where it settles at what no kit tells from nothing."""

    levels: Mapping[str, float]

    def clear(self, what: str, row: ReadAt | None, library: Library) -> bool | None:
        """Whether a reading is that of a clear day: none at all, or no more than it settles at."""
        if row is None or is_zero(row.read, library):
            return zero(row, library)
        level = self.levels.get(what)
        return (
            level is not None
            and read_interval(row.read, library).high <= table().clear_of_settled * level * WITHIN_STEP
        )


def settled_at(begun: Begun) -> Settled:
    """What this filter settles at."""
    around = begun.asked.around()
    if around.bacteria is None or begun.asked.load_mg_l_d_n <= 0:
        return Settled({})
    state = begun.asked.state()
    levels = dict(
        zip(("ammonia", "nitrite"), settled(around.bacteria, warm_of(state, around), around.litres), strict=True)
    )
    limits = {"ammonia": begun.limits.ammonia, "nitrite": begun.limits.nitrite}
    return Settled({what: level for what, level in levels.items() if LEAST_TOLD_MG_L < level <= limits[what]})


def fishless(
    begun: Begun,
    own: Sequence[Logged],
    last: dict[str, ReadAt | None],
    evidence: tuple[Sentence, ...],
    odds: float,
    library: Library,
) -> Done:
    """Done when a full dose is gone, as ammonia and as nitrite, a day after it was given."""
    rule = say(
        "Done when ammonia and nitrite both read zero, no more than your kit tells from nothing, a day after a full dose of "
        "{dose}.",
        dose=Term(begun.asked.full_dose_mg_l_n, "ammonia"),
    )
    low = {what: zero(row, library) for what, row in last.items()}
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
    given = [row for row in full if row.at < read_at][-3:]
    gone = [
        replay.dosed_mg_l(begun, row.event)
        for row in given
        if isinstance(row.event, Dosed) and 0.75 <= days_since(row.at, read_at) <= 1.3
    ]
    if gone and max(row.at for row in full) <= read_at:
        return Done("yes", proved(begun, max(gone)), rule, evidence)
    if odds >= SURE:
        text = "Very likely, {odds}: give a full dose, and read both a day later to be sure."
        return Done("not known", say(text, odds=Term(odds, "share")), rule, evidence)
    text = "Not known: both read zero, but no full dose was given a day before. {odds} that it would be gone."
    return Done("not known", say(text, odds=Term(odds, "share")), rule, evidence)


def proved(begun: Begun, dose_mg_l: float) -> Sentence:
    """What a dose that was gone within a day stands for: all who come, or a part of them."""
    load = begun.load_full_mg_l_d
    if load <= dose_mg_l:
        return say("Yes: a full dose was gone within a day.")
    return say(
        "Yes, for {dose} a day; all who are planned make {load} at full load. Stock {share} of them and let the filter grow, or "
        "prove more with larger doses.",
        dose=Term(dose_mg_l, "ammonia"),
        load=Term(load, "ammonia"),
        share=Term(dose_mg_l / load, "share"),
    )


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
    c, settled_here = table(), settled_at(begun)
    rule = say(
        "Done when ammonia and nitrite read zero, no more than your kit tells from nothing, on {days} in a row, with bacteria "
        "enough for what is made: zeros of a lightly loaded tank alone prove nothing."
        + "".join(
            f" Under this load {what} settles at {{{what}}}: that counts as clear." for what in settled_here.levels
        ),
        days=Term(c.clear_days, "days"),
        **{what: Term(level, what) for what, level in settled_here.levels.items()},
    )
    if begun.asked.load_mg_l_d_n <= 0 and begun.asked.soil_ammonia_mg_l_n <= 0:
        return Done("no", say("No: nothing in it makes ammonia, so nothing grows."), rule, evidence)
    low = {what: settled_here.clear(what, row, library) for what, row in last.items()}
    if plain := by_levels(low, rule, evidence):
        return plain
    clear_since = {what: since_clear(own, what, settled_here, library) for what in last}
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


def since_clear(own: Sequence[Logged], what: str, settled_here: Settled, library: Library) -> datetime | None:
    """Since the first of the clear readings that no other came after."""
    found = None
    for row in reversed(readings(own, what)):
        if not settled_here.clear(what, row, library):
            break
        found = row.at
    return found


def names(low: dict[str, bool | None], state: bool | None) -> str:
    return " and ".join(what for what, found in low.items() if found is state)
