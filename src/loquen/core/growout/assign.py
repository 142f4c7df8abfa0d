"""Kinds assigned to tanks so that most is left in a week: a mixed-integer program, solved by a standard optimiser."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from math import inf

import numpy as np

from loquen.core.model.inputs.quantity import Sentence

EMPTY = 0
"""The venture of a tank that is better left empty."""
MOST_SECONDS = 5.0
MANY_SORTS, NEAR, EXACT = 20, 1e-3, 1e-9
"""From so many sorts of tanks on, what is found is told as the best within a thousandth."""


@dataclass(frozen=True, slots=True)
class Outlet:
    """One way to sell from one tank in a week: raised, of that fit to sell, the most that buyers take of all tanks, what a
    sold and an unsold one bring with the work of selling paid, and minutes for one that is sold."""

    raised: float
    sellable: float
    most: float | None
    brings: float
    unsold: float
    minutes: float


@dataclass(frozen=True, slots=True)
class Offer:
    """A venture in one tank among as many as it fills: what a tank's share costs, takes and raises in a week."""

    cost: float
    minutes: float
    kwh: float
    outlets: tuple[Outlet, ...]
    against: Sentence | None = None

    @property
    def left(self) -> float:
        """With nobody buying."""
        return sum(outlet.raised * outlet.unsold for outlet in self.outlets) - self.cost

    @property
    def margin(self) -> float:
        """With every buyer there."""
        return self.left + sum(outlet.sellable * (outlet.brings - outlet.unsold) for outlet in self.outlets)


@dataclass(frozen=True, slots=True)
class Bounds:
    """What there is of hours and power in a week for all tanks; None: no bound."""

    hours: float | None = None
    kwh: float | None = None


@dataclass(frozen=True, slots=True)
class Assigned:
    """The best found: the venture of each tank (EMPTY for none), what is sold of each way, what is left a week."""

    ventures: tuple[int, ...]
    sold: dict[int, tuple[float, ...]]
    margin: float
    minutes: float
    kwh: float
    proved: bool


@dataclass
class Program:
    """A mixed-integer program being written: what each variable brings, its limit, whether it is whole; rows with their ends."""

    gains: list[float] = field(default_factory=list)
    limits: list[float] = field(default_factory=list)
    whole: list[int] = field(default_factory=list)
    rows: list[tuple[dict[int, float], float, float]] = field(default_factory=list)

    def variable(self, gain: float, limit: float, whole: bool) -> int:
        self.gains.append(gain)
        self.limits.append(limit)
        self.whole.append(int(whole))
        return len(self.gains) - 1

    def hold(self, row: dict[int, float], low: float, high: float) -> None:
        if row:
            self.rows.append((row, low, high))

    def solved(self, gap: float) -> tuple[list[float] | None, bool]:
        """The values that bring most within a gap, and whether that is proved."""
        from scipy.optimize import Bounds as Limits
        from scipy.optimize import LinearConstraint, milp
        from scipy.sparse import csr_array

        entries = [(at, column, value) for at, (row, _, _) in enumerate(self.rows) for column, value in row.items()]
        at, columns, values = (np.array(part) for part in zip(*entries, strict=True))
        matrix = csr_array((values, (at, columns)), shape=(len(self.rows), len(self.gains)))
        found = milp(
            -np.array(self.gains),
            integrality=np.array(self.whole),
            bounds=Limits(0, np.array(self.limits)),
            constraints=LinearConstraint(
                matrix, [low for _, low, _ in self.rows], [high for *_, high in self.rows]
            ),
            options={"time_limit": MOST_SECONDS, "mip_rel_gap": gap},
        )
        return (None if found.x is None else found.x.tolist()), found.status == 0


def alike(offers: Mapping[int, Sequence[Offer]]) -> list[list[int]]:
    """Tanks that are the same to every venture, together: they share their offers."""
    count = len(next(iter(offers.values())))
    found: dict[tuple[int, ...], list[int]] = {}
    for tank in range(count):
        found.setdefault(tuple(id(offered[tank]) for offered in offers.values()), []).append(tank)
    return list(found.values())


@dataclass
class Written:
    """The program of a rack, and which of its variables are what: tanks of a sort by venture, ways, minutes, power."""

    program: Program = field(default_factory=Program)
    places: dict[tuple[int, int], int] = field(default_factory=dict)
    outlets: dict[int, list[int]] = field(default_factory=dict)
    minutes: dict[int, float] = field(default_factory=dict)
    power: dict[int, float] = field(default_factory=dict)

    def venture(self, key: int, here: Mapping[int, tuple[Offer, int]], least: int, most: int) -> None:
        """A venture in those sorts of tanks that fit: in none of them, or in `least` to `most`, and what it sells."""
        for sort, (offer, tanks) in here.items():
            x = self.program.variable(offer.left, float(tanks), True)
            self.places[key, sort], self.minutes[x], self.power[x] = x, offer.minutes, offer.kwh
        used = self.program.variable(0.0, 1.0, True)
        all_of_it = {self.places[key, sort]: 1.0 for sort in here}
        self.program.hold({**all_of_it, used: -float(least)}, 0.0, inf)
        self.program.hold({**all_of_it, used: -float(most)}, -inf, 0.0)
        some = next(offer for offer, _ in here.values())
        self.outlets[key] = []
        for way, outlet in enumerate(some.outlets):
            limit = inf if outlet.most is None else outlet.most
            sold = self.program.variable(outlet.brings - outlet.unsold, limit, False)
            self.outlets[key].append(sold)
            self.minutes[sold] = outlet.minutes
            could = {self.places[key, sort]: -offer.outlets[way].sellable for sort, (offer, _) in here.items()}
            self.program.hold({**could, sold: 1.0}, -inf, 0.0)

    def within(self, sorts: Sequence[Sequence[int]], bounds: Bounds) -> None:
        """Each tank once, and all of them within the hours and the power."""
        for sort, tanks in enumerate(sorts):
            here = {x: 1.0 for (_, there), x in self.places.items() if there == sort}
            self.program.hold(here, 0.0, float(len(tanks)))
        if bounds.hours is not None:
            self.program.hold(self.minutes, 0.0, bounds.hours * 60)
        if bounds.kwh is not None:
            self.program.hold(self.power, 0.0, bounds.kwh)


def assigned(
    offers: Mapping[int, Sequence[Offer]],
    least: Mapping[int, int],
    bounds: Bounds,
    most: Mapping[int, int] | None = None,
) -> Assigned:
    """The assignment of ventures to tanks that leaves most in a week.

    max Σ (brings − unsold)·sold + Σ (unsold·raised − cost)·x; each tank at most one venture; a venture in none, or in
    `least` tanks and at most `most`; sold ≤ Σ sellable·x and ≤ buyers; Σ minutes and Σ kWh within bounds. Tanks alike for
    all ventures are one whole number.
    """
    if not offers:
        return nothing(0, True)
    sorts = alike(offers)
    count = sum(map(len, sorts))
    written = Written()
    for key, offered in offers.items():
        here = {
            sort: (offered[tanks[0]], len(tanks))
            for sort, tanks in enumerate(sorts)
            if offered[tanks[0]].against is None
        }
        if here:
            written.venture(key, here, least[key], min(count, (most or {}).get(key, count)))
    if not written.places:
        return nothing(count, True)
    written.within(sorts, bounds)
    values, proved = written.program.solved(NEAR if len(sorts) > MANY_SORTS else EXACT)
    return nothing(count, False) if values is None else read(written, sorts, list(offers), values, proved)


def read(
    written: Written, sorts: Sequence[Sequence[int]], keys: Sequence[int], values: Sequence[float], proved: bool
) -> Assigned:
    """What the solved program says of each tank and each way."""
    chosen = [EMPTY] * sum(map(len, sorts))
    for sort, tanks in enumerate(sorts):
        free = iter(tanks)
        for key in keys:
            for _ in range(round(values[written.places[key, sort]]) if (key, sort) in written.places else 0):
                chosen[next(free)] = key
    return Assigned(
        ventures=tuple(chosen),
        sold={key: tuple(values[at] for at in sold) for key, sold in written.outlets.items() if key in chosen},
        margin=sum(gain * value for gain, value in zip(written.program.gains, values, strict=True)),
        minutes=sum(values[at] * value for at, value in written.minutes.items()),
        kwh=sum(values[at] * value for at, value in written.power.items()),
        proved=proved,
    )


def nothing(count: int, proved: bool) -> Assigned:
    """Every tank left empty."""
    return Assigned((EMPTY,) * count, {}, 0.0, 0.0, 0.0, proved)
