"""What the calendar of a cycle asks today, as duties with its own amounts."""

import logging
from collections.abc import Hashable
from dataclasses import dataclass, replace
from datetime import date, datetime, time
from zoneinfo import ZoneInfo

from sqlmodel import Session

from loquen.checked.documents import A_PLAN
from loquen.core.data.tables import constants
from loquen.core.errors import NamedCase
from loquen.core.events.kinds.water import Changed, Dosed
from loquen.core.model.inputs.quantity import say
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.running import Cycle
from loquen.core.model.roots.phase import phase
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import Rhythm
from loquen.core.system.cycle.calendar import Line
from loquen.core.system.cycle.forecast import forecast
from loquen.core.system.cycle.setup import ammonia_dose
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.log.deeds import LogAsItStands, log_as_it_stands
from loquen.house.log.reading import readable
from loquen.house.register.lived import as_lived
from loquen.house.round.cares import Care
from loquen.house.sheet.todays import todays_sheet
from loquen.store.documents.systems import Current
from loquen.store.happened import ledger

CYCLE = "cycle"
"""The key of the duty that stands in for a calendar, and how the keys of its lines begin."""
MOST_KEPT = 200
faults = logging.getLogger("loquen")


@dataclass(frozen=True)
class Morning:
    """The morning of a day, and a log that is at hand to be read until then; told apart by what stands in that log."""

    at: datetime
    log: LogAsItStands

    @property
    def mark(self) -> tuple[datetime, Hashable]:
        return self.at, self.log.mark


def with_calendar(
    visit: Visit,
    session: Session,
    system: Current,
    care: Care,
    zone: ZoneInfo,
    today: date,
    lives: tuple[Group, ...],
) -> Care:
    """A system's care with what its cycle's calendar asks today in the place of a word that there is one.

    The calendar is the morning's: what is done today is ticked, and does not move it.
    """
    if not any(duty.key == CYCLE or duty.measure == "nitrite" for duty in care.duties):
        return care
    morning = datetime.combine(today, time(), zone)
    duties = visit.kept(duties_of, system, Morning(morning, log_as_it_stands(session, system.id)), lives)
    if duties is None:
        return care
    covered = {CYCLE, *(("change",) if any(duty.key == f"{CYCLE}.change" for duty in duties) else ())}
    return replace(care, duties=(*duties, *(duty for duty in care.duties if duty.key not in covered)))


@at_most(MOST_KEPT)
def duties_of(visit: Visit, system: Current, morning: Morning, lives: tuple[Group, ...]) -> tuple[Duty, ...] | None:
    """The doses and changes that a calendar has for a day; None where there is no calendar."""
    try:
        plan = A_PLAN.read(system.document)
        if phase(plan) != "cycling":
            return None
        rows = ledger.list_of(morning.log.session, system.id)
        before = [known for _, known in readable(row for row in rows if row.at < morning.at)]
        found = forecast(todays_sheet(visit, as_lived(visit, plan, lives)), before, morning.at)
    except NamedCase:
        return None
    except Exception:
        faults.exception("the cycle of system %s can not be reckoned for the round", system.id)
        return None
    today = int(found.today)
    return tuple(
        duty_of(plan.cycle, line)
        for line in found.calendar
        if line.kind in ("dose", "detoxify", "buffer", "change") and line.day == today
    )


def duty_of(cycle: Cycle, line: Line) -> Duty:
    """A line of the calendar as a duty: its tick writes the dose or the change itself."""
    litres = round(line.litres, 1) if line.litres is not None else None
    return Duty(
        key=f"{CYCLE}.{line.kind}",
        kind="change",
        words=line.words,
        why=say("The calendar of its cycle has it for today, by what was read until this morning."),
        rhythm=Rhythm(every_d=1),
        minutes=constants("routine.toml")["care_min"].value,
        event=event_of(cycle, line, litres),
        page=CYCLE,
    )


def event_of(cycle: Cycle, line: Line, litres: float | None) -> Changed | Dosed:
    """What its tick writes into the log."""
    if line.kind == "dose":
        return ammonia_dose(cycle, line.amount)
    if line.kind == "detoxify":
        return Dosed("detoxifier", line.amount, "mL")
    if line.kind == "buffer":
        return Dosed("buffer", line.amount, "g", "sodium bicarbonate")
    return Changed(litres)
