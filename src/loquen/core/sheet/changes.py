"""Water changes: what nitrate settles at under a regime, and the least regime that holds."""

import math
from dataclasses import dataclass
from functools import cache
from itertools import combinations, pairwise

from loquen.core.data import library
from loquen.core.errors import Impossible
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics import dilution
from loquen.core.sheet.judging import at_most
from loquen.core.sheet.nodes import Remedy, Verdict, check, figure, step

WEEK = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
SHARES = tuple(n / 100 for n in range(5, 80, 5))
CHART_DAYS = 56
SMALL_CHART_DAYS = 28
DRIPS_D = 24
LONGEST_GAP_D = 365.0
NEAR_FRAC = 0.05
WEEKS_D = 7.0


@dataclass(frozen=True, slots=True)
class Regime:
    """One regime with what it settles at and what it asks for."""

    weekdays: tuple[str, ...]
    change_frac: float
    peak_nitrate_mg_l: float
    change_l_wk: float
    work_min: float


@figure(
    "Days until nitrate reads your limit",
    formula="({target_nitrate_mg_l} − {new_nitrate_mg_l}) × {change_frac} ÷ {rise_nitrate_mg_l_d}, a year at most",
    source="balance",
)
def trigger_d(
    target_nitrate_mg_l: float, new_nitrate_mg_l: float, change_frac: float, rise_nitrate_mg_l_d: float
) -> float:
    return trigger_gap(target_nitrate_mg_l - new_nitrate_mg_l, change_frac, rise_nitrate_mg_l_d)


def trigger_gap(room: float, frac: float, rise: float) -> float:
    """Days from one change at the limit to the next; raise Impossible where the source leaves no room."""
    if room <= 0:
        raise Impossible("source_at_limit")
    return min(LONGEST_GAP_D, room * frac / rise) if rise > 0 else LONGEST_GAP_D


@step()
def gaps_d(
    regime: str,
    weekdays: tuple[str, ...],
    every_d: int,
    pulses_d: int,
    target_nitrate_mg_l: float,
    new_nitrate_mg_l: float,
    change_frac: float,
    rise_nitrate_mg_l_d: float,
) -> tuple[float, ...]:
    """Days before each change of one cycle."""
    if regime == "weekdays":
        return gaps_of(weekdays)
    if regime == "trigger":
        return (trigger_gap(target_nitrate_mg_l - new_nitrate_mg_l, change_frac, rise_nitrate_mg_l_d),)
    return ({"every": float(every_d), "pulses": 1 / pulses_d, "drip": 1 / DRIPS_D}[regime],)


@figure(
    "New water each time, of the system's",
    formula="{change_frac} each time; a drip brings {drip_l_d} ÷ 24 ÷ {real_volume_l} an hour ({regime})",
    source="definition",
)
def passed_frac(change_frac: float, drip_l_d: float, real_volume_l: float, regime: str) -> float:
    return drip_l_d / DRIPS_D / real_volume_l if regime == "drip" else change_frac


@figure(
    "Really exchanged each time",
    formula="{passed_frac} by draining and filling; 1 − e^(−{passed_frac} × (1 − {short_cut_frac})) flowing through ({regime})",
    source="balance",
)
def swapped_frac(passed_frac: float, short_cut_frac: float, regime: str) -> float:
    if regime in ("pulses", "drip"):
        return flowed(passed_frac, short_cut_frac)
    return passed_frac


def flowed(passed_frac: float, short_cut_frac: float) -> float:
    """The share that flow-through really exchanges."""
    return -math.expm1(-passed_frac * (1 - short_cut_frac))


def gaps_of(weekdays: tuple[str, ...]) -> tuple[float, ...]:
    if not weekdays:
        raise Impossible("no_changes")
    days = sorted({WEEK.index(day) for day in weekdays})
    return (float(days[0] + 7 - days[-1]), *(float(b - a) for a, b in pairwise(days)))


@figure(
    "Plants take",
    formula="{plants} × {display_m2} × {plant_cover_frac} × 1000",
    source="reineck",
)
def plants_mg_d(plants: str, display_m2: float, plant_cover_frac: float) -> float:
    return library.plant_covers()[plants].n_g_m2_d * display_m2 * plant_cover_frac * 1000


@figure("Nitrate made a day", formula="{load_full_mg_d} ÷ {real_volume_l}", source="balance")
def made_nitrate_mg_l_d(load_full_mg_d: float, real_volume_l: float) -> float:
    return load_full_mg_d / real_volume_l


@figure(
    "Nitrate rises a day",
    formula="({load_full_mg_d} − {plants_mg_d}) ÷ {real_volume_l}, not below 0",
    source="balance",
)
def rise_nitrate_mg_l_d(load_full_mg_d: float, plants_mg_d: float, real_volume_l: float) -> float:
    return max(0.0, load_full_mg_d - plants_mg_d) / real_volume_l


def risen_d(level: float, days: float, drip_per_d: float) -> float:
    """Days of rise that stand after some days more, while a drip exchanges a share a day."""
    if drip_per_d == 0:
        return level + days
    steady = 1 / drip_per_d
    return steady + (level - steady) * math.exp(-drip_per_d * days)


@cache
def standing_d(
    gaps: tuple[float, ...], frac: float, drip_per_d: float = 0.0
) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Days of rise that stand in the water before and after each change of the settled cycle."""
    if drip_per_d == 0:
        return dilution.settled_cycle(rise_per_d=1.0, source=0.0, gaps_d=gaps, fracs=(frac,) * len(gaps))

    def cycle(level: float) -> tuple[list[float], list[float]]:
        peaks, troughs = [], []
        for gap in gaps:
            peaks.append(risen_d(level, gap, drip_per_d))
            level = peaks[-1] * (1 - frac)
            troughs.append(level)
        return peaks, troughs

    # One cycle is a straight line of the level it starts from, so two tries find where it returns to itself.
    none, one = cycle(0.0)[1][-1], cycle(1.0)[1][-1]
    peaks, troughs = cycle(none / (1 - (one - none)))
    return tuple(peaks), tuple(troughs)


@figure(
    "Exchanged by the drip beside it",
    formula="{side_drip_l_d} ÷ {real_volume_l}",
    source="definition",
    kind="share",
)
def drip_per_d(side_drip_l_d: float, real_volume_l: float) -> float:
    return side_drip_l_d / real_volume_l


@figure(
    "Days of rise standing before a change",
    formula="settled cycle of {gaps_d} with {swapped_frac} each, a drip of {drip_per_d} beside it: gap ÷ share when even",
    source="balance",
)
def standing_peak_d(gaps_d: tuple[float, ...], swapped_frac: float, drip_per_d: float) -> float:
    return max(standing_d(gaps_d, swapped_frac, drip_per_d)[0])


@figure(
    "Days of rise standing after a change",
    formula="settled cycle of {gaps_d} with {swapped_frac} each, a drip of {drip_per_d} beside it: gap × (1 − share) ÷ share when even",
    source="balance",
)
def standing_trough_d(gaps_d: tuple[float, ...], swapped_frac: float, drip_per_d: float) -> float:
    return min(standing_d(gaps_d, swapped_frac, drip_per_d)[1])


@figure(
    "Nitrate just before a change",
    formula="{new_nitrate_mg_l} + {rise_nitrate_mg_l_d} × {standing_peak_d}",
    source="balance",
)
def peak_nitrate_mg_l(new_nitrate_mg_l: float, rise_nitrate_mg_l_d: float, standing_peak_d: float) -> float:
    return new_nitrate_mg_l + rise_nitrate_mg_l_d * standing_peak_d


@figure(
    "Nitrate just after a change",
    formula="{new_nitrate_mg_l} + {rise_nitrate_mg_l_d} × {standing_trough_d}",
    source="balance",
)
def trough_nitrate_mg_l(new_nitrate_mg_l: float, rise_nitrate_mg_l_d: float, standing_trough_d: float) -> float:
    return new_nitrate_mg_l + rise_nitrate_mg_l_d * standing_trough_d


@figure(
    "Change water a week",
    formula="{passed_frac} × {real_volume_l} × 7 × changes ÷ days of {gaps_d} + {side_drip_l_d} × 7",
    source="balance",
)
def change_l_wk(passed_frac: float, real_volume_l: float, gaps_d: tuple[float, ...], side_drip_l_d: float) -> float:
    return passed_frac * real_volume_l * 7 * len(gaps_d) / sum(gaps_d) + side_drip_l_d * 7


@figure(
    "Work a week",
    formula="({change_l_wk} − {side_drip_l_d} × 7) ÷ {hose_l_min} + {setup_min} × 7 × changes ÷ days of {gaps_d}; by itself, one look a week ({regime})",
    source="balance",
)
def work_min(
    change_l_wk: float,
    hose_l_min: float,
    setup_min: float,
    gaps_d: tuple[float, ...],
    regime: str,
    side_drip_l_d: float,
) -> float:
    if regime in ("pulses", "drip"):
        return setup_min
    return (change_l_wk - side_drip_l_d * 7) / hose_l_min + setup_min * 7 * len(gaps_d) / sum(gaps_d)


@figure(
    "Waste the changes and plants take",
    formula="({target_nitrate_mg_l} − {new_nitrate_mg_l}) ÷ {standing_peak_d} × {real_volume_l} + {plants_mg_d}",
    source="balance",
)
def changes_allow_mg_d(
    target_nitrate_mg_l: float,
    new_nitrate_mg_l: float,
    standing_peak_d: float,
    real_volume_l: float,
    plants_mg_d: float,
) -> float:
    room = max(0.0, target_nitrate_mg_l - new_nitrate_mg_l)
    return room / standing_peak_d * real_volume_l + plants_mg_d


@cache
def best_sets(there: tuple[str, ...]) -> dict[tuple[int, float], tuple[tuple[str, ...], float]]:
    """For every number of days and share, the set of days that lets least stand, and how many days' rise that is."""
    days = [day for day in WEEK if day in there]
    best: dict[tuple[int, float], tuple[tuple[str, ...], float]] = {}
    for count in range(1, len(days) + 1):
        for chosen in combinations(days, count):
            gaps = gaps_of(chosen)
            for share in SHARES:
                standing = max(standing_d(gaps, share)[0])
                if (count, share) not in best or standing < best[count, share][1] - 1e-12:
                    best[count, share] = (chosen, standing)
    return best


@step()
def regimes(
    rise_nitrate_mg_l_d: float,
    new_nitrate_mg_l: float,
    real_volume_l: float,
    hose_l_min: float,
    setup_min: float,
    there: tuple[str, ...],
    shock_cap_frac: float,
) -> tuple[Regime, ...]:
    """Every regime of the search's grid on the days the keeper is there, without a shock, least work first."""
    found = []
    for (count, share), (weekdays, standing) in best_sets(there).items():
        if share > shock_cap_frac:
            continue
        peak = new_nitrate_mg_l + rise_nitrate_mg_l_d * standing
        litres = share * real_volume_l * count
        found.append(Regime(weekdays, share, peak, litres, litres / hose_l_min + setup_min * count))
    return tuple(sorted(found, key=lambda regime: regime.work_min))


@step()
def least_regime(regimes: tuple[Regime, ...], target_nitrate_mg_l: float, new_nitrate_mg_l: float) -> Regime:
    for regime in regimes:
        if regime.peak_nitrate_mg_l <= target_nitrate_mg_l:
            return regime
    raise Impossible("no_regime_holds", target=target_nitrate_mg_l, source=new_nitrate_mg_l)


@step()
def least_regime_remedy(least_regime: Regime) -> Remedy:
    sentence = say(
        "{share} on {days}: the least work that holds",
        share=Term(least_regime.change_frac, "share"),
        days=", ".join(least_regime.weekdays),
    )
    changes = {
        "changes.regime": "weekdays",
        "changes.weekdays": least_regime.weekdays,
        "changes.change_frac": least_regime.change_frac,
    }
    return Remedy(sentence, changes)


BUILT_IN: tuple[tuple[str, tuple[str, ...], float], ...] = (
    ("Half each Saturday", ("Sat",), 0.5),
    ("Half, Tue and Sat", ("Tue", "Sat"), 0.5),
    ("A quarter, Mon, Wed and Sat", ("Mon", "Wed", "Sat"), 0.25),
    ("A tenth every day", WEEK, 0.1),
    ("Nine tenths every day", WEEK, 0.9),
    ("A twentieth each week", ("Sat",), 0.05),
)
PULSED = (("Pulses, 8 % a day", 0.08), ("Pulses, 16 % a day", 0.16))
TRIGGERED = 1 / 3


@dataclass(frozen=True, slots=True)
class RegimeRow:
    """One regime beside the others: what it settles at, and what it asks for."""

    label: str
    now: bool
    weekdays: tuple[str, ...]
    regime: str
    change_frac: float
    gap_d: float
    peak: float
    mean: float
    trough: float
    change_l_wk: float
    work_min: float
    heat_kwh_wk: float
    shock_frac: float | None
    age_d: float
    settles_d: float | None
    saw: tuple[tuple[float, float], ...]


@step()
def regime_rows(
    regime: str,
    weekdays: tuple[str, ...],
    change_frac: float,
    gaps_d: tuple[float, ...],
    passed_frac: float,
    swapped_frac: float,
    short_cut_frac: float,
    side_drip_l_d: float,
    rise_nitrate_mg_l_d: float,
    new_nitrate_mg_l: float,
    target_nitrate_mg_l: float,
    read_nitrate_mg_l: float | None,
    real_volume_l: float,
    hose_l_min: float,
    setup_min: float,
    water_c: float,
    mix_c: float,
    water_heat_j_l_k: float,
    shock_cap_frac: float,
) -> tuple[RegimeRow, ...]:
    """The keeper's own regime first, then those built in, settled and side by side."""
    kinds: list[tuple[str, tuple[str, ...], str, float, tuple[float, ...], float, float]] = [
        ("As planned", weekdays, regime, change_frac, gaps_d, passed_frac, swapped_frac)
    ]
    for label, days, share in BUILT_IN:
        kinds.append((label, days, "weekdays", share, gaps_of(days), share, share))
    room = target_nitrate_mg_l - new_nitrate_mg_l
    if room > 0:
        gap = trigger_gap(room, TRIGGERED, rise_nitrate_mg_l_d)
        kinds.append(("A third when it reads your limit", (), "trigger", TRIGGERED, (gap,), TRIGGERED, TRIGGERED))
    for label, passed in PULSED:
        kinds.append((label, (), "pulses", passed, (1.0,), passed, flowed(passed, short_cut_frac)))
    rows = []
    for n, (label, days, kind, share, gaps, passed, swapped) in enumerate(kinds):
        # The drip beside it belongs to the keeper's own regime alone.
        drip = side_drip_l_d / real_volume_l if n == 0 else 0.0
        peaks, troughs = standing_d(gaps, swapped, drip)
        cycle = sum(gaps)
        litres = passed * real_volume_l * WEEKS_D * len(gaps) / cycle
        by_hand = litres / hose_l_min + setup_min * WEEKS_D * len(gaps) / cycle
        litres += drip * real_volume_l * WEEKS_D
        before = [*troughs[-1:], *troughs[:-1]]
        spans = zip(before, peaks, gaps, strict=True)
        mean = sum((low + high) / 2 * gap for low, high, gap in spans) / cycle
        peak = new_nitrate_mg_l + rise_nitrate_mg_l_d * max(peaks)
        rate = -math.log1p(-min(swapped, 0.999)) * len(gaps) / cycle
        apart = abs(read_nitrate_mg_l - peak) if read_nitrate_mg_l is not None else None
        rows.append(
            RegimeRow(
                label=label,
                now=n == 0,
                weekdays=days,
                regime=kind,
                change_frac=share,
                gap_d=cycle / len(gaps),
                peak=peak,
                mean=new_nitrate_mg_l + rise_nitrate_mg_l_d * mean,
                trough=new_nitrate_mg_l + rise_nitrate_mg_l_d * min(troughs),
                change_l_wk=litres,
                work_min=setup_min if kind in ("pulses", "drip") else by_hand,
                heat_kwh_wk=max(0.0, litres * water_heat_j_l_k * (water_c - mix_c)) / 3.6e6,
                shock_frac=swapped / shock_cap_frac if shock_cap_frac < NO_CAP else None,
                age_d=real_volume_l / (litres / WEEKS_D),
                settles_d=None
                if apart is None
                else max(0.0, math.log(max(apart / (NEAR_FRAC * peak), 1.0)) / rate),
                saw=teeth(gaps, swapped, drip, rise_nitrate_mg_l_d, new_nitrate_mg_l, SMALL_CHART_DAYS),
            )
        )
    return tuple(rows)


NO_CAP = 1000.0
"""The share of a change that is no shock when nothing differs, or nobody lives here."""


@figure(
    "Nitrate after one missed change",
    formula="{new_nitrate_mg_l} + {rise_nitrate_mg_l_d} × ({standing_peak_d} + longest of {gaps_d})",
    source="balance",
)
def missed_nitrate_mg_l(
    new_nitrate_mg_l: float, rise_nitrate_mg_l_d: float, standing_peak_d: float, gaps_d: tuple[float, ...]
) -> float:
    return new_nitrate_mg_l + rise_nitrate_mg_l_d * (standing_peak_d + max(gaps_d))


@figure(
    "Nitrate after the holiday",
    formula="{new_nitrate_mg_l} + {rise_nitrate_mg_l_d} × ({standing_trough_d} + {away_d})",
    source="balance",
)
def away_nitrate_mg_l(
    new_nitrate_mg_l: float, rise_nitrate_mg_l_d: float, standing_trough_d: float, away_d: float
) -> float:
    return new_nitrate_mg_l + rise_nitrate_mg_l_d * (standing_trough_d + away_d)


@step()
def saw_tooth(
    gaps_d: tuple[float, ...],
    swapped_frac: float,
    drip_per_d: float,
    rise_nitrate_mg_l_d: float,
    new_nitrate_mg_l: float,
) -> tuple[tuple[float, float], ...]:
    """Eight settled weeks as (day, nitrate) corners."""
    return teeth(gaps_d, swapped_frac, drip_per_d, rise_nitrate_mg_l_d, new_nitrate_mg_l, CHART_DAYS)


def teeth(
    gaps: tuple[float, ...], frac: float, drip_per_d: float, rise: float, source: float, days: int
) -> tuple[tuple[float, float], ...]:
    """Settled nitrate over some days as (day, level) corners: up to each change, then down."""
    peaks, troughs = standing_d(gaps, frac, drip_per_d)
    if len(gaps) == 1 and gaps[0] < 1:
        # Faster than daily: a day's mean is drawn, not every drop.
        level = source + rise * (troughs[0] + peaks[0]) / 2
        return ((0.0, level), (float(days), level))
    day, standing = 0.0, troughs[-1]
    corners = [(day, standing)]
    turn = 0
    while day < days:
        gap = min(gaps[turn % len(gaps)], days - day)
        day, standing = day + gap, risen_d(standing, gap, drip_per_d)
        corners.append((day, standing))
        if gap < gaps[turn % len(gaps)]:
            break
        standing *= 1 - frac
        corners.append((day, standing))
        turn += 1
    return tuple((day, source + rise * standing) for day, standing in corners)


@check(
    "Nitrate stays under your limit",
    stage="changes",
    glass="nitrate",
    judges="peak_nitrate_mg_l",
    mends=("changes.change_frac", "animals.*.number", "water.source_nitrate_mg_l"),
    caution="A large change of unmatched water can shock animals: match temperature and hardness, and treat it first.",
)
def nitrate_held(
    peak_nitrate_mg_l: float,
    target_nitrate_mg_l: float,
    new_nitrate_mg_l: float,
    rise_nitrate_mg_l_d: float,
) -> Verdict:
    terms = {
        "peak": of(peak_nitrate_mg_l, "peak_nitrate_mg_l"),
        "limit": Term(target_nitrate_mg_l, "nitrate"),
        "source": Term(new_nitrate_mg_l, "nitrate"),
        "rise": of(rise_nitrate_mg_l_d, "rise_nitrate_mg_l_d"),
    }
    if new_nitrate_mg_l >= target_nitrate_mg_l:
        reason = say(
            "The change water itself brings {source}: no change takes nitrate below that. "
            "Better water, a higher limit or plants are the ways out.",
            **terms,
        )
    else:
        reason = say("It rises {rise} and stands at {peak} before a change; you set {limit}.", **terms)
    return at_most(peak_nitrate_mg_l, target_nitrate_mg_l, "nitrate", reason)


@step()
def changes_result(
    peak_nitrate_mg_l: float, trough_nitrate_mg_l: float, change_l_wk: float, work_min: float
) -> Sentence:
    return say(
        "Nitrate settles between {trough} just after and {peak} just before a change, for {litres} and {work} of work.",
        trough=of(trough_nitrate_mg_l, "trough_nitrate_mg_l"),
        peak=of(peak_nitrate_mg_l, "peak_nitrate_mg_l"),
        litres=of(change_l_wk, "change_l_wk"),
        work=of(work_min, "work_min"),
    )
