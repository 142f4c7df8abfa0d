"""Stays that end: their date, and what to do before it."""

from collections.abc import Iterable
from datetime import date, timedelta

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Noted
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.register.lives import Life
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import LONGEST_D, Rhythm

DAYS_PER_MONTH = 365.25 / 12
BEFORE_D = 30
"""How long before its end a stay becomes a duty: a new home takes weeks to find."""


def ends_on(sheet: Sheet[Plan], came: date) -> date | None:
    """The day on which the stay that a plan has for its animals ends; None where they stay for good."""
    months = number(sheet, "leaves_in_months")
    if sheet.root.stocking.stays == "good" or months is None or months * DAYS_PER_MONTH > LONGEST_D:
        return None
    return came + timedelta(days=round(months * DAYS_PER_MONTH))


def stay_duties(
    lives: Iterable[tuple[int, Life]], system_id: int, began: date, library: Library
) -> tuple[Duty, ...]:
    """What the stays of those who live in a system ask: a home for each of them, in time."""
    found = []
    for number_of, life in lives:
        if not life.resident.stays_until or not life.homes.get(system_id):
            continue
        ends = date.fromisoformat(life.resident.stays_until)
        kind = library.species.get(life.resident.species)
        who = life.resident.name or (kind.common if kind else life.resident.species)
        found.append(
            Duty(
                key=f"stay.{number_of}.{ends.isoformat()}",
                kind="safety",
                words=say(
                    "{who} stays until {day}: find the next home now.", who=who, day=ends.strftime("%-d %B %Y")
                ),
                why=say(
                    "Its checks hold inside the stay, and nobody looked past it. {before} before its end.",
                    before=Term(float(BEFORE_D), "days"),
                ),
                rhythm=Rhythm(every_d=LONGEST_D),
                minutes=constants("routine.toml")["care_min"].value,
                event=Noted("a home is found for the end of the stay"),
                offset_d=(ends - timedelta(days=BEFORE_D) - began).days,
                caution="Never let it go outside.",
            )
        )
    return tuple(found)
