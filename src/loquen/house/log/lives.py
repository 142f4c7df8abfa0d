"""Animals in a log: who of the register lives in a system, and that what its log says of them can have been."""

from collections.abc import Iterable
from datetime import date, datetime

from sqlmodel import Session

from loquen.checked import stored
from loquen.checked.stored import or_none, those_read
from loquen.core.events.ledger import LifeEvent
from loquen.core.library.whole import Library
from loquen.core.model.records.register import RegisterFault, Resident
from loquen.core.register.lives import Life, faults, life_of
from loquen.store.happened import register
from loquen.store.happened.ledger import KeptEvent
from loquen.store.happened.register import KeptResident


def life_in(row: KeptResident) -> Life | None:
    """A life as it is kept; None where it contradicts itself or can not be read."""
    resident = or_none(row.document, stored.resident)
    if resident is None:
        return None
    try:
        return life_of(resident, those_read(row.happened, stored.happened).values())
    except RegisterFault:
        return None


def who_lives(session: Session, system_id: int, library: Library) -> list[tuple[int, str, int]]:
    """Of the register those of a system: number, what they are called, and how many of them live there."""
    return [
        (row.id, called(life.resident, library), here)
        for row in register.everybody(session)
        if (life := life_in(row)) is not None and (here := life.homes.get(system_id))
    ]


def called(resident: Resident, library: Library) -> str:
    """A name, or that of the kind."""
    kind = library.species.get(resident.species)
    return resident.name or (kind.common if kind else resident.species)


def names_of(session: Session, residents: Iterable[int], library: Library) -> dict[int, str]:
    """What some of the register are called, also those that were put away."""
    return {
        number: called(resident, library)
        for number, document in register.documents(session, residents).items()
        if (resident := or_none(document, stored.resident)) is not None
    }


def write_down(session: Session, resident_id: int, event: LifeEvent, at: datetime, today: date) -> KeptEvent:
    """One event of somebody of the register; raise RegisterFault for one that can not have been."""
    row = register.read(session, resident_id)
    before = those_read(row.happened, stored.happened).values()
    for fault in faults(stored.resident(row.document), [*before, event], today):
        raise fault
    return register.note(session, resident_id, event, at)


def can_have_been(session: Session, residents: Iterable[int | None]) -> None:
    """Raise RegisterFault where what is kept of somebody contradicts itself, now that something of it is another."""
    for number in {number for number in residents if number is not None}:
        row = register.read(session, number)
        try:
            life_of(stored.resident(row.document), those_read(row.happened, stored.happened).values())
        except RegisterFault:
            raise RegisterFault("others_hang_on_it", "count") from None
