"""Kinds of rows that a keeper may have of their own."""

from typing import Literal

Kind = Literal["species", "plants", "media", "filters", "pumps", "kits"]
KINDS: dict[Kind, str] = {
    "species": "species",
    "plants": "plants",
    "media": "media",
    "filters": "filter_models",
    "pumps": "pump_models",
    "kits": "kits",
}
"""The library's table that each kind's rows stand in."""
