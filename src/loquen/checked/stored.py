"""Stored documents of the smaller kinds, each read in one place by the limits of its fields, and what of many can be read.

One that can not be read hides nothing else: pages show what can, and `house/unread` shows the rest where it belongs.
"""

import logging
from collections.abc import Callable, Iterable
from typing import Any, TypeVar, cast

from loquen.checked.documents import checked
from loquen.checked.plan import mirror
from loquen.core.errors import CoreError
from loquen.core.events.kinds.lives import ToAnimals
from loquen.core.events.ledger import Event, LifeEvent, read_back
from loquen.core.model.inputs.quantity import say
from loquen.core.model.records.feeding import Larder
from loquen.core.model.records.quarantine import Arriving, TreatmentCourse, Tub, arriving_faults, course_faults
from loquen.core.model.records.register import Resident
from loquen.core.model.roots.documents import Unreadable, parsed, rebuilt

Core = TypeVar("Core")
Key = TypeVar("Key")
log = logging.getLogger("loquen")


def reader(core: type[Core], wrong: Callable[[Core], Any] = lambda _: None) -> Callable[[str | None], Core]:
    """What reads a stored document as the core's; it raises Unreadable, also for one of which something is `wrong`."""
    schema = mirror(cast(type, core))

    def read(stored: str | None) -> Core:
        found: Core = rebuilt(core, checked(schema, parsed(stored), "").model_dump())
        if why := wrong(found):
            raise Unreadable(why)
        return found

    return read


def first_of(faults: Callable[[Any], list[Any]]) -> Callable[[Any], Any]:
    """What is wrong with it by its own rules, in a word."""
    return lambda found: next(
        (say("{field}: {code}.", field=fault.field, code=fault.code.replace("_", " ")) for fault in faults(found)),
        None,
    )


def event(stored: str | None) -> Event:
    """An event of the ledger; raise Unreadable."""
    kind, fields = read_back(parsed(stored))
    found: Event = rebuilt(kind, checked(mirror(kind), fields, "").model_dump())
    return found


def happened(stored: str | None) -> LifeEvent:
    """What happened to somebody of the register; raise Unreadable."""
    found = event(stored)
    if not isinstance(found, ToAnimals):
        raise Unreadable(say("It tells of no animals."))
    if not found.day:
        raise Unreadable(say("It has no day."))
    return found


resident = reader(Resident)
tub = reader(Tub)
arriving = reader(Arriving, first_of(arriving_faults))
course = reader(TreatmentCourse, first_of(course_faults))
larder = reader(Larder)


def those_read(rows: Iterable[tuple[Key, str]], read: Callable[[str], Core]) -> dict[Key, Core]:
    """Of some rows those that can be read, by their keys."""
    found = {}
    for key, text in rows:
        value = or_none(text, read)
        if value is not None:
            found[key] = value
    return found


def or_none(text: str, read: Callable[[str], Core]) -> Core | None:
    """A document as the core's; None where it can not be read."""
    try:
        return read(text)
    except (Unreadable, CoreError, ValueError) as fault:
        log.info("a stored row can not be read: %s", fault)
        return None
