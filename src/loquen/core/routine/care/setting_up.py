"""A system that is planned: it wants to be built and set up, and nothing else yet."""

from loquen.core.data.tables import constants
from loquen.core.events.kinds.keeping import Noted
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import say
from loquen.core.model.roots.plan import Plan
from loquen.core.routine.duty import Duty
from loquen.core.routine.recurring import Rhythm

EVERY_D = 7
SET_UP = "set_up"
"""The key of the duty that is done once somebody says that it is set up."""


def setting_up(_: Sheet[Plan]) -> tuple[Duty, ...]:
    """What is planned is bought and built; then somebody says that it stands, and how its filter is begun."""
    return (
        Duty(
            key=SET_UP,
            kind="supply",
            words=say("Buy and build it by its build book; once it stands filled, say that it is set up."),
            why=say("It is planned: nothing in it wants care before it stands."),
            rhythm=Rhythm(every_d=EVERY_D),
            minutes=constants("routine.toml")["feeding_min"].value,
            event=Noted("looked at: not set up yet"),
            page="cycle",
        ),
    )
