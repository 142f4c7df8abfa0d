"""Plans and waters as they are stored: JSON text, a version, and the steps that bring an old one forward."""

import json
import re
from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from loquen.api.schemas.plan import PlanSchema, SourceSchema, from_core, to_core
from loquen.api.words import plan_path, problem_sentence, quoted
from loquen.core.model.plan import PLAN_VERSION, Plan
from loquen.core.model.quantity import Sentence, say, told


class Unreadable(Exception):
    """A stored document that can not be read, and why."""

    def __init__(self, why: Sentence) -> None:
        super().__init__(why.text)
        self.why = why

    @property
    def sentence(self) -> str:
        """What a person reads, in the units that values are stored in."""
        return told(self.why, {})


def document(plan: Plan) -> str:
    """A plan as it is stored."""
    return json.dumps(from_core(plan).model_dump(mode="json"))


def water_document(water: SourceSchema) -> str:
    """A water as it is stored."""
    return json.dumps(water.model_dump(mode="json"))


def read_document(stored: str | None) -> Plan:
    """A stored plan of any version as today's; raise Unreadable."""
    return to_core(checked(PlanSchema, upgraded(parsed(stored)), ""))


def read_water(stored: str) -> SourceSchema:
    """A stored water; raise Unreadable."""
    water: SourceSchema = checked(SourceSchema, parsed(stored), "sources.0.")
    return water


def name_of(stored: str | None, number: int) -> str:
    """What a stored plan is called, even where the rest of it can not be read."""
    try:
        name = parsed(stored).get("name")
    except Unreadable:
        name = named(stored or "")
    return quoted(name, 80) if isinstance(name, str) and name else f"System {number}"


def named(damaged: str) -> str | None:
    """The name that a text which is no JSON (any more) still says."""
    found = re.search(r'"name"\s*:\s*("(?:[^"\\]|\\.)*")', damaged)
    try:
        return str(json.loads(found[1])) if found else None
    except ValueError:
        return None


def parsed(stored: str | None) -> dict[str, Any]:
    if stored is None:
        raise Unreadable(say("Its current revision is missing from the data file."))
    try:
        found = json.loads(stored)
    except ValueError as fault:
        raise Unreadable(say("What is stored is no JSON: {what}.", what=quoted(fault, 120))) from None
    if not isinstance(found, dict):
        raise Unreadable(say("What is stored is JSON, but not a document."))
    return found


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


def upgraded(found: dict[str, Any]) -> dict[str, Any]:
    """A stored plan brought forward, version by version; raise Unreadable for a version that is none."""
    version = found.get("version", 0)
    if not isinstance(version, int) or isinstance(version, bool) or version < 0:
        raise Unreadable(say("Its version is “{version}”, which is none.", version=quoted(version)))
    if version > PLAN_VERSION:
        text = "A newer Loquen wrote it: version {found}, this one reads up to {known}."
        raise Unreadable(say(text, found=quoted(version), known=str(PLAN_VERSION)))
    for step in range(version, PLAN_VERSION):
        found = UPGRADES[step](found)
    return found


UPGRADES: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    # Version 0: documents written before plans carried a version; nothing else differs.
    0: lambda found: {**found, "version": 1},
}
