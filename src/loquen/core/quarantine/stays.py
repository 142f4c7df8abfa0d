"""How long those in a tub stay: counted from its last newcomer, or from the last day with signs."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal, assert_never

from loquen.core.events.kinds.lives import Arrived, Born, Died, Measured, Moved, SignsSeen, Sold
from loquen.core.events.ledger import LifeEvent
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.records.quarantine import TreatmentCourse
from loquen.core.register.lives import Life
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
    days = [date.fromisoformat(one.day) for one in life.happened if why_anew(one, tub) == "newcomer"]
    return max(days, default=None)


def why_anew(one: LifeEvent, tub: int) -> Because | None:
    """Why the count begins anew with something that happened; None where it does not, or it was elsewhere."""
    match one:
        case Arrived() | Born():
            return "newcomer" if one.system == tub else None
        case Moved():
            return "newcomer" if one.to == tub else None
        case SignsSeen():
            return "signs" if one.system == tub else None
        case Died():
            return "death" if one.system == tub else None
        case Measured() | Sold():
            return None
        case _ as never:
            assert_never(never)


def stay(
    lives: Iterable[Life],
    tub: int,
    wait_d: int,
    courses: Iterable[TreatmentCourse] = (),
    logged: Iterable[LifeEvent] = (),
) -> Stay | None:
    """The stay of all that are in a tub together; None for an empty one.

    Whoever is put in later starts the count again for all, and so do signs of illness and a death in the tub since,
    whoever's they were: of anybody in the register, or `logged` without saying whose. Nobody leaves in the middle of a
    course.
    """
    lives = list(lives)
    entered = [day for life in lives if life.homes.get(tub) and (day := put_in(life, tub)) is not None]
    if not entered:
        return None
    found: tuple[date, Because] = (max(entered), "newcomer")
    for one in (*(one for life in lives for one in life.happened), *logged):
        day, because = date.fromisoformat(one.day), why_anew(one, tub)
        if because in ("signs", "death") and day > found[0]:
            found = (day, because)
    release = found[0] + timedelta(days=wait_d)
    ends = [course.last + timedelta(days=1) for course in courses if course.last >= min(entered)]
    if ends and max(ends) > release:
        return Stay(max(ends), found[0], "course", wait_d)
    return Stay(release, *found, wait_d)
