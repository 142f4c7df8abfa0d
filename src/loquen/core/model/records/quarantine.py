"""Who is to come and waits in which tub, and the courses of treatment there, as a keeper writes them down."""

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Most, Quantity
from loquen.core.model.records.register import RegisterFault

LONGEST_D = 366


@dataclass(frozen=True, slots=True)
class Tub:
    """A system in which newcomers wait: how long, and whether it was renewed since copper was last in it."""

    wait_d: Annotated[int, Quantity("Each waits", "days", 1, LONGEST_D, whole=True)] = 28
    renewed: Annotated[str, Choice("Seams, hose and sponge renewed on", table="date")] = ""


@dataclass(frozen=True, slots=True)
class Arriving:
    """Animals of one kind that are on their way, or wait: for which system, from when on, and how long.

    `resident` is their number in the register once they are here. A waiver's reason takes the place of the wait.
    """

    species: Annotated[str, Choice("Animal", table="species")]
    number: Annotated[int, Quantity("How many", "count", 1, 2000, whole=True)] = 1
    goes_to: Annotated[int, Quantity("For", "count", 0, 1e9, whole=True)] = 0
    comes_on: Annotated[str, Choice("From", table="date")] = ""
    can_wait: Annotated[bool, Choice("The seller holds them until a tub is free")] = True
    length_cm: Annotated[float | None, Quantity("Length, one of them", "length", 0.2, 200)] = None
    source: Annotated[str, Choice("Comes from", table="text")] = ""
    wait_d: Annotated[int | None, Quantity("Waits", "days", 1, LONGEST_D, whole=True)] = None
    tub: Annotated[int, Quantity("In tub", "count", 0, 1e9, whole=True)] = 0
    waived: Annotated[str, Choice("No quarantine, because", table="text")] = ""
    resident: Annotated[int, Quantity("In the register", "count", 0, 1e9, whole=True)] = 0


@dataclass(frozen=True, slots=True)
class TreatmentCourse:
    """A course of treatment in a tub, as its label says it.

    `dose_days` are days of the course, its first being 1; `harms_…` is what the label warns of.
    """

    tub: Annotated[int, Quantity("In tub", "count", 1, 1e9, whole=True)]
    product: Annotated[str, Choice("Label", table="text")]
    begun: Annotated[str, Choice("First dose on", table="date")]
    dose: Annotated[float, Quantity("A dose", "ratio", 0.001, 10_000)] = 1.0
    dose_unit: Annotated[
        Literal["mL", "g", "drops", "tablets"],
        Choice("Measured in", {"mL": "mL", "g": "g", "drops": "drops", "tablets": "tablets"}),
    ] = "mL"
    per_l: Annotated[float, Quantity("Treats", "volume", 0.1, 10_000)] = 10.0
    dose_days: Annotated[tuple[int, ...], Quantity("Dosed on days", "days", 1, 120), Most(40)] = ()
    lasts_d: Annotated[int, Quantity("The course lasts", "days", 1, 120, whole=True)] = 7
    redosed: Annotated[bool, Choice("What a change takes out is dosed again")] = True
    copper: Annotated[bool, Choice("Holds copper, or kills invertebrates")] = False
    harms_plants: Annotated[bool, Choice("Harms plants")] = False
    harms_bare_skin: Annotated[bool, Choice("Harms fish without scales, frogs and salamanders")] = False
    harms_filter: Annotated[bool, Choice("Harms the filter's bacteria")] = False
    equipment: Annotated[str, Choice("Nets, hoses and sponges used", table="text")] = ""
    stopped: Annotated[str, Choice("Stopped on", table="date")] = ""

    @property
    def first(self) -> date:
        return date.fromisoformat(self.begun)

    @property
    def last(self) -> date:
        """Its last day: as its label says, or the day before it was stopped."""
        planned = self.first + timedelta(days=self.lasts_d - 1)
        return min(planned, date.fromisoformat(self.stopped) - timedelta(days=1)) if self.stopped else planned


def arriving_faults(arriving: Arriving) -> list[RegisterFault]:
    """What is wrong with an arrival."""
    found = []
    if not arriving.goes_to:
        found.append(RegisterFault("for_whom", "goes_to"))
    if not arriving.comes_on:
        found.append(RegisterFault("from_when", "comes_on"))
    return found


def course_faults(course: TreatmentCourse) -> list[RegisterFault]:
    """What is wrong with a course."""
    found = []
    if not course.begun:
        found.append(RegisterFault("from_when", "begun"))
    if not course.product.strip():
        found.append(RegisterFault("which_label", "product"))
    if not course.dose_days:
        found.append(RegisterFault("no_dose_day", "dose_days"))
    elif max(course.dose_days) > course.lasts_d:
        found.append(RegisterFault("dosed_after_its_end", "dose_days", last=course.lasts_d))
    if course.stopped and course.stopped < course.begun:
        found.append(RegisterFault("stopped_before", "stopped", begun=course.begun))
    return found
