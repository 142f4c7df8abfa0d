"""What a builder takes from a sheet, one list a file."""

from loquen.core.system.build.buying import PartLine, parts
from loquen.core.system.build.cutting import Hole, Pane, holes_near_edges, panes
from loquen.core.system.build.pipework import PipeLine, pipework
from loquen.core.system.build.power import Load, loads
from loquen.core.system.build.quoting import Quote, quote, system_quote
from loquen.core.system.build.service import CAUTIONS, Trial, trials

__all__ = [
    "CAUTIONS",
    "Hole",
    "Load",
    "Pane",
    "PartLine",
    "PipeLine",
    "Quote",
    "Trial",
    "holes_near_edges",
    "loads",
    "panes",
    "parts",
    "pipework",
    "quote",
    "system_quote",
    "trials",
]
