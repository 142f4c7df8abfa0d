"""Pane and bed."""

from collections.abc import Iterator

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Noted
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.care.water import change_rhythm
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import WEEK, Rhythm

WITH_EACH_CHANGE = ("weekdays", "every")
BARE, SOIL = "none", "soil"
ROOTED_COVER = 0.15
"""From so much cover on a bed is planted, and siphoned in parts."""


def duties(sheet: Sheet[Plan]) -> Iterator[Duty]:
    table, plan = constants("routine.toml"), sheet.root
    yield Duty(
        key="glass",
        kind="clean",
        words=say("Wipe the front pane."),
        why=say("Algae on the glass say how long and how strong the light is: enter what you see."),
        rhythm=Rhythm(every_d=round(table["glass_d"].value)),
        minutes=table["care_min"].value,
        steps=light_steps(sheet),
        event=Noted("front pane wiped"),
    )
    if plan.tank.bed == BARE:
        yield siphoning(
            sheet,
            say("Siphon what lies on the bare floor."),
            say("Nothing lives in a bare floor that would use it."),
        )
    elif plan.tank.bed == SOIL:
        yield siphoning(
            sheet,
            say("Draw off what lies on the soil, the hose a hand over it; never into it."),
            say("Grains of soil break where they are stirred, cloud the water, and let go what they hold."),
        )
    elif planted(plan) > ROOTED_COVER:
        parts = round(table["parts_of_bed"].value)
        yield siphoning(
            sheet,
            say(
                "Siphon {part} of the open bed, over it and not into it; the next part next time.",
                part=f"one of {parts} parts",
            ),
            say(
                "The bed feeds its plants and carries bacteria: never all of it on one day, none before plants have rooted."
            ),
        )
    else:
        yield siphoning(
            sheet,
            say("Siphon {part} of the bed.", part="half" if plan.tank.siphoned_by == "usual" else "all"),
            say("What rots there comes back as ammonia and nitrate."),
        )


def light_steps(sheet: Sheet[Plan]) -> tuple[Sentence, ...]:
    """How the hours of light follow what is wiped off: an hour at a time, and a fortnight for the algae to answer."""
    lit = number(sheet, "visible_h") or 0.0
    least = constants("routine.toml")["least_light_h"].value
    if lit <= least:
        return (say("Green all the same: shade the window; the lamps burn {lit}.", lit=Term(lit, "hours")),)
    less = Term(max(least, lit - 1), "hours")
    text = "More than a thin film since last time: light for {less} instead of {lit}, and look again in two weeks."
    return (say(text, less=less, lit=Term(lit, "hours")),)


def planted(plan: Plan) -> float:
    return sum(row.plant_cover_frac for row in plan.planting)


def siphoning(sheet: Sheet[Plan], words: Sentence, why: Sentence) -> Duty:
    return Duty(
        key="siphon",
        kind="clean",
        words=words,
        why=why,
        rhythm=siphon_rhythm(sheet),
        minutes=constants("routine.toml")["care_min"].value,
        event=Noted("bottom siphoned"),
    )


def siphon_rhythm(sheet: Sheet[Plan]) -> Rhythm:
    """As the plan says; otherwise together with the change, once a week."""
    plan = sheet.root
    if plan.tank.siphoned_by == "daily":
        return Rhythm(weekdays=plan.changes.there or WEEK)
    usual = change_rhythm(sheet) if plan.changes.regime in WITH_EACH_CHANGE else Rhythm()
    if usual.weekdays:
        return Rhythm(weekdays=(max(usual.weekdays, key=WEEK.index),))
    return Rhythm(every_d=usual.every_d or round(constants("routine.toml")["siphon_d"].value))
