"""Days that come again and again, by a standard library's rules."""

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from functools import lru_cache
from typing import Annotated, Literal

from dateutil import rrule

from loquen.core.model.inputs.quantity import Choice, Most, Quantity, Sentence, Term, say

Day = Literal["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"]
WEEK: tuple[Day, ...] = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
WEEKDAY_WORDS = dict(
    zip(WEEK, ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"), strict=True)
)
LONGEST_D = 1500
MOST_KEPT = 20_000


@dataclass(frozen=True, slots=True)
class Rhythm:
    """How often something is done: on weekdays, every so many days, or every so many months; weekdays go first."""

    weekdays: Annotated[tuple[Day, ...], Choice("On"), Most(7)] = ()
    every_d: Annotated[int, Quantity("Every", "days", 0, LONGEST_D, whole=True)] = 0
    every_months: Annotated[int, Quantity("Every", "months", 0, 60, whole=True)] = 0

    @property
    def by_interval(self) -> bool:
        """Whether it is counted from when it was last done: a weekday comes round whether or not it was."""
        return not self.weekdays

    @property
    def days(self) -> float:
        """Days between two times, on the mean."""
        if self.weekdays:
            return 7 / len(self.weekdays)
        return float(self.every_d or self.every_months * 30.4375)


def rule(rhythm: Rhythm, since: date) -> rrule.rrule:
    """The rule of a rhythm from a day on; a month's 31st comes on the last day of a shorter month."""
    start = datetime.combine(since, time())
    if rhythm.weekdays:
        return rrule.rrule(rrule.WEEKLY, dtstart=start, byweekday=[WEEK.index(day) for day in rhythm.weekdays])
    if rhythm.every_d:
        return rrule.rrule(rrule.DAILY, dtstart=start, interval=rhythm.every_d)
    days = list(range(28, since.day + 1)) if since.day > 28 else [since.day]
    return rrule.rrule(
        rrule.MONTHLY, dtstart=start, interval=max(rhythm.every_months, 1), bymonthday=days, bysetpos=-1
    )


def days_of(rhythm: Rhythm, since: date, first: date, last: date) -> list[date]:
    """The days of a rhythm from one day to another, both counted."""
    found = rule(rhythm, since).between(at_midnight(first), at_midnight(last), inc=True)
    return [moment.date() for moment in found]


@lru_cache(MOST_KEPT)
def latest(rhythm: Rhythm, since: date, today: date) -> date | None:
    """The last day of a rhythm that is not after today; None where its first is yet to come."""
    found = rule(rhythm, since).before(at_midnight(today), inc=True)
    return found.date() if found else None


@lru_cache(MOST_KEPT)
def following(rhythm: Rhythm, since: date, today: date) -> date | None:
    """The first day of a rhythm after today."""
    found = rule(rhythm, since).after(at_midnight(today))
    return found.date() if found else None


def after(rhythm: Rhythm, done: date) -> date:
    """When something counted from the last time comes again: so many days, or months, after it was done."""
    found = rule(rhythm, done).after(at_midnight(done))
    return found.date() if found else done + timedelta(days=round(rhythm.days))


def at_midnight(day: date) -> datetime:
    return datetime.combine(day, time())


def rhythm_words(rhythm: Rhythm) -> Sentence:
    """How often, in words."""
    if len(rhythm.weekdays) == len(WEEK) or (not rhythm.weekdays and rhythm.every_d == 1):
        return say("every day")
    if rhythm.weekdays:
        ordered = [WEEKDAY_WORDS[day] for day in WEEK if day in rhythm.weekdays]
        text = ordered[0] if len(ordered) == 1 else f"{', '.join(ordered[:-1])} and {ordered[-1]}"
        return say("every {days}", days=text)
    if rhythm.every_d and rhythm.every_d % 7 == 0:
        weeks = rhythm.every_d // 7
        return say("every week") if weeks == 1 else say("every {weeks}", weeks=Term(weeks, "weeks"))
    if rhythm.every_d:
        return say("every {days}", days=Term(rhythm.every_d, "days"))
    if rhythm.every_months == 1:
        return say("every month")
    return say("every {months}", months=Term(rhythm.every_months, "months"))
