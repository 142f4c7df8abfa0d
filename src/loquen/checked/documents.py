"""Documents as they are written: read by the limits of their fields, judged, brought forward from any version."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass, field
from typing import Any, Generic, TypeVar

from pydantic import BaseModel, ValidationError

from loquen.checked.plan import SourceSchema, mirror, water_to_core
from loquen.checked.words import path_in, problem_sentence
from loquen.core.errors import PlanConflict
from loquen.core.model.inputs.quantity import Sentence, say
from loquen.core.model.inputs.shape import Shape
from loquen.core.model.parts.water import Source
from loquen.core.model.roots.documents import (
    PLAN_STEPS,
    ROOM_STEPS,
    Step,
    Unreadable,
    parsed,
    plain_data,
    rebuilt,
    upgraded,
    with_tap_asked,
)
from loquen.core.model.roots.plan import PLAN, PLAN_VERSION, Plan
from loquen.core.model.roots.room import ROOM, ROOM_VERSION, Room
from loquen.core.model.roots.venture import VENTURE, VENTURE_VERSION, Venture

Core = TypeVar("Core")


class Inconsistent(Exception):
    """Parts of a document can not both be true."""

    def __init__(self, conflicts: list[PlanConflict]) -> None:
        super().__init__([conflict.code for conflict in conflicts])
        self.conflicts = conflicts


@dataclass(frozen=True, eq=False)
class Written(Generic[Core]):
    """How documents of one root are written: by their shape, in the version they have now, and by which steps older ones
    come to it."""

    shape: Shape
    version: int = 1
    steps: Mapping[int, Step] = field(default_factory=dict)

    @property
    def schema(self) -> Any:
        """What is sent and stored, field by field as the core has it."""
        return mirror(self.shape.root)

    def read(self, stored: str | None) -> Core:
        """A stored document of any version as today's; raise Unreadable."""
        found = upgraded(parsed(stored), self.version, self.steps)
        return self.to_core(checked(self.schema, found, "", (self.shape,)))

    def to_core(self, sent: BaseModel) -> Core:
        """What was sent, and is within its limits, as the core has it."""
        core: Core = rebuilt(self.shape.root, sent.model_dump())
        return core

    def to_wire(self, core: Core) -> Any:
        """The core's for the wire."""
        return self.schema.model_validate(plain_data(asdict(core)))  # type: ignore[call-overload]


A_PLAN: Written[Plan] = Written(PLAN, PLAN_VERSION, PLAN_STEPS)
A_ROOM: Written[Room] = Written(ROOM, ROOM_VERSION, ROOM_STEPS)
A_VENTURE: Written[Venture] = Written(VENTURE, VENTURE_VERSION)


def read_water(stored: str) -> Source:
    """A stored water; raise Unreadable."""
    return water_to_core(checked(SourceSchema, with_tap_asked(parsed(stored)), "sources.0.", (PLAN,)))


def checked(schema: Any, found: dict[str, Any], prefix: str, shapes: tuple[Shape, ...] = ()) -> Any:
    """Stored fields within their limits; raise Unreadable with the first that is not."""
    try:
        return schema.model_validate(found)
    except ValidationError as fault:
        problems = fault.errors()
        path = prefix + path_in(problems[0]["loc"])
        first = problem_sentence(path, problems[0], shapes)
        more = f" ({len(problems) - 1} more like it.)" if len(problems) > 1 else ""
        raise Unreadable(
            Sentence("{at}: " + first.text + more, {**first.terms, **say("", at=path).terms})
        ) from None
