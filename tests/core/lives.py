"""What happened to animals, as the register's lines tell it."""

from loquen.core.events.lines import life_event
from loquen.core.model.records.register import LifeLine


def happened(kind, day, count=1, system=0, to=0, **more):
    return life_event(LifeLine(kind, day, count, system, to, **more))
