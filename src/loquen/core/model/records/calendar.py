"""Days and moments that a keeper can mean: what lies outside is a slip, and no arithmetic with days is safe there."""

from datetime import date, datetime

FIRST_YEAR, LAST_YEAR = 1900, 2199


def day_in_reach(text: str) -> date:
    """A day as year, month and day; raise ValueError for one that is in no calendar, or beyond reach."""
    day = date.fromisoformat(text)
    if not FIRST_YEAR <= day.year <= LAST_YEAR:
        raise ValueError(text)
    return day


def moment_in_reach(moment: datetime) -> datetime:
    """A moment that can be told in any time zone; raise ValueError for one that is beyond reach."""
    if not FIRST_YEAR <= moment.year <= LAST_YEAR:
        raise ValueError(moment.isoformat())
    return moment
