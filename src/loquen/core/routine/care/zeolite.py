"""Zeolite: how much ammonia it holds in this water, and the day on which it is full."""

from collections.abc import Iterator

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Noted, TakenOut
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import LONGEST_D, Rhythm
from loquen.core.system.source.settled import hardness_dgh

RECHARGE = "In a bucket of salt water, never in the tank: salt sets free what it holds. Rinse it well, and dust it off outdoors."


def capacity_mg_g(gh_dgh: float) -> float:
    """Ammonia that a gram of zeolite holds, mg of N: less the more hardness competes for its places.

    In soft water 1 to 2 mg; half of that at the hardness of `zeolite_half_dgh`. Keepers' practice, unverified.
    """
    table = constants("routine.toml")
    return table["zeolite_mg_g"].value / (1 + gh_dgh / table["zeolite_half_dgh"].value)


def duties(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """When it is full at this load, as if no other media took any; in salted water it is taken out."""
    grams = sum(row.zeolite_g for row in sheet.root.filters)
    if not grams:
        return
    minutes = constants("routine.toml")["care_min"].value
    if sheet.value("tank_salinity_ppt") > constants("routine.toml")["zeolite_salt_ppt"].value:
        yield Duty(
            key="zeolite",
            kind="filter",
            words=say("Take the zeolite out: this water is salted."),
            why=say("Salt takes its places, and sets free what it holds."),
            rhythm=Rhythm(every_d=1),
            minutes=minutes,
            event=TakenOut("zeolite"),
        )
        return
    made = number(sheet, "load_now_mg_d")
    if not made:
        return
    held = grams * capacity_mg_g(hardness_dgh(sheet))
    days = max(1, min(LONGEST_D, int(held / made)))
    yield Duty(
        key="zeolite",
        kind="filter",
        words=say("Recharge or replace the zeolite, {grams} of it.", grams=Term(grams, "small_mass")),
        why=say(
            "It holds {held} of ammonia nitrogen in this hardness; the animals make {made}: full after {days}.",
            held=Term(held / 1000, "small_mass"),
            made=of(made, "load_now_mg_d"),
            days=Term(days, "days"),
        ),
        rhythm=Rhythm(every_d=days),
        minutes=minutes,
        event=Noted("zeolite recharged"),
        offset_d=days,
        caution=RECHARGE,
    )
