"""Rooms on the wire."""

from pydantic import BaseModel, Field

from loquen.checked.plan import RoomSchema, Strict


class RoomName(BaseModel):
    """A room in the list: how many racks and tanks it has."""

    id: int
    name: str
    racks: int
    tanks: int


class OfARoom(Strict):
    """What is asked of a room that is not saved."""

    room: RoomSchema


class RoomOrder(OfARoom):
    """A room to build, and the units to write it in, by kind."""

    units: dict[str, str] = Field(default_factory=dict, max_length=60)


class RackOfTanks(OfARoom):
    """A rack of so many tanks alike, of one system where it has one."""

    name: str = Field(min_length=1, max_length=80)
    tanks: int = Field(ge=1, le=120)
    shelves: int = Field(ge=1, le=8)
    litres: float = Field(ge=1, le=5000)
    system: int = Field(default=0, ge=0, le=2**53)


class ZoneWanted(OfARoom):
    """Zones to propose, for a share of each tank changed a day."""

    share: float = Field(default=0.15, ge=0.01, le=1)


class ZoneTried(OfARoom):
    zone: int = Field(ge=1, le=24)
