"""The register: read by home, written down step by step, taken into plans, and asked before buying."""

import csv
import io
from datetime import date
from typing import Any

from fastapi import APIRouter, Request, Response
from sqlmodel import Session

from loquen.api.computing import PAGE, computed, computed_while
from loquen.api.dependencies import FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.api.wire.days import Today
from loquen.checked import stored
from loquen.checked.days import day_of
from loquen.checked.documents import A_PLAN
from loquen.checked.stored import those_read
from loquen.core.data.tables import toml
from loquen.core.errors import UnknownKey
from loquen.core.events.kinds.lives import Measured, Moved, SignsSeen
from loquen.core.events.ledger import LifeEvent
from loquen.core.events.lines import life_event
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.parts.animals import Group
from loquen.core.model.records.register import LifeLine, RegisterFault, Resident
from loquen.core.model.roots.documents import document, rebuilt
from loquen.core.model.roots.plan import Plan
from loquen.core.register import homes
from loquen.core.register.buying import Bought, bought
from loquen.core.register.growth import grown
from loquen.core.register.lives import faults, life_of
from loquen.exchange.tables import harmless
from loquen.house.log.lives import can_have_been
from loquen.house.register import lived, view
from loquen.house.register.schema import (
    BuyIn,
    Card,
    Cards,
    HappenedIn,
    NamedPlace,
    Places,
    Register,
    ResidentIn,
    ResidentUpdate,
    Taken,
    Written,
)
from loquen.house.systems.root import SYSTEMS
from loquen.store.documents import systems
from loquen.store.documents.systems import NoSuchSystem, existing
from loquen.store.happened import register

router = APIRouter(prefix="/api", tags=["register"], responses=dict(FAULTS))
COLUMNS = (
    "number",
    "animal",
    "name",
    "sex",
    "line",
    "from",
    "system",
    "alive here",
    "length cm",
    "since",
    "stays until",
)


@router.get("/register", response_model=Register)
async def read_register(request: Request, visit: Asked, today: Today) -> Response:
    """Everybody by home, judged as they live."""

    def whole() -> Response:
        with visit.reading() as session:
            rows, known = register.everybody(session), systems.list_all(session)
        return sent(view.register_of(visit, rows, known, day_of(today)))

    return await computed_while(request, whole, PAGE)


@router.get("/register/cards", response_model=Cards)
def read_cards() -> Response:
    """What to look at before buying, by group."""
    rows = toml("purchase.toml").items()
    return sent(Cards([Card(key, row["label"], tuple(row["look"])) for key, row in rows]))


@router.post("/register/buy", response_model=Bought)
def how_many_to_buy(given: BuyIn) -> Response:
    """How many young for so many grown males and females, and what they cost either way."""
    return sent(bought(**given.model_dump()))


@router.get("/register.csv", response_class=Response)
def export_register(visit: Asked, today: Today) -> Response:
    """Who lives where as a table."""
    with visit.reading() as session:
        rows, known = register.everybody(session), systems.list_all(session)
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for home in view.register_of(visit, rows, known, day_of(today)).homes:
        for row in home.residents:
            one: Any = row.resident
            cells = (
                row.id,
                row.common,
                one.name,
                one.sex,
                one.line,
                one.source,
                home.name,
                row.here,
                round(row.length_cm, 1),
                row.since.isoformat() if row.since else "",
                one.stays_until,
            )
            writer.writerow([harmless(cell) for cell in cells])
    headers = {"Content-Disposition": 'attachment; filename="register.csv"'}
    return Response(out.getvalue(), media_type="text/csv", headers=headers)


@router.post("/register", response_model=Written)
def write_down(given: ResidentIn, visit: Asked) -> Response:
    """Somebody new, with what happened first."""
    resident = resident_in(given.resident)
    happened = [happened_in(row) for row in given.happened]
    with visit.writing() as session:
        refuse(session, None, resident, happened, day_of(given.today), visit.library)
        staying = lived.with_stay(visit, session, resident, happened)
        made = register.add(session, document(staying), happened)
    return sent(Written(made.id, made.happened[-1][0], None))


@router.put("/register/{resident_id}", response_model=Written)
def update_resident(resident_id: int, given: ResidentUpdate, visit: Asked) -> Response:
    """What a resident is called, where it is from, how long it stays."""
    resident = resident_in(given.resident)
    with visit.writing() as session:
        row = register.read(session, resident_id)
        happened = [*those_read(row.happened, stored.happened).values()]
        refuse(session, resident_id, resident, happened, day_of(given.today), visit.library)
        kept = register.update(session, resident_id, document(resident))
    return sent(Written(kept.id, 0, None))


@router.post("/register/{resident_id}/happened", response_model=Written)
async def note_happened(resident_id: int, given: HappenedIn, visit: Asked) -> Response:
    """Write down what happened; a move is kept also where the system's checks refuse it, and that is told."""

    def whole() -> Response:
        one, today = happened_in(given.happened), day_of(given.today)
        with visit.writing() as session:
            row = register.read(session, resident_id)
            resident = stored.resident(row.document)
            before = [*those_read(row.happened, stored.happened).values()]
            refuse(session, resident_id, resident, [*before, one], today, visit.library)
            told = (
                told_of(session, resident, [*before, one], one, today, visit.library)
                if isinstance(one, Moved)
                else None
            )
            number = register.note(session, resident_id, one).id
        return sent(Written(resident_id, number, told))

    return await computed(whole)


def resident_in(schema: Any) -> Resident:
    found: Resident = rebuilt(Resident, schema.model_dump())
    return found


def happened_in(schema: Any) -> LifeEvent:
    line: LifeLine = rebuilt(LifeLine, schema.model_dump())
    return life_event(line)


def refuse(
    session: Session,
    resident_id: int | None,
    resident: Resident,
    happened: list[LifeEvent],
    today: date,
    library: Library,
) -> None:
    """Raise the first of what is wrong with somebody, beside the others."""
    if resident.species not in library.species:
        raise UnknownKey("animals", resident.species)
    for one in happened:
        day_of(one.day)
        if one.system:
            existing(session, one.system)
        elif not isinstance(one, Measured | SignsSeen):
            raise RegisterFault("where", "system")
        if isinstance(one, Moved):
            if not one.to:
                raise RegisterFault("where_to", "to")
            existing(session, one.to)
    others = [row for row in map(lived.written, register.everybody(session)) if row and row.id != resident_id]
    found = faults(resident, happened, today, [(row.life.resident, row.life.alive) for row in others])
    if found:
        raise found[0]


def told_of(
    session: Session, resident: Resident, happened: list[LifeEvent], move: Moved, today: date, library: Library
) -> Sentence | None:
    """What the checks of the system say that some move into; None where every check takes them."""
    size = grown(life_of(resident, happened), library.species[resident.species], today)
    group = Group(resident.species, move.number, size_by="length", length_cm=round(size.length_cm, 1))
    try:
        plan = A_PLAN.read(systems.read(session, move.to).document)
    except NoSuchSystem:
        return None
    places = homes.places_for(group, {move.to: plan}, library)
    return places[0].against if places and not places[0].takes else None


@router.delete("/register/happened/{happened_id}", status_code=204)
def take_back(happened_id: int, visit: Asked) -> None:
    """Take out what was written down; raise RegisterFault where what came later hangs on it."""
    with visit.writing() as session:
        can_have_been(session, [register.take_back(session, happened_id)])


@router.delete("/register/{resident_id}", status_code=204)
def put_away(resident_id: int, visit: Asked) -> None:
    with visit.writing() as session:
        register.put_away(session, resident_id)


@router.post("/register/{resident_id}/restore", status_code=204)
def bring_back(resident_id: int, visit: Asked) -> None:
    with visit.writing() as session:
        register.bring_back(session, resident_id)


@router.get("/register/{resident_id}/places", response_model=Places)
async def read_places(request: Request, resident_id: int, visit: Asked, today: Today, system: int) -> Response:
    """Which of the keeper's other systems could take the animals of one that live in a system, by their checks."""

    def whole() -> Response:
        day = day_of(today)
        with visit.reading() as session:
            row = lived.written(register.read(session, resident_id))
            known = systems.list_all(session)
        plans = {
            one.id: plan for one in known if one.id != system and (plan := view.readable(visit, one)) is not None
        }
        groups = homes.living_groups([row.life] if row else [], system, day, visit.library)
        found = homes.places_for(groups[0], plans, visit.library) if groups else []
        return sent(Places([NamedPlace(plans[place.system_id].name, place) for place in found]))

    return await computed_while(request, whole, PAGE)


@router.post("/register/take/{system_id}", response_model=SYSTEMS.Out)
def take_into_plan(system_id: int, given: Taken, visit: Asked) -> Any:
    """The plan with the animals that live there, as one step that can be undone; 409 when it was changed since."""
    with visit.writing() as session:
        plan: Plan = A_PLAN.read(systems.read(session, system_id).document)
        rows = [row.life for row in map(lived.written, register.everybody(session)) if row]
        groups = homes.living_groups(rows, system_id, day_of(given.today), visit.library)
        text = document(homes.as_it_lives(plan, groups))
        return SYSTEMS.out(systems.update(session, system_id, given.base, text))
