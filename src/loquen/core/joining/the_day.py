"""What is done on the day on which newcomers join, and where one goes that is hunted."""

from collections.abc import Iterable, Sequence

from loquen.core.joining.batches import HOLDS_GROUND, Joins
from loquen.core.library.rows.animals import Species
from loquen.core.model.inputs.quantity import Sentence, say


def list_of_the_day(joins: Sequence[Joins], residents: Iterable[Species], spare: Sequence[str]) -> list[Sentence]:
    """In the order in which it is done: the spare place, the ground, food, light, and who is watched."""
    here = list(residents)
    ground = [kind for kind in here if kind.temper in HOLDS_GROUND]
    coming = any(row.kind.temper in HOLDS_GROUND for row in joins)
    found = [
        say("A place for one that is hunted: {where} is empty, and its water suits.", where=spare[0])
        if spare
        else say("No empty tub suits: keep a box with a lid and an air stone ready for one that is hunted."),
    ]
    if ground:
        who = ", ".join(dict.fromkeys(kind.common for kind in ground))
        found.append(
            say("Set the rocks and wood anew before they go in: {who} then hold no ground that they know.", who=who)
        )
    if here:
        found.append(say("Feed those who live there at the moment of release, away from it."))
    if coming:
        found.append(
            say(
                "Young that were raised together know their ranks; grown ones from several places go in on one day, the "
                "females and the smaller first."
            )
        )
    found.append(say("Lights down, and off until the next morning."))
    if ground or coming:
        found.append(
            say("Watch for an hour, again before dark and at dawn: torn fins, one in a corner at the surface.")
        )
    elif here:
        found.append(say("Look at dawn whether all come to food."))
    return found
