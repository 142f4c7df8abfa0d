"""Rooms on the wire."""

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field

from loquen.checked.documents import read_room
from loquen.checked.plan import RoomSchema, Strict, room_from_core
from loquen.house.systems.schema import Base, KeptOut, standing
from loquen.store.documents.systems import Saved


class RoomOut(KeptOut):
    """A room with its current document and where it stands in its history."""

    room: RoomSchema

    @classmethod
    def of(cls, saved: Saved) -> "RoomOut":
        """Raises: Unreadable for a document that can not be read."""
        return cls(**standing(saved), room=room_from_core(read_room(saved.document)))


class RoomName(BaseModel):
    """A room in the list: how many racks and tanks it has."""

    id: int
    name: str
    racks: int
    tanks: int


class DeletedRoom(BaseModel):
    id: int
    name: str
    deleted: datetime


class RoomUpdate(Base):
    """A room to save on top of the revision it was made from."""

    room: RoomSchema


class RoomDraft(Strict):
    """A room that is not saved."""

    room: RoomSchema


class RoomOrder(RoomDraft):
    """A room to build, and the units to write it in, by kind."""

    units: dict[str, str] = Field(default_factory=dict, max_length=60)


class RoomQuestion(RoomDraft):
    """A figure to explain; with a target, also what it would take."""

    figure: str = Field(max_length=80)
    target: float | None = Field(default=None, ge=-1e6, le=1e9)
    paths: list[Annotated[str, Field(max_length=80)]] | None = Field(default=None, max_length=8)


class RackOfTanks(RoomDraft):
    """A rack of so many tanks alike, of one system where it has one."""

    name: str = Field(min_length=1, max_length=80)
    tanks: int = Field(ge=1, le=120)
    shelves: int = Field(ge=1, le=8)
    litres: float = Field(ge=1, le=5000)
    system: int = Field(default=0, ge=0, le=2**53)


class ZoneWanted(RoomDraft):
    """Zones to propose, for a share of each tank changed a day."""

    share: float = Field(default=0.15, ge=0.01, le=1)


class ZoneTried(RoomDraft):
    zone: int = Field(ge=1, le=24)
