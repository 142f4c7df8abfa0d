"""A table brought into a log: read and judged before the turn to write, looked at on the way, kept in one short write."""

from collections import OrderedDict
from collections.abc import Callable
from datetime import UTC, timedelta, timezone
from typing import Annotated, Any

from fastapi import APIRouter, Path, Request, Response
from pydantic import ValidationError

from loquen.api.computing import LONG, computed_while
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.keeping.log import Place
from loquen.api.wire.answers import sent
from loquen.checked.plan import EntrySchema
from loquen.checked.words import entry_fault_sentence
from loquen.core.events.faults import faults as faults_of
from loquen.core.events.ledger import Logged
from loquen.core.events.lines import event_of, line_of
from loquen.core.graph.giving_up import heed
from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.records.log import Entry, EntryFault, LogLine
from loquen.exchange.log_table import LINES_AT_ONCE, BadCell, read_table
from loquen.house.house import Visit
from loquen.house.log.schema import CellOut, ColumnOut, HowFar, TableIn, TableOut
from loquen.store.faults import Busy
from loquen.store.happened import ledger

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
async def preview_table(system_id: int, table: TableIn, visit: Asked, request: Request) -> Response:
    """What a table would bring; nothing is kept."""
    tell = teller(request, table)
    return await computed_while(request, lambda: sent(judged(visit, system_id, table, tell)[0]), LONG)


@router.post("/systems/{system_id}/log/table", response_model=TableOut)
async def import_table(system_id: int, table: TableIn, visit: Asked, request: Request) -> Response:
    """Keep what a table brings: what can not be read is named, what is there already is not doubled."""
    tell = teller(request, table)

    def whole() -> Response:
        for _ in range(TRIES):
            answer, rows, stamp = judged(visit, system_id, table, tell)
            lines = [ledger.new(event_of(row.entry, row.at, system_id), row.at) for row in rows]
            with visit.writing() as session:
                if ledger.stamps(session, [system_id]) == stamp:
                    ledger.write(session, system_id, lines)
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
    visit: Visit, system_id: int, table: TableIn, tell: Callable[[float], None]
) -> tuple[TableOut, list[LogLine], dict[int, ledger.Stamp]]:
    """What a table comes to beside the log that is there, and which log that was."""
    read = read_table(
        table.text,
        timezone(timedelta(minutes=table.zone_min)),
        visit.library,
        table.order,
        table.changes,
        lambda share: tell(READING * share),
    )
    with visit.reading() as session:
        stamp = ledger.stamps(session, [system_id])
        place = Place(visit, session, system_id, table.now)
    others = [LogLine(row.at, line_of(row.event)) for _, row in place.others]
    there = {same(row) for row in others}
    # What two readings of one minute say is looked up, not searched for: a table may have many thousand lines.
    minutes = {minute(row): row for row in others if row.entry.kind == "reading"}
    new: list[LogLine] = []
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
        found = schema_faults(row) or faults_of(
            logged(row, system_id),
            visit.library,
            now=table.now,
            volume_l=place.volume_l,
            others=[logged(beside, system_id)] if beside else (),
        )
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


def logged(row: LogLine, system_id: int) -> Logged:
    return Logged(row.at, event_of(row.entry, row.at, system_id))


def schema_faults(row: LogLine) -> list[EntryFault]:
    """What of an entry lies outside its fields' limits."""
    try:
        EntrySchema.model_validate({name: getattr(row.entry, name) for name in FIELDS})
    except ValidationError as fault:
        return [EntryFault("out_of_limits", str(fault.errors()[0]["loc"][0]))]
    return []


def same(row: LogLine) -> tuple[Any, ...]:
    """What tells two lines apart: by what they tell, not by what their kind has no use for."""
    entry = line_of(event_of(row.entry, row.at, 0))
    return (row.at.astimezone(UTC), entry)


def minute(row: LogLine) -> tuple[Any, ...]:
    e = row.entry
    return (row.at.astimezone(UTC).replace(second=0, microsecond=0), e.what, e.kit, e.when)
