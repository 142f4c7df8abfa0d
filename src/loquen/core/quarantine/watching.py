"""An arrival without quarantine: who is exposed, for how long, and what to watch for."""

from loquen.core.data.tables import toml
from loquen.core.library.rows.animals import Species

GROUPS = {"turtle": "turtle", "frog": "frog", "salamander": "frog", "shrimp": "shrimp", "snail": "snail"}


def group_of(kind: Species) -> str:
    """The group of its body that cards and signs are written for."""
    return GROUPS.get(kind.shape, "fish")


def signs_of(kind: Species) -> tuple[str, ...]:
    """What to watch for in the weeks after it came."""
    return tuple(toml("watch.toml")[group_of(kind)]["look"])
