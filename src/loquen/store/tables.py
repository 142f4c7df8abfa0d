"""The tables as they are stored. A table class is storage and never an input; a document is kept as its text."""

from datetime import UTC, datetime

from sqlalchemy import Column, Dialect, Index, String, Text, TypeDecorator, UniqueConstraint, text
from sqlmodel import Field, SQLModel

SYSTEM, ROOM, VENTURE = "system", "room", "venture"
"""What a document is of."""


def now() -> datetime:
    return datetime.now(UTC)


LOST = datetime(1999, 12, 31, 23, 59, 59, 999_999, UTC)
"""What a moment reads as that is none: one that nobody writes down, so that whoever shows it can tell."""


class Moment(TypeDecorator[datetime]):
    """A moment that knows its time zone: kept as UTC, which SQLite does not note beside it. A damaged one is LOST."""

    impl = String
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> str | None:
        return kept_moment(value) if value is not None else None

    def process_result_value(self, value: object, dialect: Dialect) -> datetime | None:
        if value is None:
            return None
        try:
            return datetime.fromisoformat(str(value)).replace(tzinfo=UTC)
        except ValueError:
            return LOST


def kept_moment(moment: datetime) -> str:
    """A moment as its column holds it."""
    return moment.astimezone(UTC).replace(tzinfo=None).isoformat(" ", "microseconds")


class Words(TypeDecorator[str]):
    """A text, also where a damaged file holds something else in its place."""

    impl = Text
    cache_ok = True

    def process_result_value(self, value: object, dialect: Dialect) -> str | None:
        return (
            value.decode("utf-8", "replace") if isinstance(value, bytes) else None if value is None else str(value)
        )


class SystemRow(SQLModel, table=True):
    """A system or a room: which revision of its document is current, and whether it was put away."""

    __tablename__ = "system"

    id: int | None = Field(default=None, primary_key=True)
    created: datetime = Field(default_factory=now, sa_type=Moment)
    current: int
    root: str = SYSTEM
    deleted: datetime | None = Field(default=None, sa_type=Moment)


class RevisionRow(SQLModel, table=True):
    """One revision of a plan; `previous` is the one it was made from. The plan is never changed once written."""

    __tablename__ = "revision"
    __table_args__ = (UniqueConstraint("system_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    system_id: int = Field(foreign_key="system.id", index=True)
    number: int
    previous: int | None = None
    saved: datetime = Field(default_factory=now, sa_type=Moment)
    plan: str = Field(sa_column=Column(Words, nullable=False))


class VariantRow(SQLModel, table=True):
    """Another way that a system could be built, kept beside it under a name."""

    __tablename__ = "variant"

    id: int | None = Field(default=None, primary_key=True)
    system_id: int = Field(foreign_key="system.id", index=True)
    name: str
    saved: datetime = Field(default_factory=now, sa_type=Moment)
    plan: str = Field(sa_column=Column(Words, nullable=False))


class PriceRow(SQLModel, table=True):
    """What one of a part costs, by the words that it is listed under."""

    __tablename__ = "price"

    part: str = Field(primary_key=True)
    money: float


class OwnRow(SQLModel, table=True):
    """A row of the keeper's own library, by its kind and key, as cells of text."""

    __tablename__ = "own_row"

    kind: str = Field(primary_key=True)
    key: str = Field(primary_key=True)
    saved: datetime = Field(default_factory=now, sa_type=Moment)
    cells: str = Field(sa_column=Column(Words, nullable=False))


class WaterRow(SQLModel, table=True):
    """A water that all systems may mix from; `revision` counts its changes."""

    __tablename__ = "water"

    id: int | None = Field(default=None, primary_key=True)
    revision: int = 1
    saved: datetime = Field(default_factory=now, sa_type=Moment)
    document: str = Field(sa_column=Column(Words, nullable=False))
    deleted: datetime | None = Field(default=None, sa_type=Moment)


IS_TICK = "duty <> '' AND deleted IS NULL"


class EventRow(SQLModel, table=True):
    """Something that happened, as it is known now; `revision` counts its changes, and what it was before is kept beside.

    `system_id` is the system or room that it happened in, `to_id` the one that somebody moved to, `resident_id` whose line
    of the register it is. A tick names its `duty` and the day on which that was `due`, with the `day` where the person was.
    `once` is the name under which it counts once, however often it is sent.
    """

    __tablename__ = "event"
    __table_args__ = (
        Index("ix_event_system_at", "system_id", "at"),
        Index("ix_event_to", "to_id", sqlite_where=text("to_id IS NOT NULL")),
        Index("ix_event_resident", "resident_id", sqlite_where=text("resident_id IS NOT NULL")),
        Index("ix_event_once", "once", unique=True),
        Index("ix_event_due", "system_id", "duty", "due", unique=True, sqlite_where=text(IS_TICK)),
        Index("ix_event_tick", "system_id", "duty", "due", "day", "kind", sqlite_where=text(IS_TICK)),
        Index("ix_event_day", "day", sqlite_where=text(IS_TICK)),
    )

    id: int | None = Field(default=None, primary_key=True)
    system_id: int | None = Field(default=None, foreign_key="system.id")
    to_id: int | None = None
    resident_id: int | None = Field(default=None, foreign_key="resident.id")
    kind: str
    at: datetime = Field(sa_type=Moment)
    duty: str = ""
    due: str = ""
    day: str = ""
    done_by: str = ""
    once: str | None = None
    written: datetime = Field(default_factory=now, sa_type=Moment)
    revision: int = 1
    document: str = Field(sa_column=Column(Words, nullable=False))
    deleted: datetime | None = Field(default=None, sa_type=Moment)


class EventRevisionRow(SQLModel, table=True):
    """What an event was at one of its revisions."""

    __tablename__ = "event_revision"
    __table_args__ = (UniqueConstraint("event_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    event_id: int = Field(foreign_key="event.id", index=True)
    number: int
    saved: datetime = Field(default_factory=now, sa_type=Moment)
    at: datetime = Field(sa_type=Moment)
    document: str = Field(sa_column=Column(Words, nullable=False))


class DutyRow(SQLModel, table=True):
    """What a keeper set otherwise for one duty of a system, or a duty of their own."""

    __tablename__ = "duty"

    system_id: int = Field(foreign_key="system.id", primary_key=True)
    key: str = Field(primary_key=True)
    document: str = Field(sa_column=Column(Words, nullable=False))


class HelperRow(SQLModel, table=True):
    """Somebody who does the round, by name, with the weekdays they are there."""

    __tablename__ = "helper"

    name: str = Field(primary_key=True)
    place: int
    weekdays: str
    hour: float


class StockRow(SQLModel, table=True):
    """What was counted of something that is used up, and how many days an order takes."""

    __tablename__ = "stock"

    key: str = Field(primary_key=True)
    amount: float
    counted: str
    lead_d: int


class WalkRow(SQLModel, table=True):
    """Where a system comes in the round."""

    __tablename__ = "walk"

    system_id: int = Field(foreign_key="system.id", primary_key=True)
    place: int


class ResidentRow(SQLModel, table=True):
    """A group or one animal with a name, as its document; put away with all that happened to it."""

    __tablename__ = "resident"

    id: int | None = Field(default=None, primary_key=True)
    document: str = Field(sa_column=Column(Words, nullable=False))
    deleted: datetime | None = Field(default=None, sa_type=Moment)


class TubRow(SQLModel, table=True):
    """A system in which newcomers wait, with what is set for it."""

    __tablename__ = "tub"

    system_id: int = Field(foreign_key="system.id", primary_key=True)
    document: str = Field(sa_column=Column(Words, nullable=False))


class ArrivingRow(SQLModel, table=True):
    """Animals that are on their way or wait, as their document."""

    __tablename__ = "arriving"

    id: int | None = Field(default=None, primary_key=True)
    document: str = Field(sa_column=Column(Words, nullable=False))
    deleted: datetime | None = Field(default=None, sa_type=Moment)


class CourseRow(SQLModel, table=True):
    """A course of treatment, as its document."""

    __tablename__ = "course"

    id: int | None = Field(default=None, primary_key=True)
    document: str = Field(sa_column=Column(Words, nullable=False))
    deleted: datetime | None = Field(default=None, sa_type=Moment)


class HouseRow(SQLModel, table=True):
    """Something of the whole house, as its document."""

    __tablename__ = "house"

    key: str = Field(primary_key=True)
    document: str = Field(sa_column=Column(Words, nullable=False))


class SetAsideRow(SQLModel, table=True):
    """A row that could not be read and was set aside: the table it was in, and every column of it as it was."""

    __tablename__ = "set_aside"

    id: int | None = Field(default=None, primary_key=True)
    kept_in: str
    moment: datetime = Field(default_factory=now, sa_type=Moment)
    row: str = Field(sa_column=Column(Words, nullable=False))
