"""What Sluice Street feeds with, and how the meals of the last weeks went."""

from datetime import datetime, timedelta

from sqlmodel import Session

from loquen.core.events.kinds.keeping import Fed
from loquen.core.model.records.feeding import Kept, Larder, Mix, Part
from loquen.core.model.roots.documents import document
from loquen.store.happened import ledger
from loquen.store.routine import house

FOODS = (
    "flakes",
    "crumbs",
    "colour_granules",
    "soft_granules",
    "meat_pellets",
    "green_pellets",
    "algae_wafers",
    "bottom_tablets",
    "shrimp_biofilm",
    "tree_leaves",
    "frozen_brine",
    "frozen_daphnia",
    "frozen_midge",
    "courgette",
    "water_snails",
    "grindal",
)
LEFT = ("eaten", "eaten", "some", "eaten", "much", "some", "eaten", "eaten")


def fill(session: Session, walk_b: int, now: datetime) -> None:
    """A shelf of usual foods, a green mix, two cultures; Rope Walk B leaves some of its heavy meals."""
    green = Mix(
        "green cake", (Part("green_pellets", 60.0), Part("courgette", 200.0), Part("peas", 120.0)), 120.0, 5.0
    )
    kept = (Kept("grindal_box", 2), Kept("snail_tub", 1))
    house.put(session, house.LARDER, document(Larder(FOODS, (green,), kept)))
    meals = [
        ledger.new(Fed(left=left), now - timedelta(days=2 * (len(LEFT) - turn))) for turn, left in enumerate(LEFT)
    ]
    ledger.write(session, walk_b, meals)
