"""The round: today's, its ticks, the care of one system, who does it, holidays, and all of it as a calendar."""

import json
from collections.abc import Collection
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from typing import Annotated

from fastapi import APIRouter, Path, Query, Request, Response
from sqlmodel import Session

from loquen.api.computing import PAGE, computed, computed_while
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.api.wire.days import Today, Zone
from loquen.checked.days import day_of, zone_of
from loquen.core.errors import NamedCase
from loquen.core.events.kinds.keeping import Fed, Pulsed, SeenTo, Skipped
from loquen.core.events.kinds.lives import ToAnimals
from loquen.core.events.kinds.water import Changed
from loquen.core.events.ledger import Event
from loquen.core.model.inputs.quantity import say
from loquen.core.routine.away import LONGEST_D
from loquen.core.routine.consumables import Stock
from loquen.core.routine.due import on_duty
from loquen.exchange.round_calendar import Appointment, write_calendar, write_tasks
from loquen.house.round import view
from loquen.house.round.household import Household, read_household
from loquen.house.round.schema import (
    AwaySheet,
    CareOfSystem,
    DutySet,
    HelpersIn,
    Round,
    StockIn,
    Supplies,
    Ticked,
    TickIn,
    Ticks,
    WalkIn,
)
from loquen.store.documents.systems import NoSuchSystem, existing
from loquen.store.happened import ledger
from loquen.store.routine import rounds

router = APIRouter(prefix="/api", tags=["round"], responses=dict(FAULTS))
EVERYBODY = "everybody"


def household_of(
    visit: Asked,
    zone: str,
    today: date,
    cycling: bool = False,
    only: Collection[int] | None = None,
) -> Household:
    """The house on a day, or some of its systems; with what its cycles' calendars ask, where that is looked at or ticked."""
    with visit.reading() as session:
        return read_household(visit, session, zone_of(zone), today, cycling, only)


@router.get("/round", response_model=Round)
async def read_round(request: Request, visit: Asked, today: Today, zone: Zone = "UTC") -> Response:
    """What is due today, in the order of the walk, and what was ticked today."""

    def whole() -> Response:
        day = day_of(today)
        household = household_of(visit, zone, day, cycling=True)
        with visit.reading() as session:
            ticks = rounds.ticks_on(session, today)
        return sent(view.round_of(household, day, ticks))

    return await computed_while(request, whole, PAGE)


@router.post("/round/ticks", response_model=Ticked)
async def keep_ticks(request: Request, given: Ticks, visit: Asked) -> Response:
    """Keep ticks in their order, each once however often it is sent, with the entries that they write into the log."""

    def whole() -> Response:
        only = {tick.system_id for tick in given.ticks}
        household = household_of(visit, "UTC", day_of(given.ticks[0].day), cycling=True, only=only)
        answer = Ticked([], [], {})
        with visit.writing() as session:
            for tick in given.ticks:
                try:
                    kept, new = keep(session, household, tick)
                except NoSuchSystem:
                    answer.refused[tick.id] = say("This system is not kept any more.")
                    continue
                (answer.kept if new else answer.there).append(kept if new else tick.id)
        return sent(answer)

    return await computed(whole)


def keep(session: Session, household: Household, given: TickIn) -> tuple[str, bool]:
    """One tick, as the event that it tells of: what was done, that a duty was seen to, or why it was left out."""
    day_of(given.due), day_of(given.day)
    at = min(given.at, datetime.now(UTC))
    duty = next((row for row in household.duties.get(given.system_id, ()) if row.key == given.duty), None)
    tick = ledger.new(
        event_of(duty.event if duty and given.log else None, given),
        at,
        duty=given.duty,
        due=given.due,
        day=given.day,
        done_by=given.done_by,
        once=given.id,
    )
    return rounds.add_tick(session, given.system_id, tick)


def event_of(usual: Event | None, given: TickIn) -> Event:
    """What a tick tells: what its duty usually is, with the amounts that it really was and who did it."""
    if given.skipped:
        return Skipped(given.skipped)
    by = f"by {given.done_by}" if given.done_by else ""
    if isinstance(usual, Changed) and given.litres is not None:
        usual = replace(usual, litres=given.litres)
    if isinstance(usual, Fed):
        grams = usual.grams if given.grams is None else given.grams
        usual = replace(usual, grams=grams, left=given.left or usual.left)
    if usual is None or isinstance(usual, Skipped | Pulsed | ToAnimals):
        return SeenTo(given.note)
    return replace(usual, note=", ".join(part for part in (usual.note, given.note, by) if part))


@router.delete("/round/ticks/{tick_id}", status_code=204)
def take_tick_back(tick_id: Annotated[str, Path(max_length=64)], visit: Asked) -> None:
    """Forget a tick, and take out what it says was done."""
    with visit.writing() as session:
        rounds.take_back(session, tick_id)


@router.put("/round/order", status_code=204)
def keep_order(walk: WalkIn, visit: Asked) -> None:
    """Keep the order of the walk."""
    with visit.writing() as session:
        rounds.put_walk(session, dict.fromkeys(walk.systems))


@router.put("/round/helpers", status_code=204)
def keep_helpers(given: HelpersIn, visit: Asked) -> None:
    """Keep who does the round; raise NamedCase "same_name" for two of one name."""
    names = [row.name.strip() for row in given.helpers]
    if len({name.lower() for name in names}) < len(names):
        raise NamedCase("same_name")
    rows = [(row.name.strip(), ",".join(row.weekdays), row.hour) for row in given.helpers]
    with visit.writing() as session:
        rounds.put_helpers(session, rows)


@router.get("/systems/{system_id}/care", response_model=CareOfSystem)
async def read_care(request: Request, system_id: int, visit: Asked, today: Today, zone: Zone = "UTC") -> Response:
    """What one system wants done, how often, why, and when next."""

    def whole() -> Response:
        day = day_of(today)
        with visit.reading() as session:
            existing(session, system_id)
        household = household_of(visit, zone, day, only=[system_id])
        [care] = household.cares
        return sent(CareOfSystem(view.cared(household, care, day)))

    return await computed_while(request, whole, PAGE)


@router.put("/systems/{system_id}/care/{key}", status_code=204)
def set_duty(
    system_id: int, key: Annotated[str, Path(max_length=80, pattern=r"^[\w.-]+$")], given: DutySet, visit: Asked
) -> None:
    """Set how often a duty comes, that it does not, or a duty of one's own; back to the plan's with nothing set."""
    nothing = given.rhythm is None and not given.off and not given.words
    text = None if nothing else json.dumps(given.model_dump(), ensure_ascii=False)
    with visit.writing() as session:
        rounds.put_setting(session, system_id, key, text)


@router.get("/round/away", response_model=AwaySheet)
async def read_away(request: Request, visit: Asked, first: Today, last: Today, zone: Zone = "UTC") -> Response:
    """A holiday, both days counted: what to do before, what a stand-in must, what can wait."""

    def whole() -> Response:
        begin, end = day_of(first), day_of(last)
        if not 0 <= (end - begin).days < LONGEST_D:
            raise NamedCase("no_such_holiday")
        household = household_of(visit, zone, begin - timedelta(days=1))
        return sent(view.away_sheet(household, begin, end))

    return await computed_while(request, whole, PAGE)


@router.get("/round/supplies", response_model=Supplies)
async def read_supplies(
    request: Request,
    visit: Asked,
    today: Today,
    one_for: Annotated[int, Query(ge=1, le=1000)] = 10,
) -> Response:
    """What the house uses up, when it runs out and is to be ordered, and spares: one for up to so many in use."""

    def whole() -> Response:
        day = day_of(today)
        household = household_of(visit, "UTC", day)
        with visit.reading() as session:
            kept = rounds.stocks(session)
        stocks = {key: stock for key, row in kept.items() if (stock := stock_of(*row)) is not None}
        return sent(view.supplies(household, stocks, one_for, day))

    return await computed_while(request, whole, PAGE)


def stock_of(amount: float, counted: str, lead_d: int) -> Stock | None:
    """What was counted as the core's; None where the row can not be read."""
    try:
        given = StockIn(amount=amount, counted=counted, lead_d=lead_d)
    except ValueError:
        return None
    return Stock(amount, day_of(given.counted), lead_d)


@router.put("/round/supplies/{key}", status_code=204)
def count_supply(
    key: Annotated[str, Path(max_length=80, pattern=r"^[\w.-]+$")], given: StockIn, visit: Asked
) -> None:
    """Keep what was counted of something."""
    day_of(given.counted)
    with visit.writing() as session:
        rounds.put_stock(session, key, given.amount, given.counted, given.lead_d)


@router.get("/round/calendar/{who:path}.{form}", response_class=Response)
async def read_calendar(
    request: Request,
    who: Annotated[str, Path(max_length=60)],
    form: Annotated[str, Path(pattern="^(ics|csv)$")],
    visit: Asked,
    today: Today | None = None,
    zone: Zone = "UTC",
) -> Response:
    """The next eight weeks of one helper, or of everybody, as an iCalendar file or a table."""

    def whole() -> Response:
        here = zone_of(zone)
        day = day_of(today) if today else datetime.now(here).date()
        household = household_of(visit, zone, day)
        helper = next((row for row in household.helpers if row.name == who), None)
        if helper is None and who != EVERYBODY:
            raise NamedCase("no_such_helper")
        rows = [
            Appointment(when, care.system_id, care.name, duty)
            for when, care, duty in view.ahead(household, day)
            if helper is None or helper in on_duty(household.helpers, when)
        ]
        headers = {"Content-Disposition": f'attachment; filename="round.{form}"'}
        if form == "csv":
            return Response(write_tasks(rows, {}), media_type="text/csv", headers=headers)
        hour = helper.hour if helper else min((row.hour for row in household.helpers), default=18.0)
        name = f"Round, {helper.name}" if helper else "Round"
        body = write_calendar(rows, here, hour, {}, name, datetime.now(UTC))
        return Response(body, media_type="text/calendar", headers=headers)

    return await computed_while(request, whole, PAGE)
