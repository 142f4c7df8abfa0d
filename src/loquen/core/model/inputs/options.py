"""What may be chosen for a keyed choice, from its own words or from the library's table."""

from collections.abc import Callable, Mapping
from typing import Any

from loquen.core.data.minerals import MineralSalt, mineral_salts
from loquen.core.data.tables import Table
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Choice

TABLES = ("beds", "foods", "lids", "plants", "media", "filter_kinds", "pipes")

SALTS: dict[str | None, Callable[[MineralSalt], bool]] = {
    "calcium_salts": lambda row: row.calcium_mol > 0 and row.alkalinity_eq == 0,
    "magnesium_salts": lambda row: row.magnesium_mol > 0,
    "carbonate_salts": lambda row: row.alkalinity_eq > 0 and row.hardness_mol == 0,
}


def options_of(choice: Choice, library: Library) -> Mapping[str, str]:
    """Keys and words of a choice; empty for a switch, and for animals, which have a page of their own."""
    if choice.options is not None:
        return choice.options
    if choice.table == "pipes_or_none":
        return {"none": "none", **{key: row.label for key, row in library.pipes.items()}}
    if choice.table == "run_parts":
        return library.run_parts()
    if choice.table in SALTS:
        salts = mineral_salts().items()
        return {key: row.label for key, row in salts if SALTS[choice.table](row)}
    if choice.table in TABLES:
        rows: Table[Any] = getattr(library, choice.table)
        return {key: getattr(row, "label", None) or row.common for key, row in rows.items()}
    return {}
