"""A holiday: what to do before, what a stand-in must do and on which days, what can wait."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date, timedelta

from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.routine.costs import Ahead, day_words, nitrate_on, passes_on
from loquen.core.routine.due import Done, coming, due
from loquen.core.routine.duty import ROTA, Duty

LONGEST_D = 60
FED_AGAIN_D = 4
"""A stand-in feeds no more seldom than that, so that somebody sees them eat."""
MUST = ("top_up", "read.ammonia", "read.nitrite")


@dataclass(frozen=True, slots=True)
class Errand:
    """One thing for a stand-in on some days, or for the keeper before leaving."""

    key: str
    words: Sentence
    days: tuple[date, ...]
    steps: tuple[Sentence, ...] = ()


@dataclass(frozen=True, slots=True)
class Away:
    """One system over a holiday."""

    before: tuple[Errand, ...]
    stand_in: tuple[Errand, ...]
    waits: tuple[Sentence, ...]


def every_visit(houses: Iterable[Ahead], first: date, last: date) -> int:
    """Days from one visit to the next, for a whole house: as long as the least patient of all go without food."""
    span = (last - first).days + 1
    gaps = [min(ahead.fast_d, FED_AGAIN_D) for ahead in houses if ahead.fast_d < span]
    return min(gaps, default=FED_AGAIN_D)


def away(
    duties: Iterable[Duty],
    ahead: Ahead,
    done: Mapping[str, Done],
    began: date,
    first: date,
    last: date,
    visit_d: int = 1,
) -> Away:
    """What has to be done between two days, both counted, by animals and water; the day before is still the keeper's.

    A stand-in comes every so many days: food is given, and what else must be is done, on these.
    """
    before: list[Errand] = []
    must: list[Errand] = []
    waits: list[Sentence] = []
    for duty in one_menu(duties):
        if duty.kind == "feed":
            fed(duty, ahead, first, last, must, waits, visit_d)
        elif duty.key == "change":
            changed(duty, ahead, first, last, before, must, waits)
        else:
            cared(duty, done.get(duty.key, Done()), began, first, last, before, must, waits)
    visits = [first + timedelta(days=n) for n in range(visit_d - 1, (last - first).days + 1, visit_d)]
    return Away(tuple(before), tuple(on_visits(errand, visits) for errand in must), tuple(waits))


def one_menu(duties: Iterable[Duty]) -> list[Duty]:
    """The duties with one meal of a week's rota in the place of all: a stand-in gives the same on every visit.

    It is the one that feeds the most groups, and comes most often.
    """
    rows = list(duties)
    menus = [duty for duty in rows if duty.key.startswith(ROTA)]
    usual = max(menus, key=lambda duty: (len(duty.steps), len(duty.rhythm.weekdays)), default=None)
    return [duty for duty in rows if duty not in menus or duty is usual]


def on_visits(errand: Errand, visits: list[date]) -> Errand:
    """An errand on the last visit that is not after its day; on the first where there is none before."""
    if not visits:
        return errand
    days = {max((visit for visit in visits if visit <= day), default=visits[0]) for day in errand.days}
    return replace(errand, days=tuple(sorted(days)))


def cared(
    duty: Duty,
    done: Done,
    began: date,
    first: date,
    last: date,
    before: list[Errand],
    must: list[Errand],
    waits: list[Sentence],
) -> None:
    """What harms when it is left goes on from the day before, on which it is done; the rest is caught up with, or waits."""
    eve = first - timedelta(days=1)
    if duty.key in MUST or due(duty, began, done, eve) is not None:
        before.append(Errand(duty.key, duty.words, (eve,)))
        done = Done(last=eve)
    days = coming(duty, began, done, first, last)
    if days and duty.key in MUST:
        must.append(Errand(duty.key, duty.words, tuple(days)))
    elif days:
        waits.append(say("{what} (due {on})", what=plain(duty.words), on=day_words(days[0], first)))


def plain(sentence: Sentence) -> str:
    """A sentence without its amounts: what can wait needs none."""
    words = sentence.text.split(":")[0].split(",")[0].rstrip(".")
    for name, term in sentence.terms.items():
        words = words.replace("{" + name + "}", term.value if isinstance(term.value, str) else "")
    return " ".join(words.split())


def fed(
    duty: Duty, ahead: Ahead, first: date, last: date, must: list[Errand], waits: list[Sentence], visit_d: int
) -> None:
    """Food on so few visits as the least patient bear, never more than a day's at once."""
    if duty.key == "calcium":
        waits.append(duty.words)
        return
    span = (last - first).days + 1
    if span <= ahead.fast_d:
        text = "No food at all: {who} goes {most} without, and what is not eaten fouls the water."
        waits.append(say(text, who=ahead.fasting, most=Term(ahead.fast_d, "days")))
        return
    every = visit_d * max(1, min(ahead.fast_d, FED_AGAIN_D) // visit_d)
    days = tuple(first + timedelta(days=n) for n in range(every - 1, span, every))
    must.append(Errand(duty.key, duty.words, days, duty.steps))


def changed(
    duty: Duty,
    ahead: Ahead,
    first: date,
    last: date,
    before: list[Errand],
    must: list[Errand],
    waits: list[Sentence],
) -> None:
    """Water changed the day before carries them as far as nitrate stays under its limit."""
    eve = first - timedelta(days=1)
    before.append(Errand(duty.key, duty.words, (eve,), duty.steps))
    passes = passes_on(ahead, eve)
    if passes is not None and passes <= last:
        must.append(Errand(duty.key, duty.words, every_so_often(ahead, passes, last), duty.steps))
        return
    end = nitrate_on(ahead, eve, last)
    if end is None:
        waits.append(say("The water changes: nothing is known that they hold back."))
    else:
        text = "The water changes: nitrate ends near {end}, under {most}."
        waits.append(say(text, end=Term(end, "nitrate"), most=Term(ahead.most_mg_l, "nitrate")))


def every_so_often(ahead: Ahead, passes: date, last: date) -> tuple[date, ...]:
    """The day before nitrate passes its limit, and again as long after as a change from the limit lasts."""
    freed = ahead.swapped_frac * (ahead.most_mg_l - ahead.new_mg_l)
    gap = max(1, int(freed / ahead.rise_mg_l_d)) if ahead.rise_mg_l_d else 1
    days, day = [], passes - timedelta(days=1)
    while day <= last:
        days.append(day)
        day += timedelta(days=gap)
    return tuple(days)
