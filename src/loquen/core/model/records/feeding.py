"""What the house has to feed with: foods at hand, mixes of its own, cultures."""

from dataclasses import dataclass, field
from typing import Annotated

from loquen.core.model.inputs.quantity import Choice, Most, Quantity
from loquen.core.model.records.register import RegisterFault


@dataclass(frozen=True, slots=True)
class Part:
    """A food in a mix, by the weight that goes in."""

    food: Annotated[str, Choice("Food", table="foods")]
    grams: Annotated[float, Quantity("Weight", "small_mass", 0.01, 100_000)] = 100.0


@dataclass(frozen=True, slots=True)
class Mix:
    """A mix of one's own, set with some binder and cut into pieces."""

    name: Annotated[str, Choice("Called", table="text")]
    parts: Annotated[tuple[Part, ...], Most(20)] = ()
    water_g: Annotated[float, Quantity("Water and binder", "small_mass", 0, 100_000)] = 0.0
    piece_g: Annotated[float, Quantity("A piece", "small_mass", 0, 1000)] = 0.0


@dataclass(frozen=True, slots=True)
class Kept:
    """How many of one culture are kept."""

    culture: Annotated[str, Choice("Culture", table="cultures")]
    count: Annotated[int, Quantity("How many", "count", 1, 1000, whole=True)] = 1


@dataclass(frozen=True, slots=True)
class Larder:
    """All of it; an empty one leaves every plan its own food."""

    foods: Annotated[tuple[str, ...], Choice("Foods at hand", table="foods"), Most(80)] = ()
    mixes: tuple[Mix, ...] = field(default=())
    cultures: tuple[Kept, ...] = field(default=())


def larder_faults(larder: Larder) -> list[RegisterFault]:
    """What is wrong with it."""
    found = []
    names = [mix.name.strip().lower() for mix in larder.mixes]
    for place, mix in enumerate(larder.mixes):
        if not mix.name.strip():
            found.append(RegisterFault("mix_without_name", f"mixes.{place}.name"))
        elif names.index(names[place]) < place:
            found.append(RegisterFault("mix_twice", f"mixes.{place}.name", name=mix.name))
        if not mix.parts:
            found.append(RegisterFault("mix_of_nothing", f"mixes.{place}.parts", name=mix.name))
    return found
