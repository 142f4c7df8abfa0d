"""Ammonia and nitrite: the share that harms, and what holds it off."""

import numpy as np

from loquen.core.physics.ranges import Number, within


def kelvin(temp_c: Number) -> Number:
    return temp_c + 273.15


def ammonium_pka(temp_c: Number, salinity_ppt: Number = 0.0) -> Number:
    """Where half of total ammonia is un-ionised, as a pH.

    Equation: pKa = 0.09018 + 2729.92/K, + 0.0045·S above 5 ppt
    Parameters:
        temp_c: °C, scalar or array, 0 to 45. Of the water.
        salinity_ppt: ppt, scalar or array, 0 to 45. Used above 5 only.
    Returns: pH, as broadcast.
    Raises: OutOfRange.
    Source: emerson1975

    >>> round(ammonium_pka(temp_c=25), 3)
    9.246
    """
    within("temp_c", temp_c, 0, 45, "°C")
    within("salinity_ppt", salinity_ppt, 0, 45, "ppt")
    pka = 0.09018 + 2729.92 / kelvin(temp_c) + 0.0045 * np.where(np.asarray(salinity_ppt) > 5, salinity_ppt, 0.0)
    return float(pka) if np.ndim(pka) == 0 else pka


def ammonia_fraction(ph: Number, temp_c: Number, salinity_ppt: Number = 0.0) -> Number:
    """Share of total ammonia that is un-ionised.

    Equation: f = 1/(1 + 10^(pKa − pH)), pKa = 0.09018 + 2729.92/K, + 0.0045·S above 5 ppt
    Parameters:
        ph: pH, scalar or array, 0 to 14. Of the water.
        temp_c: °C, scalar or array, 0 to 45. Of the water.
        salinity_ppt: ppt, scalar or array, 0 to 45. Used above 5 only.
    Returns: share, as broadcast.
    Raises: OutOfRange.
    Source: emerson1975

    >>> round(ammonia_fraction(ph=8.0, temp_c=25), 5)
    0.05366
    """
    within("ph", ph, 0, 14, "pH")
    share = 1 / (1 + 10 ** (ammonium_pka(temp_c, salinity_ppt) - ph))
    return float(share) if np.ndim(share) == 0 else share


def nitrite_limit_mg_l(
    chloride_mg_l: Number,
    chloride_per_nitrite: Number = 20.0,
    least_mg_l: Number = 0.1,
    most_mg_l: Number = 1.0,
) -> Number:
    """Nitrite that animals may live in, by the chloride that keeps it out of them.

    Equation: least under 20 mg/L of chloride, else Cl/20 up to most
    Parameters:
        chloride_mg_l: mg/L, scalar or array, 0 to 40000. Chloride of the water.
        chloride_per_nitrite: mg/L of chloride per mg/L N, scalar or array, 1 to 1000. That keeps it out.
        least_mg_l: mg/L N, scalar or array, 0 to 100. Borne in water without chloride.
        most_mg_l: mg/L N, scalar or array, 0 to 100. Never more than this.
    Returns: mg/L N, as chloride_mg_l.
    Raises: OutOfRange.
    Source: lewismorris1986

    >>> round(nitrite_limit_mg_l(chloride_mg_l=5), 4)
    0.1
    """
    within("chloride_mg_l", chloride_mg_l, 0, 40_000, "mg/L")
    within("chloride_per_nitrite", chloride_per_nitrite, 1, 1000, "mg/L per mg/L N")
    within("least_mg_l", least_mg_l, 0, 100, "mg/L N")
    within("most_mg_l", most_mg_l, 0, 100, "mg/L N")
    guarded = np.minimum(np.asarray(chloride_mg_l) / chloride_per_nitrite, most_mg_l)
    limit = np.where(np.asarray(chloride_mg_l) < chloride_per_nitrite, least_mg_l, guarded)
    return float(limit) if np.ndim(limit) == 0 else limit


def chloride_for_nitrite_mg_l(nitrite_mg_l: Number, chloride_per_nitrite: Number = 20.0) -> Number:
    """Chloride at which a nitrite level does little harm.

    Equation: Cl = 20·NO2-N
    Parameters:
        nitrite_mg_l: mg/L N, scalar or array, 0 to 1000. Nitrite.
        chloride_per_nitrite: mg/L of chloride per mg/L N, scalar or array, 1 to 1000. That keeps it out.
    Returns: mg/L, as nitrite_mg_l.
    Raises: OutOfRange.
    Source: lewismorris1986

    >>> round(chloride_for_nitrite_mg_l(nitrite_mg_l=2), 2)
    40.0
    """
    within("nitrite_mg_l", nitrite_mg_l, 0, 1000, "mg/L N")
    within("chloride_per_nitrite", chloride_per_nitrite, 1, 1000, "mg/L per mg/L N")
    return chloride_per_nitrite * nitrite_mg_l
