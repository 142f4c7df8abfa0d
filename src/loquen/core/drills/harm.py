"""Whom the hours after something breaks harm first, by what, and when: limit passed and harm likely, told apart."""

from collections.abc import Sequence
from dataclasses import dataclass

from loquen.core.drills.course import Course
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.watch import Bound, Passed, Swing


@dataclass(frozen=True, slots=True)
class Kept:
    """Animals of one kind, and what they bear."""

    name: str
    temp_low_c: float
    temp_high_c: float
    oxygen_floor_mg_l: float
    nitrite_bears_mg_l: float
    breathes_air: bool = False


@dataclass(frozen=True, slots=True)
class Harm:
    """What passes a limit of a kind, and when it is likely to harm it."""

    name: str
    quantity: str
    limit_h: float | None
    harm_h: float | None


def rules(kind: Kept) -> tuple[Bound | Swing, ...]:
    """What harms a kind; those that breathe air are spared oxygen, not the rest."""
    c, k = table(), table().temp_at_once_k
    low, high = kind.temp_low_c, kind.temp_high_c
    found: list[Bound | Swing] = [
        Bound("temp_c", below=low, for_h=c.temp_outside_h, at_once=low - k),
        Bound("temp_c", above=high, for_h=c.temp_outside_h, at_once=high + k),
        Bound(
            "free_ammonia_mg_l_n",
            above=c.unionised_harms_mg_l,
            for_h=c.unionised_over_h,
            at_once=c.unionised_at_once_mg_l,
        ),
        Bound("ammonia_mg_l_n", above=c.total_ammonia_harms_mg_l, for_h=c.total_ammonia_over_h),
        Bound("nitrite_mg_l_n", above=c.nitrite_harms_times * kind.nitrite_bears_mg_l, for_h=c.nitrite_over_h),
        Bound(
            "chlorine_mg_l",
            above=c.chlorine_harms_mg_l,
            for_h=c.chlorine_over_h,
            at_once=c.chlorine_at_once_mg_l,
        ),
        Swing("salinity_ppt", c.salinity_swing_ppt, c.salinity_swing_h),
        Bound("ph", below=c.acid_harms_ph),
        Swing("ph", c.ph_swing, c.ph_swing_h),
    ]
    if not kind.breathes_air:
        floor = kind.oxygen_floor_mg_l
        found.append(Bound("oxygen_mg_l", below=floor, for_h=c.oxygen_under_h, at_once=c.oxygen_at_once * floor))
    return tuple(found)


def harms(course: Course, animals: Sequence[Kept]) -> tuple[Harm, ...]:
    """Every limit of a kind that is passed, the earliest harm first; what harms nobody last, by when it is passed."""
    hours, levels = course.minutes
    found = []
    for kind in animals:
        for rule in rules(kind):
            one: Passed = rule.passed(hours, levels[rule.quantity])
            if one.limit_h is not None:
                found.append(Harm(kind.name, one.quantity, one.limit_h, one.harm_h))
    endless = float("inf")
    return tuple(sorted(found, key=lambda one: (endless if one.harm_h is None else one.harm_h, one.limit_h)))


def first_harm(course: Course, animals: Sequence[Kept]) -> Harm | None:
    """The earliest harm over all animals: who, when, by what; None where none is likely."""
    return next((one for one in harms(course, animals) if one.harm_h is not None), None)
