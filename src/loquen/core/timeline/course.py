"""A run through time: what happens to a state hour by hour, what a keeper does about it each day, and what is kept."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from loquen.core.graph.giving_up import heed
from loquen.core.timeline import rates
from loquen.core.timeline.arithmetic import Arithmetic, Many, One, State
from loquen.core.timeline.rates import AMMONIA, HOLD, KH, NITRATE, NITRITE, ON_AMMONIA, ON_NITRITE, SOIL, Water

HOURS = 24
MOST_AT_ONCE = 0.5
"""Share that is changed where no share meets the limits."""
NEVER = float("nan")
KEPT = (AMMONIA, NITRITE, NITRATE, KH, ON_AMMONIA, ON_NITRITE)
"""The quantities of a state that a course keeps, in this order."""


@dataclass(frozen=True, slots=True)
class Source:
    """Water that comes in with a change."""

    nitrate_mg_l_n: float
    kh_dkh: float
    ammonia_mg_l_n: float = 0.0
    nitrite_mg_l_n: float = 0.0


@dataclass(frozen=True, slots=True)
class ChangeRule:
    """When a keeper changes water: every so many days, on days, or when carbonate hardness reads low."""

    share: float
    every_days: int | None = None
    on_days: tuple[int, ...] = ()
    kh_read_under_dkh: float | None = None

    def due(self, day: int, kh: Any, m: Arithmetic) -> Any:
        if self.kh_read_under_dkh is not None:
            # The first reading is that of day 1.
            return m.both(kh < self.kh_read_under_dkh, m.full(day > 0))
        every = self.every_days is not None and day > 0 and day % self.every_days == 0
        return m.full(every or day in self.on_days)


@dataclass(frozen=True, slots=True)
class Happening:
    """Something at an hour that no routine decides: a change or dose that was made, a load, a loss of bacteria."""

    hour: int
    change_share: float = 0.0
    dose_mg_l_n: float = 0.0
    load_mg_l_d_n: float | None = None
    capacity_lost_share: float = 0.0
    capacity_added: tuple[float, float] = (0.0, 0.0)
    kh_added_dkh: float = 0.0


@dataclass(frozen=True, slots=True)
class Limits:
    """What animals may live in, mg/L N: total and un-ionised ammonia, nitrite."""

    ammonia: float
    unionised: float
    nitrite: float

    def met(self, state: State, w: Water, m: Arithmetic) -> Any:
        """Whether a state lies inside all three."""
        h = rates.hydrogen(state[KH], state[HOLD], w, m)
        free = rates.free_ammonia(state[AMMONIA], h, w)
        calm = m.both(state[AMMONIA] <= self.ammonia, state[NITRITE] <= self.nitrite)
        return m.both(calm, free <= self.unionised)


SHARES = tuple(step / 20 for step in range(2, 19))
"""Shares that a keeper changes by: a tenth to nine tenths."""


def share_within(state: State, limits: Limits, source: "Source", w: Water, m: Arithmetic) -> Any:
    """The smallest share whose change meets every limit, with the KH that the new water brings; nan for none.

    Harder water can raise un-ionised ammonia, so that a larger share is no remedy for certain.
    """
    found = m.full(NEVER)
    for share in reversed(SHARES):
        fine = limits.met(changed(state, share, source, m), w, m)
        found = m.where(fine, share, found)
    return m.where(limits.met(state, w, m), 0.0, found)


@dataclass(frozen=True, slots=True)
class Keeper:
    """Who tends the tank: what is read, dosed and changed, from a day on; before it only what happened counts."""

    source: Source
    fishless: bool
    soil: bool = False
    full_dose: Any = 0.0
    dose_kh_per_n: float = 0.0
    changes: tuple[ChangeRule, ...] = ()
    reads_ammonia: bool = True
    reads_nitrite: bool = True
    from_day: int = 0
    clock_h: int = 0
    """Hours after midnight at which it is read and tended each day."""
    ends: bool = True
    """Whether a fishless run is over when it is done."""
    ends_when_clear: bool = False
    """Whether one with animals is over when it is declared clear."""
    most_settled: tuple[float, float] = (0.25, 0.1)
    """mg/L N of ammonia and nitrite that animals may live in for good."""
    limits: Limits | None = None
    """Passed: water is changed that day, by as much as meets them, half where no share does."""


@dataclass(slots=True)
class Ledger:
    """What a run comes to, each a number or an array over members; days that never come are nan."""

    day_done: Any
    clear_from_day: Any
    clear_declared_day: Any
    stalled_day: Any
    peak_ammonia: Any
    peak_ammonia_day: Any
    peak_nitrite: Any
    peak_nitrite_day: Any
    kh_lowest: Any
    dosed: Any
    changes_made: Any
    full_yesterday: Any
    clear_run: Any
    end_day: Any

    @classmethod
    def empty(cls, m: Arithmetic) -> "Ledger":
        start: dict[str, Any] = dict.fromkeys(cls.__slots__, 0.0)
        start |= dict.fromkeys(("day_done", "clear_from_day", "clear_declared_day", "stalled_day"), NEVER)
        start |= {"kh_lowest": float("inf"), "full_yesterday": False}
        return cls(**{name: m.full(value) for name, value in start.items()})

    def noted(self, state: State, day: float, m: Arithmetic) -> None:
        """Peaks, and the lowest hardness."""
        ammonia, nitrite = state[AMMONIA], state[NITRITE]
        self.peak_ammonia_day = m.where(ammonia > self.peak_ammonia, day, self.peak_ammonia_day)
        self.peak_ammonia = m.most(self.peak_ammonia, ammonia)
        self.peak_nitrite_day = m.where(nitrite > self.peak_nitrite, day, self.peak_nitrite_day)
        self.peak_nitrite = m.most(self.peak_nitrite, nitrite)
        self.kh_lowest = m.least(self.kh_lowest, state[KH])


def settled(w: Water, m: Arithmetic) -> tuple[Any, Any]:
    """Ammonia and nitrite, mg/L N, at which bacteria that grow and die take just what is made; infinite for none."""
    c = rates.table()
    f = w.warmth
    found = []
    for growth, half in ((w.growth_a, w.half_a), (w.growth_n, w.half_n)):
        share = (c.decay_per_d * w.warmth + growth * w.load * w.per_most_capacity) / (growth * f)
        found.append(m.where(share < 1, half * share / m.most(1 - share, 1e-12), float("inf")))
    return found[0], found[1]


def clear(state: State, w: Water, keeper: Keeper, m: Arithmetic) -> Any:
    """Whether this is a clear day: both readings low, and bacteria enough for what is made."""
    c = rates.table()
    ammonia, nitrite, _, on_ammonia, on_nitrite, kh, soil, hold = state
    h = rates.hydrogen(kh, hold, w, m)
    f, free = rates.speed(h, w), rates.free_ammonia(ammonia, h, w)
    made = w.load + (w.soil_release * soil if w.soiled else 0.0)
    plants = w.plants * ammonia / (ammonia + c.plants_half_ammonia_mg_l) if w.planted else 0.0
    wanted = c.clear_capacity_of_load * (made - plants)
    fine = made > 0
    for level, capacity, half, inhibits, at, most in zip(
        (ammonia, nitrite),
        (on_ammonia, on_nitrite),
        (w.half_a, w.half_n),
        (c.free_ammonia_on_ammonia_oxidisers_mg_l, c.free_ammonia_on_nitrite_oxidisers_mg_l),
        settled(w, m),
        keeper.most_settled,
        strict=True,
    ):
        borne = m.where(at <= most, m.least(c.clear_of_settled * at, 10.0), 0.0)
        limit = m.most(borne, c.clear_under_mg_l)
        takes = capacity * f * limit / (half + limit) / (1 + free / inhibits)
        fine = m.both(fine, m.both(level < limit, takes >= wanted))
    return fine


def read(day: int, state: State, ledger: Ledger, keeper: Keeper, w: Water, m: Arithmetic) -> Any:
    """Read the water, and decide whether the run is done; a run that nobody reads nitrite in never is."""
    c = rates.table()
    both_read = keeper.reads_ammonia and keeper.reads_nitrite
    stall_kh = c.stalled_fishless_kh_dkh if keeper.fishless else c.stalled_kh_dkh
    stalled = m.both(state[KH] < stall_kh, ledger.stalled_day != ledger.stalled_day)
    ledger.stalled_day = m.where(stalled, float(day), ledger.stalled_day)
    ledger.end_day = m.full(float(day))
    if keeper.fishless:
        low = c.dose_read_under_mg_l
        gone = m.both(state[AMMONIA] < low, state[NITRITE] < low)
        done = m.both(m.both(ledger.full_yesterday, gone), m.full(both_read))
        first = m.both(done, ledger.day_done != ledger.day_done)
        ledger.day_done = m.where(first, float(day), ledger.day_done)
        return m.both(done, m.full(keeper.ends))
    fine = m.both(clear(state, w, keeper, m), m.full(both_read))
    ledger.clear_run = m.where(fine, ledger.clear_run + 1, 0.0)
    undeclared = ledger.clear_declared_day != ledger.clear_declared_day
    declared = m.both(ledger.clear_run >= c.clear_days, undeclared)
    ledger.clear_declared_day = m.where(declared, float(day), ledger.clear_declared_day)
    ledger.clear_from_day = m.where(declared, float(day) - ledger.clear_run + 1, ledger.clear_from_day)
    return m.both(declared, m.full(keeper.ends_when_clear))


def tend(day: int, state: State, ledger: Ledger, keeper: Keeper, w: Water, m: Arithmetic) -> tuple[State, Any, Any]:
    """Dose by what was read, then change what is due: the state, the dose and the share changed."""
    c = rates.table()
    kh_read = state[KH]
    dose, share = m.full(0.0), m.full(0.0)
    if keeper.fishless:
        if day == 0:
            dose, full = keeper.full_dose, m.full(True)
        else:
            # Who does not know the nitrite doses half, and proves nothing.
            nitrite = state[NITRITE] if keeper.reads_nitrite else m.full(c.dose_read_under_mg_l)
            hungry = m.both(state[AMMONIA] < c.dose_read_under_mg_l, kh_read >= c.stalled_fishless_kh_dkh)
            full = m.both(hungry, nitrite < c.dose_read_under_mg_l)
            half = m.both(hungry, nitrite < c.half_dose_nitrite_under_mg_l)
            dose = m.where(full, keeper.full_dose, m.where(half, keeper.full_dose / 2, 0.0))
        ledger.full_yesterday = full
        ledger.dosed = ledger.dosed + dose
        state = dosed(state, dose, keeper.dose_kh_per_n, m)
    for rule in keeper.changes:
        due = rule.due(day, kh_read, m)
        if m.any(due):
            ledger.changes_made = ledger.changes_made + m.where(due, 1.0, 0.0)
            share = m.where(due, rule.share, share)
            state = changed(state, m.where(due, rule.share, 0.0), keeper.source, m)
    if keeper.limits is not None:
        wanted = share_within(state, keeper.limits, keeper.source, w, m)
        wanted = m.where(wanted == wanted, wanted, MOST_AT_ONCE)  # noqa: PLR0124
        ledger.changes_made = ledger.changes_made + m.where(wanted > 0, 1.0, 0.0)
        share = m.most(share, wanted)
        state = changed(state, wanted, keeper.source, m)
    return state, dose, share


def dosed(state: State, dose: Any, kh_per_n: float, m: Arithmetic) -> State:
    """After ammonia is put in."""
    parts = list(state)
    parts[AMMONIA] = parts[AMMONIA] + dose
    parts[KH] = parts[KH] + kh_per_n * dose
    return m.state(parts)


def changed(state: State, share: Any, source: Source, m: Arithmetic) -> State:
    """After a share of the water is changed; bacteria and soil stay where they are."""
    parts = list(state)
    new = {
        AMMONIA: source.ammonia_mg_l_n,
        NITRITE: source.nitrite_mg_l_n,
        NITRATE: source.nitrate_mg_l_n,
        KH: source.kh_dkh,
    }
    for key, value in new.items():
        parts[key] = parts[key] + share * (value - parts[key])
    return m.state(parts)


def happened(
    happening: Happening, state: State, w: Water, ledger: Ledger, keeper: Keeper, m: Arithmetic
) -> tuple[State, Water]:
    """After something that no routine decided; doses count as full when they are nearly so."""
    if happening.load_mg_l_d_n is not None:
        w = replace(w, load=happening.load_mg_l_d_n)
    if happening.dose_mg_l_n:
        state = dosed(state, happening.dose_mg_l_n, keeper.dose_kh_per_n, m)
        ledger.dosed = ledger.dosed + happening.dose_mg_l_n
        ledger.full_yesterday = happening.dose_mg_l_n >= 0.9 * keeper.full_dose
    if happening.change_share:
        state = changed(state, happening.change_share, keeper.source, m)
        ledger.changes_made = ledger.changes_made + 1.0
    parts = list(state)
    left = 1 - happening.capacity_lost_share
    parts[ON_AMMONIA] = parts[ON_AMMONIA] * left + happening.capacity_added[0]
    parts[ON_NITRITE] = parts[ON_NITRITE] * left + happening.capacity_added[1]
    parts[KH] = parts[KH] + happening.kh_added_dkh
    return m.state(parts), w


@dataclass(slots=True)
class Record:
    """The hours of one run, or of many, and what each came to; a member that is done stays as it ended."""

    hours: Any = field(default_factory=list)
    ledger: Ledger | None = None
    end: State = None
    acts: list[tuple[int, float, float]] = field(default_factory=list)
    """Of a single tank: what was dosed and which share changed on each day that was tended."""


def one(state: State, w: Water, keeper: Keeper, days: int, happenings: Sequence[Happening] = ()) -> Record:
    """A single tank, in plain floats."""
    record = Record()
    m, ledger = One(), Ledger.empty(One())
    due = sorted(happenings, key=lambda one: one.hour)
    for hour in range(days * HOURS + 1):
        if hour % HOURS == 0:
            heed()
        record.hours.append(state)
        ledger.noted(state, hour / HOURS, m)
        while due and due[0].hour <= hour:
            state, w = happened(due.pop(0), state, w, ledger, keeper, m)
        day, rest = divmod(hour, HOURS)
        record.end = state
        if hour == days * HOURS:
            if rest == keeper.clock_h:
                read(day, state, ledger, keeper, w, m)
            break
        if rest == keeper.clock_h:
            if day > 0 and read(day, state, ledger, keeper, w, m):
                break
            if day >= keeper.from_day:
                state, dose, share = tend(day, state, ledger, keeper, w, m)
                record.acts.append((day, dose, share))
                ledger.noted(state, day, m)
        state = rates.stepped(state, w, m, 1 / HOURS)
    record.ledger = ledger
    return record


def many(
    state: NDArray[np.float64], w: Water, keeper: Keeper, days: int, happenings: Sequence[Happening] = ()
) -> Record:
    """Many tanks in step: state 8 × members. Those that are done are left out of the rest of the run."""
    members = state.shape[1]
    m, going = Many(members), np.arange(members)
    ledger = Ledger.empty(m)
    whole = Ledger.empty(m)
    hours = np.full((days * HOURS + 1, len(KEPT), members), np.nan)
    end = np.zeros_like(state)
    due = sorted(happenings, key=lambda one: one.hour)

    def put_away(case: NDArray[np.bool_]) -> None:
        for name in Ledger.__slots__:
            getattr(whole, name)[going[case]] = np.broadcast_to(getattr(ledger, name), going.shape)[case]
        end[:, going[case]] = state[:, case]

    for hour in range(days * HOURS + 1):
        if hour % HOURS == 0:
            heed()
        hours[hour][:, going] = state[list(KEPT)]
        ledger.noted(state, hour / HOURS, m)
        while due and due[0].hour <= hour:
            state, w = happened(due.pop(0), state, w, ledger, keeper, m)
        day, rest = divmod(hour, HOURS)
        if rest == keeper.clock_h or hour == days * HOURS:
            ended = read(day, state, ledger, keeper, w, m) if day > 0 else m.full(False)
            if hour == days * HOURS:
                ended = m.full(True)
            if np.any(ended):
                put_away(ended)
                stay = ~ended
                if not stay.any():
                    break
                state, w, ledger, keeper = (
                    m.only(state, stay),
                    m.only(w, stay),
                    m.only(ledger, stay),
                    m.only(keeper, stay),
                )
                going = going[stay]
                m = Many(len(going))
            if day >= keeper.from_day:
                state, _, _ = tend(day, state, ledger, keeper, w, m)
                ledger.noted(state, day, m)
        state = rates.stepped(state, w, m, 1 / HOURS)
    return Record(hours=held(hours), ledger=whole, end=end)


def held(hours: NDArray[np.float64]) -> NDArray[np.float64]:
    """Members that are done, kept at the level they ended at."""
    last = (~np.isnan(hours[:, 0, :])).sum(axis=0) - 1
    for member, hour in enumerate(last):
        hours[hour + 1 :, :, member] = hours[hour, :, member]
    return hours


def start(
    *,
    ammonia: Any = 0.0,
    nitrite: Any = 0.0,
    nitrate: Any = 0.0,
    on_ammonia: Any,
    on_nitrite: Any,
    kh: Any,
    soil: Any = 0.0,
    hold: Any = 0.0,
) -> tuple[Any, ...]:
    """The state at day 0, in the order of a state."""
    parts = {AMMONIA: ammonia, NITRITE: nitrite, NITRATE: nitrate, ON_AMMONIA: on_ammonia, ON_NITRITE: on_nitrite}
    parts |= {KH: kh, SOIL: soil, HOLD: hold}
    return tuple(parts[key] for key in sorted(parts))
