"""Water changes: what nitrate settles at under a regime, and the least regime that holds."""

from dataclasses import dataclass
from functools import cache
from itertools import pairwise

from loquen.core.data import library
from loquen.core.errors import Impossible
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.physics import dilution
from loquen.core.sheet.judging import at_most
from loquen.core.sheet.nodes import Remedy, Verdict, check, figure, step

WEEK = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
SPREAD_DAYS = {
    1: ("Sat",),
    2: ("Tue", "Sat"),
    3: ("Mon", "Wed", "Sat"),
    4: ("Mon", "Wed", "Fri", "Sun"),
    7: WEEK,
}
SHARES = tuple(n / 100 for n in range(5, 80, 5))
CHART_DAYS = 56


@dataclass(frozen=True, slots=True)
class Regime:
    """One regime with what it settles at and what it asks for."""

    weekdays: tuple[str, ...]
    change_frac: float
    peak_nitrate_mg_l: float
    change_l_wk: float
    work_min: float


@step()
def gaps_d(regime: str, weekdays: tuple[str, ...], every_d: int) -> tuple[float, ...]:
    """Days before each change of one cycle."""
    return (float(every_d),) if regime == "every" else gaps_of(weekdays)


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


@cache
def standing_d(gaps: tuple[float, ...], frac: float) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Days of rise that stand in the water before and after each change of the settled cycle."""
    return dilution.settled_cycle(rise_per_d=1.0, source=0.0, gaps_d=gaps, fracs=(frac,) * len(gaps))


@figure(
    "Days of rise standing before a change",
    formula="settled cycle of {gaps_d} with {change_frac} each: gap ÷ share when even",
    source="balance",
)
def standing_peak_d(gaps_d: tuple[float, ...], change_frac: float) -> float:
    return max(standing_d(gaps_d, change_frac)[0])


@figure(
    "Days of rise standing after a change",
    formula="settled cycle of {gaps_d} with {change_frac} each: gap × (1 − share) ÷ share when even",
    source="balance",
)
def standing_trough_d(gaps_d: tuple[float, ...], change_frac: float) -> float:
    return min(standing_d(gaps_d, change_frac)[1])


@figure(
    "Nitrate just before a change",
    formula="{source_nitrate_mg_l} + {rise_nitrate_mg_l_d} × {standing_peak_d}",
    source="balance",
)
def peak_nitrate_mg_l(source_nitrate_mg_l: float, rise_nitrate_mg_l_d: float, standing_peak_d: float) -> float:
    return source_nitrate_mg_l + rise_nitrate_mg_l_d * standing_peak_d


@figure(
    "Nitrate just after a change",
    formula="{source_nitrate_mg_l} + {rise_nitrate_mg_l_d} × {standing_trough_d}",
    source="balance",
)
def trough_nitrate_mg_l(source_nitrate_mg_l: float, rise_nitrate_mg_l_d: float, standing_trough_d: float) -> float:
    return source_nitrate_mg_l + rise_nitrate_mg_l_d * standing_trough_d


@figure(
    "Change water a week",
    formula="{change_frac} × {real_volume_l} × 7 × changes ÷ days of {gaps_d}",
    source="balance",
)
def change_l_wk(change_frac: float, real_volume_l: float, gaps_d: tuple[float, ...]) -> float:
    return change_frac * real_volume_l * 7 * len(gaps_d) / sum(gaps_d)


@figure(
    "Work a week",
    formula="{change_l_wk} ÷ {hose_l_min} + {setup_min} × 7 × changes ÷ days of {gaps_d}",
    source="balance",
)
def work_min(change_l_wk: float, hose_l_min: float, setup_min: float, gaps_d: tuple[float, ...]) -> float:
    return change_l_wk / hose_l_min + setup_min * 7 * len(gaps_d) / sum(gaps_d)


@figure(
    "Waste the changes and plants take",
    formula="({target_nitrate_mg_l} − {source_nitrate_mg_l}) ÷ {standing_peak_d} × {real_volume_l} + {plants_mg_d}",
    source="balance",
)
def changes_allow_mg_d(
    target_nitrate_mg_l: float,
    source_nitrate_mg_l: float,
    standing_peak_d: float,
    real_volume_l: float,
    plants_mg_d: float,
) -> float:
    room = max(0.0, target_nitrate_mg_l - source_nitrate_mg_l)
    return room / standing_peak_d * real_volume_l + plants_mg_d


@step()
def regimes(
    rise_nitrate_mg_l_d: float,
    source_nitrate_mg_l: float,
    real_volume_l: float,
    hose_l_min: float,
    setup_min: float,
) -> tuple[Regime, ...]:
    """Every regime of the search's grid, least work first."""
    found = []
    for count, weekdays in SPREAD_DAYS.items():
        gaps = gaps_of(weekdays)
        for share in SHARES:
            peak = source_nitrate_mg_l + rise_nitrate_mg_l_d * max(standing_d(gaps, share)[0])
            litres = share * real_volume_l * count
            found.append(Regime(weekdays, share, peak, litres, litres / hose_l_min + setup_min * count))
    return tuple(sorted(found, key=lambda regime: regime.work_min))


@step()
def least_regime(regimes: tuple[Regime, ...], target_nitrate_mg_l: float, source_nitrate_mg_l: float) -> Regime:
    for regime in regimes:
        if regime.peak_nitrate_mg_l <= target_nitrate_mg_l:
            return regime
    raise Impossible("no_regime_holds", target=target_nitrate_mg_l, source=source_nitrate_mg_l)


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


@step()
def saw_tooth(
    gaps_d: tuple[float, ...], change_frac: float, rise_nitrate_mg_l_d: float, source_nitrate_mg_l: float
) -> tuple[tuple[float, float], ...]:
    """Eight settled weeks as (day, nitrate) corners: up to each change, then down."""
    _, troughs = standing_d(gaps_d, change_frac)
    day, level = 0.0, source_nitrate_mg_l + rise_nitrate_mg_l_d * troughs[-1]
    corners = [(day, level)]
    turn = 0
    while day < CHART_DAYS:
        gap = gaps_d[turn % len(gaps_d)]
        day, level = day + gap, level + rise_nitrate_mg_l_d * gap
        if day > CHART_DAYS:
            level -= rise_nitrate_mg_l_d * (day - CHART_DAYS)
            corners.append((float(CHART_DAYS), level))
            break
        corners.append((day, level))
        level = float(dilution.after_batch(level, source_nitrate_mg_l, change_frac))
        corners.append((day, level))
        turn += 1
    return tuple(corners)


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
    source_nitrate_mg_l: float,
    rise_nitrate_mg_l_d: float,
) -> Verdict:
    terms = {
        "peak": of(peak_nitrate_mg_l, "peak_nitrate_mg_l"),
        "limit": Term(target_nitrate_mg_l, "nitrate"),
        "source": Term(source_nitrate_mg_l, "nitrate"),
        "rise": of(rise_nitrate_mg_l_d, "rise_nitrate_mg_l_d"),
    }
    if source_nitrate_mg_l >= target_nitrate_mg_l:
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
