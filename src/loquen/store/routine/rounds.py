"""The round as it is kept: settings of duties, ticks, helpers and the order of the walk."""

import json
from collections import defaultdict
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from typing import Any

from sqlalchemy import case
from sqlalchemy import select as select_columns
from sqlmodel import Session, col, delete, func, select

from loquen.store.documents.systems import existing
from loquen.store.happened import ledger
from loquen.store.happened.ledger import FEW, New
from loquen.store.tables import DutyRow, EventRow, HelperRow, StockRow, WalkRow, now

UNSAID = "for a reason that can not be read"


class NoSuchTick(LookupError):
    """No tick is kept under this number."""


@dataclass(frozen=True, slots=True)
class Tick:
    """A duty seen to or skipped: under which name it counts once, on which of its days, and by whom."""

    id: str
    system_id: int
    duty: str
    due: str
    done_by: str = ""
    skipped: str = ""


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


def add_tick(session: Session, system_id: int, new: New) -> tuple[str, bool]:
    """Keep a tick and say that it is new; what is there where it, or its duty's day, was sent before.

    Raises: NoSuchSystem.
    """
    existing(session, system_id)
    sent = session.exec(select(EventRow).where(EventRow.once == new.once)).first()
    row = sent or ledger.ticked(session, system_id, new.duty, new.due)
    if row is not None:
        return row.once or "", False
    ledger.write(session, system_id, [new])
    return new.once or "", True


def take_back(session: Session, tick_id: str) -> None:
    """Take a tick out, with what it says was done; it may be sent again. Raises: NoSuchTick."""
    row = session.exec(select(EventRow).where(EventRow.once == tick_id, EventRow.duty != "")).first()
    if row is None or row.deleted is not None:
        raise NoSuchTick(tick_id)
    row.deleted, row.once = now(), None
    session.add(row)
    session.flush()


def ticks_on(session: Session, day: str) -> list[Tick]:
    """What was ticked on a day, in the order in which it was."""
    rows = are_ticks(select(EventRow)).where(EventRow.day == day, is_day(EventRow.due))
    return [tick(row) for row in session.exec(rows.order_by(col(EventRow.at), col(EventRow.id)))]


def are_ticks(rows: Any) -> Any:
    return rows.where(col(EventRow.duty) != "", col(EventRow.deleted).is_(None))


def last_ticks(session: Session, system_ids: Collection[int]) -> dict[tuple[int, str], tuple[str, str, str]]:
    """By system and duty: the last of its days that is settled, the last day on which it was ticked or skipped, and the last
    on which it was really done ("" for never)."""
    done = case((col(EventRow.kind) != "skipped", col(EventRow.day)), else_="")
    rows = select_columns(
        col(EventRow.system_id), col(EventRow.duty), func.max(EventRow.due), func.max(EventRow.day), func.max(done)
    )
    rows = are_ticks(rows).where(is_day(EventRow.due), is_day(EventRow.day))
    if len(system_ids) <= FEW:
        rows = rows.where(col(EventRow.system_id).in_(system_ids))
    grouped = session.execute(rows.group_by(col(EventRow.system_id), col(EventRow.duty)))
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


def tick(row: EventRow) -> Tick:
    return Tick(row.once or "", row.system_id or 0, row.duty, row.due, row.done_by, skipped_because(row))


def skipped_because(row: EventRow) -> str:
    """Why a duty was left out; "" where it was seen to."""
    if row.kind != "skipped":
        return ""
    try:
        return str(json.loads(row.document)["reason"]) or UNSAID
    except (ValueError, KeyError, TypeError):
        return UNSAID
