"""Who jumps or climbs out, under the lid and from the height of the glass."""

from loquen.core.graph.nodes import Verdict, check
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Lid
from loquen.core.model.inputs.quantity import Term, say
from loquen.core.system.animals.food import require_animals

SLIPS_OUT = ("eel", "frog", "salamander")
"""Bodies that a gap for a pipe lets out."""


def held(kind: Species, length_cm: float, wall_cm: float) -> bool:
    """Whether the bare wall over what it stands on holds a turtle: it does not climb what is higher than it is long."""
    return kind.shape == "turtle" and wall_cm > length_cm


HOOKED_ON = "hang_on"
KEEPS_IN = ("nobody", "jumpers", "all")


def over_reach(
    who: str, wall_cm: float, wanted_cm: float, foothold_cm: float | None, filter_kind: tuple[str, ...]
) -> Verdict:
    """A wall that they do not reach over: safe from one and a half shells on, over footholds that somebody has measured."""
    text = "{who} climb: {free} of bare wall stand over their highest foothold, {wanted} keep them in."
    if HOOKED_ON in filter_kind:
        text += " A filter that hangs on the rim is a step up: fence it off."
    if foothold_cm is None:
        text += " Measure from what they can hook: a filter's top, a rock, a heater's guard."
    reason = say(text, who=who, free=Term(wall_cm, "length", "bare_wall_cm"), wanted=Term(wanted_cm, "length"))
    safe = wall_cm >= wanted_cm and foothold_cm is not None and HOOKED_ON not in filter_kind
    return Verdict("holds" if safe else "tight", 0.0, say("wall over their reach"), reason)


@check("None can leave", stage="animals", mends=("heat.lid", "heat.hot_day_lid", "land.land_above_cm"))
def none_leaves(
    animal: tuple[Species, ...],
    length_then_cm: tuple[float, ...],
    lid_row: Lid,
    hot_lid_row: Lid,
    bare_wall_cm: float,
    foothold_cm: float | None,
    foothold_shells: float,
    filter_kind: tuple[str, ...],
) -> Verdict:
    require_animals(animal)
    # Judged on the day on which it keeps the fewest in.
    keeps_in = min((lid_row.keeps_in, hot_lid_row.keeps_in), key=KEEPS_IN.index)
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
    reach = [(kind, length) for kind, length in zip(animal, length_then_cm, strict=True) if kind.jumper]
    if all(held(kind, length, bare_wall_cm) for kind, length in reach):
        return over_reach(
            leavers, bare_wall_cm, foothold_shells * max(length for _, length in reach), foothold_cm, filter_kind
        )
    reason = say("{who} jump or climb: the lid has to close, measured from the highest foothold.", who=leavers)
    return Verdict("short", -1.0, say("lid not closed"), reason)
