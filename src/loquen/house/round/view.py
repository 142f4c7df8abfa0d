"""From duties and what was done to the round that a page shows."""

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import asdict, replace
from datetime import date, timedelta

from loquen.core.events.kinds.keeping import Fed
from loquen.core.events.kinds.water import Changed
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.routine.away import away, every_visit
from loquen.core.routine.consumables import Stock, runs_out, spares, together
from loquen.core.routine.costs import as_read, cost, day_words, with_on
from loquen.core.routine.due import (
    LAPSING,
    OWN,
    Done,
    Due,
    attended,
    coming,
    due,
    first_due,
    on_duty,
)
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import following, rhythm_words
from loquen.house.round.cares import Care
from loquen.house.round.household import Household
from loquen.house.round.schema import (
    AwaySheet,
    AwaySystem,
    Cared,
    Consumable,
    RhythmSchema,
    Round,
    RoundLine,
    Stop,
    Supplies,
)
from loquen.store.routine.rounds import Tick

AHEAD_D = 56


def round_of(household: Household, today: date, ticks: Iterable[Tick]) -> Round:
    """What is due today, stop by stop, and what was ticked today."""
    ticked: dict[int, list[Tick]] = defaultdict(list)
    for tick in ticks:
        ticked[tick.system_id].append(tick)
    stops, quiet = [], []
    for care in household.cares:
        lines = lines_of(household, care, today) + done_lines(household, care, ticked[care.system_id])
        if lines:
            stops.append(Stop(care.system_id, care.name, care.section, lines))
        elif care.duties:
            quiet.append(care.name)
    here = [helper.name for helper in on_duty(household.helpers, today)]
    return Round(today, result_of(stops, len(household.cares)), here, household.helpers, stops, quiet)


def lines_of(household: Household, care: Care, today: date) -> list[RoundLine]:
    lines = []
    for duty in household.duties[care.system_id]:
        waiting = due(duty, care.began, household.of(care.system_id, duty), today)
        if waiting is not None:
            done = household.done.get(care.system_id, {})
            changed = done.get("change", Done()).last
            last, read = done.get(duty.key, Done()).last, household.nitrate.get(care.system_id)
            ahead_of_it = as_read(care.ahead, read, changed) if read and changed else care.ahead
            lines.append(line_of(waiting, cost(waiting, ahead_of_it, changed, last, today)))
    return lines


def done_lines(household: Household, care: Care, ticks: Iterable[Tick]) -> list[RoundLine]:
    known = {duty.key: duty for duty in household.duties[care.system_id]}
    return [
        replace(
            line_of(Due(known[tick.duty], date.fromisoformat(tick.due), 0, None), None),
            tick=tick.id,
            done_by=tick.done_by,
            skipped=tick.skipped,
        )
        for tick in ticks
        if tick.duty in known
    ]


def line_of(waiting: Due, costs: Sentence | None) -> RoundLine:
    duty = waiting.duty
    event = duty.event
    return RoundLine(
        key=duty.key,
        kind=duty.kind,
        words=duty.words,
        steps=duty.steps,
        why=duty.why,
        often=rhythm_words(duty.rhythm),
        minutes=duty.minutes,
        due=waiting.day,
        late_d=waiting.late_d,
        again=waiting.again,
        cost=costs,
        caution=duty.caution,
        measure=duty.measure,
        page=duty.page,
        litres=event.litres if isinstance(event, Changed) else None,
        grams=event.grams if isinstance(event, Fed) else None,
        tick=None,
        done_by="",
        skipped="",
    )


def result_of(stops: Iterable[Stop], known: int) -> Sentence:
    """How much there is to do today, in a sentence."""
    waiting = [line for stop in stops for line in stop.lines if line.tick is None]
    if not known:
        return say("No system is kept yet: the round begins with the first.")
    if not waiting:
        return say("All done for today.")
    terms = {
        "things": Term(len(waiting), "count"),
        "systems": Term(sum(any(line.tick is None for line in stop.lines) for stop in stops), "count"),
        "hours": Term(sum(line.minutes for line in waiting) / 60, "hours"),
    }
    late = sum(line.late_d > 0 for line in waiting)
    text = "{things} things to do in {systems} systems, about {hours} of work."
    if late:
        return say(text + " {late} of them should have been done before.", **terms, late=Term(late, "count"))
    return say(text, **terms)


def cared(household: Household, care: Care, today: date) -> list[Cared]:
    """The care calendar of one system: every duty, also those that are off."""
    settings = household.settings.get(care.system_id, {})
    active = {duty.key: duty for duty in household.duties[care.system_id]}
    every = [*care.duties, *(duty for key, duty in active.items() if key.startswith(OWN))]
    found = []
    for usual in every:
        duty, own = active.get(usual.key, usual), settings.get(usual.key)
        done = household.of(care.system_id, duty)
        found.append(
            Cared(
                key=duty.key,
                kind=duty.kind,
                words=duty.words,
                why=duty.why,
                often=rhythm_words(duty.rhythm),
                rhythm=RhythmSchema.model_validate(asdict(duty.rhythm)),
                days_between=duty.rhythm.days,
                usual=RhythmSchema.model_validate(asdict(usual.rhythm)) if duty.rhythm != usual.rhythm else None,
                off=own is not None and own.off,
                own=usual.key.startswith(OWN),
                minutes=duty.minutes,
                next=next_day(duty, care.began, done, today),
                last=done.last,
            )
        )
    return found


def next_day(duty: Duty, began: date, done: Done, today: date) -> date | None:
    """When a duty is due next, today where it waits already."""
    if due(duty, began, done, today) is not None:
        return today
    if duty.rhythm.by_interval:
        return first_due(duty, began, done)
    return following(duty.rhythm, began, today)


def ahead(household: Household, today: date, days: int = AHEAD_D) -> list[tuple[date, Care, Duty]]:
    """Everything that comes in some days, on days on which somebody is there, in the order of days and of the walk."""
    last = today + timedelta(days=days)
    found = []
    for place, care in enumerate(household.cares):
        for duty in household.duties[care.system_id]:
            done = household.of(care.system_id, duty)
            waiting = due(duty, care.began, done, today)
            days_to_come = [
                day for day in coming(duty, care.began, done, today, last) if waiting is None or day > today
            ]
            days_due = [*([today] if waiting else []), *days_to_come]
            # Food that nobody is there to give is not given twice later; all else is done when somebody comes.
            done_on = (
                days_due if duty.kind in LAPSING else {attended(household.helpers, day): day for day in days_due}
            )
            found += [(day, place, care, duty) for day in done_on]
    found.sort(key=lambda row: (row[0], row[1]))
    return [(day, care, duty) for day, _, care, duty in found]


def supplies(household: Household, stocks: Mapping[str, Stock], one_for: int, today: date) -> Supplies:
    """What is used up in the whole household, what is to be ordered first on top."""
    rows = []
    for use in together(use for care in household.cares for use in care.uses):
        stock = stocks.get(use.key)
        out = runs_out(use, stock, today) if stock else None
        rows.append(
            Consumable(
                use=use,
                counted=stock.amount if stock else None,
                counted_on=stock.counted if stock else None,
                lead_d=stock.lead_d if stock else 7,
                left=out.left if out else None,
                runs_out=out.on if out else None,
                order_by=out.order_by if out else None,
                late=out is not None and out.order_by is not None and out.order_by < today,
            )
        )
    rows.sort(key=lambda row: (row.order_by or date.max, row.use.label.lower()))
    return Supplies(
        ordering(rows, today), rows, spares((care.spared for care in household.cares), one_for), one_for
    )


def ordering(rows: list[Consumable], today: date) -> Sentence:
    """What to order first, in a sentence."""
    if not rows:
        return say("Nothing is used up yet.")
    if rows[0].order_by is None:
        return say("Count what is there: then Loquen says when it runs out.")
    what = rows[0].use.label
    if rows[0].late:
        return say(
            "{what} should have been ordered {on}.", what=what, on=with_on(day_words(rows[0].order_by, today))
        )
    return say("Order next: {what}, {on} at the latest.", what=what, on=with_on(day_words(rows[0].order_by, today)))


def away_sheet(household: Household, first: date, last: date) -> AwaySheet:
    """A holiday over all systems."""
    rows = []
    visit_d = every_visit((care.ahead for care in household.cares), first, last)
    for care in household.cares:
        found = away(
            household.duties[care.system_id],
            care.ahead,
            household.done.get(care.system_id, {}),
            care.began,
            first,
            last,
            visit_d,
        )
        rows.append(AwaySystem(care.system_id, care.name, care.section, found.before, found.stand_in, found.waits))
    visits = sorted({day for row in rows for task in row.stand_in for day in task.days})
    count, span = len(visits), (last - first).days + 1
    terms = {"span": Term(span, "days"), "visits": Term(count, "count")}
    text = (
        "{span} away: nobody needs to come, if the water is changed the day before."
        if not visits
        else "{span} away: a stand-in comes on {visits} of them."
    )
    return AwaySheet(first, last, say(text if span > 1 else text.replace("{span}", "A day"), **terms), visits, rows)
