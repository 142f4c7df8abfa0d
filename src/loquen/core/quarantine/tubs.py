"""What a tub asks for the animals that are in it: hours without a change, the change each day, and what makes it less."""

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

from loquen.core.data.tables import constants
from loquen.core.graph.nodes import State
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.heat import Heat
from loquen.core.model.parts.running import Changes, Filter, RunIn
from loquen.core.model.parts.tank import Tank
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.cycle.setup import chloramine_ammonia
from loquen.core.system.told import verdict_of

LIKE_TUB_CM, LIKE_TUB_L = (38.0, 26.0, 18.2), 18.0
FREE_CM = 5.0
SEEDED = "sponge_30"
"""The media of a sponge that moves to a tub from a healthy tank."""
NOTABLE = 0.1
"""Of the level they may live in: new water that brings more of it along is told."""
LARGEST_TUB_L, LEAST_FED = 400.0, 0.25
"""No keeper sets up a larger tub for newcomers, or starves them under this."""
REFUSES, WARNS = ("water_suits", "dawn_breathes"), ("summer_borne",)
"""Checks of its plan that keep animals out of a tub, and one that a stay in another season may pass by: all others are for
animals that stay."""


@dataclass(frozen=True, slots=True)
class Asks:
    """What those in a tub ask on a day with food.

    `change_frac` is the change each day that keeps ammonia at the level they may live in, by the balance; `told_frac`
    what is done, in steps and no more than can be. `hours` is None where media take it all.
    """

    litres: float
    made_mg_d: float
    taken_mg_d: float
    limit_mg_l: float
    new_mg_l: float
    hours: float | None
    change_frac: float
    told_frac: float
    peak_mg_l: float
    state: State
    words: Sentence
    against: tuple[Sentence, ...]
    """What else can not be: its water, its warmth, what they breathe."""
    shock: Sentence | None
    ways: tuple[Sentence, ...]

    @property
    def change_l(self) -> float:
        return self.told_frac * self.litres


def new_tub(name: str, litres: float, sponge_l: float, like: Plan | None) -> Plan:
    """A bare tub of so many real litres, a seeded sponge in it or none, with the water and warmth of a system."""
    scale = (litres / LIKE_TUB_L) ** (1 / 3)
    length, width, height = (side * scale for side in LIKE_TUB_CM)
    heat = (
        replace(like.heat, lid="mesh", chiller_w=0.0, fan_fitted=False, fitted_heaters=None, fitted_w=None)
        if like
        else Heat(lid="mesh")
    )
    sponge = Filter("sponge", SEEDED, sponge_l, 1.0, 200.0, None, 0.0, 3.0)
    plan = Plan(
        name=name,
        animals=(),
        run_in=RunIn("set_up", age_weeks=0.0),
        tank=Tank(
            tank_length_cm=round(length, 1),
            tank_width_cm=round(width, 1),
            tank_height_cm=round(height + FREE_CM, 1),
            freeboard_cm=FREE_CM,
            bed="none",
            factory_built=True,
            siphoned_by="daily",
        ),
        filters=(sponge,) if sponge_l > 0 else (),
        heat=heat,
        changes=Changes(regime="every", every_d=1, change_frac=0.3),
    )
    return replace(plan, water=like.water, sources=like.sources, recipe=like.recipe) if like else plan


def with_in_it(tub: Plan, groups: Iterable[Group]) -> Plan:
    """A tub's plan with animals in it, changed each day."""
    return replace(tub, animals=tuple(groups), changes=replace(tub.changes, regime="every", every_d=1))


def takes(tub: Plan, groups: Iterable[Group], library: Library, filter_dead: bool = False) -> tuple[bool, Sentence]:
    """Whether animals can wait in a tub, and why not: its water and warmth, and what can be changed in a day."""
    asked = asks(sheet_of(with_in_it(tub, groups), library, 0.0), filter_dead)
    return asked.state != "short", next(iter(asked.against), asked.words)


def reasons(sheet: Sheet[Plan], checks: Iterable[str]) -> Iterable[Sentence]:
    """What its water, its warmth and what they breathe say against it."""
    for key in checks:
        verdict = verdict_of(sheet, key)
        if verdict is not None and verdict.state == "short":
            yield verdict.reason


def asks(sheet: Sheet[Plan], filter_dead: bool = False) -> Asks:
    """What a tub's animals ask each day, at today's size and on a day with food; `filter_dead` counts no media.

    hours = limit × L ÷ (made − taken) × 24; change = (made − taken) ÷ L ÷ (limit − what the new water brings), the share
    at which ammonia just before each change settles at the limit. Raises: NamedCase where the plan has no such number.
    """
    table = constants("quarantine.toml")
    litres, limit = sheet.value("real_volume_l"), sheet.value("allowed_ammonia_mg_l")
    fed = [sheet.value(f"animals.{i}.fed_frac") for i in range(len(sheet.root.animals))]
    made = sum(sheet.value(f"animals.{i}.waste_now_mg_d") / part for i, part in enumerate(fed))
    taken = 0.0 if filter_dead else taken_mg_d(sheet, limit)
    new, left = chloramine_ammonia(sheet), max(0.0, made - taken)
    share = left / litres / (limit - new) if new < limit else (math.inf if left else 0.0)
    told = told_share(share)
    peak = new + left / litres / told if told else 0.0
    state: State = "holds" if share <= table["easy_change_frac"].value else "tight"
    against = tuple(reasons(sheet, REFUSES))
    warned = tuple(reasons(sheet, WARNS))
    if warned and state == "holds":
        state = "tight"
    if against or (poisoned(sheet) and peak > max(limit, harm_mg_l(sheet))):
        state = "short"
    return Asks(
        litres=litres,
        made_mg_d=made,
        taken_mg_d=min(taken, made),
        limit_mg_l=limit,
        new_mg_l=new,
        hours=limit * litres / left * 24 if left else None,
        change_frac=share,
        told_frac=told,
        peak_mg_l=peak,
        state=state,
        words=words(litres, made, min(taken, made), limit, new, told, peak, sheet.value("tap_untold")),
        against=against + warned,
        shock=shock(sheet, told),
        ways=tuple(ways_out(sheet, made, taken, limit, new, filter_dead)) if told and state != "holds" else (),
    )


def poisoned(sheet: Sheet[Plan]) -> bool:
    """Whether ammonia harms any in it: to turtles it is foul water."""
    return any(sheet.value(f"animals.{i}.animal").shape != "turtle" for i in range(len(sheet.root.animals)))


def harm_mg_l(sheet: Sheet[Plan]) -> float:
    """Ammonia in all that harms within days, by what is un-ionised of it at the pH and warmth that are reckoned with."""
    total = constants("quarantine.toml")["ammonia_harm_mg_l"].value
    poisonous: float = constants()["unionised_harm_mg_l"].value / sheet.value("unionised_frac")
    return min(total, poisonous)


def taken_mg_d(sheet: Sheet[Plan], limit_mg_l: float) -> float:
    """What the media in it take today at the level they may live in."""
    beds = sheet.value("beds").at(sheet.value("system_mature_frac"))
    found: float = sheet.value("nitrifiers").removed_mg_d(limit_mg_l, beds, sheet.value("water_c"))
    return found


def told_share(share: float) -> float:
    """A share to be changed, in steps up, and no more than can be."""
    table = constants("quarantine.toml")
    step, most = table["step_frac"].value, table["most_change_frac"].value
    return min(most, math.ceil(share / step - 1e-9) * step) if share < most else most


def words(
    litres: float, made: float, taken: float, limit: float, new: float, told: float, peak: float, untold: bool
) -> Sentence:
    """What it asks, in a sentence."""
    terms: dict[str, Term | str] = {
        "made": Term(made, "nitrogen_load"),
        "taken": Term(taken, "nitrogen_load"),
        "limit": Term(limit, "ammonia"),
        "share": Term(told, "share"),
        "litres": Term(told * litres, "volume"),
        "peak": Term(peak, "ammonia"),
        "new": Term(new, "ammonia"),
    }
    begins = "They make {made}, and its media take {taken}. " if taken > 0 else "They make {made}. "
    if not made:
        return say("Nobody is in it.")
    if told == 0:
        return say("They make {made}, and its media take all of it: no change for ammonia.", **terms)
    if peak <= limit * (1 + 1e-9):
        return say(begins + "{litres} a day, {share} of it, keep ammonia under {limit}.", **terms)
    text = begins + "Even {share} a day leaves ammonia at {peak}; they may live in {limit} for long."
    if new > NOTABLE * limit:
        text += " The new water brings {new} of it along"
        text += ", as far as it is reckoned: nobody has asked what the tap carries." if untold else "."
    return say(text, **terms)


def shock(sheet: Sheet[Plan], told: float) -> Sentence | None:
    """What the change of each day does to those who bear it least; None where it is no shock."""
    if not told:
        return None
    plan = replace(sheet.root, changes=replace(sheet.root.changes, change_frac=told))
    verdict = verdict_of(sheet.moved_to(plan), "no_shock")
    return verdict.reason if verdict is not None and verdict.state == "short" else None


def ways_out(
    sheet: Sheet[Plan], made: float, taken: float, limit: float, new: float, filter_dead: bool
) -> Iterable[Sentence]:
    """What makes it less, each enough for an easy change by itself: a seeded sponge, clean water, litres, less food."""
    easy = constants("quarantine.toml")["easy_change_frac"].value
    litres = sheet.value("real_volume_l")
    borne = easy * litres * max(0.0, limit - new)
    sponge = sheet.library.media[SEEDED]
    per_m2 = sheet.value("nitrifiers").taken_mg_d(limit, 1.0, sheet.value("water_c"))
    terms: dict[str, Term | str] = {"share": Term(easy, "share")}
    if not filter_dead:
        wanted = (made - taken - borne) / (per_m2 * sponge.area_m2_l * sponge.share_used)
        terms["sponge"] = sponge_term(rounded_up(wanted))
        yield say("{sponge} of sponge from a healthy tank, moved wet, bring it down to {share} a day.", **terms)
    if new > NOTABLE * limit and (made - taken) / litres / limit <= easy:
        yield say(
            "New water without ammonia, through carbon or with a conditioner that binds it, brings it down to {share} a day.",
            **terms,
        )
    if new < limit and (wanted_l := rounded_up((made - taken) / easy / (limit - new))) <= LARGEST_TUB_L:
        yield say("In a tub of {wanted} it is {share} a day.", wanted=Term(wanted_l, "volume"), **terms)
    if (part := math.floor((borne + taken) / made * 20) / 20) >= LEAST_FED:
        yield say("Fed {part} of what they usually get, it is {share} a day.", part=Term(part, "share"), **terms)


def sponge_term(litres: float) -> Term:
    """Under a litre in millilitres."""
    return Term(litres * 1000, "dose") if litres < 1 else Term(litres, "volume")


def rounded_up(value: float) -> float:
    """To two figures, up."""
    if value <= 0:
        return 0.0
    step = 10.0 ** (math.floor(math.log10(value)) - 1)
    return math.ceil(value / step - 1e-9) * step
