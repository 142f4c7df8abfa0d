"""The plan of one system, as a keeper describes it: its parts, whole."""

from dataclasses import dataclass, field
from typing import Annotated

from loquen.core.model.inputs.quantity import Most
from loquen.core.model.inputs.shape import Shape
from loquen.core.model.parts.animals import Bag, Group, Quarantine, Stocking
from loquen.core.model.parts.flow import Chamber, Flow, Outlet, RunPart, Sump
from loquen.core.model.parts.heat import Air, Heat, Lamp, Light
from loquen.core.model.parts.land import Land
from loquen.core.model.parts.running import Building, Changes, Cycle, Filter, RunIn, Told
from loquen.core.model.parts.tank import Patch, Planting, Tank
from loquen.core.model.parts.water import Osmosis, Recipe, Source, Water

PLAN_VERSION = 4


@dataclass(frozen=True, slots=True)
class Plan:
    """One system, whole."""

    name: str
    animals: Annotated[tuple[Group, ...], Most(24)] = ()
    tank: Tank = field(default_factory=Tank)
    land: Land = field(default_factory=Land)
    patches: Annotated[tuple[Patch, ...], Most(6)] = ()
    planting: Annotated[tuple[Planting, ...], Most(24)] = ()
    filters: Annotated[tuple[Filter, ...], Most(8)] = ()
    run_in: RunIn = field(default_factory=RunIn)
    stocking: Stocking = field(default_factory=Stocking)
    cycle: Cycle = field(default_factory=Cycle)
    flow: Flow = field(default_factory=Flow)
    run: Annotated[tuple[RunPart, ...], Most(24)] = ()
    returns: Annotated[tuple[Outlet, ...], Most(8)] = ()
    sump: Sump = field(default_factory=Sump)
    chambers: Annotated[tuple[Chamber, ...], Most(10)] = ()
    heat: Heat = field(default_factory=Heat)
    air: Air = field(default_factory=Air)
    light: Light = field(default_factory=Light)
    lamps: Annotated[tuple[Lamp, ...], Most(8)] = (Lamp(),)
    water: Water = field(default_factory=Water)
    sources: Annotated[tuple[Source, ...], Most(8)] = ()
    recipe: Recipe = field(default_factory=Recipe)
    osmosis: Osmosis = field(default_factory=Osmosis)
    changes: Changes = field(default_factory=Changes)
    bags: Annotated[tuple[Bag, ...], Most(16)] = ()
    quarantine: Quarantine = field(default_factory=Quarantine)
    building: Building = field(default_factory=Building)
    told: Told = field(default_factory=Told)
    version: int = PLAN_VERSION


PLAN = Shape(Plan)
