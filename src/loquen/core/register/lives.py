"""A life replayed from what happened: where how many live, and what can not have been."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

from loquen.core.model.register import LifeEvent, RegisterFault, Resident

COMING = ("arrival", "birth")
GOING = ("sale", "death")
COUNTED = (*COMING, *GOING, "move")


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
    return sorted(happened, key=lambda one: (one.day, one.kind in GOING, one.kind == "move"))


def life_of(resident: Resident, happened: Iterable[LifeEvent]) -> Life:
    """A life from all that happened; raise RegisterFault for what can not have been."""
    rows = in_order(happened)
    homes: Counter[int] = Counter()
    totals: Counter[str] = Counter()
    males: int | None = 0
    for one in rows:
        if one.kind not in COUNTED:
            continue
        if one.kind in COMING:
            homes[one.system] += one.count
        else:
            left = homes[one.system]
            if one.count > left:
                raise RegisterFault("more_than_live", "count", live=left, asked=one.count)
            homes[one.system] -= one.count
            if one.kind == "move":
                homes[one.to] += one.count
        totals[one.kind] += one.count
        males = males_after(resident, males, one)
    came = [date.fromisoformat(one.day) for one in rows if one.kind in COMING]
    return Life(
        resident=resident,
        happened=tuple(rows),
        homes={system: count for system, count in homes.items() if count > 0},
        came=totals["arrival"] + totals["birth"],
        sold=totals["sale"],
        died=totals["death"],
        males=males,
        since=min(came, default=None),
    )


def males_after(resident: Resident, males: int | None, one: LifeEvent) -> int | None:
    """Males alive after a step; None once any step does not say."""
    if one.kind == "move":
        return males
    told = one.males if resident.sex in ("mixed", "unknown") else one.count if resident.sex == "male" else 0
    if males is None or told is None:
        return None
    return males + told if one.kind in COMING else males - told


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
        if one.kind in COUNTED and one.count < 1:
            found.append(RegisterFault("nobody", "count"))
        if one.kind == "move" and one.to == one.system:
            found.append(RegisterFault("moves_nowhere", "to"))
        if one.kind == "measured" and one.length_cm is None:
            found.append(RegisterFault("how_long", "length_cm"))
        if one.males is not None and one.males > one.count:
            found.append(RegisterFault("more_males", "males", count=one.count))
    first = next((one for one in in_order(happened) if one.kind in COUNTED), None)
    if first is not None and first.kind not in COMING:
        found.append(RegisterFault("not_here_yet", "day"))
    if resident.name and sum(one.count for one in happened if one.kind in COMING) > 1:
        found.append(RegisterFault("one_of_a_name", "count"))
    if not found:
        try:
            life_of(resident, happened)
        except RegisterFault as fault:
            found.append(fault)
    return found
