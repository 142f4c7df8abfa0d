"""Hardness, salts by weight, dissolved solids and conductivity."""

import math
from collections.abc import Mapping

from loquen.core.data.minerals import ions, mineral_salts
from loquen.core.physics.chemistry.carbonate import MEQ_L_PER_DKH
from loquen.core.physics.ranges import Number, within

MMOL_L_PER_DGH = 0.17833
SODIUM_G_MOL = 22.98977


def salt_for_degree_mg_l(salt: str) -> float:
    """Weight of a salt that raises a litre by one German degree.

    Equation: m = M·0.17833 for each Ca or Mg of a dGH; m = M·0.35665 for each HCO3 of a dKH
    Parameters:
        salt: a key of mineral_salts.csv.
    Returns: mg/L per dGH for calcium and magnesium salts (of both, where it gives both), per dKH for bicarbonates.
    Raises: UnknownKey.
    Source: iupac

    >>> round(salt_for_degree_mg_l(salt="gypsum"), 2)
    30.7
    """
    row = mineral_salts()[salt]
    if row.hardness_mol > 0:
        return row.g_mol * MMOL_L_PER_DGH / row.hardness_mol
    return row.g_mol * MEQ_L_PER_DKH / row.alkalinity_eq


def dissolved_solids_mg_l(conductivity_us_cm: Number, factor: Number = 0.64) -> Number:
    """Dissolved solids that a conductivity stands for.

    Equation: TDS = factor·κ
    Parameters:
        conductivity_us_cm: µS/cm, scalar or array, 0 to 100000. At 25 °C.
        factor: 1, scalar or array, 0.4 to 0.8. Of the meter; 0.5 to 0.7 usual.
    Returns: mg/L, as broadcast.
    Raises: OutOfRange.
    Source: practice

    >>> round(dissolved_solids_mg_l(conductivity_us_cm=500), 1)
    320.0
    """
    within("conductivity_us_cm", conductivity_us_cm, 0, 100_000, "µS/cm")
    within("factor", factor, 0.4, 0.8, "1")
    return conductivity_us_cm * factor


def conductivity_us_cm(ions_mg_l: Mapping[str, float]) -> float:
    """Conductivity at 25 °C of water with these ions.

    Equation: κ = Σ c·λ, λ = λ0 − |z|·(30.1 + 0.229·λ0)·√I/(1 + 1.5·√I), c in meq/L
    Parameters:
        ions_mg_l: mg/L of each ion by its key in ions.csv, each 0 to 40000.
    Returns: µS/cm, scalar; within 10 % up to about 4000.
    Raises: OutOfRange; UnknownKey.
    Source: robinsonstokes1959

    >>> round(conductivity_us_cm(ions_mg_l={"potassium": 390.98, "chloride": 354.53}))
    1416
    """
    for key, amount in ions_mg_l.items():
        within(key, amount, 0, 40_000, "mg/L")
    present = [(ions()[key], amount) for key, amount in ions_mg_l.items()]
    strength = sum(ion.charge**2 * amount / ion.g_mol / 2000 for ion, amount in present)
    drag = math.sqrt(strength) / (1 + 1.5 * math.sqrt(strength))
    total = 0.0
    for ion, amount in present:
        charge, free = abs(ion.charge), ion.conductivity_s_cm2_eq
        total += charge * amount / ion.g_mol * max(0.0, free - charge * (30.1 + 0.229 * free) * drag)
    return total


def softener_sodium_mg_l(hardness_removed_dgh: Number) -> Number:
    """Sodium that a salt-regenerated softener gives for the hardness it takes.

    Equation: Na = 2·0.17833·22.99·ΔGH
    Parameters:
        hardness_removed_dgh: dGH, scalar or array, 0 to 100. Taken out.
    Returns: mg/L, as hardness_removed_dgh.
    Raises: OutOfRange.
    Source: iupac

    >>> round(softener_sodium_mg_l(hardness_removed_dgh=10), 2)
    82.0
    """
    within("hardness_removed_dgh", hardness_removed_dgh, 0, 100, "dGH")
    return 2 * MMOL_L_PER_DGH * SODIUM_G_MOL * hardness_removed_dgh


def softener_days(capacity_dgh_l: float, hardness_dgh: float, litres_d: float) -> float:
    """Days between a softener's regenerations.

    Equation: t = capacity/(hardness·litres)
    Parameters:
        capacity_dgh_l: dGH·L, scalar, 0 to 1e9. Degrees times litres that one charge of salt takes out.
        hardness_dgh: dGH, scalar, 0.1 to 100. Of the raw water.
        litres_d: L/d, scalar, 0.1 to 1e6. Softened a day.
    Returns: d, scalar.
    Raises: OutOfRange.
    Source: balance

    >>> round(softener_days(capacity_dgh_l=30000, hardness_dgh=15, litres_d=200), 2)
    10.0
    """
    within("capacity_dgh_l", capacity_dgh_l, 0, 1e9, "dGH·L")
    within("hardness_dgh", hardness_dgh, 0.1, 100, "dGH")
    within("litres_d", litres_d, 0.1, 1e6, "L/d")
    return capacity_dgh_l / (hardness_dgh * litres_d)
