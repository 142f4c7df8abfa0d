"""The whole house as a round sees it: every system with its duties as they are set, and what was done when."""

from collections.abc import Collection
from dataclasses import dataclass, field, replace
from datetime import date
from zoneinfo import ZoneInfo

from sqlmodel import Session

from loquen.checked.stored import those_read
from loquen.core.graph.giving_up import heed
from loquen.core.routine.costs import NitrateRead
from loquen.core.routine.due import Done, Helper, as_set
from loquen.core.routine.duty import Duty, Set
from loquen.house.feeding.view import Week, feeder
from loquen.house.house import Visit
from loquen.house.log.across import read_in
from loquen.house.log.deeds import deeds_of
from loquen.house.quarantine.view import TubCare, tub_cares
from loquen.house.register.lived import living, stays
from loquen.house.round.cares import Care, care
from loquen.house.round.cycles import with_calendar
from loquen.house.round.done import done_days
from loquen.house.round.schema import HelperIn, set_of
from loquen.store.documents import systems
from loquen.store.documents.systems import Current
from loquen.store.routine import rounds
from loquen.store.tables import HelperRow

CALCIUM = "calcium"


@dataclass(frozen=True, slots=True)
class Household:
    """Every system with its duties as they are set, and what was done when."""

    cares: list[Care]
    duties: dict[int, tuple[Duty, ...]]
    settings: dict[int, dict[str, Set]]
    done: dict[int, dict[str, Done]]
    helpers: list[Helper] = field(default_factory=list)
    nitrate: dict[int, NitrateRead] = field(default_factory=dict)
    """The newest reading of it by system, where there is one."""

    def of(self, system_id: int, duty: Duty) -> Done:
        return self.done.get(system_id, {}).get(duty.key, Done())


def last_nitrate(visit: Visit, session: Session, known: list[Current], zone: ZoneInfo) -> dict[int, NitrateRead]:
    """The newest reading of nitrate by system."""
    return {
        number: NitrateRead(interval.middle, one.at.astimezone(zone).date(), one.read.when == "before")
        for number, rows in read_in(visit, session, known).items()
        for one, interval in rows
        if one.read.what == "nitrate"
    }


def read_household(
    visit: Visit,
    session: Session,
    zone: ZoneInfo,
    today: date,
    cycling: bool = False,
    only: Collection[int] | None = None,
) -> Household:
    """The household as it is kept, in the order of the walk, or some systems of it; days are those of a time zone."""
    walk = rounds.walk(session)
    known = systems.list_all(session) if only is None else systems.list_some(session, only)
    known = sorted(known, key=lambda row: (walk.get(row.id, len(walk) + row.id), row.id))
    ids = [row.id for row in known]
    tubs = tub_cares(visit, session, known, today)
    known_logs = deeds_of(visit, session, ids)
    week = feeder(visit, session, known_logs, today)
    lives, ending = living(visit, session, today), stays(visit, session, known)

    # One system after the other, so that its sheet is made once.
    def cared_for(system: Current) -> Care:
        here = lives.get(system.id, ())
        known_care = visit.kept(care, system, here)
        return with_calendar(visit, session, system, known_care, zone, today, here) if cycling else known_care

    found = []
    for system in known:
        heed()
        of_stays = ending.get(system.id, ())
        cared = fed_by(as_tub(cared_for(system), tubs.get(system.id)), week(system))
        found.append(replace(cared, duties=(*of_stays, *cared.duties)) if of_stays else cared)
    settings = {system_id: those_read(rows.items(), set_of) for system_id, rows in rounds.settings(session).items()}
    return Household(
        cares=found,
        duties={row.system_id: as_set(row.duties, settings.get(row.system_id, {})) for row in found},
        settings=settings,
        done=done_days(session, known_logs, found, zone, today),
        nitrate=last_nitrate(visit, session, known, zone),
        helpers=[helper for row in rounds.helpers(session) if (helper := helper_of(row)) is not None],
    )


def helper_of(row: HelperRow) -> Helper | None:
    """A helper as the core's; None where the row can not be read."""
    try:
        given = HelperIn(name=row.name, weekdays=[day for day in row.weekdays.split(",") if day], hour=row.hour)
    except (ValueError, AttributeError):
        return None
    return Helper(given.name, tuple(given.weekdays), given.hour)


def as_tub(care: Care, tub: TubCare | None) -> Care:
    """A system's care, or that of those who wait in it."""
    return care if tub is None else replace(care, duties=tub.duties, section=tub.section)


def fed_by(care: Care, week: Week | None) -> Care:
    """A care whose food is that of its rota, where the house has a larder."""
    if week is None or not week.duties:
        return care
    rest = [duty for duty in care.duties if duty.kind != "feed" or duty.key == CALCIUM]
    uses = [use for use in care.uses if not use.key.startswith("food.")]
    return replace(care, duties=(*week.duties, *rest), uses=(*week.uses, *uses))
