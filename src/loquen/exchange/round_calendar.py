"""What is to be done as an iCalendar file (RFC 5545) and as a table."""

import csv
import io
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from functools import lru_cache
from uuid import NAMESPACE_URL, uuid5
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

from loquen.core.graph.giving_up import heed
from loquen.core.model.inputs.quantity import as_text
from loquen.core.routine.duty import Duty
from loquen.exchange.tables import harmless

UID = "00000000-0000-0000-0000-000000000000@loquen"
FIRST, LAST = datetime(1999, 1, 2, 3, 4, 5), datetime(1999, 2, 3, 4, 5, 6)
STAMP = "%Y%m%dT%H%M%S"
"""What an event is written with once, and how its times look, to be written over."""
BEGIN, END = b"BEGIN:VEVENT\r\n", b"END:VEVENT\r\n"
AT_ONCE, MOST_KEPT = 500, 8000
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
    together: dict[tuple[date, int], list[Appointment]] = {}
    for row in rows:
        together.setdefault((row.day, row.system_id), []).append(row)
    words = Words(chosen)
    head = event_of(now, zone).to_ical().removesuffix(END)
    begins: dict[date, datetime] = {}
    events: list[bytes] = []
    for count, ((day, system_id), of_day) in enumerate(together.items()):
        if count % AT_ONCE == 0:
            heed()
        start = begins.get(day) or at_hour(day, hour, zone)
        minutes = max(5, round(sum(row.duty.minutes for row in of_day)))
        # By the clock that runs on: over a change of clocks an evening is as long as ever.
        end = (start.astimezone(UTC) + timedelta(minutes=minutes)).astimezone(zone)
        begins[day] = end
        uid = f"{uuid5(NAMESPACE_URL, f'loquen:{system_id}:{day}')}@loquen"
        told = (
            line_of("summary", f"{of_day[0].system}: {words.summary(of_day)}"),
            line_of("description", "\n".join(words.told(row.duty) for row in of_day)),
        )
        events.append(b"".join((dated(head, uid, start, end), *told, END)))
    days = sorted({day for day, _ in together}) or [now.date()]
    return around(events, zone, days[0], days[-1], name, now)


def event_of(now: datetime, zone: ZoneInfo) -> Event:
    """An event that says nothing yet, at times to be written over."""
    event = Event()
    event.add("uid", UID)
    event.add("dtstamp", now.astimezone(UTC))
    event.add("dtstart", FIRST.replace(tzinfo=zone))
    event.add("dtend", LAST.replace(tzinfo=zone))
    return event


@lru_cache(MOST_KEPT)
def line_of(name: str, text: str) -> bytes:
    """One property as the library writes it: a house of hundreds of tanks says the same on many days."""
    event = Event()
    event.add(name, text)
    return bytes(event.to_ical()).removeprefix(BEGIN).removesuffix(END)


def dated(event: bytes, uid: str, start: datetime, end: datetime) -> bytes:
    """An event as it was written once, at another time."""
    for was, now in ((UID, uid), (f"{FIRST:{STAMP}}", f"{start:{STAMP}}"), (f"{LAST:{STAMP}}", f"{end:{STAMP}}")):
        event = event.replace(was.encode(), now.encode(), 1)
    return event


def around(events: list[bytes], zone: ZoneInfo, first: date, last: date, name: str, now: datetime) -> bytes:
    """A calendar with some events, and the time zone that they are in."""
    calendar = Calendar()
    calendar.add("prodid", "-//Loquen//round//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    one = event_of(now, zone)
    calendar.add_component(one)
    calendar.add_missing_timezones(first_date=first, last_date=last + timedelta(days=366))
    return bytes(calendar.to_ical()).replace(one.to_ical(), b"".join(events))


def at_hour(day: date, hour: float, zone: ZoneInfo) -> datetime:
    """A wall clock's hour on a day, to the minute; the day's last where it would be the next one's first."""
    minutes = min(round(hour * 60), 24 * 60 - 1)
    return datetime(day.year, day.month, day.day, minutes // 60, minutes % 60, tzinfo=zone)


class Words:
    """Duties in words, each written once: a duty comes on many days."""

    def __init__(self, chosen: Mapping[str, str]) -> None:
        self.chosen = chosen
        self.known: dict[int, tuple[Duty, str, str]] = {}

    def of(self, duty: Duty) -> tuple[Duty, str, str]:
        """The duty, its words, and how it is done."""
        if id(duty) not in self.known:
            steps = "".join(f"\n  – {as_text(step, self.chosen)}" for step in duty.steps)
            # The duty is kept with its words, so that no other takes its number.
            self.known[id(duty)] = (duty, as_text(duty.words, self.chosen), steps)
        return self.known[id(duty)]

    def summary(self, rows: list[Appointment]) -> str:
        first = self.of(rows[0].duty)[1].rstrip(".")
        return first if len(rows) == 1 else f"{first}, and {len(rows) - 1} more"

    def told(self, duty: Duty) -> str:
        _, words, steps = self.of(duty)
        return words + steps


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
