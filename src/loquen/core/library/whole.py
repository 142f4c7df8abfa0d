"""A library: every table, the keeper's own rows beside the shipped ones. It is passed to whoever asks it, never looked up."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cache
from hashlib import sha256
from types import MappingProxyType
from typing import Any

from loquen.core.data.bodies import body_shapes
from loquen.core.data.tables import Table, read_csv, toml
from loquen.core.errors import BrokenData
from loquen.core.library.kinds import KINDS, Kind
from loquen.core.library.rows.animals import (
    BareSkinned,
    Breeding,
    Diet,
    HardFood,
    ShockClass,
    Species,
    Turnover,
)
from loquen.core.library.rows.keeping import Bed, Culture, Food, Lid, Plant, PlantCover
from loquen.core.library.rows.kits import Kit
from loquen.core.library.rows.machines import (
    FilterKind,
    FilterModel,
    Fitting,
    HeaterModel,
    Media,
    Pipe,
    PumpModel,
    StockTank,
)
from loquen.core.library.rows.sump import FirstChamber, FirstPart, FirstSump

OwnRows = Mapping[Kind, Mapping[str, Any]]
"""Rows of the keeper's own, by kind and key."""
NO_OWN: OwnRows = MappingProxyType({kind: MappingProxyType({}) for kind in KINDS})


@dataclass(frozen=True, eq=False)
class Library:
    """Every table that a figure may ask. Two are the same when they are one; their stamps say whether their rows are."""

    species: Table[Species]
    bare_skinned: Table[BareSkinned]
    """Families without a coat of scales, by name."""
    diets: Table[Diet]
    """By what a kind feeds on."""
    hard_foods: Table[HardFood]
    """Families that want hard food, by name."""
    breeding: Table[Breeding]
    """Kinds whose breeding is known, by the key of the animal."""
    shock_classes: Table[ShockClass]
    turnovers: Table[Turnover]
    beds: Table[Bed]
    plants: Table[Plant]
    plant_covers: Table[PlantCover]
    foods: Table[Food]
    cultures: Table[Culture]
    lids: Table[Lid]
    media: Table[Media]
    filter_kinds: Table[FilterKind]
    filter_models: Table[FilterModel]
    heater_models: Table[HeaterModel]
    fittings: Table[Fitting]
    pipes: Table[Pipe]
    pump_models: Table[PumpModel]
    stock_tanks: Table[StockTank]
    stock_panes_mm: tuple[float, ...]
    stock_heaters_w: tuple[float, ...]
    first_sump: FirstSump
    kits: Table[Kit]
    own: OwnRows = field(default_factory=lambda: NO_OWN)
    stamp: str = ""
    """Of the own rows; empty while there are none."""

    def breeds(self, species: str) -> Breeding | None:
        """How a kind breeds: by the numbers of the kind that it is said to breed as; None where those are not known."""
        row = self.species.get(species)
        return self.breeding.get(row.breeds_as) if row else None

    def run_parts(self) -> dict[str, str]:
        """What may stand along a run, by key: straight pipe, and every fitting."""
        return {"pipe": "straight pipe", **{key: row.label for key, row in self.fittings.items()}}

    def with_own(self, rows: Mapping[str, Mapping[str, Any]]) -> "Library":
        """This library with these as the keeper's own rows, in place of those it has; itself where they are the same."""
        own: OwnRows = {kind: dict(rows.get(kind, {})) for kind in KINDS}
        if own == self.own:
            return self
        tables: dict[str, Any] = {
            name: beside(getattr(self, name), self.own[kind], own[kind]) for kind, name in KINDS.items()
        }
        return replace(self, **tables, own=own, stamp=stamp_of(own))


def beside(table: Table[Any], before: Mapping[str, Any], own: Mapping[str, Any]) -> Table[Any]:
    """A table with own rows in the place of those before."""
    if before == own:
        return table
    return Table(table.name, [*((key, row) for key, row in table.items() if key not in before), *own.items()])


def stamp_of(own: OwnRows) -> str:
    """What tells own rows from others: the same rows have the same, in any order and at any time."""
    rows = sorted(repr(row) for of_kind in own.values() for row in of_kind.values())
    return sha256("\n".join(rows).encode()).hexdigest()[:16] if rows else ""


@cache
def shipped() -> Library:
    """The library as it ships. Raises: BrokenData naming the row that contradicts itself."""
    kinds, breeding = read_csv("species.csv", Species), read_csv("breeding.csv", Breeding)
    library = Library(
        species=Table("species.csv", ((key, breeding_as_itself(row, breeding)) for key, row in kinds.items())),
        bare_skinned=read_csv("bare_skinned.csv", BareSkinned),
        diets=read_csv("diets.csv", Diet),
        hard_foods=read_csv("hard_foods.csv", HardFood),
        breeding=breeding,
        shock_classes=read_csv("shock.csv", ShockClass),
        turnovers=read_csv("turnover.csv", Turnover),
        beds=read_csv("beds.csv", Bed),
        plants=read_csv("plants.csv", Plant),
        plant_covers=read_csv("plant_covers.csv", PlantCover),
        foods=read_csv("foods.csv", Food),
        cultures=read_csv("cultures.csv", Culture),
        lids=read_csv("lids.csv", Lid),
        media=read_csv("media.csv", Media),
        filter_kinds=read_csv("filter_kinds.csv", FilterKind),
        filter_models=read_csv("filters.csv", FilterModel),
        heater_models=read_csv("heaters.csv", HeaterModel),
        fittings=read_csv("fittings.csv", Fitting),
        pipes=read_csv("pipes.csv", Pipe),
        pump_models=read_csv("pumps.csv", PumpModel),
        stock_tanks=read_csv("tanks.csv", StockTank),
        stock_panes_mm=tuple(map(float, toml("stock.toml")["pane_mm"])),
        stock_heaters_w=tuple(map(float, toml("stock.toml")["heater_w"])),
        first_sump=first_sump(toml("first_sump.toml")),
        kits=read_csv("kits.csv", Kit),
    )
    for row in library.species.values():
        for fault, found in contradictions(row, library).items():
            if found:
                raise BrokenData("species.csv", row.key, fault)
    return library


def breeding_as_itself(row: Species, breeding: Table[Breeding]) -> Species:
    """A shipped kind has numbers of its own; a copy of it goes on breeding so."""
    return replace(row, breeds_as=row.key) if row.key in breeding else row


def first_sump(values: Mapping[str, Any]) -> FirstSump:
    chambers = tuple(FirstChamber(**row) for row in values["chambers"])
    run = tuple(FirstPart(**row) for row in values["run"])
    return FirstSump(**{**values, "chambers": chambers, "run": run})


def contradictions(row: Species, library: Library) -> dict[str, bool]:
    """What can not be true of a kind, and whether it stands so."""
    return {
        "shape is not in body_shapes.csv": row.shape not in body_shapes() and row.adult_mass_g is None,
        "turnover is not in turnover.csv": row.turnover not in library.turnovers,
        "temperature range is upside down": row.temp_low_c >= row.temp_high_c,
        "pH range is upside down": row.ph_low >= row.ph_high,
        "hardness range is upside down": row.gh_low_dgh >= row.gh_high_dgh,
        "salinity range is upside down": row.salinity_low_ppt > row.salinity_high_ppt,
        "carbonate range is upside down": row.kh_low_dkh >= row.kh_high_dkh,
        "shock class is not in shock.csv": row.shock_class not in library.shock_classes,
        "litres are upside down": row.litres_low > row.litres_high,
        "protein is not a share": not 0 < row.protein_frac < 1,
        "adult length is none": not 0.2 <= row.adult_length_cm <= 200,
        "growth is none": row.growth_per_year <= 0,
        "least company is none": row.group_least < 1,
        "gape is not a share of its length": not 0 <= row.gape_frac <= 3,
        "litres are none": row.litres_low <= 0,
        "it breeds as a kind whose breeding is not known": bool(row.breeds_as)
        and row.breeds_as not in library.breeding,
    }
