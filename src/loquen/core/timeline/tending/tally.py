"""What a run comes to."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.elementwise import Q, Truth, at_least, at_most, both, where
from loquen.core.timeline.state import State
from loquen.core.timeline.tanks import Tanks

NEVER = float("nan")


@dataclass(slots=True)
class Tally(Generic[Q]):
    """Days and sums of a run, each a number or an array over members; days that never come are nan."""

    day_done: Q
    clear_from_day: Q
    stalled_day: Q
    peak_ammonia: Q
    peak_ammonia_day: Q
    peak_nitrite: Q
    peak_nitrite_day: Q
    kh_lowest: Q
    dosed: Q
    changes_made: Q
    clear_run: Q
    end_day: Q
    full_yesterday: Truth

    @classmethod
    def empty(cls, tanks: Tanks[Q]) -> "Tally[Q]":
        """Of a run that has not begun."""
        never, none = tanks.full(NEVER), tanks.full(0.0)
        return cls(
            *(never, never, never),
            *(none, none, none, none),
            tanks.full(float("inf")),
            *(none, none, none, none),
            tanks.all(False),
        )

    @staticmethod
    def first(case: Truth, day: Q | float, known: Q) -> Q:
        """The day on which something was first so: what is known of it, else this day where it is so."""
        unknown = known != known  # noqa: PLR0124
        return where(both(case, unknown), day, known)

    def noted(self, state: State[Q], day: Q | float) -> None:
        """Peaks, and the lowest hardness."""
        self.peaks(state.ammonia, day, state.nitrite, day, state.kh)

    def peaks(self, ammonia: Q, ammonia_day: Q | float, nitrite: Q, nitrite_day: Q | float, kh: Q) -> None:
        """Levels of a day, or the highest of several."""
        self.peak_ammonia_day = where(ammonia > self.peak_ammonia, ammonia_day, self.peak_ammonia_day)
        self.peak_ammonia = at_least(self.peak_ammonia, ammonia)
        self.peak_nitrite_day = where(nitrite > self.peak_nitrite, nitrite_day, self.peak_nitrite_day)
        self.peak_nitrite = at_least(self.peak_nitrite, nitrite)
        self.kh_lowest = at_most(self.kh_lowest, kh)
