"""A course of treatment by its label: doses, what a change takes out, who must not be in it, when it is out again."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta

from loquen.core.data.tables import constants
from loquen.core.library.rows.animals import Species
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, say
from loquen.core.model.records.quarantine import TreatmentCourse

MOST_RINSES = 60


@dataclass(frozen=True, slots=True)
class CourseDay:
    """A day of a course: what is changed first, what is dosed then, and the level in doses of the label.

    `given` holds the label's dose and what the change took out; `untended` is the level had changes not been made good.
    """

    day: date
    change_l: float
    given: float
    made_good: float
    level: float
    untended: float


def label_dose(course: TreatmentCourse, litres: float) -> float:
    """A whole dose for so many litres: dose × litres ÷ what it treats."""
    return course.dose * litres / course.per_l


def days_of_course(course: TreatmentCourse, litres: float, change_frac: float) -> list[CourseDay]:
    """Every day of a course in a tub that is changed by a share each day from the second on.

    level ← level × (1 − f), made good where the label says so, + 1 on a day with a dose; nothing breaks down. A course
    that was stopped ends on the day before.

    Parameters:
        litres: L, scalar. Real water.
        change_frac: share, scalar, 0 to 1. Changed each day before the dose.
    Source: balance
    """
    whole, level, untended = label_dose(course, litres), 0.0, 0.0
    found = []
    for number in range(1, (course.last - course.first).days + 2):
        changed = change_frac if number > 1 else 0.0
        gone = level * changed
        made_good = gone if course.redosed else 0.0
        dosed = 1.0 if number in course.dose_days else 0.0
        level += made_good - gone + dosed
        untended = untended * (1 - changed) + dosed
        found.append(
            CourseDay(
                day=course.first + timedelta(days=number - 1),
                change_l=changed * litres,
                given=whole * (dosed + made_good),
                made_good=whole * made_good,
                level=level,
                untended=untended,
            )
        )
    return found


def rinses(level: float, change_frac: float) -> int:
    """Changes of a share until a level of doses is called gone; 0 where it is, or nothing is changed."""
    gone = constants("quarantine.toml")["gone_frac"].value
    if level <= gone or change_frac <= 0:
        return 0
    if change_frac >= 1:
        return 1
    return min(MOST_RINSES, math.ceil(math.log(gone / level) / math.log(1 - change_frac)))


def endangered(
    course: TreatmentCourse, kinds: Iterable[Species], planted: bool, library: Library
) -> list[Sentence]:
    """Who and what must not be in it, as the label warns."""
    found = []
    known = list(dict.fromkeys(kinds))
    if course.copper:
        killed = [kind.common for kind in known if kind.copper_sensitive]
        if killed:
            found.append(say("{who} die of it: take them out first.", who=", ".join(killed)))
    if course.harms_bare_skin:
        bare = [kind.common for kind in known if kind.family in library.bare_skinned]
        if bare:
            found.append(
                say("{who} have little or no scale over their skin: a vet says whether.", who=", ".join(bare))
            )
    if course.harms_plants and planted:
        found.append(say("The plants in it suffer: take them out."))
    return found


def held_copper(courses: Iterable[TreatmentCourse], renewed: str, today: date) -> TreatmentCourse | None:
    """The last course with copper in a tub since its seams, hose and sponge were renewed."""
    met = [one for one in courses if one.copper and one.first <= today and one.last.isoformat() >= renewed]
    return max(met, key=lambda one: one.begun, default=None)
