"""In what order those who are planned join those who live there: batches, their sizes, the day's list."""

from collections import Counter
from dataclasses import dataclass
from datetime import date

from loquen.core.errors import NamedCase
from loquen.core.graph.asking import number
from loquen.core.joining.batches import Batch, batches
from loquen.core.joining.sizes import SizeWindow, windows
from loquen.core.joining.the_day import list_of_the_day
from loquen.core.library.rows.animals import Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.costs import day_words, with_on
from loquen.core.system.book import sheet_of
from loquen.house.house import Visit
from loquen.house.quarantine.view import Quarantined, taken

Residents = list[tuple[Species, float]]


@dataclass(frozen=True, slots=True)
class Joining:
    """Some of a group that go in together, how large they may be, and by which school."""

    species: str
    common: str
    count: int
    length_cm: float
    sizes: tuple[SizeWindow, ...]


@dataclass(frozen=True, slots=True)
class JoinDay:
    """A day on which some join: who, why then, what is done."""

    day: date
    carried: bool
    why: Sentence
    joins: tuple[Joining, ...]
    to_do: tuple[Sentence, ...]


@dataclass(frozen=True, slots=True)
class JoinOrder:
    """In what order those who are planned and do not live there yet join; `written` when anybody is in the register."""

    result: Sentence
    written: bool
    days: tuple[JoinDay, ...]


def order_of(plan: Plan, living: tuple[Group, ...], kept: Quarantined, today: date, library: Library) -> JoinOrder:
    counts = Counter[str]()
    for group in living:
        counts[group.species] += group.number
    residents: Residents = [
        (
            library.species[group.species],
            group.length_cm if group.size_by == "length" else library.species[group.species].adult_length_cm,
        )
        for group in living
    ]
    days = []
    for batch in batches(plan, counts, today, library):
        days.append(day_out(batch, residents, spare_places(kept, batch)))
        residents += [(row.kind, row.length_cm) for row in batch.joins]
    return JoinOrder(result_of(days, today), bool(living), tuple(days))


def day_out(batch: Batch, residents: Residents, spare: list[str]) -> JoinDay:
    return JoinDay(
        day=batch.day,
        carried=batch.ready_d is not None,
        why=batch.why,
        joins=tuple(
            Joining(row.kind.key, row.kind.common, row.count, row.length_cm, tuple(windows(row.kind, residents)))
            for row in batch.joins
        ),
        to_do=tuple(list_of_the_day(batch.joins, (kind for kind, _ in residents), spare)),
    )


def result_of(days: list[JoinDay], today: date) -> Sentence:
    if not days:
        return say("All who are planned live there.")
    first = days[0]
    who = ", ".join(f"{row.count} {row.common}" for row in first.joins)
    if not first.carried:
        return say("{who} would come first, but the filter never carries them.", who=who)
    on = with_on(day_words(first.day, today))
    if len(days) == 1:
        return say("{who} join {on}.", who=who, on=on)
    last = with_on(day_words(days[-1].day, today))
    return say(
        "{who} join first, {on}; in {count} batches all are in it {last}.",
        who=who,
        on=on,
        count=Term(len(days), "count"),
        last=last,
    )


def spare_places(kept: Quarantined, batch: Batch) -> list[str]:
    """Tubs that stand empty and whose water takes one of those who join."""
    ones = [Group(row.kind.key, 1, size_by="length", length_cm=max(0.2, row.length_cm)) for row in batch.joins]
    empty = [tub for tub in kept.tubs if not kept.groups_in(tub)]
    return [kept.names[tub] for tub in empty if all(takes_one(kept.visit, kept.plans[tub], one) for one in ones)]


def takes_one(visit: Visit, tub: Plan, one: Group) -> bool:
    try:
        good, _ = visit.kept(taken, tub, (one,))
    except NamedCase:
        return False
    return good


def one_of(plan: Plan | None, animal: str, library: Library) -> Group:
    """One animal of a kind, as long as they are in a plan; grown where it has none."""
    if plan is not None:
        for place, group in enumerate(plan.animals):
            if group.species == animal:
                length = number(sheet_of(plan, library, 0.0), f"animals.{place}.length_now_cm")
                if length:
                    return Group(animal, 1, size_by="length", length_cm=round(length, 1))
    return Group(animal, 1)
