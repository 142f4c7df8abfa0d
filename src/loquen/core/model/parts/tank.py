"""The tank of a plan: glass, bed, plants."""

from dataclasses import dataclass
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Quantity

Footprint = Literal["box", "bow_front", "quarter_round", "cylinder", "hexagon", "l_shape"]


@dataclass(frozen=True, slots=True)
class Tank:
    """The glass and what lies in it."""

    shape: Annotated[
        Footprint,
        Choice(
            "Shape",
            {
                "box": "box",
                "bow_front": "bow front",
                "quarter_round": "quarter-round corner",
                "cylinder": "cylinder",
                "hexagon": "hexagon",
                "l_shape": "L-shape",
            },
            given="bought",
        ),
    ] = "box"
    measured: Annotated[
        Literal["inside", "outside"], Choice("Measured", {"inside": "inside", "outside": "outside"}, given="fact")
    ] = "inside"
    tank_count: Annotated[int, Quantity("Tanks alike on one water", "count", 1, 60, whole=True, given="bought")] = 1
    tank_length_cm: Annotated[float, Quantity("Length", "length", 10, 1000, given="bought")] = 90.0
    tank_width_cm: Annotated[float, Quantity("Width, front to back", "length", 10, 500, given="bought")] = 45.0
    tank_height_cm: Annotated[float, Quantity("Height", "length", 10, 200, given="bought")] = 45.0
    bow_cm: Annotated[float, Quantity("Depth of the bow", "length", 0, 100, given="bought")] = 0.0
    notch_length_cm: Annotated[float, Quantity("Missing corner, length", "length", 0, 900, given="bought")] = 0.0
    notch_width_cm: Annotated[float, Quantity("Missing corner, width", "length", 0, 450, given="bought")] = 0.0
    fill_by: Annotated[
        Literal["freeboard", "height"],
        Choice("Filled", {"freeboard": "to below the rim", "height": "in part, to a height"}),
    ] = "freeboard"
    freeboard_cm: Annotated[float, Quantity("Free space under the rim", "length", 0, 100)] = 3.0
    part_fill_cm: Annotated[float, Quantity("Water height", "length", 3, 200)] = 25.0
    pane_mm: Annotated[float, Quantity("Pane", "thickness", 2, 60, given="bought")] = 8.0
    pane_material: Annotated[
        Literal["glass", "acrylic"], Choice("Material", {"glass": "glass", "acrylic": "acrylic"}, given="bought")
    ] = "glass"
    toughened: Annotated[bool, Choice("Toughened panes", given="bought")] = False
    factory_built: Annotated[bool, Choice("Sold as a tank, filled as its maker says", given="bought")] = False
    support: Annotated[
        Literal["three_edges", "cross", "four_edges"],
        Choice(
            "Top edge",
            {
                "three_edges": "free (rimless)",
                "cross": "tied across the middle",
                "four_edges": "braced all round",
            },
            given="bought",
        ),
    ] = "three_edges"
    bed: Annotated[str, Choice("Bed", table="beds")] = "sand"
    bed_front_cm: Annotated[float, Quantity("Bed at the front", "length", 0, 60)] = 3.0
    bed_back_cm: Annotated[float, Quantity("Bed at the back", "length", 0, 60)] = 5.0
    bag_l: Annotated[float, Quantity("One bag", "volume", 0.5, 100, given="fact")] = 10.0
    soil_left_meq_l: Annotated[
        float, Quantity("Alkalinity a litre of soil still takes", "alkalinity", 0, 200, given="fact")
    ] = 40.0
    lime_kg: Annotated[float, Quantity("Coral or shell in the flow", "mass", 0, 500, given="bought")] = 0.0
    lime_grain_mm: Annotated[float, Quantity("Grain of coral or shell", "thickness", 0.5, 60, given="bought")] = 4.0
    siphoned_by: Annotated[
        Literal["usual", "weekly", "daily"],
        Choice(
            "Bottom siphoned",
            {"usual": "as most do", "weekly": "all of it each week", "daily": "all of it each day"},
        ),
    ] = "usual"
    siphoned_frac: Annotated[float | None, Quantity("Waste siphoned off before it rots", "share", 0, 0.6)] = None
    rock_kg: Annotated[float, Quantity("Rock", "mass", 0, 2000)] = 0.0
    wood_l: Annotated[float, Quantity("Wood", "volume", 0, 500)] = 0.0


@dataclass(frozen=True, slots=True)
class Patch:
    """A part of the floor with another bed than the rest."""

    patch_bed: Annotated[str, Choice("Bed", table="beds")] = "soil"
    patch_frac: Annotated[float, Quantity("Part of the floor", "share", 0.01, 1)] = 0.3
    patch_front_cm: Annotated[float, Quantity("At the front", "length", 0, 60)] = 4.0
    patch_back_cm: Annotated[float, Quantity("At the back", "length", 0, 60)] = 6.0


@dataclass(frozen=True, slots=True)
class Planting:
    """Plants of one kind, and how much of the tank they cover seen from above."""

    plant: Annotated[str, Choice("Plant", table="plants")] = "slow_rooted"
    plant_cover_frac: Annotated[float, Quantity("Footprint they cover", "share", 0, 1)] = 0.2
