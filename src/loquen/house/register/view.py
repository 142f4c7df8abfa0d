"""From what is written down to the register that a page shows."""

from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass
from datetime import date

from loquen.checked.documents import A_PLAN
from loquen.core.events.lines import life_line
from loquen.core.graph.giving_up import heed
from loquen.core.library.rows.animals import Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.consistency import conflicts
from loquen.core.model.roots.documents import Unreadable, name_of
from loquen.core.model.roots.plan import Plan
from loquen.core.register.growth import grown, growth_course
from loquen.core.register.homes import Differs, OutgrowsOn, as_it_lives, differs, living_groups, outgrows_on
from loquen.core.register.lives import Life, in_order
from loquen.core.register.survival import survival
from loquen.core.system.book import sheet_of
from loquen.house.house import Visit
from loquen.house.kept import at_most
from loquen.house.register.lived import Written, everybody
from loquen.house.register.schema import (
    HappenedOut,
    Home,
    LifeLineSchema,
    Register,
    ResidentOut,
    ResidentSchema,
    SurvivedOut,
)
from loquen.house.sheet.drawing import Section, section_of
from loquen.store.documents.systems import Current
from loquen.store.happened.register import KeptResident

MOST_KEPT, MOST_READ = 500, 2000
LONG_LIFE_YEARS = 20
SOON_D = 30
SCALELESS = ("turtle", "frog", "salamander")


@dataclass(frozen=True, slots=True)
class Judged:
    """What a system's checks say of the animals that live there."""

    today: Section
    grown: Section
    differs: tuple[Differs, ...]
    outgrows: tuple[OutgrowsOn, ...]


@at_most(MOST_KEPT)
def judged(visit: Visit, system: Current, groups: tuple[Group, ...], today: date) -> Judged | None:
    """A system as it is lived in by some animals on a day; None where its plan can not be read, or not with them."""
    plan = readable(visit, system)
    if plan is None:
        return None
    lives = as_it_lives(plan, groups)
    if conflicts(plan, visit.library) or conflicts(lives, visit.library):
        return None
    sheet = sheet_of(lives, visit.library)
    return Judged(
        section_of(sheet, "length_now_cm"),
        section_of(sheet),
        differs(sheet_of(plan, visit.library), sheet),
        outgrows_on(sheet, today),
    )


def register_of(visit: Visit, rows: Iterable[KeptResident], systems: list[Current], today: date) -> Register:
    """The register by home, in the order of the systems."""
    known = everybody(rows)
    found = []
    for system in systems:
        heed()
        found.append(home_of(visit, system, known, today))
    gone = [resident_out(row, 0, today, visit.library) for row in known if row.life.alive == 0]
    kept = {system.id for system in systems}
    homeless = [
        resident_out(row, row.life.alive, today, visit.library)
        for row in known
        if row.life.alive and not kept & row.life.homes.keys()
    ]
    homes_lived = [home for home in found if home.residents]
    kinds = {row.life.resident.species for row in known if row.life.alive}
    terms = {
        "animals": Term(sum(home.lives for home in found), "count"),
        "kinds": Term(len(kinds), "count"),
        "homes": Term(len(homes_lived), "count"),
        "outgrow": Term(sum(bool(home.outgrows) for home in found), "count"),
    }
    if not homes_lived:
        result = say("Nobody is written down yet: who lives where, since when, and from whom.")
    elif any(home.outgrows for home in found):
        result = say(
            "{animals} animals of {kinds} kinds live in {homes} systems; {outgrow} of these they outgrow.", **terms
        )
    else:
        result = say(
            "{animals} animals of {kinds} kinds live in {homes} systems, and outgrow none of them.", **terms
        )
    lived = survival((row.life for row in known), today)
    shares = [SurvivedOut(row.source, row.came, row.died, row.frac) for row in lived]
    return Register(result, found, gone, homeless, shares)


def home_of(visit: Visit, system: Current, known: list[Written], today: date) -> Home:
    here = [row for row in known if row.life.homes.get(system.id)]
    plan = readable(visit, system)
    groups = living_groups((row.life for row in here), system.id, today, visit.library)
    judged_so = visit.kept(judged, system, groups, today) if plan is not None and groups else None
    planned = sum(group.number for group in plan.animals) if plan else 0
    return Home(
        system_id=system.id,
        name=plan.name if plan else name_of(system.document, system.id),
        revision=system.revision,
        today=judged_so.today if judged_so else None,
        grown=judged_so.grown if judged_so else None,
        residents=tuple(resident_out(row, row.life.homes[system.id], today, visit.library) for row in here),
        planned=planned,
        lives=sum(row.life.homes[system.id] for row in here),
        follows=plan is not None and counts(plan.animals) == counts(groups),
        differs=judged_so.differs if judged_so else (),
        outgrows=judged_so.outgrows if judged_so else (),
    )


def counts(groups: Iterable[Group]) -> Mapping[str, int]:
    found: dict[str, int] = {}
    for group in groups:
        found[group.species] = found.get(group.species, 0) + group.number
    return found


def readable(visit: Visit, system: Current) -> Plan | None:
    """A system's plan, read once: a house is asked for all of them at every look. None where it can not be read."""
    return visit.kept(plan_in, system)


@at_most(MOST_READ)
def plan_in(_: Visit, system: Current) -> Plan | None:
    try:
        return A_PLAN.read(system.document)
    except Unreadable:
        return None


def resident_out(row: Written, here: int, today: date, library: Library) -> ResidentOut:
    life = row.life
    kind = library.species.get(life.resident.species)
    size = grown(life, kind, today) if kind else None
    numbers = {id(one): number for number, one in row.numbers}
    return ResidentOut(
        id=row.id,
        resident=ResidentSchema.model_validate(asdict(life.resident)),
        common=kind.common if kind else life.resident.species,
        here=here,
        alive=life.alive,
        males=life.males,
        length_cm=size.length_cm if size else 0.0,
        adult_cm=kind.adult_length_cm if kind else 0.0,
        known_by=size.known_by if size else "adult",
        pace=size.pace if size else None,
        expected_cm=size.expected_cm if size else None,
        since=life.since,
        notes=tuple(notes(life, kind, today)),
        happened=tuple(
            HappenedOut(numbers[id(one)], LifeLineSchema.model_validate(asdict(life_line(one))))
            for one in in_order(one for _, one in row.numbers)
        ),
        course=tuple(growth_course(life, kind, today)) if kind else (),
    )


def notes(life: Life, kind: Species | None, today: date) -> Iterable[Sentence]:
    """What a keeper should bear in mind: a stay that ends, a long life, what the law may ask."""
    if life.resident.stays_until and life.alive:
        until = date.fromisoformat(life.resident.stays_until)
        days = (until - today).days
        if days < 0:
            yield say("Its stay ended {days} ago.", days=Term(-days, "days"))
        elif days <= SOON_D:
            yield say("Its stay ends in {days}.", days=Term(days, "days"))
        else:
            yield say("Stays until {day}.", day=until.strftime("%-d %B %Y"))
    if kind is not None and kind.life_years >= LONG_LIFE_YEARS:
        yield say("Lives for some {years}: who has it after you?", years=Term(kind.life_years, "years"))
    if kind is not None and kind.shape in SCALELESS:
        yield say("Whether it may be kept, sold or moved is for the authority to say; never let it go outside.")
