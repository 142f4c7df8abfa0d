"""Every fault that a person can meet, in one place: its status, and its sentence."""

from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ValidationError

from loquen.api.schemas.sheet import SentenceOut
from loquen.core.errors import CoreError, Impossible, OutOfRange, PlanConflict, UnknownKey
from loquen.core.model.fields import entry_at
from loquen.core.model.quantity import Quantity, Sentence, Term, say
from loquen.core.sheet.words import told_case
from loquen.exchange.reports import UnreadReport
from loquen.store.systems import NoSuchSystem, NothingToUndo, StaleRevision
from loquen.store.waters import NoSuchWater

CONFLICTS = {
    "unknown_in_library": ("“{key}” is not in the library.", {}),
    "too_many_rows": ("At most {most} rows.", {"most": "count"}),
    "more_males_than_animals": ("More males than the {nearest} animals of this group.", {"nearest": "count"}),
    "pane_fills_tank": ("Panes this thick leave no room inside.", {}),
    "fill_above_glass": ("The water would stand above the glass: at most {nearest}.", {"nearest": "length"}),
    "no_water_left": ("That leaves no water: the glass is {height} high inside.", {"height": "length"}),
    "bow_too_deep": ("A bow this deep is more than half a circle: at most {nearest}.", {"nearest": "length"}),
    "notch_too_large": ("The missing corner takes the whole side: at most {most}.", {"most": "length"}),
    "bed_above_water": ("The bed would rise above the water, which stands {height} high.", {"height": "length"}),
    "hardscape_fills_tank": ("Rock and wood would fill the tank: at most {most} together.", {"most": "volume"}),
    "baffle_over_rim": ("This baffle is as high as the sump: at most {nearest}.", {"nearest": "length"}),
    "chambers_too_long": (
        "The chambers leave no room for the return: {nearest} of sump, or {most} of chambers.",
        {"nearest": "length", "most": "length"},
    ),
    "one_return_chamber": ("A sump has one return chamber, last in the flow.", {}),
    "level_over_rim": ("The water would stand over the sump's rim: at most {nearest}.", {"nearest": "length"}),
    "intake_in_air": ("The pump's intake lies above the water: at most {nearest}.", {"nearest": "length"}),
    "run_too_long": (
        "That makes {metres} of pipe: at most {most} in one run.",
        {"metres": "head", "most": "head"},
    ),
    "overflow_in_bed": (
        "The holes would lie in the bed, which reaches {bed}: smaller ones, or less bed.",
        {"bed": "length"},
    ),
    "toughened_drilled": (
        "A toughened pane can not be drilled: it bursts. Annealed glass, or a hang-on overflow.",
        {},
    ),
    "hole_near_edge": (
        "A hole this near the edge cracks: one bore and the pane's thickness, {nearest} at least.",
        {"nearest": "length"},
    ),
    "no_pump_curve": (
        "A pump's curve starts at no flow and falls from point to point; as many lifts as flows.",
        {},
    ),
    "gravity_slip": (
        "No fresh or low-salinity water reads above 1.030: a slip of the decimal, {nearest} perhaps?",
        {"nearest": "gravity"},
    ),
    "twelve_months": ("Twelve months, or none.", {}),
    "room_upside_down": (
        "The coldest night is warmer than the hottest day, {nearest}.",
        {"nearest": "temperature"},
    ),
}


class FieldFault(BaseModel):
    """What is wrong with one field, said beside it, with the nearest value that works where there is one."""

    path: str
    sentence: SentenceOut
    nearest: bool | float | None = None


class Fault(BaseModel):
    """What went wrong: a code, a sentence, and the fields it is about."""

    code: str
    sentence: SentenceOut
    fields: list[FieldFault] = []
    current: int | None = None


class InconsistentPlan(Exception):
    """A plan whose parts can not all be true."""

    def __init__(self, conflicts: list[PlanConflict]) -> None:
        super().__init__(f"{len(conflicts)} conflicts")
        self.conflicts = conflicts


def answer(status: int, code: str, sentence: Sentence, **more: Any) -> JSONResponse:
    fault = Fault(code=code, sentence=SentenceOut.of(sentence), **more)
    return JSONResponse(fault.model_dump(mode="json"), status_code=status)


def field_fault(path: str, sentence: Sentence, nearest: bool | float | None = None) -> FieldFault:
    return FieldFault(path=path, sentence=SentenceOut.of(sentence), nearest=nearest)


def wanted(entry: Quantity) -> tuple[str, dict[str, Term]]:
    """The words for an entry's limits."""
    text = "{low} to {high}" + (", a whole number" if entry.whole else "")
    return text, {"low": Term(entry.low, entry.kind), "high": Term(entry.high, entry.kind)}


def entry_sentence(path: str, kind: str, given: Any) -> Sentence:
    """What is wrong with one typed value, by the field's own limits and unit."""
    entry = entry_at(path)
    if not isinstance(entry, Quantity):
        return say("“{given}” can not be chosen here.", given=str(given)[:40])
    limits, terms = wanted(entry)
    if given in (None, ""):
        return say("{label} is empty: " + limits + ".", label=entry.label, **terms)
    if kind in ("greater_than_equal", "less_than_equal", "finite_number"):
        side = "below" if kind == "greater_than_equal" else "above"
        return say(
            "{label} is {side} what is possible here: " + limits + ".", label=entry.label, side=side, **terms
        )
    if kind == "int_from_float":
        return say("{label} is counted in whole numbers: " + limits + ".", label=entry.label, **terms)
    return say("“{given}” is not a number: " + limits + ".", given=str(given)[:40], **terms)


def plan_path(location: tuple[int | str, ...]) -> str:
    """The part of a fault's location that lies inside a plan: tank.pane_mm, animals.0.number."""
    parts = [str(part) for part in location]
    while parts and parts[0] in ("body", "plan"):
        parts.pop(0)
    # A union adds the name of the branch that was tried.
    numbered = any(part.isdigit() for part in parts[1:3])
    return ".".join(parts[:3] if numbered else parts[:2])


def invalid_request(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    faults: dict[str, FieldFault] = {}
    for problem in error.errors():
        path = plan_path(problem["loc"])
        if entry_at(path) is not None:
            sentence = entry_sentence(path, problem["type"], problem["input"])
        else:
            sentence = say("{where}: {what}.", where=path or "request", what=problem["msg"])
        faults.setdefault(path, field_fault(path, sentence))
    count = Term(len(faults), "count")
    sentence = say("{count} to mend before this can be computed.", count=count)
    return answer(422, "invalid", sentence, fields=list(faults.values()))


def inconsistent(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, InconsistentPlan)
    faults = []
    for conflict in error.conflicts:
        text, kinds = CONFLICTS[conflict.code]
        terms = {
            name: Term(value, kinds[name]) if name in kinds else Term(str(value))
            for name, value in conflict.values.items()
        }
        faults.append(field_fault(conflict.path, say(text, **terms), conflict.nearest))
    count = Term(len(faults), "count")
    return answer(
        422, "inconsistent", say("{count} to mend before this can be computed.", count=count), fields=faults
    )


def core_fault(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, CoreError)
    if isinstance(error, Impossible):
        return answer(422, error.code, told_case(error)[1])
    if isinstance(error, UnknownKey):
        text = "“{key}” is not in {table}."
        return answer(422, error.code, say(text, key=str(error.values["key"]), table=error.values["table"]))
    if isinstance(error, OutOfRange):
        words = {name: str(value) for name, value in error.values.items()}
        return answer(422, error.code, say("{name} is {value}; {low} to {high} {unit}.", **words))
    return answer(500, error.code, say("{what}", what=str(error)))


def no_such_system(_: Request, error: Exception) -> JSONResponse:
    return answer(404, "no_such_system", say("There is no such system; it may have been deleted."))


def no_such_water(_: Request, error: Exception) -> JSONResponse:
    return answer(404, "no_such_water", say("There is no such water; it may have been deleted."))


def unread_report(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, UnreadReport)
    faults = [field_fault(f"line {fault.line}", say("{what}", what=fault.what)) for fault in error.faults]
    count = Term(len(faults), "count")
    return answer(422, "unread_report", say("{count} of its lines can not be read.", count=count), fields=faults)


def invalid_document(_: Request, error: Exception) -> JSONResponse:
    """What a report says, once read, can lie outside what is possible."""
    assert isinstance(error, ValidationError)
    faults = []
    for problem in error.errors():
        name = str(problem["loc"][0])
        sentence = entry_sentence(f"sources.0.{name}", problem["type"], problem["input"])
        faults.append(field_fault(f"sources.0.{name}", sentence))
    return answer(422, "invalid", say("{count} to mend.", count=Term(len(faults), "count")), fields=faults)


def stale(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, StaleRevision)
    sentence = say("This plan was changed in another tab or by somebody else.")
    return answer(409, "stale_revision", sentence, current=error.current)


def nothing_to_undo(_: Request, error: Exception) -> JSONResponse:
    return answer(409, "nothing_to_undo", say("There is nothing further to go to."))


def install(app: FastAPI) -> None:
    """Map every fault to its answer."""
    app.add_exception_handler(RequestValidationError, invalid_request)
    app.add_exception_handler(InconsistentPlan, inconsistent)
    app.add_exception_handler(CoreError, core_fault)
    app.add_exception_handler(NoSuchSystem, no_such_system)
    app.add_exception_handler(NoSuchWater, no_such_water)
    app.add_exception_handler(UnreadReport, unread_report)
    app.add_exception_handler(ValidationError, invalid_document)
    app.add_exception_handler(StaleRevision, stale)
    app.add_exception_handler(NothingToUndo, nothing_to_undo)
