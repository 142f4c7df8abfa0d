"""What a builder takes from a sheet, one list a file."""

from loquen.core.sheet.build.buying import PartLine, parts
from loquen.core.sheet.build.cutting import Hole, Pane, holes_near_edges, panes
from loquen.core.sheet.build.pipework import PipeLine, pipework
from loquen.core.sheet.build.power import Load, loads
from loquen.core.sheet.build.service import CAUTIONS, Trial, trials

__all__ = [
    "CAUTIONS",
    "Hole",
    "Load",
    "Pane",
    "PartLine",
    "PipeLine",
    "Trial",
    "holes_near_edges",
    "loads",
    "panes",
    "parts",
    "pipework",
    "trials",
]
