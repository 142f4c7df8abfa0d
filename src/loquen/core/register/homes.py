"""A system as it lives: the register's animals in the plan's place, what that changes, and where else they could go."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import Any

from loquen.core.graph.nodes import State
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.register.growth import grown
from loquen.core.register.lives import Life
from loquen.core.system.book import sheet_of
from loquen.core.system.propose.growth import outgrown
from loquen.core.system.propose.what_fits import worse
from loquen.core.system.told import is_short, verdict_of

DAYS_PER_MONTH = 365.25 / 12
ALIKE_CM = 0.101


@dataclass(frozen=True, slots=True)
class Differs:
    """A check that stands otherwise with the animals that live there than with those that were planned."""

    check: str
    label: str
    planned: State
    lives: State


@dataclass(frozen=True, slots=True)
class OutgrowsOn:
    """A check that the animals outgrow, and about when."""

    check: str
    label: str
    day: date


@dataclass(frozen=True, slots=True)
class OtherHome:
    """A system that some animals could move into: whether its checks take them, and what stands against it."""

    system_id: int
    takes: bool
    against: Sentence


def living_groups(lives: Iterable[Life], system_id: int, today: date, library: Library) -> tuple[Group, ...]:
    """The animals of a system as the plan enters them: today's number, length and males, those alike together."""
    found: list[Group] = []
    for life in lives:
        count = life.homes.get(system_id, 0)
        kind = library.species.get(life.resident.species)
        if not count or kind is None:
            continue
        size = grown(life, kind, today)
        row = Group(
            life.resident.species,
            count,
            males=life.males if len(life.homes) == 1 else None,
            size_by="adult" if size.known_by == "adult" else "length",
            length_cm=round(size.length_cm, 1),
        )
        found = joined(found, row)
    return tuple(found[: PLAN.limits["animals"]])


def joined(rows: list[Group], row: Group) -> list[Group]:
    """The rows with one more: put to those of its kind and size where there are such."""
    for place, other in enumerate(rows):
        alike = other.species == row.species and other.size_by == row.size_by
        if alike and (row.size_by == "adult" or abs(other.length_cm - row.length_cm) <= ALIKE_CM):
            males = None if other.males is None or row.males is None else other.males + row.males
            return [
                *rows[:place],
                replace(other, number=other.number + row.number, males=males),
                *rows[place + 1 :],
            ]
    return [*rows, row]


def as_it_lives(plan: Plan, groups: tuple[Group, ...]) -> Plan:
    """The plan with the animals that live there; what was planned of their food goes with their kind, and so does their size
    where the register does not know it."""
    fed = {group.species: group for group in plan.animals}
    kept = []
    for row in groups:
        planned = fed.get(row.species)
        kept.append(
            replace(planned, number=row.number, males=row.males, **size_of(row)) if planned is not None else row
        )
    return replace(plan, animals=tuple(kept))


def size_of(row: Group) -> dict[str, Any]:
    """The size of a row as its fields; nothing where it is not known."""
    return {} if row.size_by == "adult" else {"size_by": row.size_by, "length_cm": row.length_cm}


def differs(planned: Sheet[Plan], lives: Sheet[Plan]) -> tuple[Differs, ...]:
    """The checks that stand otherwise."""
    found = []
    keys = dict.fromkeys(key for sheet in (planned, lives) for key, _ in sheet.wiring.checks)
    for key in keys:
        states = [state_of(sheet, key) for sheet in (planned, lives)]
        if states[0] != states[1]:
            node = (lives if key in lives.wiring.nodes else planned).wiring.nodes[key]
            found.append(Differs(key, node.label, *states))
    return tuple(found)


def state_of(sheet: Sheet[Plan], key: str) -> State:
    if key not in sheet.wiring.nodes:
        return "unknown"
    verdict = verdict_of(sheet, key)
    return verdict.state if verdict is not None else "unknown"


def outgrows_on(lives: Sheet[Plan], today: date) -> tuple[OutgrowsOn, ...]:
    """What the animals outgrow here, from their size today on, soonest first."""
    return tuple(
        OutgrowsOn(row.check, row.label, today + timedelta(days=round(row.months * DAYS_PER_MONTH)))
        for row in outgrown(lives)
    )


def places_for(group: Group, plans: Mapping[int, Plan], library: Library) -> list[OtherHome]:
    """Where some animals could move, among the keeper's systems: those that take them first."""
    found = []
    for system_id, plan in plans.items():
        if len(plan.animals) >= PLAN.limits["animals"]:
            continue
        before = sheet_of(plan, library)
        after = sheet_of(replace(plan, animals=(*plan.animals, group)), library)
        against = [
            node.label
            for key, node in after.wiring.checks
            if worse(verdict_of(before, key) if key in before.wiring.nodes else None, verdict_of(after, key))
        ]
        short = [node.label for key, node in before.wiring.checks if is_short(before, key)]
        if against:
            sentence = say("“{first}” would fall short", first=against[0])
            if len(against) > 1:
                more = Term(len(against) - 1, "count")
                sentence = say("“{first}” would fall short, and {more} more", first=against[0], more=more)
        elif short:
            sentence = say("takes them; “{first}” falls short there as it is", first=short[0])
        else:
            sentence = say("every check holds with them")
        found.append(OtherHome(system_id, not against, sentence))
    return sorted(found, key=lambda place: not place.takes)
