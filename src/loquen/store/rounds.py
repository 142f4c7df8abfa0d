"""The round as it is kept: settings of duties, ticks, helpers and the order of the walk."""

from collections import defaultdict
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import case
from sqlalchemy import select as select_columns
from sqlmodel import Session, col, delete, func, select

from loquen.store.log import FEW
from loquen.store.systems import existing
from loquen.store.tables import DutyRow, HelperRow, StockRow, TickRow, WalkRow


class NoSuchTick(LookupError):
    """No tick is kept under this number."""


@dataclass(frozen=True, slots=True)
class Tick:
    """A duty seen to or skipped: on which of its days, when, by whom, and the entry it wrote into the log.

    `day` is the date on which it was done where the person was.
    """

    id: str
    system_id: int
    duty: str
    due: str
    at: datetime
    day: str
    done_by: str = ""
    skipped: str = ""
    entry_id: int | None = None


def settings(session: Session) -> dict[int, dict[str, str]]:
    """What is set otherwise, as text, by system and duty."""
    found: dict[int, dict[str, str]] = defaultdict(dict)
    for row in session.exec(select(DutyRow)):
        found[row.system_id][row.key] = row.document
    return found


def put_setting(session: Session, system_id: int, key: str, document: str | None) -> None:
    """Keep what is set for a duty, or forget it where it is None; raise NoSuchSystem."""
    existing(session, system_id)
    row = session.get(DutyRow, (system_id, key))
    if document is None:
        if row is not None:
            session.delete(row)
    elif row is None:
        session.add(DutyRow(system_id=system_id, key=key, document=document))
    else:
        row.document = document
        session.add(row)
    session.flush()


def add_tick(session: Session, tick: Tick) -> tuple[Tick, bool]:
    """Keep a tick and say that it is new; the one that is there where it, or its duty's day, was sent before.

    Raises: NoSuchSystem.
    """
    existing(session, tick.system_id)
    row = session.get(TickRow, tick.id) or session.exec(same_day(tick)).first()
    if row is not None:
        return kept(row), False
    row = TickRow(
        id=tick.id,
        system_id=tick.system_id,
        duty=tick.duty,
        due=tick.due,
        at=tick.at,
        day=tick.day,
        done_by=tick.done_by,
        skipped=tick.skipped,
        entry_id=tick.entry_id,
    )
    session.add(row)
    session.flush()
    return kept(row), True


def same_day(tick: Tick):  # type: ignore[no-untyped-def]
    """The tick of the same duty's same day."""
    return select(TickRow).where(
        TickRow.system_id == tick.system_id, TickRow.duty == tick.duty, TickRow.due == tick.due
    )


def note_entry(session: Session, tick_id: str, entry_id: int) -> None:
    """Keep which entry of the log a tick wrote."""
    row = session.get(TickRow, tick_id)
    assert row is not None
    row.entry_id = entry_id
    session.add(row)
    session.flush()


def take_back(session: Session, tick_id: str) -> Tick:
    """Forget a tick; raise NoSuchTick."""
    row = session.get(TickRow, tick_id)
    if row is None:
        raise NoSuchTick(tick_id)
    found = kept(row)
    session.delete(row)
    session.flush()
    return found


def ticks_on(session: Session, day: str) -> list[Tick]:
    """What was ticked on a day, in the order in which it was."""
    rows = select(TickRow).where(TickRow.day == day, is_day(TickRow.due)).order_by(col(TickRow.at), col(TickRow.id))
    return [kept(row) for row in session.exec(rows)]


def last_ticks(session: Session, system_ids: Collection[int]) -> dict[tuple[int, str], tuple[str, str, str]]:
    """By system and duty: the last of its days that is settled, the last day on which it was ticked or skipped, and the last
    on which it was really done ("" for never)."""
    done = case((col(TickRow.skipped) == "", col(TickRow.day)), else_="")
    rows = select_columns(
        col(TickRow.system_id), col(TickRow.duty), func.max(TickRow.due), func.max(TickRow.day), func.max(done)
    ).where(is_day(TickRow.due), is_day(TickRow.day))
    if len(system_ids) <= FEW:
        rows = rows.where(col(TickRow.system_id).in_(system_ids))
    grouped = session.execute(rows.group_by(col(TickRow.system_id), col(TickRow.duty)))
    return {(system, duty): (due, seen, last) for system, duty, due, seen, last in grouped}


def is_day(column: Any) -> Any:
    """Whether a text is a day of the calendar: of a damaged file it may be anything."""
    return func.date(column, "+0 days") == column


def stocks(session: Session) -> dict[str, tuple[float, str, int]]:
    """What was counted of what is used up: how much, on which day, and how many days an order takes."""
    return {row.key: (row.amount, row.counted, row.lead_d) for row in session.exec(select(StockRow))}


def put_stock(session: Session, key: str, amount: float | None, counted: str, lead_d: int) -> None:
    """Keep what was counted, or forget it where it is None."""
    row = session.get(StockRow, key)
    if row is not None:
        session.delete(row)
        session.flush()
    if amount is not None:
        session.add(StockRow(key=key, amount=amount, counted=counted, lead_d=lead_d))
    session.flush()


def helpers(session: Session) -> list[HelperRow]:
    return list(session.exec(select(HelperRow).order_by(col(HelperRow.place))))


def put_helpers(session: Session, rows: Iterable[tuple[str, str, float]]) -> None:
    """Keep who does the round: name, weekdays and hour, in this order, and nobody else."""
    session.execute(delete(HelperRow))
    session.add_all(
        HelperRow(name=name, place=place, weekdays=weekdays, hour=hour)
        for place, (name, weekdays, hour) in enumerate(rows)
    )
    session.flush()


def walk(session: Session) -> dict[int, int]:
    """Where each system comes in the round, as far as it was put in order."""
    return {row.system_id: row.place for row in session.exec(select(WalkRow)) if isinstance(row.place, int)}


def put_walk(session: Session, system_ids: Iterable[int]) -> None:
    """Keep the order of the round; raise NoSuchSystem."""
    session.execute(delete(WalkRow))
    for place, system_id in enumerate(system_ids):
        existing(session, system_id)
        session.add(WalkRow(system_id=system_id, place=place))
    session.flush()


def kept(row: TickRow) -> Tick:
    return Tick(
        row.id,
        row.system_id,
        row.duty,
        row.due,
        row.at,
        row.day,
        row.done_by,
        row.skipped,
        row.entry_id,
    )
