"""Body mass, growth, food and breath of animals."""

from loquen.core.data.bodies import body_shapes
from loquen.core.physics.elementwise import exp
from loquen.core.physics.ranges import Number, choice, within

FEED_LEVELS = {"light": 0.6, "normal": 1.0, "growing": 1.8}


def body_mass_g(length_cm: Number, shape: str) -> Number:
    """Mass of an animal from its length.

    Equation: m = a·L^b
    Parameters:
        length_cm: cm, scalar or array, 0 to 300. Total length; shell length of turtles, snout to vent of frogs.
        shape: a key of body_shapes.csv.
    Returns: g, as length_cm.
    Raises: OutOfRange; UnknownKey.
    Source: froese2014

    >>> round(body_mass_g(length_cm=10, shape="fusiform"), 2)
    12.28
    """
    within("length_cm", length_cm, 0, 300, "cm")
    body = body_shapes()[shape]
    return body.a * length_cm**body.b


def length_at_age_cm(
    age_d: Number, adult_length_cm: float, growth_per_year: float, start_length_cm: float = 1.0
) -> Number:
    """Length of a growing animal.

    Equation: L = L∞ − (L∞ − L0)·exp(−K·age/365.25)
    Parameters:
        age_d: d, scalar or array, 0 to 73000. Since it had the start length.
        adult_length_cm: cm, scalar, 0.5 to 300. Length it grows towards.
        growth_per_year: 1/year, scalar, 0.01 to 10. Growth constant K.
        start_length_cm: cm, scalar, 0 to adult length. Length at age 0.
    Returns: cm, as age_d.
    Raises: OutOfRange.
    Source: bertalanffy1938

    >>> round(length_at_age_cm(age_d=0, adult_length_cm=10, growth_per_year=2), 3)
    1.0
    """
    within("age_d", age_d, 0, 73_000, "d")
    within("adult_length_cm", adult_length_cm, 0.5, 300, "cm")
    within("growth_per_year", growth_per_year, 0.01, 10, "1/year")
    within("start_length_cm", start_length_cm, 0, adult_length_cm, "cm")
    return adult_length_cm - (adult_length_cm - start_length_cm) * exp(-growth_per_year * age_d / 365.25)


def feed_g_d(
    mass_g: Number, temp_c: Number, level: str = "normal", at_25c: Number = 0.030, warmth_10k: Number = 2.0
) -> Number:
    """Dry feed of one animal a day.

    Equation: F = at_25c·m^0.75·warmth^((T − 25)/10)·level, level 0.6 light, 1 normal, 1.8 growing
    Parameters:
        mass_g: g, scalar or array, 0 to 200000. One animal.
        temp_c: °C, scalar or array, 0 to 45. Water.
        level: one of light, normal, growing.
        at_25c: g/d, scalar or array, 0 to 1. Of an animal of one gram; ±40 %.
        warmth_10k: 1, scalar or array, 1 to 5. Factor over ten kelvin.
    Returns: g/d, as broadcast.
    Raises: OutOfRange; UnknownKey.
    Source: kleiber

    >>> round(feed_g_d(10, 25), 4)
    0.1687
    """
    within("mass_g", mass_g, 0, 200_000, "g")
    within("temp_c", temp_c, 0, 45, "°C")
    within("at_25c", at_25c, 0, 1, "g/d")
    within("warmth_10k", warmth_10k, 1, 5, "1")
    return at_25c * mass_g**0.75 * warmth_10k ** ((temp_c - 25) / 10) * choice("feed levels", FEED_LEVELS, level)


def oxygen_use_mg_h(mass_g: Number, temp_c: Number, at_25c: Number = 0.45, warmth_10k: Number = 1.83) -> Number:
    """Oxygen that one water-breathing animal takes at routine activity.

    Equation: R = at_25c·m^0.80·warmth^((T − 25)/10)
    Parameters:
        mass_g: g, scalar or array, 0 to 200000. One animal.
        temp_c: °C, scalar or array, 0 to 45. Water.
        at_25c: mg/h, scalar or array, 0 to 10. Of an animal of one gram; 0.25 to 0.8.
        warmth_10k: 1, scalar or array, 1 to 5. Factor over ten kelvin.
    Returns: mg/h, as broadcast.
    Raises: OutOfRange.
    Source: clarke1999

    >>> round(oxygen_use_mg_h(10, 25), 3)
    2.839
    """
    within("mass_g", mass_g, 0, 200_000, "g")
    within("temp_c", temp_c, 0, 45, "°C")
    within("at_25c", at_25c, 0, 10, "mg/h")
    within("warmth_10k", warmth_10k, 1, 5, "1")
    return at_25c * mass_g**0.80 * warmth_10k ** ((temp_c - 25) / 10)
