"""The tables as they are stored. A table class is storage and never an input; a document is kept as its text."""

from datetime import UTC, datetime

from sqlalchemy import Column, Text, UniqueConstraint
from sqlmodel import Field, SQLModel


def now() -> datetime:
    return datetime.now(UTC)


class SystemRow(SQLModel, table=True):
    """A system: which revision of its plan is current, and whether it was put away."""

    __tablename__ = "system"

    id: int | None = Field(default=None, primary_key=True)
    created: datetime = Field(default_factory=now)
    current: int
    deleted: datetime | None = None


class RevisionRow(SQLModel, table=True):
    """One revision of a plan; `previous` is the one it was made from. The plan is never changed once written."""

    __tablename__ = "revision"
    __table_args__ = (UniqueConstraint("system_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    system_id: int = Field(foreign_key="system.id", index=True)
    number: int
    previous: int | None = None
    saved: datetime = Field(default_factory=now)
    plan: str = Field(sa_column=Column(Text, nullable=False))


class WaterRow(SQLModel, table=True):
    """A water that all systems may mix from; `revision` counts its changes."""

    __tablename__ = "water"

    id: int | None = Field(default=None, primary_key=True)
    revision: int = 1
    saved: datetime = Field(default_factory=now)
    document: str = Field(sa_column=Column(Text, nullable=False))
    deleted: datetime | None = None
