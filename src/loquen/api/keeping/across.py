"""The logs of all systems together: what happened last, what was read last, and how one thing went in several of them."""

from typing import Annotated, Any

from fastapi import APIRouter, Query, Request, Response
from pydantic import Field

from loquen.api.computing import computed_while
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.keeping.log import all_shown
from loquen.api.wire.answers import sent
from loquen.checked.days import Moment
from loquen.checked.plan import Strict
from loquen.core.model.records.log import KIND_WORDS, Kind
from loquen.house.log import across
from loquen.house.log.across import LastReadings
from loquen.house.log.reading import readable
from loquen.house.log.schema import LoggedOut
from loquen.store.documents import systems
from loquen.store.happened import ledger

router = APIRouter(prefix="/api", tags=["log"], responses=dict(FAULTS))


class Sought(Strict):
    """Which lines of all logs are wanted: of some systems, of some kinds, between two moments, with some words in them."""

    system: list[int] = Field(default_factory=list, max_length=500)
    kind: list[Kind] = Field(default_factory=list, max_length=30)
    since: Moment | None = None
    until: Moment | None = None
    find: str = Field(default="", max_length=100)
    count: int = Field(default=100, ge=1, le=500)

    def holds(self, row: LoggedOut) -> bool:
        """Whether a line is of a wanted kind and has every wanted word somewhere in it."""
        entry: Any = row.entry
        told = (entry.what, entry.value, entry.note, entry.product, row.who, KIND_WORDS[entry.kind], entry.filter)
        text = " ".join(str(part) for part in told if part).lower()
        wanted = not self.kind or entry.kind in self.kind
        return wanted and all(word in text for word in self.find.lower().split())


MOST_LOOKED_THROUGH = 5000


@router.get("/log")
def list_latest(visit: Asked, sought: Annotated[Sought, Query()]) -> list[LoggedOut]:
    """The newest entries of all systems, or of those that are sought among the last some thousands."""
    looks = MOST_LOOKED_THROUGH if sought.kind or sought.find else sought.count
    with visit.reading() as session:
        rows = ledger.list_latest(session, looks, sought.system, sought.since, sought.until)
        found = all_shown(session, readable(rows), visit.library)
    return [row for row in found if sought.holds(row)][: sought.count]


@router.get("/log/last", response_model=LastReadings)
async def read_last(request: Request, visit: Asked) -> Response:
    """The newest reading of everything in every system."""

    def whole() -> Response:
        with visit.reading() as session:
            return sent(across.last_readings(visit, session, systems.list_all(session)))

    return await computed_while(request, whole)


@router.get("/log/series", response_model=across.AllSeries)
async def read_series(
    request: Request,
    visit: Asked,
    measure: Annotated[str, Query(max_length=40)],
    system: Annotated[list[int], Query(min_length=1, max_length=60)],
    since: Annotated[Moment, Query()],
) -> Response:
    """How one thing was read in some systems."""

    def whole() -> Response:
        with visit.reading() as session:
            return sent(across.series(visit, session, systems.list_some(session, system), measure, since))

    return await computed_while(request, whole)
