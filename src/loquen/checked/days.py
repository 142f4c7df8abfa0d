"""Days, moments and time zones as a page sends them."""

from datetime import date, datetime
from typing import Annotated
from zoneinfo import ZoneInfo

from pydantic import AfterValidator, AwareDatetime, Field
from pydantic_core import PydanticCustomError

from loquen.core.errors import NamedCase
from loquen.core.model.records.calendar import day_in_reach, moment_in_reach

ISO_DAY = r"^\d{4}-\d{2}-\d{2}$"


def known_day(text: str) -> str:
    """A day that is in the calendar and in reach, or nothing; raise for any other."""
    try:
        return text and day_in_reach(text).isoformat()
    except ValueError:
        raise PydanticCustomError("no_such_day", "is no day of the calendar") from None


def known_moment(moment: datetime) -> datetime:
    """A moment within reach; raise for any other."""
    try:
        return moment_in_reach(moment)
    except ValueError:
        raise PydanticCustomError("no_such_day", "is no day of the calendar") from None


IsoDay = Annotated[str, Field(pattern=ISO_DAY), AfterValidator(known_day)]
Moment = Annotated[AwareDatetime, AfterValidator(known_moment)]
"""A moment as a page sends it, with its offset."""


def day_of(text: str) -> date:
    """A day as it was sent; raise NamedCase "no_such_day"."""
    try:
        return day_in_reach(text)
    except ValueError:
        raise NamedCase("no_such_day") from None


def zone_of(name: str) -> ZoneInfo:
    """A time zone by its name; raise NamedCase "no_such_zone"."""
    try:
        return ZoneInfo(name)
    except (ValueError, OSError, KeyError):
        raise NamedCase("no_such_zone") from None
