"""The water: changes with their recipe, readings, and what cleans it before it is used."""

from collections.abc import Iterator

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Noted
from loquen.core.events.kinds.water import Changed
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.model.roots.phase import animals_in, phase
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import WEEK, Rhythm
from loquen.core.system.source.treating import with_treatment
from loquen.core.system.told import rows_of

TOPPED_UP_D, LEAST_TOP_UP_L = 7, 0.5
BY_ITSELF = ("pulses", "drip")


def duties(sheet: Sheet[Plan]) -> Iterator[Duty]:
    yield from readings(sheet)
    if animals_in(sheet.root):
        yield from changes(sheet)
    else:
        yield cycling()
    yield from top_up(sheet)
    yield from cartridges(sheet)


def cycling() -> Duty:
    """A filter that is brought to life before its animals come: each day by what was read."""
    return Duty(
        key="cycle",
        kind="change",
        words=say("Dose or change as this system's Cycle page says for today."),
        why=say("Its filter is brought to life first, and its animals come when that is done."),
        rhythm=Rhythm(every_d=1),
        minutes=constants("routine.toml")["feeding_min"].value,
        event=Noted("looked after, as the cycle's calendar says"),
    )


def change_rhythm(sheet: Sheet[Plan]) -> Rhythm:
    """When the plan changes water; by a reading, as often as the nitrate it makes reaches the limit."""
    plan = sheet.root.changes
    if plan.regime == "weekdays":
        return Rhythm(weekdays=plan.weekdays)
    if plan.regime == "trigger":
        return Rhythm(every_d=max(1, int(max(number(sheet, "trigger_d") or 7.0, plan.shortest_gap_d))))
    return Rhythm(every_d=plan.every_d)


def changes(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """A change of water by hand, with the recipe of what is poured."""
    plan = sheet.root.changes
    litres = number(sheet, "change_l")
    if plan.regime in BY_ITSELF or not litres or (plan.regime == "weekdays" and not plan.weekdays):
        return
    rhythm = change_rhythm(sheet)
    yield Duty(
        key="change",
        kind="change",
        words=say(
            "Change {litres}, {share} of the water.",
            litres=of(litres, "change_l"),
            share=Term(plan.change_frac, "share"),
        ),
        why=say(
            "Nitrate rises by {rise}; it would stand at {peak} just before each change.",
            rise=of(sheet.value("rise_nitrate_mg_l_d"), "rise_nitrate_mg_l_d"),
            peak=of(sheet.value("peak_nitrate_mg_l"), "peak_nitrate_mg_l"),
        ),
        rhythm=rhythm,
        minutes=round((number(sheet, "work_min") or 0.0) * rhythm.days / 7, 1),
        steps=rows_of(sheet, "card")[1:],
        event=Changed(round(litres, 1)),
    )


def top_up(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """What evaporates, before a pump draws air and at least once a week."""
    gone = number(sheet, "evaporation_l_d")
    if not gone or sheet.root.sump.topper_l > 0:
        return
    dry_d = number(sheet, "dry_d") if sheet.root.flow.way != "none" else None
    days = max(1, min(TOPPED_UP_D, int((dry_d or 2 * TOPPED_UP_D) / 2)))
    if gone * days < LEAST_TOP_UP_L:
        return
    level = "the return chamber's mark" if sheet.root.flow.way != "none" else "the water line"
    text = "Top up to {level}, about {litres}."
    yield Duty(
        key="top_up",
        kind="change",
        words=topped_up(sheet, say(text, level=level, litres=Term(gone * days, "volume")), gone * days),
        why=say("{gone} evaporate; what was dissolved stays behind.", gone=of(gone, "evaporation_l_d")),
        rhythm=Rhythm(every_d=days),
        minutes=constants("routine.toml")["feeding_min"].value,
        event=Noted("topped up"),
    )


def topped_up(sheet: Sheet[Plan], words: Sentence, litres: float) -> Sentence:
    """A top-up by what it is made with: pure water as it is, change water treated as every litre that comes in."""
    if sheet.root.water.topped_up == "pure":
        return Sentence(f"{words.text.rstrip('.')} of pure water.", words.terms)
    return with_treatment(sheet, words, litres)


def readings(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """What is read: ammonia and nitrite while the filter grows, nitrate, hardness where it is low, warmth where heaters are."""
    table, plan = constants("routine.toml"), sheet.root
    minutes = table["reading_min"].value
    mature = number(sheet, "system_mature_frac")
    needed = number(sheet, "needed_mature_frac")
    young = phase(plan) == "cycling" or (mature is not None and (needed is None or mature < needed))
    if young:
        for measure, name in (("ammonia", "ammonia"), ("nitrite", "nitrite")):
            yield Duty(
                key=f"read.{measure}",
                kind="read",
                words=say("Read {measure}.", measure=name),
                why=say(
                    "The filter still grows: {mature} mature, and this load needs {needed}.",
                    mature=of(mature, "system_mature_frac"),
                    needed=of(needed, "needed_mature_frac"),
                )
                if mature is not None and needed is not None
                else say("The filter still grows."),
                rhythm=Rhythm(every_d=round(table["young_filter_d"].value)),
                minutes=minutes,
                measure=measure,
            )
    yield Duty(
        key="read.nitrate",
        kind="read",
        words=say("Read nitrate, before the change."),
        why=say(
            "The plan holds it under {target}; a reading says whether it does.",
            target=Term(plan.changes.target_nitrate_mg_l, "nitrate"),
        ),
        rhythm=reading_day(sheet, round(table["nitrate_d"].value)),
        minutes=minutes,
        measure="nitrate",
    )
    kh = number(sheet, "settled_kh_dkh")
    if kh is not None and kh < table["soft_kh_dkh"].value:
        yield Duty(
            key="read.kh",
            kind="read",
            words=say("Read carbonate hardness."),
            why=say(
                "It stands at {kh} just before a change: used up, pH falls and the filter stops.",
                kh=of(kh, "settled_kh_dkh"),
            ),
            rhythm=Rhythm(every_d=round(table["soft_kh_d"].value)),
            minutes=minutes,
            measure="kh",
        )
    if plan.heat.heated or plan.heat.chiller_w or plan.heat.fan_fitted:
        yield Duty(
            key="read.temperature",
            kind="read",
            words=say(
                "Look at a second thermometer: {target} is kept.", target=Term(plan.heat.target_c, "temperature")
            ),
            why=say("A thermostat drifts or sticks, and only a second thermometer shows it."),
            rhythm=Rhythm(every_d=round(table["thermometer_d"].value)),
            minutes=1.0,
            measure="temperature",
        )


def reading_day(sheet: Sheet[Plan], every_d: int) -> Rhythm:
    """Readings of nitrate belong before a change: on its day, once a week."""
    plan = sheet.root.changes
    if plan.regime == "weekdays" and plan.weekdays:
        return Rhythm(weekdays=(max(plan.weekdays, key=WEEK.index),))
    return Rhythm(every_d=every_d)


def cartridges(sheet: Sheet[Plan]) -> Iterator[Duty]:
    """Carbon by the litres that went through it, and what stands before a membrane."""
    table, plan = constants("routine.toml"), sheet.root
    weekly = number(sheet, "change_l_wk")
    chlorinated = sheet.value("present_disinfectant") != "none"
    if plan.water.treatment == "carbon" and chlorinated and weekly:
        litres = plan.water.carbon_l * table["carbon_l_per_l"].value
        days = max(7, min(730, round(7 * litres / weekly)))
        yield Duty(
            key="carbon",
            kind="supply",
            words=say("Test for chlorine after the carbon, and replace the cartridge."),
            why=say(
                "{litres} a week go through {carbon} of carbon, good for about {most} in all.",
                litres=of(weekly, "change_l_wk"),
                carbon=Term(plan.water.carbon_l, "volume"),
                most=Term(litres, "volume"),
            ),
            rhythm=Rhythm(every_d=days),
            minutes=table["care_min"].value,
            event=Noted("carbon cartridge replaced"),
            offset_d=days,
        )
    if plan.osmosis.membrane_fitted:
        months = round(table["prefilter_months"].value)
        yield Duty(
            key="prefilter",
            kind="supply",
            words=say("Replace the cartridges before the membrane, and read what it makes."),
            why=say("Its maker's figure goes first; {months} is usual.", months=Term(months, "months")),
            rhythm=Rhythm(every_months=months),
            minutes=table["care_min"].value,
            event=Noted("cartridges before the membrane replaced"),
            offset_d=round(30.4 * months),
        )
