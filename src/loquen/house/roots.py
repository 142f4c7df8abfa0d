"""Which roots a Loquen keeps: one more is registered here."""

from loquen.house.breeding.root import VENTURES
from loquen.house.documents.roots import Roots
from loquen.house.rooms.root import ROOMS
from loquen.house.systems.root import SYSTEMS

ROOTS = Roots((SYSTEMS, ROOMS, VENTURES))
