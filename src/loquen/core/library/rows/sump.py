"""What a first sump is laid out from."""

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True, slots=True)
class FirstChamber:
    """A chamber of a first sump: shares of the sump's length and height."""

    kind: Literal["settling", "media", "heater", "trap", "return"]
    length_frac: float
    baffle_frac: float


@dataclass(frozen=True, slots=True)
class FirstPart:
    """A part along the run of a first sump."""

    part: str
    count: int = 1
    length_m: float = 1.0


@dataclass(frozen=True, slots=True)
class FirstSump:
    """What a first sump is laid out from."""

    source: str
    length_of_tank_frac: float
    shortest_cm: float
    longest_cm: float
    narrower_than_tank_cm: float
    narrowest_cm: float
    lowest_cm: float
    return_level_frac: float
    narrowest_chamber_cm: float
    chambers: tuple[FirstChamber, ...]
    run: tuple[FirstPart, ...]
