"""The dry place of a plan: what those who leave the water stand on, and how they come up."""

from dataclasses import dataclass
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import UNKNOWN, Choice, Quantity, Untold

LAND_UNTOLD = Untold(
    "to measure", "Tell what dry place there is: measure it, how far it lies over the water, and what leads up."
)
LandKind = Literal["unknown", "none", "platform", "box", "bank"]


@dataclass(frozen=True, slots=True)
class Land:
    """Dry places alike, their height over the water, and what else can be climbed or rested on."""

    land_kind: Annotated[
        LandKind,
        Choice(
            "Dry place",
            {
                UNKNOWN: "not told yet",
                "none": "none",
                "platform": "a platform at the surface",
                "box": "a box over the rim",
                "bank": "a bank from the floor up",
            },
            given="bought",
            untold=LAND_UNTOLD,
        ),
    ] = "unknown"
    land_count: Annotated[int, Quantity("Places alike", "count", 1, 60, whole=True, given="bought")] = 1
    land_length_cm: Annotated[float, Quantity("Each is long", "length", 2, 500, given="bought")] = 25.0
    land_width_cm: Annotated[float, Quantity("Each is wide", "length", 2, 500, given="bought")] = 25.0
    land_above_cm: Annotated[float, Quantity("Lies over the water by", "length", 0, 100)] = 2.0
    land_cover_cm: Annotated[float, Quantity("Room in the box over it", "length", 5, 200, given="bought")] = 35.0
    land_ramp: Annotated[bool, Choice("A ramp or slope leads up", given="bought")] = True
    foothold_cm: Annotated[
        float | None, Quantity("Highest foothold over the water", "length", 0, 200, given="reading")
    ] = None
    rest_cm: Annotated[float | None, Quantity("Nearest rest lies under the surface", "length", 0, 100)] = None
    weak_swimmers: Annotated[bool, Choice("Some are weak, ill or just hatched", given="fact")] = False
