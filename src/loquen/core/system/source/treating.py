"""What every litre that comes in asks before it may: millilitres of conditioner, carbon, or standing, in words."""

from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.system.source.disinfectant import CONDITIONED


def conditioner_ml(sheet: Sheet[Plan], litres: float) -> float | None:
    """Conditioner for so many litres of the change water; None where none is dosed.

    Parameters:
        litres: volume, scalar, 0 or more.
    Returns: millilitres.
    Source: practice
    """
    per_100_l = number(sheet, "label_ml")
    if per_100_l is None or sheet.root.water.treatment not in CONDITIONED:
        return None
    return litres / 100 * per_100_l


def treated_first(sheet: Sheet[Plan], litres: float) -> Sentence | None:
    """What so many litres of the change water ask before they go in; None where it carries nothing.

    Water for a tub, a bucket or a top-up is always treated in what it is carried in, whatever is done at a change.
    """
    if sheet.value("present_disinfectant") == "none":
        return None
    water = sheet.root.water
    dose = conditioner_ml(sheet, litres)
    if dose is not None:
        told = " (nobody knows its tap yet: reckoned as chloramine)" if sheet.value("tap_untold") else ""
        return say("{dose} of conditioner in it first" + told, dose=Term(dose, "dose"))
    if water.treatment == "carbon":
        return say(
            "through the carbon at {flow} or slower, and tested behind it", flow=Term(water.carbon_lph, "flow")
        )
    if water.treatment == "aged":
        return say("of what has stood for {hours}, and tested", hours=Term(water.aged_h, "hours"))
    return say("never as it comes: nothing takes its disinfectant out yet")


def with_treatment(sheet: Sheet[Plan], words: Sentence, litres: float) -> Sentence:
    """An errand that brings water in, and what that water asks first."""
    first = treated_first(sheet, litres)
    if first is None:
        return words
    return Sentence(f"{words.text.rstrip('.')}, {first.text}.", {**words.terms, **first.terms})
