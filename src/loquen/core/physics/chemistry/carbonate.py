"""The carbonate balance: pH, carbonate hardness, CO2 and the solubility of lime."""

import math
from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.physics.chemistry.ammonia import kelvin
from loquen.core.physics.elementwise import exp, log10, sqrt
from loquen.core.physics.ranges import Number, choice, within

MEQ_L_PER_DKH = 0.35665
CO2_G_MOL = 44.0095
CALCIUM_G_MOL = 40.078
LN_10 = math.log(10)
LEAST_DKH, MOST_DKH = 0.02, 40.0
"""As far as these relations go."""


@dataclass(frozen=True, slots=True)
class Carbonic:
    """What temperature sets of the balance: both constants of carbonic acid, and Davies' slope −A·ln 10."""

    k1: Number
    k2: Number
    davies: Number


def carbonic_at(temp_c: Number) -> Carbonic:
    """The balance at a temperature, scalar or array."""
    k = kelvin(temp_c)
    permittivity = 87.740 - 0.40008 * temp_c + 9.398e-4 * temp_c**2 - 1.410e-6 * temp_c**3
    davies = -LN_10 * 1.82483e6 * (permittivity * k) ** -1.5
    return Carbonic(10 ** -carbonic_pk1(temp_c), 10 ** -carbonic_pk2(temp_c), davies)


def davies_gamma(ionic_mol_l: Number, carbonic: Carbonic) -> Number:
    """Activity coefficient of a singly charged ion (Davies), A from water's permittivity."""
    root = sqrt(ionic_mol_l)
    return exp(carbonic.davies * (root / (1 + root) - 0.3 * ionic_mol_l))


def carbonic_pk1(temp_c: Number) -> Number:
    """First dissociation constant of carbonic acid (Plummer & Busenberg 1982), as −log10."""
    k = kelvin(temp_c)
    return 356.3094 + 0.06091964 * k - 21834.37 / k - 126.8339 * log10(k) + 1684915 / k**2


def carbonic_pk2(temp_c: Number) -> Number:
    """Second dissociation constant of carbonic acid (Plummer & Busenberg 1982), as −log10."""
    k = kelvin(temp_c)
    return 107.8871 + 0.03252849 * k - 5151.79 / k - 38.92561 * log10(k) + 563713.9 / k**2


def carbon_dioxide_mol_l(temp_c: Number, co2_ppm: float) -> Number:
    """Dissolved CO2 in balance with air (Plummer & Busenberg 1982), mol/L at one atmosphere."""
    k = kelvin(temp_c)
    log_k = 108.3865 + 0.01985076 * k - 6919.53 / k - 40.45154 * log10(k) + 669365 / k**2
    return 10**log_k * co2_ppm * 1e-6


def hydrogen_mol_l(alkalinity_mol_l: Number, co2_mol_l: Number, carbonic: Carbonic) -> Number:
    """10^−pH at which bicarbonate and carbonate in balance with this CO2 add up to the alkalinity.

    Solved for the bicarbonate b: b + 2·K2·b²/(γ²·K1·CO2) = alkalinity, a quadratic; {H} = K1·CO2/(γ·b).
    """
    gamma = davies_gamma(alkalinity_mol_l, carbonic)
    active, gives = gamma * alkalinity_mol_l, carbonic.k1 * co2_mol_l
    return gives / 2 * (1 + sqrt(1 + 8 * carbonic.k2 / gives * active / (gamma * gamma * gamma))) / active


def ph_of_carbonate(alkalinity_mol_l: Number, co2_mol_l: Number, temp_c: Number) -> Number:
    """pH at which bicarbonate and carbonate in balance with this CO2 add up to the alkalinity."""
    return -log10(hydrogen_mol_l(alkalinity_mol_l, co2_mol_l, carbonic_at(temp_c)))


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

    >>> round(ph_from_kh_co2(kh_dkh=4, co2_mg_l=15), 3)
    6.955
    """
    within("kh_dkh", kh_dkh, 0.02, 40, "dKH")
    within("co2_mg_l", co2_mg_l, 0.05, 2000, "mg/L")
    within("temp_c", temp_c, 0, 45, "°C")
    return float(ph_of_carbonate(kh_dkh * MEQ_L_PER_DKH / 1000, co2_mg_l / CO2_G_MOL / 1000, temp_c))


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

    >>> round(aerated_ph(kh_dkh=4, temp_c=25), 3)
    8.323
    """
    within("kh_dkh", kh_dkh, 0.02, 40, "dKH")
    within("temp_c", temp_c, 0, 45, "°C")
    within("co2_ppm", co2_ppm, 100, 10_000, "ppm")
    return float(ph_of_carbonate(kh_dkh * MEQ_L_PER_DKH / 1000, carbon_dioxide_mol_l(temp_c, co2_ppm), temp_c))


def bicarbonate_and_carbonate_mol_l(alkalinity_mol_l: float, ph: float, temp_c: float) -> tuple[float, float]:
    """How an alkalinity divides between bicarbonate and carbonate ion at a pH."""
    gamma = float(davies_gamma(alkalinity_mol_l, carbonic_at(temp_c)))
    # [CO3]/[HCO3] = K2·γ1/(γ2·{H}), and γ2 = γ1⁴ for Davies' form.
    ratio = 10 ** (ph - carbonic_pk2(temp_c)) / gamma**3
    bicarbonate = alkalinity_mol_l / (1 + 2 * ratio)
    return bicarbonate, bicarbonate * ratio


# Solubility products after Plummer & Busenberg: log K = a + b·T + c/T + d·log T.
LIME = {
    "calcite": (-171.9065, -0.077993, 2839.319, 71.595),
    "aragonite": (-171.9773, -0.077993, 2903.293, 71.595),
}


def saturation_index(
    ph: float, kh_dkh: float, calcium_mg_l: float, temp_c: float = 25.0, mineral: str = "calcite"
) -> float:
    """How far water is from balance with lime: below 0 it dissolves, above 0 scale forms.

    Equation: SI = log10({Ca}·{CO3}/K)
    Parameters:
        ph: pH, scalar, 4 to 11. Of the water.
        kh_dkh: dKH, scalar, 0.02 to 40. Carbonate hardness.
        calcium_mg_l: mg/L, scalar, 0.1 to 2000. Calcium.
        temp_c: °C, scalar, 0 to 45. Of the water.
        mineral: one of calcite, aragonite (coral sand and shells).
    Returns: 1, scalar.
    Raises: OutOfRange; UnknownKey.
    Source: plummer1982

    >>> round(saturation_index(ph=7.4093, kh_dkh=4, calcium_mg_l=28.587), 4)
    -0.5565
    """
    within("ph", ph, 4, 11, "pH")
    within("kh_dkh", kh_dkh, 0.02, 40, "dKH")
    within("calcium_mg_l", calcium_mg_l, 0.1, 2000, "mg/L")
    within("temp_c", temp_c, 0, 45, "°C")
    a, b, c, d = choice("kinds of lime", LIME, mineral)
    k = float(kelvin(temp_c))
    log_k = a + b * k + c / k + d * math.log10(k)
    calcium, alkalinity = calcium_mg_l / CALCIUM_G_MOL / 1000, kh_dkh * MEQ_L_PER_DKH / 1000
    _, carbonate = bicarbonate_and_carbonate_mol_l(alkalinity, ph, temp_c)
    # Each calcium of a hard water comes with two charges of something else.
    gamma = float(davies_gamma(max(alkalinity, 3 * calcium), carbonic_at(temp_c)))
    return math.log10(calcium * gamma**4 * carbonate * gamma**4) - log_k


def lime_ceiling_dkh(
    kh_dkh: float, calcium_mg_l: float, co2_mg_l: float, temp_c: float = 25.0, mineral: str = "aragonite"
) -> float:
    """Carbonate hardness at which water stops dissolving lime, at the CO2 it has.

    Equation: SI = 0 after x mol/L of CaCO3 dissolved: KH + 2·x, Ca + x
    Parameters:
        kh_dkh: dKH, scalar, 0.02 to 40. Before.
        calcium_mg_l: mg/L, scalar, 0.1 to 2000. Before.
        co2_mg_l: mg/L, scalar, 0.05 to 200. Of the tank.
        temp_c: °C, scalar, 0 to 45. Of the water.
        mineral: one of calcite, aragonite.
    Returns: dKH, scalar.
    Raises: OutOfRange; UnknownKey; NamedCase "already_saturated" when nothing dissolves, "dissolves_on" when it
        does so beyond the range.
    Source: plummer1982

    >>> round(lime_ceiling_dkh(kh_dkh=1.1215, calcium_mg_l=8.0156, co2_mg_l=3), 3)
    5.814
    """
    within("co2_mg_l", co2_mg_l, 0.05, 200, "mg/L")

    def index(rise_dkh: float) -> float:
        kh = kh_dkh + rise_dkh
        calcium = calcium_mg_l + rise_dkh * MEQ_L_PER_DKH / 2 * CALCIUM_G_MOL
        return saturation_index(ph_from_kh_co2(kh, co2_mg_l, temp_c), kh, calcium, temp_c, mineral)

    if index(0.0) >= 0:
        raise NamedCase("already_saturated", kh=kh_dkh)
    if index(MOST_DKH - kh_dkh) < 0:
        raise NamedCase("dissolves_on", most_dkh=MOST_DKH)
    from scipy.optimize import brentq

    return kh_dkh + float(brentq(index, 0.0, MOST_DKH - kh_dkh, xtol=1e-6))


def saturated_kh_dkh(
    calcium_mg_l: float, co2_mg_l: float, temp_c: float = 25.0, mineral: str = "aragonite"
) -> float:
    """Carbonate hardness in balance with lime at the calcium and CO2 that a water has: under it lime dissolves.

    Equation: SI(KH) = 0
    Parameters:
        calcium_mg_l: mg/L, scalar, 0.1 to 2000.
        co2_mg_l: mg/L, scalar, 0.05 to 200. Of the tank.
        temp_c: °C, scalar, 0 to 45. Of the water.
        mineral: one of calcite, aragonite.
    Returns: dKH, scalar.
    Raises: OutOfRange; UnknownKey.
    Source: plummer1982

    >>> at = saturated_kh_dkh(calcium_mg_l=41.7, co2_mg_l=3)
    >>> abs(saturation_index(ph_from_kh_co2(at, 3), at, 41.7, mineral="aragonite")) < 1e-6
    True
    """
    within("co2_mg_l", co2_mg_l, 0.05, 200, "mg/L")
    from scipy.optimize import brentq

    def index(kh_dkh: float) -> float:
        return saturation_index(ph_from_kh_co2(kh_dkh, co2_mg_l, temp_c), kh_dkh, calcium_mg_l, temp_c, mineral)

    if index(LEAST_DKH) >= 0:
        return LEAST_DKH
    return MOST_DKH if index(MOST_DKH) <= 0 else float(brentq(index, LEAST_DKH, MOST_DKH, xtol=1e-6))
