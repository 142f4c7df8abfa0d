"""The keeper's regime of water changes: what it exchanges, what nitrate it settles at, and what work it is."""

import math
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say

NO_CAP = 1000.0
"""The share of a change that is no shock when nothing differs, or nobody lives here."""
WEEK = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
CHART_DAYS = 56
SOON_D = 90.0
NEAR_FRAC = 0.05
MOST_SWAPPED = 0.999
DRIPS_D = 24
LEAST_TURNED = 1e-9
"""Below this share exchanged, all of a rise still stands."""
LONGEST_GAP_D = 365.0
WEEKS_D = 7.0


@dataclass(frozen=True, slots=True)
class Corner:
    """A corner of the saw-tooth: nitrate (mg/L N) on a day."""

    day: float
    nitrate: float


@dataclass(frozen=True, slots=True)
class Regime:
    """One regime with what it settles at and what it asks for."""

    weekdays: tuple[str, ...]
    change_frac: float
    peak_nitrate_mg_l: float
    change_l_wk: float
    work_min: float
    shocks: str = ""


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
    """Days from one change at the limit to the next; raise NamedCase where the source leaves no room."""
    if room <= 0:
        raise NamedCase("source_at_limit")
    gap = min(LONGEST_GAP_D, room * frac / rise) if rise > 0 else LONGEST_GAP_D
    if gap <= 0:
        raise NamedCase("source_at_limit")
    return gap


@step()
def gaps_d(
    regime: str,
    weekdays: tuple[str, ...],
    every_d: int,
    pulses_d: int,
    pulse_days: tuple[str, ...],
    target_nitrate_mg_l: float,
    new_nitrate_mg_l: float,
    change_frac: float,
    rise_nitrate_mg_l_d: float,
    shortest_gap_d: float,
) -> tuple[float, ...]:
    """Days before each change of one cycle; by a reading never sooner than the keeper accepts."""
    if regime == "weekdays":
        return gaps_of(weekdays)
    if regime == "trigger":
        wanted = trigger_gap(target_nitrate_mg_l - new_nitrate_mg_l, change_frac, rise_nitrate_mg_l_d)
        return (max(wanted, shortest_gap_d),)
    if regime == "pulses":
        return pulsed_gaps(pulse_days, pulses_d)
    return ({"every": float(every_d), "drip": 1 / DRIPS_D}[regime],)


def pulsed_gaps(days: tuple[str, ...], a_day: int) -> tuple[float, ...]:
    """Days before each pulse of a week, those of one day spread over it."""
    if len(days) == len(WEEK):
        return (1 / a_day,)
    within = 1 / a_day
    return tuple(
        gap for between in gaps_of(days) for gap in (between - (a_day - 1) * within, *[within] * (a_day - 1))
    )


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
        raise NamedCase("no_changes")
    days = sorted({WEEK.index(day) for day in weekdays})
    return (float(days[0] + 7 - days[-1]), *(float(b - a) for a, b in pairwise(days)))


@figure("Nitrate made a day", formula="{load_full_mg_d} ÷ {real_volume_l}", source="balance")
def made_nitrate_mg_l_d(load_full_mg_d: float, real_volume_l: float) -> float:
    return load_full_mg_d / real_volume_l


@figure(
    "Nitrate rises a day",
    formula="({load_full_mg_d} − {plants_mg_d}) ÷ {real_volume_l}, not below 0; where the log is used "
    "{logged_rise_nitrate_mg_l_d}, and of what is made more than by today’s {load_now_mg_d} as large a part as it shows of that",
    source="balance",
)
def rise_nitrate_mg_l_d(
    load_full_mg_d: float,
    load_now_mg_d: float,
    plants_mg_d: float,
    real_volume_l: float,
    logged_rise_nitrate_mg_l_d: float | None,
) -> float:
    if logged_rise_nitrate_mg_l_d is not None:
        # What was logged was logged of animals as they are today; what plants take of it they do not take twice.
        shown = logged_rise_nitrate_mg_l_d * real_volume_l + min(plants_mg_d, load_now_mg_d)
        part = min(1.0, shown / load_now_mg_d) if load_now_mg_d > 0 else 1.0
        return logged_rise_nitrate_mg_l_d + part * (load_full_mg_d - load_now_mg_d) / real_volume_l
    return max(0.0, load_full_mg_d - plants_mg_d) / real_volume_l


def risen_d(level: float, days: float, drip_per_d: float) -> float:
    """Days of rise that stand after some days more, while a drip exchanges a share a day."""
    turned = drip_per_d * days
    kept_of_rise = -math.expm1(-turned) / turned if turned > LEAST_TURNED else 1.0
    return level * math.exp(-turned) + days * kept_of_rise


@lru_cache(2048)
def standing_d(
    gaps: tuple[float, ...], frac: float, drip_per_d: float = 0.0
) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Days of rise that stand in the water before and after each change of the settled cycle, however small they are."""

    def cycle(level: float) -> tuple[list[float], list[float]]:
        peaks, troughs = [], []
        for gap in gaps:
            peaks.append(risen_d(level, gap, drip_per_d))
            level = peaks[-1] * (1 - frac)
            troughs.append(level)
        return peaks, troughs

    # Of what a cycle starts with this share is gone at its end: it returns to itself where as much is made.
    gone = -math.expm1(len(gaps) * math.log1p(-frac) - drip_per_d * sum(gaps)) if frac < 1 else 1.0
    peaks, troughs = cycle(cycle(0.0)[1][-1] / gone)
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
    "Days of rise standing with all the changes that are accepted",
    formula="{standing_peak_d}; by a reading, what stands with a change of {swapped_frac} every {shortest_gap_d} "
    "and {drip_per_d} of drip ({regime})",
    source="balance",
)
def accepted_standing_d(
    standing_peak_d: float, regime: str, swapped_frac: float, shortest_gap_d: float, drip_per_d: float
) -> float:
    if regime != "trigger":
        return standing_peak_d
    return max(standing_d((shortest_gap_d,), swapped_frac, drip_per_d)[0])


@figure(
    "Nitrogen that plants and bed take",
    formula="the larger of {plants_mg_d} and {load_full_mg_d} − {rise_nitrate_mg_l_d} × {real_volume_l}",
    source="balance",
    kind="nitrogen_load",
)
def taken_up_mg_d(
    plants_mg_d: float, load_full_mg_d: float, rise_nitrate_mg_l_d: float, real_volume_l: float
) -> float:
    return max(plants_mg_d, load_full_mg_d - rise_nitrate_mg_l_d * real_volume_l)


@figure(
    "Waste the changes and plants take",
    formula="({target_nitrate_mg_l} − {new_nitrate_mg_l}) ÷ {accepted_standing_d} × {real_volume_l} + {taken_up_mg_d}",
    source="balance",
)
def changes_allow_mg_d(
    target_nitrate_mg_l: float,
    new_nitrate_mg_l: float,
    accepted_standing_d: float,
    real_volume_l: float,
    taken_up_mg_d: float,
) -> float:
    room = max(0.0, target_nitrate_mg_l - new_nitrate_mg_l)
    return room / accepted_standing_d * real_volume_l + taken_up_mg_d


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
    formula="{read_nitrate_mg_l} as read today, else {new_nitrate_mg_l} + {rise_nitrate_mg_l_d} × {standing_trough_d}; "
    "+ {rise_nitrate_mg_l_d} × {away_d}",
    source="balance",
)
def away_nitrate_mg_l(
    read_nitrate_mg_l: float | None,
    new_nitrate_mg_l: float,
    rise_nitrate_mg_l_d: float,
    standing_trough_d: float,
    away_d: float,
) -> float:
    settled = new_nitrate_mg_l + rise_nitrate_mg_l_d * standing_trough_d
    return (settled if read_nitrate_mg_l is None else read_nitrate_mg_l) + rise_nitrate_mg_l_d * away_d


@figure(
    "Days until nitrate has settled",
    formula="ln(|{peak_nitrate_mg_l} − start| ÷ a twentieth of it, {nitrate_told_mg_l} at least) ÷ what {gaps_d} of {swapped_frac} and {drip_per_d} exchange a day; "
    "start {read_nitrate_mg_l} as read, else {new_nitrate_mg_l}",
    source="balance",
)
def settles_in_d(
    peak_nitrate_mg_l: float,
    gaps_d: tuple[float, ...],
    swapped_frac: float,
    drip_per_d: float,
    read_nitrate_mg_l: float | None,
    new_nitrate_mg_l: float,
    nitrate_told_mg_l: float,
) -> float:
    start = new_nitrate_mg_l if read_nitrate_mg_l is None else read_nitrate_mg_l
    near = max(NEAR_FRAC * peak_nitrate_mg_l, nitrate_told_mg_l)
    return nearing_d(abs(peak_nitrate_mg_l - start), near, exchanged_per_d(gaps_d, swapped_frac, drip_per_d))


def exchanged_per_d(gaps_d: tuple[float, ...], frac: float, drip_per_d: float) -> float:
    """The rate at which what stood at first is forgotten, a day."""
    return -math.log1p(-min(frac, MOST_SWAPPED)) * len(gaps_d) / sum(gaps_d) + drip_per_d


def nearing_d(apart: float, near: float, rate_per_d: float) -> float:
    """Days in which a difference shrinks until it is near."""
    return max(0.0, math.log(max(apart / near, 1.0)) / rate_per_d)


@figure(
    "Nitrate in 90 days, before a change",
    formula="{peak_nitrate_mg_l} − ({peak_nitrate_mg_l} − start) × e^(−90 × exchanged a day), {gaps_d} of {swapped_frac} and "
    "{drip_per_d}; start {read_nitrate_mg_l} as read, else {new_nitrate_mg_l}",
    source="balance",
)
def soon_nitrate_mg_l(
    peak_nitrate_mg_l: float,
    gaps_d: tuple[float, ...],
    swapped_frac: float,
    drip_per_d: float,
    read_nitrate_mg_l: float | None,
    new_nitrate_mg_l: float,
) -> float:
    start = new_nitrate_mg_l if read_nitrate_mg_l is None else read_nitrate_mg_l
    left = math.exp(-SOON_D * exchanged_per_d(gaps_d, swapped_frac, drip_per_d))
    return peak_nitrate_mg_l - (peak_nitrate_mg_l - start) * left


@step()
def saw_tooth(
    gaps_d: tuple[float, ...],
    swapped_frac: float,
    drip_per_d: float,
    rise_nitrate_mg_l_d: float,
    new_nitrate_mg_l: float,
) -> tuple[Corner, ...]:
    """Eight settled weeks as (day, nitrate) corners."""
    return teeth(gaps_d, swapped_frac, drip_per_d, rise_nitrate_mg_l_d, new_nitrate_mg_l, CHART_DAYS)


def teeth(
    gaps: tuple[float, ...], frac: float, drip_per_d: float, rise: float, source: float, days: int
) -> tuple[Corner, ...]:
    """Settled nitrate over some days, corner by corner: up to each change, then down."""
    peaks, troughs = standing_d(gaps, frac, drip_per_d)
    if len(gaps) == 1 and gaps[0] < 1:
        # Faster than daily: a day's mean is drawn, not every drop.
        level = source + rise * (troughs[0] + peaks[0]) / 2
        return (Corner(0.0, level), Corner(float(days), level))
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
    return tuple(Corner(day, source + rise * standing) for day, standing in corners)


@check(
    "Nitrate stays under your limit",
    stage="changes",
    glass="nitrate",
    judges="peak_nitrate_mg_l",
    mends=("changes.change_frac", "animals.*.number"),
    caution="A large change of unmatched water can shock animals: match temperature and hardness, and treat it first.",
)
def nitrate_held(
    peak_nitrate_mg_l: float,
    target_nitrate_mg_l: float,
    new_nitrate_mg_l: float,
    rise_nitrate_mg_l_d: float,
    regime: str,
    trigger_d: float | None,
    shortest_gap_d: float,
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
    by_level = at_most(peak_nitrate_mg_l, target_nitrate_mg_l, "nitrate", reason)
    if regime != "trigger" or trigger_d is None:
        return by_level
    # Changed at the limit, it always stands there: what counts is how soon the next change is due.
    reason = say(
        "It reads your limit every {gap}; you change no sooner than every {least}, and then {peak} stand before a change.",
        gap=Term(trigger_d, "days", "trigger_d"),
        least=Term(shortest_gap_d, "days"),
        **terms,
    )
    by_days = at_least(trigger_d, shortest_gap_d, "days", reason)
    return Verdict(by_days.state, by_days.margin, by_days.headline, reason, by_level.gauge)


@step()
def changes_result(
    peak_nitrate_mg_l: float,
    trough_nitrate_mg_l: float,
    change_l_wk: float,
    work_min: float,
    settles_in_d: float,
    soon_nitrate_mg_l: float,
) -> Sentence:
    soon = " (in 90 days it stands at {soon})" if settles_in_d > SOON_D else ""
    return say(
        "In {settled}"
        + soon
        + " nitrate settles between {trough} just after and {peak} just before a change, for {litres} and "
        "{work} of work.",
        settled=of(settles_in_d, "settles_in_d"),
        soon=of(soon_nitrate_mg_l, "soon_nitrate_mg_l"),
        trough=of(trough_nitrate_mg_l, "trough_nitrate_mg_l"),
        peak=of(peak_nitrate_mg_l, "peak_nitrate_mg_l"),
        litres=of(change_l_wk, "change_l_wk"),
        work=of(work_min, "work_min"),
    )
