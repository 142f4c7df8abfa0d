"""Rooms for tests that need more than the demo's five systems."""

from dataclasses import replace

from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.model.roots.documents import document
from loquen.core.model.roots.plan import PLAN
from loquen.demo import sluice_street
from loquen.store.database import open_database
from loquen.store.documents import systems

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


def worst_plan():
    """As much of everything as one system may have."""
    plan, most = sluice_street.long_hall(), PLAN.limits
    species = list(shipped().species)
    animals = tuple(
        Group(species[7 * i % len(species)], 5, size_by="length", length_cm=2.0) for i in range(most["animals"])
    )

    def fill(rows, section):
        return (tuple(rows) * most[section])[: most[section]]

    points = most["flow.curve_lph"]
    return replace(
        plan,
        animals=animals,
        filters=fill(sluice_street.rope_walk_b().filters, "filters"),
        run=fill(plan.run, "run"),
        returns=fill(plan.returns, "returns"),
        chambers=(*[replace(plan.chambers[1], chamber_cm=2.0)] * (most["chambers"] - 1), plan.chambers[-1]),
        sources=fill(sluice_street.waters_of_the_house(), "sources"),
        bags=fill(sluice_street.bottle_shelf().bags, "bags"),
        flow=replace(
            plan.flow,
            pump_by="points",
            curve_lph=tuple(100.0 * n for n in range(points)),
            curve_head_m=tuple(4 - 0.05 * n for n in range(points)),
        ),
    )
