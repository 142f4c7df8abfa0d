"""Volumes, areas, weights and panes of tanks."""

import math

import numpy as np

from loquen.core.errors import NamedCase
from loquen.core.physics.ranges import Number, choice, within

GRAVITY_M_S2 = 9.80665
WATER_N_MM3 = 9.81e-6
GLASS_N_MM2 = 70_000.0

SPANS = {
    "three_edges": (
        (0.5, 0.667, 1.0, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0),
        (0.085, 0.123, 0.201, 0.358, 0.473, 0.552, 0.677, 0.927, 1.18),
    ),
    "four_edges": (
        (0.5, 0.667, 1.0, 1.5, 2.0, 2.5, 3.0, 4.0),
        (0.085, 0.1156, 0.16, 0.26, 0.32, 0.35, 0.37, 0.385),
    ),
}
BULGES = ((1.0, 1.5, 2.0, 2.5, 3.0), (0.04, 0.17, 0.39, 0.71, 1.1))

FLAT_RAD = 1e-4
"""Below this half angle an arc is told from its chord by less than one in a hundred million."""


LONGEST_RIMLESS = 5.0
"""Lengths of a rimless pane, in heights of its water, up to which the plate table goes."""


def box_volume_l(length_cm: Number, width_cm: Number, height_cm: Number) -> Number:
    """Volume of a box.

    Equation: V = l·w·h / 1000
    Parameters:
        length_cm: cm, scalar or array, 0 to 10000. Inside length.
        width_cm: cm, scalar or array, 0 to 10000. Inside width, front to back.
        height_cm: cm, scalar or array, 0 to 10000. Height of what fills it.
    Returns: L, as broadcast.
    Raises: OutOfRange.
    Source: definition

    >>> round(box_volume_l(length_cm=100, width_cm=50, height_cm=40), 1)
    200.0
    """
    for name, value in (("length_cm", length_cm), ("width_cm", width_cm), ("height_cm", height_cm)):
        within(name, value, 0, 10_000, "cm")
    return length_cm * width_cm * height_cm / 1000


def segment_area_cm2(chord_cm: float, sagitta_cm: float) -> float:
    """Area of a circular segment, the bow of a bow-front tank.

    Equation: φ = 2·atan(2s/c), half the arc's angle; A = c²/4·(φ − sin φ·cos φ)/sin² φ, nearly 2·c·s/3 when flat
    Parameters:
        chord_cm: cm, scalar, 0.1 to 10000. Length across the bow's ends.
        sagitta_cm: cm, scalar, 0 to 5000. Depth of the bow; 0 is a straight front.
    Returns: cm², scalar.
    Raises: OutOfRange.
    Source: definition

    >>> round(segment_area_cm2(chord_cm=100, sagitta_cm=50))
    3927
    """
    within("chord_cm", chord_cm, 0.1, 10_000, "cm")
    within("sagitta_cm", sagitta_cm, 0, chord_cm / 2, "cm")
    half = 2 * math.atan(2 * sagitta_cm / chord_cm)
    if half < FLAT_RAD:
        return 2 * chord_cm * sagitta_cm / 3
    return chord_cm**2 / 4 * (half - math.sin(half) * math.cos(half)) / math.sin(half) ** 2


def arc_length_cm(chord_cm: float, sagitta_cm: float) -> float:
    """Length of the bowed pane over a chord.

    Equation: φ = 2·atan(2s/c), half the arc's angle; arc = c·φ/sin φ
    Parameters:
        chord_cm: cm, scalar, 0.1 to 10000. Length across the bow's ends.
        sagitta_cm: cm, scalar, 0 to half the chord. Depth of the bow.
    Returns: cm, scalar.
    Raises: OutOfRange.
    Source: definition

    >>> round(arc_length_cm(chord_cm=100, sagitta_cm=50), 1)
    157.1
    """
    within("chord_cm", chord_cm, 0.1, 10_000, "cm")
    within("sagitta_cm", sagitta_cm, 0, chord_cm / 2, "cm")
    half = 2 * math.atan(2 * sagitta_cm / chord_cm)
    return chord_cm * half / math.sin(half) if half >= FLAT_RAD else chord_cm


def sloped_bed_volume_l(length_cm: Number, width_cm: Number, front_cm: Number, back_cm: Number) -> Number:
    """Volume of a bed that rises evenly from front to back.

    Equation: V = l·w·(front + back)/2 / 1000
    Parameters:
        length_cm: cm, scalar or array, 0 to 10000. Inside length.
        width_cm: cm, scalar or array, 0 to 10000. Inside width.
        front_cm: cm, scalar or array, 0 to 200. Depth at the front pane.
        back_cm: cm, scalar or array, 0 to 200. Depth at the back pane.
    Returns: L, as broadcast.
    Raises: OutOfRange.
    Source: definition

    >>> round(sloped_bed_volume_l(length_cm=90, width_cm=45, front_cm=3, back_cm=7), 2)
    20.25
    """
    within("front_cm", front_cm, 0, 200, "cm")
    within("back_cm", back_cm, 0, 200, "cm")
    return box_volume_l(length_cm, width_cm, (front_cm + back_cm) / 2)


def floor_pressure_kpa(mass_kg: Number, length_cm: Number, width_cm: Number) -> Number:
    """Pressure of a standing mass on its footprint.

    Equation: p = m·g / A / 1000
    Parameters:
        mass_kg: kg, scalar or array, 0 to 1e6. Everything that stands there.
        length_cm: cm, scalar or array, 1 to 10000. Footprint length.
        width_cm: cm, scalar or array, 1 to 10000. Footprint width.
    Returns: kPa, as broadcast.
    Raises: OutOfRange.
    Source: definition

    >>> round(floor_pressure_kpa(mass_kg=203.943, length_cm=100, width_cm=100), 3)
    2.0
    """
    within("mass_kg", mass_kg, 0, 1e6, "kg")
    within("length_cm", length_cm, 1, 10_000, "cm")
    within("width_cm", width_cm, 1, 10_000, "cm")
    return mass_kg * GRAVITY_M_S2 / (length_cm * width_cm / 1e4) / 1000


def pane_thickness_mm(
    length_cm: float,
    water_height_cm: float,
    safety_factor: float = 3.8,
    strength_mpa: float = 19.2,
    support: str = "three_edges",
) -> float:
    """Thickness of an annealed float-glass pane under water.

    Equation: t = √(β·ρg·H³ / (strength / safety)), β from the length-to-height table of the support
    Parameters:
        length_cm: cm, scalar, 1 to 1000. Free length of the pane.
        water_height_cm: cm, scalar, 1 to 200. Water standing against it.
        safety_factor: 1, scalar, 1 to 10. On the glass's strength.
        strength_mpa: MPa, scalar, 1 to 200. Bending strength of annealed glass.
        support: one of three_edges (top free), four_edges (braced all along the top).
    Returns: mm, scalar. Below a ratio of 0.5 the table's first value is used, which errs thick.
    Raises: OutOfRange; UnknownKey; NamedCase "pane_too_long" above five times as long as high
        with a free top edge.
    Source: timoshenko

    >>> round(pane_thickness_mm(length_cm=90, water_height_cm=45), 3)
    9.148
    """
    within("length_cm", length_cm, 1, 1000, "cm")
    within("water_height_cm", water_height_cm, 1, 200, "cm")
    within("safety_factor", safety_factor, 1, 10, "1")
    within("strength_mpa", strength_mpa, 1, 200, "MPa")
    ratios, betas = choice("pane supports", SPANS, support)
    ratio = length_cm / water_height_cm
    if support == "three_edges" and ratio > ratios[-1]:
        raise NamedCase("pane_too_long", ratio=ratio, limit=ratios[-1])
    beta = float(np.interp(ratio, ratios, betas))
    return math.sqrt(beta * WATER_N_MM3 * (10 * water_height_cm) ** 3 / (strength_mpa / safety_factor))


def pane_bulge_mm(length_cm: float, water_height_cm: float, thickness_mm: float) -> float:
    """How far the free top edge of a rimless pane bows out.

    Equation: δ = α·ρg·H⁵ / (E·t³), α from the length-to-height table
    Parameters:
        length_cm: cm, scalar, 1 to 1000. Free length of the pane.
        water_height_cm: cm, scalar, 1 to 200. Water standing against it.
        thickness_mm: mm, scalar, 2 to 100. The pane.
    Returns: mm, scalar. Below a ratio of 1 the table's first value is used, which errs large.
    Raises: OutOfRange; NamedCase "bulge_not_tabled" above three times as long as high.
    Source: timoshenko

    >>> round(pane_bulge_mm(length_cm=90, water_height_cm=45, thickness_mm=10), 3)
    1.009
    """
    within("length_cm", length_cm, 1, 1000, "cm")
    within("water_height_cm", water_height_cm, 1, 200, "cm")
    within("thickness_mm", thickness_mm, 2, 100, "mm")
    ratio = length_cm / water_height_cm
    if ratio > BULGES[0][-1]:
        raise NamedCase("bulge_not_tabled", ratio=ratio, limit=BULGES[0][-1])
    alpha = float(np.interp(ratio, *BULGES))
    return alpha * WATER_N_MM3 * (10 * water_height_cm) ** 5 / (GLASS_N_MM2 * thickness_mm**3)


def footprint_cm2(
    shape: str, length_cm: float, width_cm: float, bow_cm: float = 0.0, notch_cm2: float = 0.0
) -> float:
    """Floor that a tank of a shape covers inside.

    Equation: box L·W; bow front L·W + segment; cylinder, quarter round π·L²/4; hexagon 3√3/8·L²; L shape L·W − notch
    Parameters:
        shape: one of box, bow_front, quarter_round, cylinder, hexagon, l_shape.
        length_cm: cm, scalar, 0 to 10000. Length inside; diameter, radius of a quarter, corner to corner.
        width_cm: cm, scalar, 0 to 10000. Width inside, of those that have one.
        bow_cm: cm, scalar, 0 to 10000. How far the front bows out.
        notch_cm2: cm², scalar, 0 to 1e8. Corner that an L shape lacks.
    Returns: cm², scalar.
    Raises: OutOfRange; UnknownKey.
    Source: definition

    >>> round(footprint_cm2(shape="box", length_cm=100, width_cm=40))
    4000
    """
    within("length_cm", length_cm, 0, 10_000, "cm")
    within("width_cm", width_cm, 0, 10_000, "cm")
    within("notch_cm2", notch_cm2, 0, 1e8, "cm2")
    round_cm2 = math.pi * length_cm**2 / 4
    covered = {
        "box": lambda: length_cm * width_cm,
        "bow_front": lambda: length_cm * width_cm + (segment_area_cm2(length_cm, bow_cm) if bow_cm else 0.0),
        "quarter_round": lambda: round_cm2,
        "cylinder": lambda: round_cm2,
        "hexagon": lambda: 3 * math.sqrt(3) / 8 * length_cm**2,
        "l_shape": lambda: length_cm * width_cm - notch_cm2,
    }
    return choice("shapes", covered, shape)()
