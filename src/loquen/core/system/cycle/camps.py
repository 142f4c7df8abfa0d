"""The ways of a tank with animals in it, side by side: with changes, without, with a detoxifier each day."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.system.cycle.setup import BY_READINGS, DETOXIFIED, Begun
from loquen.core.timeline.rates import free_ammonia
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.state import State
from loquen.core.timeline.tending.keeper import Happening, tend

CAMPS = {
    "rescue": "a detoxifier each day, and changes by the readings",
    "changes": "change when a limit is passed",
    "detoxifier": "a detoxifier each day",
    "none": "never change",
}
BURNS = {"ammonia": 4.0, "unionised": 0.2}
DEADLY = {"ammonia": 10.0, "unionised": 1.0}
"""mg/L N of total and free ammonia that burn skin and eyes, and that no animal is left in; keepers' practice, unverified."""
HARM = {"ammonia": 1.0, "unionised": 0.05, "nitrite": 1.0}
"""mg/L N that harm at once, of total and free ammonia and (times its limit's least) of nitrite."""


@dataclass(frozen=True, slots=True)
class Camp:
    """One way: when it is clear, the litres it takes, and what the animals are exposed to over each limit, mg·h/L."""

    key: str
    label: str
    clear_day: float | None
    litres: float
    changes: int
    over_ammonia: float
    over_unionised: float
    over_nitrite: float
    least_over: bool
    """Whether the exposures are the most there can be: with a detoxifier anything from nothing to this."""
    peak_ammonia: float
    peak_nitrite: float
    risk: Sentence


def camps(begun: Begun, happenings: Sequence[Happening], today: float) -> tuple[Camp, ...]:
    """Each way from today on, after what really happened."""
    return tuple(camp(begun, key, happenings, today) for key in CAMPS)


def camp(begun: Begun, key: str, happenings: Sequence[Happening], today: float) -> Camp:
    keeper = replace(
        begun.keeper(key), from_day=math.floor(today), changes=begun.keeper().changes if key in BY_READINGS else ()
    )
    around = begun.asked.around()
    run_days = begun.asked.run_days + math.ceil(today)
    tended = tend(begun.asked.state(), around, keeper, run_days, happenings)
    hours = State(**{name: level[math.floor(today) * HOURS :] for name, level in tended.hours.items()})
    ammonia, nitrite, free = hours.ammonia, hours.nitrite, free_ammonia(hours, around)
    limits = begun.limits
    over = {
        "ammonia": float(np.maximum(ammonia - limits.ammonia, 0).sum()),
        "unionised": float(np.maximum(free - limits.unionised, 0).sum()),
        "nitrite": float(np.maximum(nitrite - limits.nitrite, 0).sum()),
    }
    litres = sum(act.share for act in tended.acts if act.day >= today) * begun.litres
    clear_day = tended.tally.clear_from_day
    peaks = float(ammonia.max()), float(free.max()), float(nitrite.max())
    return Camp(
        key=key,
        label=CAMPS[key],
        clear_day=None if math.isnan(clear_day) else float(clear_day),
        litres=litres,
        changes=sum(act.share > 0 for act in tended.acts if act.day >= today),
        over_ammonia=over["ammonia"],
        over_unionised=over["unionised"],
        over_nitrite=over["nitrite"],
        least_over=key in DETOXIFIED,
        peak_ammonia=peaks[0],
        peak_nitrite=peaks[2],
        risk=risk(begun, key, peaks),
    )


def risk(begun: Begun, key: str, peaks: tuple[float, float, float]) -> Sentence:
    """What the animals risk, by the peaks."""
    ammonia, free, nitrite = peaks
    harm_nitrite = max(HARM["nitrite"], 3 * begun.limits.nitrite)
    if ammonia < begun.limits.ammonia and free < begun.limits.unionised and nitrite < begun.limits.nitrite:
        return say("No limit is passed.")
    passed = {"ammonia": Term(ammonia, "ammonia"), "free": Term(free, "unionised")}
    if ammonia >= DEADLY["ammonia"] or free >= DEADLY["unionised"]:
        return say("Deadly: {ammonia}, {free}. Out of this water today, into clean and matched.", **passed)
    if not begun.gills and (ammonia >= BURNS["ammonia"] or free >= BURNS["unionised"]):
        return say("Burns eyes and skin: {ammonia}, {free}. They stop eating, sores follow.", **passed)
    if free >= HARM["unionised"] or ammonia >= HARM["ammonia"] or nitrite >= harm_nitrite:
        if not begun.gills:
            return say("Foul water: sore eyes and skin. They breathe air, so it does not choke them.")
        if key in DETOXIFIED:
            return say("Harm if the detoxifier does not hold what it promises; it takes oxygen: air as well.")
        return say("Harm: gills burn, blood turns brown; some animals die.")
    terms = {"ammonia": Term(ammonia, "ammonia"), "nitrite": Term(nitrite, "nitrite")}
    return say(
        "Over the limit for long exposure, under what harms at once: {ammonia} and {nitrite} at most.", **terms
    )
