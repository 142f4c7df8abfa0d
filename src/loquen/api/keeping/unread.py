"""What can not be read, of a page or of one system's log: told, put right, set aside, brought back."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request, Response
from pydantic import Field
from sqlmodel import Session

from loquen.api.computing import PAGE, computed_while
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.checked import stored
from loquen.checked.plan import Strict
from loquen.core.events.ledger import name_of
from loquen.core.graph.giving_up import heed
from loquen.core.model.inputs.quantity import Sentence, say
from loquen.core.model.roots.documents import Unreadable
from loquen.house.house import Visit
from loquen.house.log.deeds import deeds_of
from loquen.house.unread import KINDS, Kind, Place, contradicting, why_not
from loquen.store import raw
from loquen.store.documents import systems
from loquen.store.documents.systems import MOST_ID
from loquen.store.happened import register
from loquen.store.raw import NoSuchRaw

router = APIRouter(prefix="/api/unread", tags=["unread"], responses=dict(FAULTS))
MOST_TOLD = 100
LONGEST = 20_000


@dataclass(frozen=True, slots=True)
class UnreadRow:
    """A row that can not be read: what it is, of which system, why, and what stands in it."""

    table: str
    key: str
    words: str
    system_id: int | None
    why: Sentence
    columns: dict[str, str]


@dataclass(frozen=True, slots=True)
class Unread:
    """Of one page what can not be read, so many at most; `count` says how many there are."""

    count: int
    rows: list[UnreadRow]


class PutRight(Strict):
    """A row, and what should stand in its columns."""

    table: str = Field(max_length=20)
    key: str = Field(max_length=400)
    columns: dict[str, Annotated[str, Field(max_length=LONGEST)]] = Field(max_length=4)


class RowAt(Strict):
    table: str = Field(max_length=20)
    key: str = Field(max_length=400)


@dataclass(frozen=True, slots=True)
class PutAside:
    """The number by which it can be brought back."""

    number: int


@router.get("", response_model=Unread)
async def read_unread(
    request: Request,
    visit: Asked,
    place: Place,
    system: Annotated[int | None, Query(ge=1, le=MOST_ID)] = None,
) -> Response:
    """What of a page, or of one system's log, can not be read."""

    def whole() -> Response:
        with visit.reading() as session:
            rows = list(found(visit, session, place, system))
        return sent(Unread(len(rows), rows[:MOST_TOLD]))

    return await computed_while(request, whole, PAGE)


def found(visit: Visit, session: Session, place: Place, system: int | None) -> Iterator[UnreadRow]:
    for kind in KINDS:
        if kind.place == place:
            for row in rows_of(visit, session, kind, system):
                why = why_not(kind, row, visit.library)
                if why is not None:
                    yield told(kind, row, why)
    if place == "register":
        for number in contradicting(register.everybody(session)):
            row = raw.row_of(session, "resident", f"[{number}]")
            yield told(
                kinds_of("resident")[0],
                row,
                say("What happened to it contradicts itself: more left than ever came."),
            )


def rows_of(visit: Visit, session: Session, kind: Kind, system: int | None) -> Iterator[dict[str, Any]]:
    """The rows of a kind, of one system where one is asked for; of the logs those of which something can not be read."""
    if kind.place == "log":
        asked = [system] if system else [row.id for row in systems.list_all(session)]
        for system_id in [number for number, known in deeds_of(visit, session, asked).items() if known.unread]:
            heed()
            yield from raw.rows(session, kind.table, kind.only, system_id=system_id)
    else:
        yield from raw.rows(session, kind.table, kind.only)


def told(kind: Kind, row: dict[str, Any], why: Sentence) -> UnreadRow:
    return UnreadRow(
        table=kind.table,
        key=raw.key_of(kind.table, row),
        words=kind.words,
        system_id=row.get("system_id") if isinstance(row.get("system_id"), int) else None,
        why=why,
        columns={name: "" if row[name] is None else str(row[name]) for name in kind.columns},
    )


def kinds_of(table: str) -> list[Kind]:
    """The kinds of a table's rows; raise NoSuchRaw."""
    found = [kind for kind in KINDS if kind.table == table]
    if not found:
        raise NoSuchRaw(table)
    return found


@router.put("", status_code=204)
def put_right(given: PutRight, visit: Asked) -> None:
    """Keep what should stand in a row; 422 says why that can not be read either."""
    kinds = kinds_of(given.table)
    with visit.writing() as session:
        row = raw.row_of(session, given.table, given.key)
        known = {name for kind in kinds for name in kind.columns}
        new = {name: of_the_kind(row[name], value) for name, value in given.columns.items() if name in known}
        # All kinds of one table have one reader.
        why = why_not(kinds[0], {**row, **new}, visit.library)
        if why is not None:
            raise Unreadable(why)
        if given.table == "event" and "document" in new:
            new["kind"] = name_of(stored.event(new["document"]))
        raw.put(session, given.table, given.key, new)
    if given.table == "own_row":
        visit.house.adopt()


def of_the_kind(before: Any, value: str) -> Any:
    """A typed value as its column holds it: a number where one stood, or where nothing else can be meant."""
    try:
        number = float(value)
    except ValueError:
        return value
    if isinstance(before, str) and not before.replace(".", "").lstrip("-").isdigit() and value != f"{number:g}":
        return value
    return int(number) if number.is_integer() else number


@router.post("/aside", response_model=PutAside)
def set_aside(given: RowAt, visit: Asked) -> Response:
    """Set a row aside, whole."""
    kinds_of(given.table)
    with visit.writing() as session:
        return sent(PutAside(raw.set_aside(session, given.table, given.key)))


@router.post("/aside/{number}/restore", status_code=204)
def bring_back(number: int, visit: Asked) -> None:
    """Put it back where it was."""
    with visit.writing() as session:
        raw.bring_back(session, number)
    visit.house.adopt()
