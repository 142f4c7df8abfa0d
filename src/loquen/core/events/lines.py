"""An event as a line of the log or of the register, and a line as the event that it tells of."""

from collections.abc import Mapping
from dataclasses import fields
from datetime import datetime

from loquen.core.events.kinds.keeping import Fed, Lit, Noted, PutIn, Rinsed, SeenTo, TakenOut, Tried
from loquen.core.events.kinds.lives import Moved, ToAnimals
from loquen.core.events.kinds.water import Changed, Dosed, OtherSource, Read
from loquen.core.events.ledger import KINDS, Event, LifeEvent, name_of
from loquen.core.model.records.log import OF_ANIMALS, Entry
from loquen.core.model.records.register import LifeLine

WHAT = {"what": "what", "note": "note"}
THING = {**WHAT, "amount": "amount", "unit": "unit"}
IN_LINE: Mapping[type, Mapping[str, str]] = {
    Read: {**WHAT, "value": "value", "kit": "kit", "when": "when"},
    Changed: {"litres": "litres", "share": "share", "note": "note"},
    Dosed: {**THING, "product": "product"},
    OtherSource: WHAT,
    Fed: {"grams": "amount", "left": "what", "note": "note"},
    Rinsed: {"how": "what", "share": "share", "filter": "filter", "note": "note"},
    PutIn: THING,
    TakenOut: THING,
    Lit: WHAT,
    Tried: {**WHAT, "until": "until"},
    Noted: {"note": "note"},
    SeenTo: {"note": "note"},
}
"""By kind its fields, and what each is called in a line of the log."""


def event_of(entry: Entry, at: datetime, system: int) -> Event:
    """What a line of a system's log tells; what its kind has no use for is left."""
    kind = KINDS[entry.kind]
    if entry.kind in OF_ANIMALS:
        count = None if entry.amount is None else round(entry.amount)
        told = {"day": at.date().isoformat(), "count": count, "system": system, "signs": entry.note}
    else:
        told = {name: getattr(entry, as_line) for name, as_line in IN_LINE[kind].items()}
    found: Event = kind(**told)
    return found


def line_of(event: Event, resident: int | None = None) -> Entry:
    """An event as a line of the log, with whose line of the register it is too; a note for what no log shows."""
    if isinstance(event, ToAnimals):
        amount = None if event.count is None else float(event.count)
        return Entry(life_line(event).kind, amount=amount, note=event.signs, resident=resident)
    names = IN_LINE.get(type(event))
    kind = name_of(event)
    if names is None or isinstance(event, SeenTo):
        return Entry("note", note=getattr(event, "note", kind))
    return Entry(kind, **{as_line: getattr(event, name) for name, as_line in names.items()})  # type: ignore[arg-type]


SHARED = tuple(item.name for item in fields(ToAnimals))


def life_event(line: LifeLine) -> LifeEvent:
    """What a line of the register tells."""
    kind = KINDS[line.kind]
    told = {name: getattr(line, name) for name in SHARED}
    found: LifeEvent = kind(**told, to=line.to) if kind is Moved else kind(**told)
    return found


def life_line(event: LifeEvent) -> LifeLine:
    """What happened to animals as a line of the register."""
    told = {name: getattr(event, name) for name in SHARED if name != "count"}
    to = event.to if isinstance(event, Moved) else 0
    return LifeLine(name_of(event), count=event.number, to=to, **told)  # type: ignore[arg-type]
