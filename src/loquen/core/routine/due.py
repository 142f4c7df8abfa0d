"""What is due on a day: duties against what was done, ticked or written into the log."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date, timedelta

from loquen.core.events.kinds.keeping import Noted
from loquen.core.model.inputs.quantity import say
from loquen.core.routine.duty import Duty, Set
from loquen.core.routine.recurring import Rhythm, after, days_of, following, latest

LAPSING = ("feed",)
"""What a missed day does not carry over: nobody is fed twice for it."""
OWN = "own."
EARLY_D, SELDOM_D = 1, 3
"""What comes no more often than every so many days is settled too when it was done the day before; yesterday's meal is not
today's."""


@dataclass(frozen=True, slots=True)
class Done:
    """When a duty was last done, the last of its days that is settled by that or by a skip, and when anybody saw to it."""

    last: date | None = None
    settled: date | None = None
    seen: date | None = None

    @property
    def counted(self) -> date | None:
        """The day that an interval is counted from: of the last time it was done, or skipped."""
        return max((day for day in (self.last, self.seen) if day is not None), default=None)


@dataclass(frozen=True, slots=True)
class Due:
    """A duty on a day: since when it is due, how late that is, and when it comes again."""

    duty: Duty
    day: date
    late_d: int
    again: date | None


def as_set(duties: Iterable[Duty], settings: Mapping[str, Set]) -> tuple[Duty, ...]:
    """The duties as a keeper set them: with their own rhythm, without those that are off, and with their own duties."""
    kept = []
    for duty in duties:
        own = settings.get(duty.key)
        if own is None:
            kept.append(duty)
        elif not own.off:
            kept.append(replace(duty, rhythm=own.rhythm or duty.rhythm))
    for key, own in settings.items():
        if key.startswith(OWN) and own.rhythm and not own.off:
            kept.append(own_duty(key, own, own.rhythm))
    return tuple(kept)


def own_duty(key: str, own: Set, rhythm: Rhythm) -> Duty:
    return Duty(
        key=key,
        kind="own",
        words=say("{words}", words=own.words),
        why=say("Your own."),
        rhythm=rhythm,
        minutes=own.minutes,
        event=Noted(own.words),
    )


def first_due(duty: Duty, began: date, done: Done) -> date:
    """When a duty counted from its last time is due: so long after it, or when it first is."""
    counted = done.counted
    return after(duty.rhythm, counted) if counted is not None else began + timedelta(days=duty.offset_d)


def due(duty: Duty, began: date, done: Done, today: date) -> Due | None:
    """A duty that waits to be done today; None where it does not.

    By weekday the last day of its rhythm counts, once; by interval the time since it was done. Food that was missed is
    not made up for.
    """
    if duty.rhythm.by_interval:
        day = first_due(duty, began, done)
        return Due(duty, day, (today - day).days, None) if day <= today else None
    found = latest(duty.rhythm, began, today)
    if found is None or (duty.kind in LAPSING and found != today):
        return None
    early = EARLY_D if duty.rhythm.days >= SELDOM_D and duty.kind not in LAPSING else 0
    if done.settled is not None and done.settled >= found:
        return None
    if done.last is not None and done.last >= found - timedelta(days=early):
        return None
    return Due(duty, found, (today - found).days, following(duty.rhythm, began, today))


def coming(duty: Duty, began: date, done: Done, first: date, last: date) -> list[date]:
    """The days of a duty in a span to come, as if each were done on its day."""
    last = min(last, duty.until) if duty.until else last
    if duty.rhythm.by_interval:
        start = max(first_due(duty, began, done), first)
        return days_of(duty.rhythm, start, start, last) if start <= last else []
    return days_of(duty.rhythm, began, max(first, began), last)


@dataclass(frozen=True, slots=True)
class Helper:
    """Somebody who does the round: on which weekdays, and from what hour on."""

    name: str
    weekdays: tuple[str, ...] = ()
    hour: float = 18.0


def on_duty(helpers: Iterable[Helper], day: date) -> list[Helper]:
    """Who is there on a day; without weekdays somebody always is."""
    name = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")[day.weekday()]
    return [helper for helper in helpers if not helper.weekdays or name in helper.weekdays]


def attended(helpers: list[Helper], day: date) -> date:
    """The first day from one on on which anybody is there: what falls on a day without is done then."""
    for later in range(7):
        if not helpers or on_duty(helpers, day + timedelta(days=later)):
            return day + timedelta(days=later)
    return day
