"""What documents of any root have in common on the wire."""

from datetime import datetime
from typing import Any

from pydantic import BaseModel, Field

from loquen.checked.plan import Strict
from loquen.store.documents.systems import MOST_ID, Saved


class KeptOut(BaseModel):
    """A document and where it stands in its history."""

    id: int
    created: datetime
    revision: int
    saved: datetime
    can_undo: bool
    can_redo: bool


def standing(saved: Saved) -> dict[str, Any]:
    """Where a document stands in its history."""
    return {name: getattr(saved, name) for name in KeptOut.model_fields}


class Base(Strict):
    """The revision that an action is based on."""

    base: int = Field(ge=0, le=MOST_ID)


class PutAway(BaseModel):
    """What was put away, and when."""

    id: int
    name: str
    deleted: datetime
