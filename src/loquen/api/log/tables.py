"""A table brought into a log: read and judged before the turn to write, looked at on the way, kept in one short write."""

from collections import OrderedDict
from collections.abc import Callable
from datetime import UTC, timedelta, timezone
from typing import Annotated, Any

from fastapi import APIRouter, Path, Request, Response
from pydantic import ValidationError

from loquen.api.computing import LONG, computed_while
from loquen.api.dependencies import FAULTS, Kept
from loquen.api.log.routes import Place
from loquen.api.log.schema import CellOut, ColumnOut, HowFar, TableIn, TableOut
from loquen.api.wire.answers import sent
from loquen.api.wire.plan import EntrySchema
from loquen.api.wire.words import entry_fault_sentence
from loquen.core.graph.giving_up import heed
from loquen.core.model import log as logbook
from loquen.core.model.documents import document
from loquen.core.model.log import Entry, EntryFault, Logged
from loquen.core.model.quantity import as_text
from loquen.exchange.log_table import LINES_AT_ONCE, BadCell, read_table
from loquen.store import log
from loquen.store.database import Database
from loquen.store.faults import Busy

router = APIRouter(prefix="/api", tags=["log"], responses=dict(FAULTS))
READING = 0.4
"""The part of the time that reading takes; judging takes the rest."""
MOST_FAULTS = 200
TRIES = 3
"""So often a table is judged anew where the log changed meanwhile."""
FIELDS = tuple(Entry.__slots__)


class Watched:
    """How far the tables are that are being read, by the word that their page gave them; the last few."""

    def __init__(self, most: int = 50) -> None:
        self.shares: OrderedDict[str, float] = OrderedDict()
        self.most = most

    def tell(self, watch: str, share: float) -> None:
        if watch:
            self.shares[watch] = share
            while len(self.shares) > self.most:
                self.shares.popitem(last=False)


@router.post("/systems/{system_id}/log/preview", response_model=TableOut)
async def preview_table(system_id: int, table: TableIn, database: Kept, request: Request) -> Response:
    """What a table would bring; nothing is kept."""
    tell = teller(request, table)
    return await computed_while(request, lambda: sent(judged(database, system_id, table, tell)[0]), LONG)


@router.post("/systems/{system_id}/log/table", response_model=TableOut)
async def import_table(system_id: int, table: TableIn, database: Kept, request: Request) -> Response:
    """Keep what a table brings: what can not be read is named, what is there already is not doubled."""
    tell = teller(request, table)

    def whole() -> Response:
        for _ in range(TRIES):
            answer, rows, stamp = judged(database, system_id, table, tell)
            lines = [(row.at, document(row.entry)) for row in rows]
            with database.writing() as session:
                if log.stamps(session, [system_id]) == stamp:
                    log.create(session, system_id, lines)
                    return sent(answer.model_copy(update={"kept": True}))
        raise Busy

    return await computed_while(request, whole, LONG)


@router.get("/log/reading/{watch}")
def read_how_far(watch: Annotated[str, Path(max_length=64)], request: Request) -> HowFar:
    """How far a table is that is being read."""
    watched: Watched = request.app.state.tables
    return HowFar(share=watched.shares.get(watch, 0.0))


def teller(request: Request, table: TableIn) -> Callable[[float], None]:
    watched: Watched = request.app.state.tables
    return lambda share: watched.tell(table.watch, share)


def judged(
    database: Database, system_id: int, table: TableIn, tell: Callable[[float], None]
) -> tuple[TableOut, list[Logged], dict[int, log.Stamp]]:
    """What a table comes to beside the log that is there, and which log that was."""
    read = read_table(
        table.text,
        timezone(timedelta(minutes=table.zone_min)),
        table.order,
        table.changes,
        lambda share: tell(READING * share),
    )
    with database.reading() as session:
        stamp = log.stamps(session, [system_id])
        place = Place(session, system_id, table.now)
    there = {same(row) for _, row in place.others}
    # What two readings of one minute say is looked up, not searched for: a table may have many thousand lines.
    minutes = {minute(row): row for _, row in place.others if row.entry.kind == "reading"}
    new: list[Logged] = []
    doubled = 0
    faults = list(read.faults)
    for count, (line, row) in enumerate(read.rows):
        if count % LINES_AT_ONCE == 0:
            heed()
            tell(READING + (1 - READING) * count / len(read.rows))
        if same(row) in there:
            doubled += 1
            continue
        beside = minutes.get(minute(row))
        found = logbook.faults(
            row, now=table.now, volume_l=place.volume_l, others=[beside] if beside else ()
        ) + schema_faults(row)
        if found:
            what = as_text(entry_fault_sentence(found[0]), {})
            faults.append(BadCell(line, row.entry.what or row.entry.kind, what))
            continue
        there.add(same(row))
        if row.entry.kind == "reading":
            minutes[minute(row)] = row
        new.append(row)
    answer = TableOut(
        columns=[ColumnOut(heading=c.heading, taken_for=c.taken_for) for c in read.columns],
        new=len(new),
        there=doubled,
        faults=[
            CellOut(line=f.line, column=f.column, what=f.what)
            for f in sorted(faults, key=lambda f: f.line)[:MOST_FAULTS]
        ],
        either_order=read.either_order,
        either_change=read.either_change,
        kept=False,
    )
    return answer, new, stamp


def schema_faults(row: Logged) -> list[EntryFault]:
    """What of an entry lies outside its fields' limits."""
    try:
        EntrySchema.model_validate({name: getattr(row.entry, name) for name in FIELDS})
    except ValidationError as fault:
        return [EntryFault("out_of_limits", str(fault.errors()[0]["loc"][0]))]
    return []


def same(row: Logged) -> tuple[Any, ...]:
    return (row.at.astimezone(UTC), row.entry)


def minute(row: Logged) -> tuple[Any, ...]:
    e = row.entry
    return (row.at.astimezone(UTC).replace(second=0, microsecond=0), e.what, e.kit, e.when)
