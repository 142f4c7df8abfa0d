"""Every regime of water changes side by side, and the one of least work that holds."""

import math
from dataclasses import dataclass
from functools import cache
from itertools import combinations

from loquen.core.errors import Impossible
from loquen.core.model.quantity import Term, say
from loquen.core.sheet.changes import NO_CAP, WEEK, WEEKS_D, Regime, flowed, gaps_of, standing_d, teeth, trigger_gap
from loquen.core.sheet.nodes import Remedy, step

SHARES = tuple(n / 100 for n in range(5, 80, 5))
SMALL_CHART_DAYS = 28
NEAR_FRAC = 0.05
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
