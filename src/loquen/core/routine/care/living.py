"""Leaves that are grazed on, plants that are thinned by what they take up, and lamps that fade."""

import math
from collections.abc import Iterator

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Lit, PutIn, TakenOut
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.model.roots.phase import animals_in
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import Rhythm

DAYS_PER_MONTH = 365.25 / 12
LEAST_G = 2.0
UNPLUG = "Unplug the lamp before it is changed, and never look into an ultraviolet lamp that is lit."


def duties(sheet: Sheet[Plan]) -> Iterator[Duty]:
    yield from leaves(sheet)
    yield from thinning(sheet)
    yield from lamps(sheet)


def leaves(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """Dry leaves for those who graze on what grows on them: as many as the water is large, in turn."""
    table = constants("routine.toml")
    litres = number(sheet, "real_volume_l")
    grazing = [row.species for row in sheet.root.animals if sheet.library.species[row.species].feeds_on == "shrimp"]
    if not grazing or not litres or not animals_in(sheet.root):
        return
    count = max(1, math.floor(litres / table["leaf_l"].value))
    days = round(table["leaf_d"].value)
    yield Duty(
        key="leaves",
        kind="plants",
        words=say(
            "Add dry leaves, {count} of a hand's size, and take out the skeletons of the last.", count=str(count)
        ),
        why=say(
            "What grows on them is food between meals; one to {litres}, anew each time they are eaten.",
            litres=Term(table["leaf_l"].value, "volume"),
        ),
        rhythm=Rhythm(every_d=days),
        minutes=table["feeding_min"].value,
        event=PutIn("dry leaves", count),
        caution="From trees that were not sprayed, dried, and scalded first.",
    )


def thinned_g(taken_mg_d: float, days: float) -> float:
    """Wet weight that grows on so much nitrogen (mg/d) in some days: uptake ÷ nitrogen of dry mass ÷ dry part."""
    table = constants("routine.toml")
    dry_g = taken_mg_d * days / 1000 / table["plant_nitrogen_frac"].value
    return dry_g / table["plant_dry_frac"].value


def thinning(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """What the plants grow has to be taken out: what stays in comes back when it rots."""
    taken = number(sheet, "plants_mg_d")
    if not taken:
        return
    days = round(constants("routine.toml")["thin_d"].value)
    grown = thinned_g(taken, days)
    if grown < LEAST_G:
        return
    known = sheet.library.plants
    invasive = [known[row.plant].common for row in sheet.root.planting if known[row.plant].invasive]
    yield Duty(
        key="thin",
        kind="plants",
        words=say("Thin the plants: take out about {amount}, wet.", amount=Term(grown, "small_mass")),
        why=say(
            "They take {taken} of nitrogen, which leaves the tank only with what is taken out.",
            taken=of(taken, "plants_mg_d"),
        ),
        rhythm=Rhythm(every_d=days),
        minutes=constants("routine.toml")["care_min"].value,
        event=TakenOut("plants thinned", round(grown), "g"),
        caution="Never into a pond or a drain: dry it, or put it into the bin." if invasive else "",
    )


def lamps(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """Ultraviolet-B fades long before the light does."""
    for i, lamp in enumerate(sheet.root.lamps):
        if lamp.lamp_kind != "uvb":
            continue
        due = number(sheet, f"lamps.{i}.uvb_due_months")
        left = lamp.lamp_life_months - lamp.lamp_age_months if due is None else due
        yield Duty(
            key=f"lamp.{i}",
            kind="lamp",
            words=say("Replace the ultraviolet-B lamp."),
            why=say(
                "Its maker says after {life}; it is {age} old, and what the animals need of it goes first.",
                life=Term(lamp.lamp_life_months, "months"),
                age=Term(lamp.lamp_age_months, "months"),
            ),
            rhythm=Rhythm(every_months=max(1, round(lamp.lamp_life_months))),
            minutes=constants("routine.toml")["care_min"].value,
            event=Lit("ultraviolet-B lamp replaced"),
            offset_d=max(0, round(left * DAYS_PER_MONTH)),
            caution=UNPLUG,
        )
