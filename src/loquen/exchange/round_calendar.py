"""What is to be done as an iCalendar file (RFC 5545) and as a table."""

import csv
import io
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from uuid import NAMESPACE_URL, uuid5
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

from loquen.core.model.quantity import as_text
from loquen.core.routine.duty import Duty
from loquen.exchange.tables import harmless

COLUMNS = ("day", "system", "what", "how", "minutes", "why")


@dataclass(frozen=True, slots=True)
class Appointment:
    """One duty of a system on a day."""

    day: date
    system_id: int
    system: str
    duty: Duty


def write_calendar(
    rows: Iterable[Appointment], zone: ZoneInfo, hour: float, chosen: Mapping[str, str], name: str, now: datetime
) -> bytes:
    """One event a system and day, from an hour on in a person's own time zone, for as long as the work takes.

    What has to be done is its description; an event keeps its identity while its day stands.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Loquen//round//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    together: dict[tuple[date, int], list[Appointment]] = {}
    for row in rows:
        together.setdefault((row.day, row.system_id), []).append(row)
    begins: dict[date, datetime] = {}
    for (day, system_id), of_day in together.items():
        start = begins.get(day) or at_hour(day, hour, zone)
        minutes = max(5, round(sum(row.duty.minutes for row in of_day)))
        # By the clock that runs on: over a change of clocks an evening is as long as ever.
        end = (start.astimezone(UTC) + timedelta(minutes=minutes)).astimezone(zone)
        begins[day] = end
        event = Event()
        event.add("uid", f"{uuid5(NAMESPACE_URL, f'loquen:{system_id}:{day}')}@loquen")
        event.add("dtstamp", now.astimezone(UTC))
        event.add("dtstart", start)
        event.add("dtend", end)
        event.add("summary", f"{of_day[0].system}: {summary(of_day, chosen)}")
        event.add("description", "\n".join(told(row.duty, chosen) for row in of_day))
        calendar.add_component(event)
    days = sorted({day for day, _ in together}) or [now.date()]
    calendar.add_missing_timezones(first_date=days[0], last_date=days[-1] + timedelta(days=366))
    return bytes(calendar.to_ical())


def at_hour(day: date, hour: float, zone: ZoneInfo) -> datetime:
    """A wall clock's hour on a day, to the minute; the day's last where it would be the next one's first."""
    minutes = min(round(hour * 60), 24 * 60 - 1)
    return datetime(day.year, day.month, day.day, minutes // 60, minutes % 60, tzinfo=zone)


def summary(rows: list[Appointment], chosen: Mapping[str, str]) -> str:
    first = as_text(rows[0].duty.words, chosen).rstrip(".")
    return first if len(rows) == 1 else f"{first}, and {len(rows) - 1} more"


def told(duty: Duty, chosen: Mapping[str, str]) -> str:
    steps = "".join(f"\n  – {as_text(step, chosen)}" for step in duty.steps)
    return f"{as_text(duty.words, chosen)}{steps}"


def write_tasks(rows: Iterable[Appointment], chosen: Mapping[str, str]) -> str:
    """The same as a table, a line a duty and day."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for row in rows:
        duty = row.duty
        steps = "; ".join(as_text(step, chosen) for step in duty.steps)
        cells = (
            row.day.isoformat(),
            row.system,
            as_text(duty.words, chosen),
            steps,
            duty.minutes,
            as_text(duty.why, chosen),
        )
        writer.writerow([harmless(cell) for cell in cells])
    return out.getvalue()
