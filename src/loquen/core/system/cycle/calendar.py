"""What to do on which day, from today on: test, dose, change, plant, and when the first animals and the next come."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np

from loquen.core.fit.cycle import Learned
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.system.cycle.setup import Begun, bicarbonate_g, dose_amount
from loquen.core.timeline.nitrogen import factors_of
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.tending.keeper import Act, Happening, Keeper, tend

AHEAD_D = 14
CLEAR_WEEKS = 2
FEEDS_FAST = ("floating", "stems")
LineKind = Literal["read", "dose", "detoxify", "buffer", "change", "milestone"]


@dataclass(frozen=True, slots=True)
class Line:
    """Something to do on a day: `amount` in grams or millilitres of a dose, `share` and litres of a change."""

    day: int
    kind: LineKind
    words: Sentence
    amount: float | None = None
    share: float | None = None
    litres: float | None = None


def calendar(
    begun: Begun,
    keeper: Keeper[Any],
    happenings: Sequence[Happening],
    found: Learned,
    done_days: tuple[float, ...],
    today: float,
    nitrate: float,
    library: Library,
) -> tuple[Line, ...]:
    """The next two weeks day by day, as the middle of what was learned would go, and what comes after."""
    day = math.floor(today)
    middle = {name: float(np.median(row)) for name, row in factors_of(found.z, begun.ranges).items()}
    asked = replace(
        begun.asked,
        seed_ammonia_oxidisers_mg_l_d=begun.asked.seed_ammonia_oxidisers_mg_l_d * middle["seed_a"],
        seed_nitrite_oxidisers_mg_l_d=begun.asked.seed_nitrite_oxidisers_mg_l_d * middle["seed_n"],
    )
    c = table()
    around = asked.around(
        growth_a=c.growth_ammonia_oxidisers * middle["growth_a"],
        growth_n=c.growth_nitrite_oxidisers * middle["growth_n"],
    )
    tended = tend(asked.state(), around, keeper, day + AHEAD_D + 1, happenings)
    acts = {act.day: act for act in tended.acts}
    lines = []
    for when in range(day, day + AHEAD_D + 1):
        if begun.fishless and when > done_days[1]:
            break
        lines.append(Line(when, "read", to_read(begun)))
        if begun.detoxified and when <= done_days[1]:
            lines.append(detoxify(begun, when))
        act = acts.get(when, Act(when, 0.0, 0.0, 0.0))
        dose, share = act.dose_mg_l_n, act.share
        if dose > 0:
            amount, unit = dose_amount(begun, dose)
            text = "Dose {amount} " + unit + " of {kind} for {dose}, if both read low enough."
            kind = "ammonium chloride" if unit == "g" else "the solution"
            amount_term = Term(round(amount, 2 if amount < 10 else 1), "ratio")
            lines.append(
                Line(when, "dose", say(text, amount=amount_term, kind=kind, dose=Term(dose, "ammonia")), amount)
            )
        if share > 0:
            text = (
                "Change {share}, {litres}."
                if share <= 0.5
                else "Change {share} in two parts, hours apart: {litres} in all."
            )
            words = say(text, share=Term(share, "share"), litres=Term(share * begun.litres, "volume"))
            if begun.dose_ml_l is not None:
                conditioner = Term(begun.dose_ml_l * share * begun.litres, "dose")
                words = say(
                    words.text.rstrip(".") + ", with {dose} of conditioner.", **words.terms, dose=conditioner
                )
            lines.append(Line(when, "change", words, share=share, litres=share * begun.litres))
        if act.kh_dkh > 0:
            lines.append(lift(begun, act))
    return tuple(lines) + milestones(begun, done_days, day, nitrate, library)


def lift(begun: Begun, act: Act) -> Line:
    """Bicarbonate of soda before the carbonate hardness is used up."""
    grams = bicarbonate_g(begun, act.kh_dkh)
    words = say(
        "{grams} of sodium bicarbonate, dissolved first: carbonate hardness up by {lifts}.",
        grams=Term(grams, "small_mass"),
        lifts=Term(act.kh_dkh, "carbonate"),
    )
    return Line(act.day, "buffer", words, grams)


def detoxify(begun: Begun, day: int) -> Line:
    """A day's detoxifier for all of the water."""
    terms = {"litres": Term(begun.litres, "volume")}
    if begun.detoxifier_ml is None:
        return Line(day, "detoxify", say("Detoxifier for all {litres}, as its label says.", **terms))
    words = say("{dose} of detoxifier for all {litres}.", dose=Term(begun.detoxifier_ml, "dose"), **terms)
    return Line(day, "detoxify", words, begun.detoxifier_ml)


def to_read(begun: Begun) -> Sentence:
    soft = begun.asked.kh_dkh < 6
    return say("Read ammonia and nitrite, and KH." if soft else "Read ammonia and nitrite.")


def milestones(
    begun: Begun, done_days: tuple[float, ...], day: int, nitrate: float, library: Library
) -> tuple[Line, ...]:
    """What comes once it is done, and what may come before."""
    found = list(planting(begun, day, library))
    if not math.isfinite(done_days[1]):
        return tuple(found)
    done = max(day, math.ceil(done_days[1]))
    if begun.fishless:
        text = "About now it is done. Change most of the water, nitrate stands near {nitrate}"
        terms = {"nitrate": Term(nitrate, "nitrate")}
        if begun.dose_ml_l is not None:
            text += "; {dose} of conditioner are for all of it"
            terms["dose"] = Term(begun.dose_ml_l * begun.litres, "dose")
        found.append(Line(done, "milestone", say(text + ".", **terms)))
        amount, unit = dose_amount(begun, begun.asked.full_dose_mg_l_n * table().idle_dose_frac)
        text = (
            "Until animals are in: half a dose, {amount} "
            + unit
            + ", every second day. Idle bacteria fall to two thirds in a week."
        )
        found.append(Line(done, "milestone", say(text, amount=Term(round(amount, 2), "ratio"))))
        text = "The first animals, all that the plan's load allows; feed little for some days and read on."
        found.append(Line(done + 1, "milestone", say(text)))
    else:
        if begun.detoxified:
            text = "About here both read zero: stop the detoxifier on that day, whichever it is."
            found.append(Line(done, "milestone", say(text)))
        found.append(Line(done, "milestone", say("Clear from about here on. Go on reading: a week of it decides.")))
        text = (
            "The first further animals, a third of what is to come."
            if begun.animals_in
            else "The first animals, a third of them."
        )
        found.append(Line(done + 7, "milestone", say(text)))
    next_group = done + 7 + 7 * CLEAR_WEEKS
    text = "The next group, after {weeks} of clear readings; then the next after as many."
    found.append(Line(next_group, "milestone", say(text, weeks=Term(float(CLEAR_WEEKS), "weeks"))))
    return tuple(found)


def planting(begun: Begun, day: int, library: Library) -> list[Line]:
    """Plants of the plan that bear the ammonia of a cycle go in now, the others once it is low."""
    table = library.plants
    rows = [table[row.plant] for row in begun.plan.planting if row.plant in table]
    peak = begun.asked.full_dose_mg_l_n if begun.fishless else 1.5
    bear = [row for row in rows if row.ammonia_high_mg_l >= peak]
    waves = (
        (
            "Fast stems and floaters first, from the start: {plants}.",
            day,
            [row for row in bear if row.uptake in FEEDS_FAST],
        ),
        ("These bear it too: {plants}.", day, [row for row in bear if row.uptake not in FEEDS_FAST]),
        (
            "Fast growers, as soon as ammonia has fallen: {plants}.",
            day + AHEAD_D,
            [row for row in rows if row not in bear and row.uptake in FEEDS_FAST],
        ),
        (
            "Mosses and whatever is delicate last, once ammonia stays low: {plants}.",
            day + AHEAD_D,
            [row for row in rows if row not in bear and row.uptake not in FEEDS_FAST],
        ),
    )
    found = []
    for text, when, wave in waves:
        if wave:
            names = sorted({row.common for row in wave})
            found.append(Line(when, "milestone", say(text, plants=", ".join(names))))
    return found
