"""Days and time zones as a page sends them."""

from datetime import date
from typing import Annotated
from zoneinfo import ZoneInfo

from fastapi import Query

from loquen.core.errors import NamedCase

ISO_DAY = r"^\d{4}-\d{2}-\d{2}$"
Today = Annotated[str, Query(pattern=ISO_DAY)]
Zone = Annotated[str, Query(max_length=60)]


def day_of(text: str) -> date:
    """A day as it was sent; raise NamedCase "no_such_day"."""
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise NamedCase("no_such_day") from None


def zone_of(name: str) -> ZoneInfo:
    """A time zone by its name; raise NamedCase "no_such_zone"."""
    try:
        return ZoneInfo(name)
    except (ValueError, OSError, KeyError):
        raise NamedCase("no_such_zone") from None
