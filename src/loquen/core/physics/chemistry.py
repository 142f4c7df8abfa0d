"""Ammonia's poisonous share and the carbonate balance."""

import math

import numpy as np

from loquen.core.physics.ranges import Number, within

MEQ_L_PER_DKH = 0.35665
CO2_G_MOL = 44.0095


def kelvin(temp_c: Number) -> Number:
    return temp_c + 273.15


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
    """
    within("ph", ph, 0, 14, "pH")
    within("temp_c", temp_c, 0, 45, "°C")
    within("salinity_ppt", salinity_ppt, 0, 45, "ppt")
    pka = 0.09018 + 2729.92 / kelvin(temp_c) + 0.0045 * np.where(np.asarray(salinity_ppt) > 5, salinity_ppt, 0.0)
    share = 1 / (1 + 10 ** (pka - ph))
    return float(share) if np.ndim(share) == 0 else share


def davies_gamma(ionic_mol_l: float, temp_c: float) -> float:
    """Activity coefficient of a singly charged ion (Davies), A from water's permittivity."""
    k = kelvin(temp_c)
    permittivity = 87.740 - 0.40008 * temp_c + 9.398e-4 * temp_c**2 - 1.410e-6 * temp_c**3
    a = 1.82483e6 * (permittivity * k) ** -1.5
    root = math.sqrt(ionic_mol_l)
    return float(10 ** (-a * (root / (1 + root) - 0.3 * ionic_mol_l)))


def carbonic_pk1(temp_c: float) -> float:
    """First dissociation constant of carbonic acid (Plummer & Busenberg 1982), as −log10."""
    k = float(kelvin(temp_c))
    return 356.3094 + 0.06091964 * k - 21834.37 / k - 126.8339 * math.log10(k) + 1684915 / k**2


def carbonic_pk2(temp_c: float) -> float:
    """Second dissociation constant of carbonic acid (Plummer & Busenberg 1982), as −log10."""
    k = float(kelvin(temp_c))
    return 107.8871 + 0.03252849 * k - 5151.79 / k - 38.92561 * math.log10(k) + 563713.9 / k**2


def carbon_dioxide_mol_l(temp_c: float, co2_ppm: float) -> float:
    """Dissolved CO2 in balance with air (Plummer & Busenberg 1982), mol/L at one atmosphere."""
    k = kelvin(temp_c)
    log_k = 108.3865 + 0.01985076 * k - 6919.53 / k - 40.45154 * math.log10(k) + 669365 / k**2
    return float(10**log_k * co2_ppm * 1e-6)


def ph_of_carbonate(alkalinity_mol_l: float, co2_mol_l: float, temp_c: float) -> float:
    """pH at which bicarbonate and carbonate in balance with this CO2 add up to the alkalinity.

    Solved for the bicarbonate b: b + 2·K2·b²/(γ²·K1·CO2) = alkalinity, a quadratic.
    """
    gamma = davies_gamma(alkalinity_mol_l, temp_c)
    k1, k2 = 10 ** -carbonic_pk1(temp_c), 10 ** -carbonic_pk2(temp_c)
    curve = 2 * k2 / (gamma**2 * k1 * co2_mol_l)
    bicarbonate = (math.sqrt(1 + 4 * curve * alkalinity_mol_l) - 1) / (2 * curve)
    return carbonic_pk1(temp_c) + math.log10(gamma * bicarbonate / co2_mol_l)


def ph_from_kh_co2(kh_dkh: float, co2_mg_l: float, temp_c: float = 25.0) -> float:
    """pH that a carbonate hardness and a CO2 level give together.

    Equation: pH = pK1(T) + log10(γ·[HCO3]/[CO2]), carbonate ion included in the alkalinity
    Parameters:
        kh_dkh: dKH, scalar, 0.02 to 40. Carbonate hardness.
        co2_mg_l: mg/L, scalar, 0.05 to 2000. Dissolved CO2.
        temp_c: °C, scalar, 0 to 45. Of the water.
    Returns: pH, scalar.
    Raises: OutOfRange.
    Source: plummer1982
    """
    within("kh_dkh", kh_dkh, 0.02, 40, "dKH")
    within("co2_mg_l", co2_mg_l, 0.05, 2000, "mg/L")
    within("temp_c", temp_c, 0, 45, "°C")
    return ph_of_carbonate(kh_dkh * MEQ_L_PER_DKH / 1000, co2_mg_l / CO2_G_MOL / 1000, temp_c)


def aerated_ph(kh_dkh: float, temp_c: float = 25.0, co2_ppm: float = 420.0) -> float:
    """pH of water in balance with the air's CO2.

    Equation: [CO2] = K_H(T)·co2_ppm·1e-6, then as ph_from_kh_co2
    Parameters:
        kh_dkh: dKH, scalar, 0.02 to 40. Carbonate hardness.
        temp_c: °C, scalar, 0 to 45. Of the water.
        co2_ppm: ppm, scalar, 100 to 10000. In the air; 420 outdoors, 600 to 1000 in rooms.
    Returns: pH, scalar.
    Raises: OutOfRange.
    Source: plummer1982
    """
    within("kh_dkh", kh_dkh, 0.02, 40, "dKH")
    within("temp_c", temp_c, 0, 45, "°C")
    within("co2_ppm", co2_ppm, 100, 10_000, "ppm")
    return ph_of_carbonate(kh_dkh * MEQ_L_PER_DKH / 1000, carbon_dioxide_mol_l(temp_c, co2_ppm), temp_c)
