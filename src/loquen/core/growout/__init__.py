"""Breeding for sale and for keeps: broods, young, tanks, money."""

from loquen.core.growout.broods import age_at_length_d, fry_per_day, mean_present, survivors_frac
from loquen.core.growout.week import growout_range, growout_week

__all__ = [
    "age_at_length_d",
    "fry_per_day",
    "growout_range",
    "growout_week",
    "mean_present",
    "survivors_frac",
]
