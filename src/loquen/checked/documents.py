"""Stored plans, rooms and waters, read by the limits of their fields."""

from typing import Any

from pydantic import ValidationError

from loquen.checked.plan import (
    PlanSchema,
    RoomSchema,
    SourceSchema,
    VentureSchema,
    room_to_core,
    to_core,
    venture_to_core,
    water_to_core,
)
from loquen.checked.words import plan_path, problem_sentence
from loquen.core.model.inputs.quantity import Sentence, say
from loquen.core.model.roots.documents import ROOM_STEPS, Unreadable, parsed, upgraded, with_tap_asked
from loquen.core.model.roots.plan import Plan, Source
from loquen.core.model.roots.room import ROOM_VERSION, Room
from loquen.core.model.roots.venture import VENTURE_VERSION, Venture


def read_document(stored: str | None) -> Plan:
    """A stored plan of any version as today's; raise Unreadable."""
    return to_core(checked(PlanSchema, upgraded(parsed(stored)), ""))


def read_room(stored: str | None) -> Room:
    """A stored room of any version as today's; raise Unreadable."""
    return room_to_core(checked(RoomSchema, upgraded(parsed(stored), ROOM_VERSION, ROOM_STEPS), ""))


def read_venture(stored: str | None) -> Venture:
    """A stored venture of any version as today's; raise Unreadable."""
    return venture_to_core(checked(VentureSchema, upgraded(parsed(stored), VENTURE_VERSION, {}), ""))


def read_water(stored: str) -> Source:
    """A stored water; raise Unreadable."""
    return water_to_core(checked(SourceSchema, with_tap_asked(parsed(stored)), "sources.0."))


def checked(schema: Any, found: dict[str, Any], prefix: str) -> Any:
    try:
        return schema.model_validate(found)
    except ValidationError as fault:
        problems = fault.errors()
        path = prefix + plan_path(problems[0]["loc"])
        first = problem_sentence(path, problems[0])
        more = f" ({len(problems) - 1} more like it.)" if len(problems) > 1 else ""
        raise Unreadable(
            Sentence("{at}: " + first.text + more, {**first.terms, **say("", at=path).terms})
        ) from None
