"""Whose turn it is in which tub, so that all are home soonest."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

MOST_AT_ONCE = 9
"""So many are put in order by trying every order; more than that one lot after the other."""
NOT_PLACED = 1e9


@dataclass(frozen=True, slots=True)
class Job:
    """An arrival (or several that come together): from which day on, and how many days in each tub that takes it.

    One that can not wait is put in on its day or not at all.
    """

    key: int
    ready_d: int
    wait_d: Mapping[int, int]
    can_wait: bool = True


@dataclass(frozen=True, slots=True)
class Turn:
    """An arrival's turn: its tub (None where it finds none) and the days on which it enters and leaves."""

    key: int
    tub: int | None
    enters_d: int
    leaves_d: int


@dataclass(frozen=True, slots=True)
class Queue:
    """Some arrivals in one tub one after the other: when the last leaves, and the days at which they leave, summed."""

    free_d: int
    cost: float
    turns: tuple[Turn, ...] = ()


def in_order(jobs: Sequence[Job], free_d: Mapping[int, int]) -> list[Turn]:
    """The turns with which the days at which they leave sum to least, as few as can be without a tub.

    Exact for up to nine arrivals: each tub's best queues over every subset of them (of two that leave as early and cost
    as little one is kept), then the best split of all over the tubs. More are taken in lots of nine, by day.

    Parameters:
        jobs: arrivals, each with days counted from today.
        free_d: by tub, the day from which on it is free.
    Source: definition
    """
    free, found = dict(free_d), list[Turn]()
    waiting = sorted(jobs, key=lambda job: (job.ready_d, job.key))
    for start in range(0, len(waiting), MOST_AT_ONCE):
        turns = best(waiting[start : start + MOST_AT_ONCE], free)
        for turn in turns:
            if turn.tub is not None:
                free[turn.tub] = max(free[turn.tub], turn.leaves_d)
        found += turns
    return sorted(found, key=lambda turn: (turn.enters_d, turn.key))


def best(jobs: Sequence[Job], free_d: Mapping[int, int]) -> list[Turn]:
    """The best turns of a few arrivals."""
    every = 1 << len(jobs)
    unplaced = [Queue(0, NOT_PLACED * mask.bit_count(), without_tub(jobs, mask)) for mask in range(every)]
    so_far: list[Queue | None] = list(unplaced)
    for tub in sorted(free_d):
        alone = queues(jobs, tub, free_d[tub])
        longer: list[Queue | None] = list(so_far)
        for mask in range(every):
            part = mask
            while part:
                mine, theirs = alone[part], so_far[mask ^ part]
                if mine is not None and theirs is not None:
                    cost = mine.cost + theirs.cost
                    known = longer[mask]
                    if known is None or cost < known.cost:
                        longer[mask] = Queue(0, cost, theirs.turns + mine.turns)
                part = (part - 1) & mask
        so_far = longer
    last = so_far[every - 1]
    assert last is not None
    return list(last.turns)


def without_tub(jobs: Sequence[Job], mask: int) -> tuple[Turn, ...]:
    chosen = [job for place, job in enumerate(jobs) if mask >> place & 1]
    return tuple(Turn(job.key, None, job.ready_d, job.ready_d) for job in chosen)


def queues(jobs: Sequence[Job], tub: int, free_d: int) -> list[Queue | None]:
    """The cheapest queue of every subset of the arrivals in one tub; None where a subset can not be in it."""
    fronts: list[list[Queue]] = [[] for _ in range(1 << len(jobs))]
    fronts[0] = [Queue(free_d, 0.0)]
    for mask in range(1 << len(jobs)):
        for queue in fronts[mask]:
            for place, job in enumerate(jobs):
                enters = max(queue.free_d, job.ready_d)
                if mask >> place & 1 or tub not in job.wait_d or (not job.can_wait and enters > job.ready_d):
                    continue
                leaves = enters + job.wait_d[tub]
                turn = Turn(job.key, tub, enters, leaves)
                longer = Queue(leaves, queue.cost + leaves, (*queue.turns, turn))
                fronts[mask | 1 << place] = kept(fronts[mask | 1 << place], longer)
    return [min(front, key=lambda queue: queue.cost, default=None) for front in fronts]


def kept(front: list[Queue], new: Queue) -> list[Queue]:
    """The queues of a subset that no other beats in both: when the tub is free again, and what it costs."""
    if any(old.free_d <= new.free_d and old.cost <= new.cost for old in front):
        return front
    return [old for old in front if old.free_d < new.free_d or old.cost < new.cost] + [new]
