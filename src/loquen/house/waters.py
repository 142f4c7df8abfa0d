"""Waters on the wire."""

from datetime import datetime

from pydantic import BaseModel, Field

from loquen.checked.plan import SourceSchema, Strict
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.system.animals.findings import Finding
from loquen.house.sheet.answers import Figure
from loquen.store.documents.systems import MOST_ID


class WaterIn(Strict):
    """One water. It stands in a list, so that a fault is told at the path that it has in a plan."""

    sources: list[SourceSchema] = Field(min_length=1, max_length=1)


class WaterUpdate(WaterIn):
    """What a water is now, and the revision that it was changed from."""

    base: int = Field(ge=0, le=MOST_ID)


class WaterOut(BaseModel):
    """A water with what follows from it, and what does not fit together; or why it can not be read."""

    id: int
    revision: int
    water: SourceSchema | None
    figures: list[Figure]
    questions: list[Finding]
    why: Sentence | None = None


class DeletedWater(BaseModel):
    id: int
    name: str
    deleted: datetime


class ReportIn(Strict):
    """A report's text in the open layout."""

    text: str = Field(min_length=1, max_length=50_000)


class AreaOut(BaseModel):
    key: str
    label: str
