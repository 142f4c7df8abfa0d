"""Rooms for tests that need more than the demo's five systems."""

from dataclasses import replace

from loquen.api.documents import document
from loquen.demo import sluice_street
from loquen.store import systems
from loquen.store.database import open_database

DEMO = (
    sluice_street.long_hall,
    sluice_street.old_copper,
    sluice_street.tidal_corner,
    sluice_street.bottle_shelf,
    sluice_street.rope_walk_b,
)
ROWS = ("Rope Walk A", "Rope Walk B", "Bottle Shelf")


def many(path, count):
    """A closed database with so many systems: the demo's, and racks of tanks like them in several lengths."""
    database = open_database(path)
    sluice_street.fill(database)
    with database.writing() as session:
        for n in range(count - len(DEMO)):
            plan = DEMO[2 + n % 3]()
            longer = replace(plan.tank, tank_length_cm=plan.tank.tank_length_cm + n % 30)
            name = f"{ROWS[n % len(ROWS)]}, tank {4 + n // len(ROWS)}"
            systems.create(session, document(replace(plan, name=name, tank=longer)))
    database.close()
    return path
