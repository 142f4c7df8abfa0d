"""Today's care of a tank that cycles with animals in it: whether to change, how much, what else."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

import numpy as np

from loquen.core.events.ledger import Logged
from loquen.core.events.readings import ReadAt, is_zero, read_interval
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.physics.chemistry.ammonia import chloride_for_nitrite_mg_l
from loquen.core.physics.elementwise import Array
from loquen.core.system.cycle.answer import latest
from loquen.core.system.cycle.setup import Begun
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.rates import free_ammonia
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.state import State
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tending.keeper import MOST_AT_ONCE, Tended, changed, share_within

SALT_PER_CHLORIDE = 58.443 / 35.453
ANY_BEARS_PPT = 0.3
"""Salt that no freshwater animal minds for some weeks."""


@dataclass(frozen=True, slots=True)
class Care:
    """What to do today, the most pressing first; `share` and `litres` of the change, none where none is due."""

    lines: tuple[Sentence, ...]
    share: float
    litres: float
    from_readings: bool


def care(
    begun: Begun, tended: Tended[Array], log: Sequence[Logged], now: datetime, today: float, library: Library
) -> Care:
    """Today's care, by what was read at its worse end, or by the forecast where nothing was."""
    hour = min(int(today * HOURS), len(tended.hours["kh"]) - 1)
    levels = {what: float(np.quantile(tended.hours[what][hour], 0.9)) for what in ("ammonia", "nitrite")}
    read = {what: latest(log, what, now) for what in levels}
    for what, row in read.items():
        if row is not None:
            interval = read_interval(row.read, library)
            levels[what] = interval.middle if not math.isinf(interval.high) else 1.5 * interval.low
    kh = float(np.median(tended.hours["kh"][hour]))
    around, source = begun.asked.around(), begun.asked.keeper().source
    # A soil holds the acid of its own water, not for certain that of so much new water.
    around = replace(around, soil=None)
    state = replace(begun.asked.state(), ammonia=levels["ammonia"], nitrite=levels["nitrite"], kh=kh)
    share = share_within(state, begun.limits, source, around)
    lines = [first(begun, state, share, around)]
    if levels["nitrite"] > begun.limits.nitrite:
        lines += chloride(begun, levels["nitrite"], library)
    if not math.isnan(share) and share > 0:
        lines.append(
            say(
                "Conditioner for {litres} of new water, before it goes in.",
                litres=Term(share * begun.litres, "volume"),
            )
        )
        if share * begun.shock_of_all > 1:
            parts = math.ceil(share * begun.shock_of_all)
            text = (
                "So much at once shocks them: in {parts} parts, hours apart, matched in temperature and hardness."
            )
            lines.append(say(text, parts=Term(max(parts, 2), "count")))
    if begun.detoxified:
        lines += detoxifying(begun, read, library)
    missing = [what for what, row in read.items() if row is None]
    if missing:
        lines.append(say("Read {what}: this goes by the forecast's worse end.", what=" and ".join(missing)))
    change = 0.0 if math.isnan(share) else share
    return Care(tuple(lines), change, change * begun.litres, not missing)


def detoxifying(begun: Begun, read: Mapping[str, ReadAt | None], library: Library) -> list[Sentence]:
    """A day's detoxifier, what the kit goes on showing, and when to stop."""
    if all(row is not None and is_zero(row.read, library) for row in read.values()):
        return [say("Both read zero: stop the detoxifier today, and go on reading for a week.")]
    terms = {"litres": Term(begun.litres, "volume")}
    text = "Detoxifier for all {litres}, as its label says, today and each day until both read zero"
    if begun.detoxifier_ml is not None:
        text = "{dose} of detoxifier, for all {litres}, today and each day until both read zero"
        terms["dose"] = Term(begun.detoxifier_ml, "dose")
    shows = (
        "Most kits go on showing the ammonia that it holds bound: nothing is wrong with either. Change by what is read all the "
        "same, and stop on the day that both read zero."
    )
    return [say(text + "; it takes oxygen: air while it works.", **terms), say(shows)]


def first(begun: Begun, state: State[float], share: float, around: Surroundings[float]) -> Sentence:
    """Whether to change, and how much."""
    if share == 0:
        return say("No change is called for: ammonia and nitrite lie within what they may live in.")
    if math.isnan(share):
        after = changed(state, MOST_AT_ONCE, begun.asked.keeper().source)
        if free_ammonia(after, around) > free_ammonia(state, around):
            return say(
                "No share helps: the harder new water would turn more of the ammonia into its free form. Bind it with a "
                "detoxifier first, soften the new water, feed nothing, and change in small steps."
            )
        return say(
            "No single change meets the limits: half today and half again tomorrow, feed nothing, and air as strong as they bear."
        )
    terms = {"share": Term(share, "share"), "litres": Term(share * begun.litres, "volume")}
    return say("Change {share} today, {litres}: the least that brings every limit back.", **terms)


def chloride(begun: Begun, nitrite: float, library: Library) -> list[Sentence]:
    """Salt against nitrite, where the animals bear it."""
    wanted = chloride_for_nitrite_mg_l(nitrite, table().nitrite_chloride_margin)
    more = float(wanted) - begun.cycle.tank_chloride_mg_l
    kinds = [library.species[group.species] for group in begun.plan.animals]
    if more <= 0:
        return []
    ppt = more * SALT_PER_CHLORIDE / 1000
    frail = [
        kind.common for kind in kinds if ppt > ANY_BEARS_PPT and kind.salinity_high_ppt + kind.salt_leeway_ppt < ppt
    ]
    if frail:
        return [say("No salt against nitrite here: {who} do not bear it.", who=", ".join(frail))]
    text = "Against the nitrite {salt} of salt in all would keep it out of them: chloride to {chloride} mg/L, over some hours."
    return [say(text, salt=Term(ppt * begun.litres, "small_mass"), chloride=Term(round(float(wanted)), "count"))]
