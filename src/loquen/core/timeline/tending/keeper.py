"""Who tends a tank: what is read, dosed and changed each day, and what really happened besides."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Generic, NamedTuple

from loquen.core.physics.elementwise import Array, Q, Truth, any_of, both, where
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.run import HOURS, Undisturbed, run
from loquen.core.timeline.state import NAMES, State
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import PutAway, Tanks, tanks_of
from loquen.core.timeline.tending.clear import is_clear
from loquen.core.timeline.tending.tally import NEVER, Tally
from loquen.core.timeline.watch import Limits

MOST_AT_ONCE = 0.5
"""Share that is changed where no share meets the limits."""
NEARLY_FULL = 0.9
"""Of a full dose: what was dosed by hand and counts as one."""


@dataclass(frozen=True, slots=True)
class Source(Generic[Q]):
    """Water that comes in with a change."""

    nitrate_mg_l_n: Q | float
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

    def due(self, day: int, kh: Q) -> Truth:
        if self.kh_read_under_dkh is not None:
            # The first reading is that of day 1.
            return both(kh < self.kh_read_under_dkh, day > 0)
        every = self.every_days is not None and day > 0 and day % self.every_days == 0
        return every or day in self.on_days


@dataclass(frozen=True, slots=True)
class BufferRule:
    """Bicarbonate of soda, as much as lifts the water by so many dKH, whenever carbonate hardness reads low."""

    kh_read_under_dkh: float
    adds_dkh: float


class Act(NamedTuple):
    """What a keeper did on a day: dosed, mg/L N; changed, a share; lifted carbonate hardness, dKH."""

    day: int
    dose_mg_l_n: float
    share: float
    kh_dkh: float


@dataclass(frozen=True, slots=True)
class Happening:
    """Something at an hour that no routine decides: a change or dose that was made, a load, a loss of bacteria."""

    hour: int
    change_share: float = 0.0
    dose_mg_l_n: float = 0.0
    load_mg_l_d_n: float | None = None
    load_times: float = 1.0
    """Times what was made until then: animals that grow."""
    capacity_lost_share: float = 0.0
    capacity_added: tuple[float, float] = (0.0, 0.0)
    kh_added_dkh: float = 0.0


SHARES = tuple(step / 20 for step in range(2, 19))
"""Shares that a keeper changes by: a tenth to nine tenths."""


@dataclass(frozen=True, slots=True)
class Keeper(Generic[Q]):
    """Who tends the tank: what is read, dosed and changed, from a day on; before it only what happened counts."""

    source: Source[Q]
    fishless: bool
    full_dose: Q | float = 0.0
    dose_kh_per_n: float = 0.0
    changes: tuple[ChangeRule, ...] = ()
    buffers: BufferRule | None = None
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


def dosed(state: State[Q], dose: Q | float, kh_per_n: float) -> State[Q]:
    """After ammonia is put in."""
    return replace(state, ammonia=state.ammonia + dose, kh=state.kh + dose * kh_per_n)


def changed(state: State[Q], share: Q | float, source: Source[Q]) -> State[Q]:
    """After a share of the water is changed; bacteria and soil stay where they are."""
    return replace(
        state,
        ammonia=state.ammonia + share * (source.ammonia_mg_l_n - state.ammonia),
        nitrite=state.nitrite + share * (source.nitrite_mg_l_n - state.nitrite),
        nitrate=state.nitrate + share * (source.nitrate_mg_l_n - state.nitrate),
        kh=state.kh + share * (source.kh_dkh - state.kh),
    )


def share_within(state: State[Q], limits: Limits, source: Source[Q], around: Surroundings[Q]) -> Q:
    """The smallest share whose change meets every limit, with the KH that the new water brings; nan for none.

    Harder water can raise un-ionised ammonia, so that a larger share is no remedy for certain.
    """
    found: Q | float = NEVER
    for share in reversed(SHARES):
        found = where(limits.met(changed(state, share, source), around), share, found)
    return where(limits.met(state, around), 0.0, found)


class Changing(Undisturbed[Q]):
    """Water that is changed by a share on some days, and left alone otherwise."""

    def __init__(self, share: float, days: Sequence[int], source: Source[Q]) -> None:
        self.share, self.days = share, sorted(days)
        self.source: Source[Q] = source

    def next_h(self, hour: float) -> float:
        return next((day * HOURS for day in self.days if day * HOURS > hour), float("inf"))

    def tended(self, hour: float, state: State[Q], around: Surroundings[Q]) -> State[Q]:
        return changed(state, self.share, self.source) if hour / HOURS in self.days else state


class Tending(Generic[Q]):
    """A keeper's days and what happened besides, as the turns of a run."""

    def __init__(self, keeper: Keeper[Q], happenings: Sequence[Happening], tanks: Tanks[Q]) -> None:
        self.keeper: Keeper[Q] = keeper
        self.tanks: Tanks[Q] = tanks
        self.put_away: PutAway[Tally[Q]] = PutAway(tanks.members)
        self.due = sorted(happenings, key=lambda one: one.hour)
        self.tally: Tally[Q] = Tally.empty(tanks)
        self.acts: list[Act] = []
        """Of a single tank, on each day that was tended."""

    turned: Callable[[State[Q]], bool] | None = None

    def next_h(self, hour: float) -> float:
        """The next hour at which something is done or happens."""
        day, rest = divmod(round(hour), HOURS)
        tended = (day + (rest >= self.keeper.clock_h)) * HOURS + self.keeper.clock_h
        return min(tended, self.due[0].hour) if self.due else tended

    def happened(self, hour: float, state: State[Q], around: Surroundings[Q]) -> tuple[State[Q], Surroundings[Q]]:
        """After all that no routine decided until this hour."""
        while self.due and self.due[0].hour <= hour:
            state, around = self.after(self.due.pop(0), state, around)
        return state, around

    def after(
        self, happening: Happening, state: State[Q], around: Surroundings[Q]
    ) -> tuple[State[Q], Surroundings[Q]]:
        """After one of them; doses count as full when they are nearly so."""
        if happening.load_mg_l_d_n is not None and around.bacteria is not None:
            load = happening.load_mg_l_d_n * around.litres / HOURS
            around = replace(around, bacteria=replace(around.bacteria, load_mg_h=load))
        if happening.load_times != 1 and around.bacteria is not None:
            grown = around.bacteria.load_mg_h * happening.load_times
            around = replace(around, bacteria=replace(around.bacteria, load_mg_h=grown))
        if happening.dose_mg_l_n:
            state = dosed(state, happening.dose_mg_l_n, self.keeper.dose_kh_per_n)
            self.tally.dosed = self.tally.dosed + happening.dose_mg_l_n
            self.tally.full_yesterday = happening.dose_mg_l_n >= NEARLY_FULL * self.keeper.full_dose
        if happening.change_share:
            state = changed(state, happening.change_share, self.keeper.source)
            self.tally.changes_made = self.tally.changes_made + 1.0
        left = 1 - happening.capacity_lost_share
        more_a, more_n = happening.capacity_added
        state = replace(
            state,
            on_ammonia=state.on_ammonia * left + more_a,
            on_nitrite=state.on_nitrite * left + more_n,
            kh=state.kh + happening.kh_added_dkh,
        )
        return state, around

    def over(self, hour: float, state: State[Q], around: Surroundings[Q]) -> Truth:
        """Whether it is done, read at the keeper's hour; the first day is only begun."""
        day, rest = divmod(round(hour), HOURS)
        if rest != self.keeper.clock_h or day == 0:
            return self.tanks.all(False)
        return self.read(day, state, around)

    def tended(self, hour: float, state: State[Q], around: Surroundings[Q]) -> State[Q]:
        """Dosed and changed at the keeper's hour, from the first day that is tended."""
        day, rest = divmod(round(hour), HOURS)
        if rest != self.keeper.clock_h or day < self.keeper.from_day:
            return state
        return self.tend(day, state, around)

    def left(self, ended: Truth, tanks: Tanks[Q]) -> None:
        """Tallies of those that are over are put away."""
        self.put_away.put(self.tally, ended)
        if not self.put_away.complete:
            self.keeper, self.tally = tanks.without(self.keeper, ended), tanks.without(self.tally, ended)
            self.tanks = tanks.smaller(ended)

    def read(self, day: int, state: State[Q], around: Surroundings[Q]) -> Truth:
        """Read the water, and decide whether the run is done; a run that nobody reads nitrite in never is."""
        c, keeper, tally = table(), self.keeper, self.tally
        both_read = keeper.reads_ammonia and keeper.reads_nitrite
        stall_kh = c.stalled_fishless_kh_dkh if keeper.fishless else c.stalled_kh_dkh
        tally.stalled_day = tally.first(state.kh < stall_kh, day, tally.stalled_day)
        tally.end_day = self.tanks.full(float(day))
        if keeper.fishless:
            low = c.dose_read_under_mg_l
            gone = both(both(state.ammonia < low, state.nitrite < low), both_read)
            done = both(tally.full_yesterday, gone)
            tally.day_done = tally.first(done, day, tally.day_done)
            return both(done, keeper.ends)
        fine = both(is_clear(state, around, keeper.most_settled), both_read)
        tally.clear_run = where(fine, tally.clear_run + 1, 0.0)
        declared = tally.clear_run >= c.clear_days
        tally.clear_from_day = tally.first(declared, day - tally.clear_run + 1, tally.clear_from_day)
        return both(declared, keeper.ends_when_clear)

    def tend(self, day: int, state: State[Q], around: Surroundings[Q]) -> State[Q]:
        """Dose by what was read, then change what is due."""
        keeper, tally, kh_read = self.keeper, self.tally, state.kh
        dose: Q | float = 0.0
        share: Q | float = 0.0
        lifted: Q | float = 0.0
        if keeper.fishless:
            dose = self.dose(day, state)
            tally.dosed = tally.dosed + dose
            state = dosed(state, dose, keeper.dose_kh_per_n)
        for rule in keeper.changes:
            due = rule.due(day, kh_read)
            if any_of(due):
                due_share: Q = where(due, rule.share, 0.0)
                tally.changes_made = tally.changes_made + where(due, 1.0, 0.0)
                share = where(due, rule.share, share)
                state = changed(state, due_share, keeper.source)
        if keeper.limits is not None:
            wanted = share_within(state, keeper.limits, keeper.source, around)
            wanted = where(wanted == wanted, wanted, MOST_AT_ONCE)  # noqa: PLR0124
            tally.changes_made = tally.changes_made + where(wanted > 0, 1.0, 0.0)
            share = where(wanted > share, wanted, share)
            state = changed(state, wanted, keeper.source)
        if keeper.buffers is not None:
            lifted = where(kh_read < keeper.buffers.kh_read_under_dkh, keeper.buffers.adds_dkh, 0.0)
            state = replace(state, kh=state.kh + lifted)
        tally.noted(state, float(day))
        if self.tanks.members is None:
            self.acts.append(Act(day, float(dose), float(share), float(lifted)))
        return state

    def dose(self, day: int, state: State[Q]) -> Q | float:
        """By what was read; whether it was a full one stands in the tally."""
        c, keeper, low = table(), self.keeper, table().dose_read_under_mg_l
        if day == 0:
            self.tally.full_yesterday = True
            return keeper.full_dose
        # Who does not know the nitrite doses half, and proves nothing.
        nitrite = state.nitrite if keeper.reads_nitrite else self.tanks.full(low)
        hungry = both(state.ammonia < low, state.kh >= c.stalled_fishless_kh_dkh)
        full = both(hungry, nitrite < low)
        half = both(hungry, nitrite < c.half_dose_nitrite_under_mg_l)
        self.tally.full_yesterday = full
        part: Q = where(full, 1.0, where(half, 0.5, 0.0))
        return part * keeper.full_dose


@dataclass(frozen=True, slots=True)
class Tended(Generic[Q]):
    """A run that somebody tended: levels by name at every hour (× members), what it came to, the water at its end."""

    hours: Mapping[str, Array]
    tally: Tally[Q]
    end: State[Q]
    acts: Sequence[Act]
    """Of a single tank."""


KEPT = ("ammonia", "nitrite", "nitrate", "kh", "on_ammonia", "on_nitrite")
"""What is kept of many tanks."""


def tend(
    state: State[Q],
    around: Surroundings[Q],
    keeper: Keeper[Q],
    days: int,
    happenings: Sequence[Happening] = (),
    members: int | None = None,
) -> Tended[Q]:
    """A tank, or as many as there are members, through so many days; those that are done stay as they ended."""
    tanks: Tanks[Q] = tanks_of(members)
    turns = Tending(keeper, happenings, tanks)
    record = run(state, around, turns, days * HOURS, tanks, NAMES if members is None else KEPT)
    hours, tally = record.hours, turns.put_away.whole
    ammonia, nitrite, lowest = (hours[name] for name in ("ammonia", "nitrite", "kh"))
    ammonia_day, nitrite_day = (level.argmax(axis=0) / HOURS for level in (ammonia, nitrite))
    found = (ammonia.max(axis=0), ammonia_day, nitrite.max(axis=0), nitrite_day, lowest.min(axis=0))
    tally.peaks(*(tanks.plain(one) for one in found))
    return Tended(hours, tally, record.end, tuple(turns.acts))
