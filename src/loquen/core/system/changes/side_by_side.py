"""Every regime of water changes side by side, and the one of least work that holds."""

from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import ROUNDING
from loquen.core.graph.nodes import Remedy, step
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.system.changes.course import Pull, settled_course
from loquen.core.system.changes.regime import (
    NEAR_FRAC,
    NO_CAP,
    WEEK,
    WEEKS_D,
    Corner,
    Regime,
    exchanged_per_d,
    flowed,
    gaps_of,
    nearing_d,
    standing_d,
    teeth,
    trigger_gap,
)
from loquen.core.system.changes.shock import ShockCaps

SHARES = tuple(n / 100 for n in range(5, 80, 5))
SMALL_CHART_DAYS = 28
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


@lru_cache(128)
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
    shock_caps: ShockCaps,
    kh_pull: Pull,
    new_kh_dkh: float,
    borne_dkh: float | None,
) -> tuple[Regime, ...]:
    """Every regime of the search's grid on the days the keeper is there, least work first, each with what it shocks by."""
    found = []
    for (count, share), (weekdays, standing) in best_sets(there).items():
        peak = new_nitrate_mg_l + rise_nitrate_mg_l_d * standing
        litres = share * real_volume_l * count
        gap_dkh = kh_gap(weekdays, share, standing, kh_pull, new_kh_dkh)
        shocks = shock_caps.shocks(share) or ("kh" if shocks_kh(share, gap_dkh, borne_dkh) else "")
        found.append(Regime(weekdays, share, peak, litres, litres / hose_l_min + setup_min * count, shocks))
    return tuple(sorted(found, key=lambda regime: regime.work_min))


def kh_gap(weekdays: tuple[str, ...], share: float, standing: float, pull: Pull, new_dkh: float) -> float:
    """How far carbonate hardness stands from the new water's just before a change."""
    if pull.rate == 0:
        return min(new_dkh, pull.used_dkh_d * standing)
    return abs(new_dkh - min(settled_course(new_dkh, gaps_of(weekdays), share, pull).before_dkh))


def shocks_kh(share: float, gap_dkh: float, borne_dkh: float | None) -> bool:
    """Whether a change of a share moves carbonate hardness by more than they bear."""
    return borne_dkh is not None and share * gap_dkh > borne_dkh


@step()
def least_regime(regimes: tuple[Regime, ...], target_nitrate_mg_l: float, new_nitrate_mg_l: float) -> Regime:
    holding = [regime for regime in regimes if regime.peak_nitrate_mg_l <= target_nitrate_mg_l]
    for regime in holding:
        if not regime.shocks:
            return regime
    shocks = holding[0].shocks if holding else ""
    if shocks == "warm":
        raise NamedCase("no_regime_warm")
    if shocks == "solids":
        raise NamedCase("no_regime_solids")
    if shocks == "kh":
        raise NamedCase("no_regime_kh")
    raise NamedCase("no_regime_holds", target=target_nitrate_mg_l, source=new_nitrate_mg_l)


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
    saw: tuple[Corner, ...]
    holds: bool


@dataclass(frozen=True, slots=True)
class Beside:
    """A regime to settle beside the others: what it passes and exchanges each time, after which gaps, and its drip."""

    label: str
    weekdays: tuple[str, ...]
    regime: str
    change_frac: float
    gaps_d: tuple[float, ...]
    passed_frac: float
    swapped_frac: float
    drip_per_d: float = 0.0

    @property
    def times_a_week(self) -> float:
        return WEEKS_D * len(self.gaps_d) / sum(self.gaps_d)

    def standing(self) -> tuple[float, float, float]:
        """Days of rise that stand at the peak, on the mean and at the trough, settled."""
        peaks, troughs = standing_d(self.gaps_d, self.swapped_frac, self.drip_per_d)
        spans = zip([*troughs[-1:], *troughs[:-1]], peaks, self.gaps_d, strict=True)
        mean = sum((low + high) / 2 * gap for low, high, gap in spans) / sum(self.gaps_d)
        return max(peaks), mean, min(troughs)


@step()
def regimes_beside(
    regime: str,
    weekdays: tuple[str, ...],
    change_frac: float,
    gaps_d: tuple[float, ...],
    passed_frac: float,
    swapped_frac: float,
    drip_per_d: float,
    short_cut_frac: float,
    rise_nitrate_mg_l_d: float,
    new_nitrate_mg_l: float,
    target_nitrate_mg_l: float,
    shortest_gap_d: float,
) -> tuple[Beside, ...]:
    """The keeper's own regime first, with the drip beside it, then those built in."""
    own = Beside("As planned", weekdays, regime, change_frac, gaps_d, passed_frac, swapped_frac, drip_per_d)
    built_in = [
        Beside(label, days, "weekdays", share, gaps_of(days), share, share) for label, days, share in BUILT_IN
    ]
    room, triggered = target_nitrate_mg_l - new_nitrate_mg_l, []
    if room > 0:
        gap = max(shortest_gap_d, trigger_gap(room, TRIGGERED, rise_nitrate_mg_l_d))
        label = "A third when it reads your limit"
        triggered = [Beside(label, (), "trigger", TRIGGERED, (gap,), TRIGGERED, TRIGGERED)]
    pulsed = [
        Beside(label, (), "pulses", share, (1.0,), share, flowed(share, short_cut_frac)) for label, share in PULSED
    ]
    return (own, *built_in, *triggered, *pulsed)


@step()
def regime_rows(
    regimes_beside: tuple[Beside, ...],
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
    shock_caps: ShockCaps,
    nitrate_told_mg_l: float,
) -> tuple[RegimeRow, ...]:
    """Every regime settled, side by side, with what it asks for."""
    rows = []
    for n, one in enumerate(regimes_beside):
        peak, mean, trough = (new_nitrate_mg_l + rise_nitrate_mg_l_d * days for days in one.standing())
        poured = one.passed_frac * real_volume_l * one.times_a_week
        litres = poured + one.drip_per_d * real_volume_l * WEEKS_D
        by_itself = one.regime in ("pulses", "drip")
        rows.append(
            RegimeRow(
                label=one.label,
                now=n == 0,
                weekdays=one.weekdays,
                regime=one.regime,
                change_frac=one.change_frac,
                gap_d=WEEKS_D / one.times_a_week,
                peak=peak,
                mean=mean,
                trough=trough,
                change_l_wk=litres,
                work_min=setup_min if by_itself else poured / hose_l_min + setup_min * one.times_a_week,
                heat_kwh_wk=max(0.0, litres * water_heat_j_l_k * (water_c - mix_c)) / 3.6e6,
                shock_frac=one.swapped_frac / shock_caps.frac if shock_caps.frac < NO_CAP else None,
                age_d=real_volume_l / (litres / WEEKS_D),
                settles_d=None
                if read_nitrate_mg_l is None
                else nearing_d(
                    abs(read_nitrate_mg_l - peak),
                    max(NEAR_FRAC * peak, nitrate_told_mg_l),
                    exchanged_per_d(one.gaps_d, one.swapped_frac, one.drip_per_d),
                ),
                saw=teeth(
                    one.gaps_d,
                    one.swapped_frac,
                    one.drip_per_d,
                    rise_nitrate_mg_l_d,
                    new_nitrate_mg_l,
                    SMALL_CHART_DAYS,
                ),
                holds=peak <= target_nitrate_mg_l * (1 + ROUNDING),
            )
        )
    return tuple(rows)
