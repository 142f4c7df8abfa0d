"""A life replayed from what happened: where how many live, and what can not have been."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from typing import assert_never

from loquen.core.events.kinds.lives import Arrived, Born, Died, Measured, Moved, SignsSeen, Sold
from loquen.core.events.ledger import LifeEvent
from loquen.core.model.records.register import RegisterFault, Resident

Coming = Arrived | Born
Going = Sold | Died
Counted = Arrived | Born | Sold | Died | Moved


@dataclass(frozen=True, slots=True)
class Life:
    """A resident with what happened to it, oldest first, and what that leaves."""

    resident: Resident
    happened: tuple[LifeEvent, ...]
    homes: dict[int, int]
    """How many live in each system."""
    came: int
    sold: int
    died: int
    males: int | None
    """Of those alive, where every step says it."""
    since: date | None

    @property
    def alive(self) -> int:
        return sum(self.homes.values())


def in_order(happened: Iterable[LifeEvent]) -> list[LifeEvent]:
    """By day; of one day those that come before those that go."""
    return sorted(happened, key=lambda one: (one.day, isinstance(one, Going), isinstance(one, Moved)))


def life_of(resident: Resident, happened: Iterable[LifeEvent]) -> Life:
    """A life from all that happened; raise RegisterFault for what can not have been."""
    rows = in_order(happened)
    homes: Counter[int] = Counter()
    totals: Counter[type] = Counter()
    males: int | None = 0
    for one in rows:
        for system, more in comes_to(one):
            if homes[system] + more < 0:
                raise RegisterFault("more_than_live", "count", live=homes[system], asked=-more)
            homes[system] += more
        totals[type(one)] += one.number
        males = males_after(resident, males, one)
    came = [date.fromisoformat(one.day) for one in rows if isinstance(one, Coming)]
    return Life(
        resident=resident,
        happened=tuple(rows),
        homes={system: count for system, count in homes.items() if count > 0},
        came=totals[Arrived] + totals[Born],
        sold=totals[Sold],
        died=totals[Died],
        males=males,
        since=min(came, default=None),
    )


def comes_to(one: LifeEvent) -> tuple[tuple[int, int], ...]:
    """What an event does to the numbers that live: in which system how many more, fewer under nothing."""
    match one:
        case Arrived() | Born():
            return ((one.system, one.number),)
        case Sold() | Died():
            return ((one.system, -one.number),)
        case Moved():
            return (one.system, -one.number), (one.to, one.number)
        case Measured() | SignsSeen():
            return ()
        case _ as never:
            assert_never(never)


def males_after(resident: Resident, males: int | None, one: LifeEvent) -> int | None:
    """Males alive after a step; None once any step does not say."""
    if not isinstance(one, Coming | Going):
        return males
    told = one.males if resident.sex in ("mixed", "unknown") else one.number if resident.sex == "male" else 0
    if males is None or told is None:
        return None
    return males + told if isinstance(one, Coming) else males - told


def faults(
    resident: Resident, happened: Sequence[LifeEvent], today: date, others: Iterable[tuple[Resident, int]] = ()
) -> list[RegisterFault]:
    """What is wrong with a resident and what happened to it, beside the others and how many of each live."""
    found: list[RegisterFault] = []
    name = resident.name.strip().lower()
    if name and any(other.name.strip().lower() == name and alive for other, alive in others):
        found.append(RegisterFault("same_name", "name", name=resident.name.strip()))
    born = date.fromisoformat(resident.born) if resident.born else None
    for one in in_order(happened):
        day = date.fromisoformat(one.day)
        if day > today:
            found.append(RegisterFault("in_the_future", "day"))
        if born is not None and day < born:
            found.append(RegisterFault("before_birth", "day", born=resident.born))
        if isinstance(one, Counted) and one.number < 1:
            found.append(RegisterFault("nobody", "count"))
        if isinstance(one, Moved) and one.to == one.system:
            found.append(RegisterFault("moves_nowhere", "to"))
        if isinstance(one, Measured) and one.length_cm is None:
            found.append(RegisterFault("how_long", "length_cm"))
        if one.males is not None and one.males > one.number:
            found.append(RegisterFault("more_males", "males", count=one.number))
    first = next((one for one in in_order(happened) if isinstance(one, Counted)), None)
    if first is not None and not isinstance(first, Coming):
        found.append(RegisterFault("not_here_yet", "day"))
    if resident.name and sum(one.number for one in happened if isinstance(one, Coming)) > 1:
        found.append(RegisterFault("one_of_a_name", "count"))
    if not found:
        try:
            life_of(resident, happened)
        except RegisterFault as fault:
            found.append(fault)
    return found
