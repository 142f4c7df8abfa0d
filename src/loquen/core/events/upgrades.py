"""What brings an event as an older Loquen kept it forward: lines of the log and of the register, each with every field."""

from collections.abc import Mapping
from typing import Any

MOST_ANIMALS = 2000
LINE = {
    "reading": {"what": "what", "value": "value", "kit": "kit", "when": "when"},
    "change": {"litres": "litres", "share": "share"},
    "dose": {"what": "what", "amount": "amount"},
    "feed": {"left": "what", "grams": "amount"},
    "filter": {"how": "what", "share": "share"},
    "added": {"what": "what", "amount": "amount"},
    "taken": {"what": "what", "amount": "amount"},
    "light": {"what": "what"},
    "source": {"what": "what"},
    "experiment": {"what": "what", "until": "until"},
    "note": {},
    "arrival": {"count": "amount"},
    "death": {"count": "amount"},
}
"""By kind the fields of an event, and what they were called in a line of the log."""
OLD = ("what", "value", "kit", "when", "litres", "share", "amount", "until")
NOTHING = ("", None)


def from_line(found: dict[str, Any]) -> dict[str, Any]:
    """A line of the log or of the register as the event that it told of; what its kind has no use for goes into the note."""
    kind = found.get("kind")
    if "day" in found or kind not in LINE:
        return {**of_the_register(found, kind), "version": 1}
    names: Mapping[str, str] = LINE[str(kind)]
    told = {new: found[old] for new, old in names.items() if old in found}
    left = {old: found[old] for old in OLD if old not in names.values() and found.get(old) not in NOTHING}
    if "count" in told and not whole(told["count"]):
        left["amount"] = told.pop("count")
    note = "; ".join(filter(None, [found.get("note") or "", *(f"{old}: {value}" for old, value in left.items())]))
    told["signs" if kind in ("arrival", "death") else "note"] = note
    rest = {name: value for name, value in found.items() if name not in (*OLD, "note")}
    return {**rest, **told, "version": 1}


def of_the_register(found: dict[str, Any], kind: object) -> dict[str, Any]:
    """Only a move goes anywhere."""
    return found if kind == "move" else {name: value for name, value in found.items() if name != "to"}


def whole(amount: object) -> bool:
    """Whether an amount is a number of animals, or was not said."""
    return amount is None or (
        isinstance(amount, int | float) and amount == int(amount) and 0 <= amount <= MOST_ANIMALS
    )
