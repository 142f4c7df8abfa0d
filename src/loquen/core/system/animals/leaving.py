"""Who jumps or climbs out, under the lid and from the height of the glass."""

from loquen.core.graph.nodes import Verdict, check
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Lid
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.system.animals.food import require_animals

SLIPS_OUT = ("eel", "frog", "salamander")
"""Bodies that a gap for a pipe lets out."""


def held(kind: Species, length_cm: float, free_cm: float) -> bool:
    """Whether the bare glass over the water holds a turtle: it does not climb what is higher than it is long."""
    return kind.shape == "turtle" and free_cm > length_cm


KEEPS_IN = ("nobody", "jumpers", "all")


@check("None can leave", stage="animals", mends=("heat.lid", "heat.hot_day_lid"))
def none_leaves(
    animal: tuple[Species, ...],
    length_then_cm: tuple[float, ...],
    lid_row: Lid,
    hot_lid_row: Lid,
    inside_height_cm: float,
    water_height_cm: float,
) -> Verdict:
    require_animals(animal)
    # Judged on the day on which it keeps the fewest in.
    keeps_in = min((lid_row.keeps_in, hot_lid_row.keeps_in), key=KEEPS_IN.index)
    free_cm = inside_height_cm - water_height_cm
    leaving = list(dict.fromkeys(kind for kind in animal if kind.jumper))
    if not leaving:
        return Verdict("holds", 1.0, say("no jumper"), say("None of these is known to jump or climb."))
    leavers = ", ".join(kind.common for kind in leaving)
    if keeps_in == "all":
        return Verdict("holds", 1.0, say("lid closed"), say("{who} jump or climb; the lid is closed.", who=leavers))
    if keeps_in == "jumpers":
        slim = ", ".join(kind.common for kind in leaving if kind.shape in SLIPS_OUT)
        if not slim:
            reason = say("{who} jump; the glass lies over them.", who=leavers)
            return Verdict("holds", 1.0, say("lid closed"), reason)
        reason = say("{who} climb and slip through what is left open for a pipe: stop every gap.", who=slim)
        return Verdict("tight", 0.0, say("gaps in the lid"), reason)
    if all(held(kind, length, free_cm) for kind, length in zip(animal, length_then_cm, strict=True) if kind.jumper):
        text = "{who} climb: the glass stands {free} over the water, more than their shell; measure from the highest foothold."
        reason = say(text, who=leavers, free=Term(free_cm, "length"))
        return Verdict("tight", 0.0, say("glass over their reach"), reason)
    reason = say("{who} jump or climb: the lid has to close, measured from the highest foothold.", who=leavers)
    return Verdict("short", -1.0, say("lid not closed"), reason)
