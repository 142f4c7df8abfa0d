"""How long those in a tub stay: counted from its last newcomer, or from the last day with signs."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from loquen.core.model.quantity import Sentence, Term, say
from loquen.core.model.quarantine import TreatmentCourse
from loquen.core.register.lives import COMING, Life
from loquen.core.routine.costs import day_words, with_on

Because = Literal["newcomer", "signs", "death", "course"]
WHY: dict[Because, str] = {
    "newcomer": "{days} from the last who was put in, {on}.",
    "signs": "{days} from the last signs seen, {on}.",
    "death": "{days} from the last death in it, {on}.",
    "course": "The {days} end before the course does: they stay for it, and it ends {on}.",
}


@dataclass(frozen=True, slots=True)
class Stay:
    """When those in a tub may leave it, and what that is counted from."""

    release: date
    counted_from: date
    because: Because
    wait_d: int

    def words(self, today: date) -> Sentence:
        """What it is counted from."""
        on = self.counted_from if self.because != "course" else self.release - timedelta(days=1)
        return say(WHY[self.because], days=Term(self.wait_d, "days"), on=with_on(day_words(on, today)))


def put_in(life: Life, tub: int) -> date | None:
    """The last day on which any of them were put into the tub; None where none is in it."""
    if not life.homes.get(tub):
        return None
    days = [
        date.fromisoformat(one.day)
        for one in life.happened
        if (one.kind in COMING and one.system == tub) or (one.kind == "move" and one.to == tub)
    ]
    return max(days, default=None)


def stay(lives: Iterable[Life], tub: int, wait_d: int, courses: Iterable[TreatmentCourse] = ()) -> Stay | None:
    """The stay of all that are in a tub together; None for an empty one.

    Whoever is put in later starts the count again for all, and so do signs of illness and a death in the tub since;
    nobody leaves in the middle of a course.
    """
    here = [life for life in lives if life.homes.get(tub)]
    entered = [day for life in here if (day := put_in(life, tub)) is not None]
    if not entered:
        return None
    found: tuple[date, Because] = (max(entered), "newcomer")
    for life in here:
        for one in life.happened:
            day = date.fromisoformat(one.day)
            if one.kind in ("signs", "death") and one.system == tub and day > found[0]:
                found = (day, "signs" if one.kind == "signs" else "death")
    release = found[0] + timedelta(days=wait_d)
    ends = [course.last + timedelta(days=1) for course in courses if course.last >= min(entered)]
    if ends and max(ends) > release:
        return Stay(max(ends), found[0], "course", wait_d)
    return Stay(release, *found, wait_d)
