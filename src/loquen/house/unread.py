"""The kinds of rows that are read one by one: where each is shown, what of it a person can put right, and what reads it."""

import json
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

from pydantic_core import PydanticCustomError

from loquen.checked import stored
from loquen.checked.days import known_day
from loquen.core.errors import CoreError
from loquen.core.library import own
from loquen.core.library.kinds import KINDS as OWN_KINDS
from loquen.core.library.kinds import Kind as OwnKind
from loquen.core.library.own import BadCells
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, quoted, say
from loquen.core.model.records.calendar import moment_in_reach
from loquen.core.model.roots.documents import Unreadable
from loquen.house.breeding.schema import RackWanted
from loquen.house.feeding.view import since_of
from loquen.house.register.lived import written
from loquen.house.round.household import helper_of
from loquen.house.round.schema import StockIn, set_of
from loquen.store.happened.register import KeptResident
from loquen.store.routine import house
from loquen.store.routine.currency import CURRENCY, Currency
from loquen.store.tables import HelperRow

Row = Mapping[str, Any]
Place = Literal["log", "register", "quarantine", "feeding", "round", "stock", "library"]
NO_SENTENCE = say("It says nothing that Loquen can read.")


@dataclass(frozen=True, slots=True)
class Kind:
    """Rows of one table: the page they belong to, what one is called, the columns that can be put right, and a reader that
    raises for what it can not read; `only` says which rows of the table are of it and worth a look."""

    table: str
    place: Place
    words: str
    columns: tuple[str, ...]
    read: Callable[[Row, Library], Any]
    only: str = ""


def moment(value: Any) -> None:
    """Raises: Unreadable for what is no moment of ours."""
    try:
        moment_in_reach(datetime.fromisoformat(str(value)))
    except ValueError:
        raise Unreadable(
            say("“{value}” is no moment: a day and a time, as 2026-05-01 18:00.", value=quoted(value))
        ) from None


def event(row: Row, _: Library) -> None:
    """An event of the ledger: its moment, what it says, and of a tick its days."""
    moment(row["at"])
    read = stored.happened if row["resident_id"] else stored.event
    read(row["document"])
    for name in ("due", "day") if row["duty"] else ():
        try:
            known_day(str(row[name]) or "nothing")
        except PydanticCustomError:
            raise Unreadable(say("“{day}” is no day of the calendar.", day=quoted(row[name]))) from None


def stock(row: Row, _: Library) -> None:
    StockIn.model_validate({name: row[name] for name in ("amount", "counted", "lead_d")}, strict=True)


def helper(row: Row, _: Library) -> None:
    if helper_of(HelperRow(**row)) is None:
        raise ValueError("weekdays")


def of_the_house(row: Row, _: Library) -> None:
    """What is kept of the whole house, by its key."""
    readers: dict[str, Callable[[str], Any]] = {
        house.LARDER: stored.larder,
        CURRENCY: lambda text: Currency(**json.loads(text)),
        "rack": RackWanted.model_validate_json,
    }
    if row["key"].startswith(house.FED_SINCE):
        since_of(row["document"])
    elif row["key"] in readers:
        readers[row["key"]](row["document"])


def own_row(row: Row, library: Library) -> None:
    kind: OwnKind | None = next((kind for kind in OWN_KINDS if kind == row["kind"]), None)
    if kind is None:
        raise Unreadable(say("There is no kind of rows called “{kind}”.", kind=quoted(row["kind"])))
    own.kept_own_row(kind, {**json.loads(row["cells"]), "key": row["key"]}, library)


def of_document(read: Callable[[str], Any]) -> Callable[[Row, Library], Any]:
    return lambda row, _: read(row["document"])


A_DAY = "COALESCE(date({0}, '+0 days') = {0}, 0)"
A_MOMENT = "at GLOB '[12][0-9][0-9][0-9]-[01][0-9]-[0-3][0-9] *'"
NO_DAYS = f"NOT ({A_DAY.format('due')} AND {A_DAY.format('day')})"
LEAVES_NOTHING = "kind IN ('seen_to', 'skipped', 'pulsed')"
IN_A_LOG = (
    f"system_id = :system_id AND resident_id IS NULL AND NOT {LEAVES_NOTHING} AND NOT (duty <> '' AND {NO_DAYS})"
)
# Ticks and runs grow by thousands a year: those that are worth a look are found where they lie.
ODD_TICK = f"duty <> '' AND ({NO_DAYS} OR {LEAVES_NOTHING} AND NOT ({A_MOMENT} AND json_valid(document)))"
ODD_RUN = f"kind = 'pulsed' AND NOT ({A_MOMENT} AND json_valid(document))"
KINDS = (
    Kind("event", "log", "An entry of the log", ("at", "document"), event, IN_A_LOG),
    Kind("resident", "register", "Somebody of the register", ("document",), of_document(stored.resident)),
    Kind("event", "register", "What happened to somebody", ("at", "document"), event, "resident_id IS NOT NULL"),
    Kind("tub", "quarantine", "What is set for a tub", ("document",), of_document(stored.tub)),
    Kind("arriving", "quarantine", "Animals that are to come", ("document",), of_document(stored.arriving)),
    Kind("course", "quarantine", "A course of treatment", ("document",), of_document(stored.course)),
    Kind("house", "feeding", "What is kept of the house", ("document",), of_the_house),
    Kind("duty", "round", "What was set for a duty", ("document",), of_document(set_of)),
    Kind("event", "round", "A tick", ("due", "day", "at", "document"), event, ODD_TICK),
    Kind("event", "round", "A run of a changer", ("at", "document"), event, ODD_RUN),
    Kind("helper", "round", "Somebody who does the round", ("weekdays", "hour"), helper),
    Kind("stock", "stock", "What was counted", ("amount", "counted", "lead_d"), stock),
    Kind("own_row", "library", "A row of your own", ("cells",), own_row),
)


def why_not(kind: Kind, row: Row, library: Library) -> Sentence | None:
    """Why a row can not be read; None where it can."""
    try:
        kind.read(row, library)
    except Unreadable as fault:
        return fault.why
    except BadCells as fault:
        return say("{what}", what=quoted("; ".join(f"{column} {why}" for column, why in fault.faults.items()), 300))
    except (CoreError, ValueError, KeyError, TypeError, AttributeError) as fault:
        return say("It can not be read: {what}.", what=quoted(fault, 120)) if str(fault) else NO_SENTENCE
    return None


def contradicting(rows: Iterable[KeptResident]) -> list[int]:
    """Residents that can be read, and whose story contradicts itself."""
    return [row.id for row in rows if stored.or_none(row.document, stored.resident) and written(row) is None]
