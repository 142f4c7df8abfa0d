"""Every fault that a person can meet, in one place: its status, and its sentence."""

import json
import logging
from dataclasses import asdict, dataclass, field
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import Response
from pydantic import ValidationError
from starlette.exceptions import HTTPException

from loquen.api.wire.refusals import AGAIN_S, FAILED
from loquen.checked.documents import Inconsistent
from loquen.checked.words import (
    conflict_sentence,
    entry_fault_sentence,
    entry_sentence,
    path_in,
    problem_sentence,
    register_fault_sentence,
)
from loquen.core.errors import CoreError, NamedCase, OutOfRange, UnknownKey
from loquen.core.library.own import BadCells
from loquen.core.model.inputs.quantity import Sentence, Term, quoted, say
from loquen.core.model.records.log import EntryFault
from loquen.core.model.records.register import RegisterFault
from loquen.core.model.roots.documents import Unreadable
from loquen.core.model.roots.plan import PLAN
from loquen.core.system.cases import told_case
from loquen.devices.changer.link import ControllerTrouble
from loquen.exchange.log_table import UnreadTable
from loquen.exchange.reports import UnreadReport
from loquen.house.documents.roots import Roots
from loquen.store.documents.own import InUse, NoSuchRow
from loquen.store.documents.systems import NoSuchRevision, NoSuchSystem, NothingToUndo, StaleRevision
from loquen.store.documents.variants import MOST_VARIANTS, NoSuchVariant, TooManyVariants
from loquen.store.documents.waters import NoSuchWater
from loquen.store.faults import Busy, StoreFault
from loquen.store.happened.ledger import NoSuchEntry
from loquen.store.happened.register import NoSuchResident, TooMuchHappened
from loquen.store.raw import NoSuchRaw
from loquen.store.routine.quarantine import NotInQuarantine, TooManyKept
from loquen.store.routine.rounds import NoSuchTick

log = logging.getLogger("loquen")
OF_A_CONTROLLER = {"no_controller": 404, "controller_refused": 422, "controller_late": 504}
"""The status of what is wrong with a device; where it is away, or answers nonsense, it is a gateway's."""


@dataclass(frozen=True, slots=True)
class FieldFault:
    """What is wrong with one field, said beside it, with the nearest value that works where there is one."""

    path: str
    sentence: Sentence
    nearest: bool | float | None = None


@dataclass(frozen=True, slots=True)
class Fault:
    """What went wrong: a code, a sentence, and the fields it is about."""

    code: str
    sentence: Sentence
    fields: list[FieldFault] = field(default_factory=list)
    current: int | None = None


def answer(status: int, code: str, sentence: Sentence, **more: Any) -> Response:
    """A fault on the wire; what can not be written as text is replaced, so that every fault can be told."""
    fault = Fault(code=code, sentence=sentence, **more)
    body = json.dumps(asdict(fault), ensure_ascii=False).encode("utf-8", "replace")
    again = {"Retry-After": str(AGAIN_S)} if status == 503 else None
    return Response(body, status, headers=again, media_type="application/json")


def field_fault(path: str, sentence: Sentence, nearest: bool | float | None = None) -> FieldFault:
    return FieldFault(path=quoted(path), sentence=sentence, nearest=nearest)


def to_mend(status: int, code: str, fields: list[FieldFault]) -> Response:
    count = Term(len(fields), "count")
    return answer(status, code, say("{count} to mend before this can be computed.", count=count), fields=fields)


def invalid_request(request: Request, error: Exception) -> Response:
    assert isinstance(error, RequestValidationError)
    roots: Roots = request.app.state.roots
    faults: dict[str, FieldFault] = {}
    for problem in error.errors():
        path = path_in(problem["loc"], roots.parts)
        faults.setdefault(path, field_fault(path, problem_sentence(path, problem, roots.shapes)))
    return to_mend(422, "invalid", list(faults.values()))


def inconsistent(_: Request, error: Exception) -> Response:
    assert isinstance(error, Inconsistent)
    faults = [field_fault(found.path, conflict_sentence(found), found.nearest) for found in error.conflicts]
    return to_mend(422, "inconsistent", faults)


def core_fault(_: Request, error: Exception) -> Response:
    assert isinstance(error, CoreError)
    if isinstance(error, NamedCase):
        return answer(422, error.code, told_case(error)[1])
    if isinstance(error, UnknownKey):
        text = "“{key}” is not in {table}."
        return answer(422, error.code, say(text, key=quoted(error.values["key"]), table=error.values["table"]))
    if isinstance(error, OutOfRange):
        words = {name: str(value) for name, value in error.values.items()}
        return answer(422, error.code, say("{name} is {value}; {low} to {high} {unit}.", **words))
    log.error("%s", error, exc_info=error)
    return answer(500, error.code, say("{what}", what=str(error)))


def no_such_system(_: Request, error: Exception) -> Response:
    assert isinstance(error, NoSuchSystem)
    return answer(
        404, f"no_such_{error.root}", say("There is no such {root}; it may have been deleted.", root=error.root)
    )


def no_such_revision(_: Request, error: Exception) -> Response:
    return answer(404, "no_such_revision", say("There is no such revision; old ones are let go of in time."))


def no_such_variant(_: Request, error: Exception) -> Response:
    return answer(404, "no_such_variant", say("There is no such variant; it may have been let go."))


def too_many_variants(_: Request, error: Exception) -> Response:
    most = Term(float(MOST_VARIANTS), "count")
    return answer(409, "too_many_variants", say("A system keeps {most} variants: let one go first.", most=most))


def no_such_water(_: Request, error: Exception) -> Response:
    return answer(404, "no_such_water", say("There is no such water; it may have been deleted."))


def bad_cells(_: Request, error: Exception) -> Response:
    assert isinstance(error, BadCells)
    faults = [field_fault(column, say("{what}", what=quoted(why, 300))) for column, why in error.faults.items()]
    return to_mend(422, "bad_cells", faults)


def no_such_row(_: Request, error: Exception) -> Response:
    return answer(404, "no_such_row", say("There is no such row of your own; it may have been deleted."))


def row_in_use(_: Request, error: Exception) -> Response:
    assert isinstance(error, InUse)
    text = f"{USERS.get(error.what, '{name}')} uses it: take it out there first."
    return answer(409, "in_use", say(text, name=quoted(name_in(error.document))))


USERS = {
    "variant": "{name}, kept as a variant,",
    "register": "The register",
    "quarantine": "Quarantine",
    "larder": "The larder",
    "log": "A reading in the log",
}
"""What uses an own row, where it is no system, room or venture of its own name."""


def name_in(document: str) -> str:
    """What a document calls what it describes."""
    try:
        return str(json.loads(document)["name"]) or "without a name"
    except (ValueError, KeyError, TypeError):
        return "without a name"


def entry_refused(_: Request, error: Exception) -> Response:
    assert isinstance(error, EntryFault)
    sentence = entry_fault_sentence(error)
    path = f"entries.{error.values.get('number', 0)}.{error.field}"
    return answer(422, error.code, sentence, fields=[field_fault(path, sentence)])


def no_such_entry(_: Request, error: Exception) -> Response:
    return answer(404, "no_such_entry", say("There is no such entry; it may have been deleted."))


def no_such_tick(_: Request, error: Exception) -> Response:
    return answer(404, "no_such_tick", say("There is no such tick; it may have been taken back."))


def register_refused(_: Request, error: Exception) -> Response:
    assert isinstance(error, RegisterFault)
    sentence = register_fault_sentence(error)
    return answer(422, error.code, sentence, fields=[field_fault(error.field, sentence)])


def no_such_resident(_: Request, error: Exception) -> Response:
    return answer(404, "no_such_resident", say("The register has nobody of this number any more."))


def too_much_happened(_: Request, error: Exception) -> Response:
    return answer(409, "too_much_happened", say("So much happened to it that no more is kept: begin another."))


def not_in_quarantine(_: Request, error: Exception) -> Response:
    return answer(404, "not_in_quarantine", say("Quarantine has nothing of this number any more."))


def no_such_raw(_: Request, error: Exception) -> Response:
    return answer(404, "no_such_row", say("There is no such row any more; it may have been put right already."))


def too_many_kept(_: Request, error: Exception) -> Response:
    return answer(409, "too_many_kept", say("So many are kept and no more: take out some of the oldest."))


def unread_table(_: Request, error: Exception) -> Response:
    return answer(422, "unread_table", say("{what}", what=quoted(error, 300)))


def unread_report(_: Request, error: Exception) -> Response:
    assert isinstance(error, UnreadReport)
    faults = [
        field_fault(f"line {fault.line}, column {fault.column}", say("{what}", what=quoted(fault.what, 300)))
        for fault in error.faults
    ]
    count = Term(len(faults), "count")
    return answer(422, "unread_report", say("{count} of its lines can not be read.", count=count), fields=faults)


def invalid_document(_: Request, error: Exception) -> Response:
    """What a report says, once read, can lie outside what is possible."""
    assert isinstance(error, ValidationError)
    faults = []
    for problem in error.errors():
        path = f"sources.0.{problem['loc'][0]}"
        faults.append(field_fault(path, entry_sentence(path, problem["type"], problem["input"], (PLAN,))))
    return to_mend(422, "invalid", faults)


def unreadable(_: Request, error: Exception) -> Response:
    assert isinstance(error, Unreadable)
    return answer(422, "unreadable", error.why)


def stale(_: Request, error: Exception) -> Response:
    assert isinstance(error, StaleRevision)
    sentence = say("This was changed in another tab or by somebody else meanwhile.")
    return answer(409, "stale_revision", sentence, current=error.current)


def nothing_to_undo(_: Request, error: Exception) -> Response:
    return answer(409, "nothing_to_undo", say("There is nothing further to go to."))


def not_kept(_: Request, error: Exception) -> Response:
    """The store is busy (again in a moment), or can keep nothing (until somebody mends it)."""
    assert isinstance(error, StoreFault)
    return answer(503 if isinstance(error, Busy) else 507, error.code, say("{what}", what=error.sentence))


def controller_trouble(_: Request, error: Exception) -> Response:
    assert isinstance(error, ControllerTrouble)
    return answer(OF_A_CONTROLLER.get(error.code, 502), error.code, say("{what}", what=error.sentence))


def not_routed(request: Request, error: Exception) -> Response:
    """There is no such route, or what it was sent is nothing that can be read."""
    assert isinstance(error, HTTPException)
    if error.status_code in (404, 405):
        return no_such_route(request.url.path)
    return answer(error.status_code, "unreadable_request", say("What was sent can not be read as JSON."))


def no_such_route(path: str) -> Response:
    return answer(404, "no_such_route", say("There is no {path} to ask so.", path=quoted(path, 80)))


def server_fault(_: Request, _error: Exception) -> Response:
    """What nobody foresaw; the guard logs it."""
    status, code, sentence = FAILED
    return answer(status, code, say(sentence))


def install(app: FastAPI) -> None:
    """Map every fault to its answer."""
    app.add_exception_handler(HTTPException, not_routed)
    app.add_exception_handler(Exception, server_fault)
    app.add_exception_handler(RequestValidationError, invalid_request)
    app.add_exception_handler(Inconsistent, inconsistent)
    app.add_exception_handler(CoreError, core_fault)
    app.add_exception_handler(BadCells, bad_cells)
    app.add_exception_handler(EntryFault, entry_refused)
    app.add_exception_handler(NoSuchEntry, no_such_entry)
    app.add_exception_handler(NoSuchTick, no_such_tick)
    app.add_exception_handler(RegisterFault, register_refused)
    app.add_exception_handler(NoSuchResident, no_such_resident)
    app.add_exception_handler(TooMuchHappened, too_much_happened)
    app.add_exception_handler(NotInQuarantine, not_in_quarantine)
    app.add_exception_handler(TooManyKept, too_many_kept)
    app.add_exception_handler(NoSuchRaw, no_such_raw)
    app.add_exception_handler(UnreadTable, unread_table)
    app.add_exception_handler(InUse, row_in_use)
    app.add_exception_handler(NoSuchRow, no_such_row)
    app.add_exception_handler(NoSuchSystem, no_such_system)
    app.add_exception_handler(ControllerTrouble, controller_trouble)
    app.add_exception_handler(NoSuchRevision, no_such_revision)
    app.add_exception_handler(NoSuchVariant, no_such_variant)
    app.add_exception_handler(TooManyVariants, too_many_variants)
    app.add_exception_handler(NoSuchWater, no_such_water)
    app.add_exception_handler(UnreadReport, unread_report)
    app.add_exception_handler(ValidationError, invalid_document)
    app.add_exception_handler(Unreadable, unreadable)
    app.add_exception_handler(StaleRevision, stale)
    app.add_exception_handler(NothingToUndo, nothing_to_undo)
    app.add_exception_handler(StoreFault, not_kept)
