"""What a proposed plan keeps to, by name: ranges and where they come from stand in planning.toml."""

from loquen.core.data.tables import constants


def usual(name: str) -> float:
    """The likely value of a rule of practice; raise UnknownKey."""
    return float(constants("planning.toml")[name].value)
