"""When each duty was last seen to, by its ticks and by the log; what a log says is kept until that log is another."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from datetime import date, datetime
from zoneinfo import ZoneInfo

from sqlmodel import Session

from loquen.core.events.effects import FED, RINSED, RINSED_SOME
from loquen.core.routine.due import Done
from loquen.core.routine.duty import ROTA
from loquen.house.log.deeds import Deeds
from loquen.house.round.cares import Care
from loquen.store.routine import rounds


def done_days(
    session: Session, logs: Mapping[int, Deeds], cares: Iterable[Care], zone: ZoneInfo, today: date
) -> dict[int, dict[str, Done]]:
    """When each duty of some systems was last seen to, until a day of a time zone."""
    cares = list(cares)
    ids = [care.system_id for care in cares]
    found: dict[int, dict[str, Done]] = {system_id: {} for system_id in ids}
    for (system_id, key), (settled, seen, last) in rounds.last_ticks(session, ids).items():
        found[system_id][key] = Done(
            date.fromisoformat(last) if last else None, date.fromisoformat(settled), date.fromisoformat(seen)
        )
    for done in found.values():
        share_meals(done)
    for care in cares:
        days = {
            deed: day for deed, rows in logs[care.system_id].deeds.items() if (day := last_day(rows, zone, today))
        }
        for key, day in seen_to(days, [duty.key for duty in care.duties]).items():
            known = found[care.system_id].get(key, Done())
            if known.last is None or known.last < day:
                found[care.system_id][key] = replace(known, last=day)
    return found


def last_day(moments: list[datetime], zone: ZoneInfo, today: date) -> date | None:
    """The day of the last of some moments that is not after a day."""
    return next((day for moment in reversed(moments) if (day := moment.astimezone(zone).date()) <= today), None)


def seen_to(days: Mapping[str, date], keys: Iterable[str]) -> dict[str, date]:
    """The last day by duty: of a deed that sees to many, for each of them."""
    found = {deed: day for deed, day in days.items() if deed not in (FED, RINSED, RINSED_SOME)}
    keys = list(keys)
    beds = [key for key in keys if key.startswith(RINSED)]
    many = {FED: [key for key in keys if key.startswith(FED)], RINSED: beds}
    many[RINSED_SOME] = beds if len(beds) == 1 else []
    for deed, seen in many.items():
        for key in seen if deed in days else ():
            found[key] = max(days[deed], found.get(key, days[deed]))
    return found


def share_meals(done: dict[str, Done]) -> None:
    """Whichever of a rota's meals was given last, they were fed then."""
    meals = [key for key in done if key.startswith(ROTA)]
    last = max((one.last for key in meals if (one := done[key]).last), default=None)
    for key in meals:
        done[key] = replace(done[key], last=last)
