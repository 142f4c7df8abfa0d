"""Ions and salts: numbers of chemistry, the same in every library."""

from dataclasses import dataclass
from functools import cache

from loquen.core.data.tables import Table, read_csv


@dataclass(frozen=True, slots=True)
class Ion:
    """An ion with its limiting conductivity per equivalent at 25 °C."""

    key: str
    label: str
    g_mol: float
    charge: int
    conductivity_s_cm2_eq: float
    source: str


@dataclass(frozen=True, slots=True)
class MineralSalt:
    """A salt by what one mole of it gives: moles of Ca + Mg, equivalents of alkalinity, moles of each ion."""

    key: str
    label: str
    formula: str
    g_mol: float
    hardness_mol: float
    alkalinity_eq: float
    calcium_mol: float
    magnesium_mol: float
    sodium_mol: float
    potassium_mol: float
    chloride_mol: float
    sulfate_mol: float
    source: str


@cache
def ions() -> Table[Ion]:
    return read_csv("ions.csv", Ion)


@cache
def mineral_salts() -> Table[MineralSalt]:
    return read_csv("mineral_salts.csv", MineralSalt)
