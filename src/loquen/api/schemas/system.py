"""Systems on the wire."""

from datetime import datetime

from pydantic import Field

from loquen.api.schemas.plan import PlanSchema, Strict, TankSchema, from_core, read_document
from loquen.api.schemas.sheet import GlassOut, SectionOut, SentenceOut
from loquen.store.systems import Saved


class SystemOut(Strict):
    """A system with its current plan and where it stands in its history."""

    id: int
    revision: int
    saved: datetime
    can_undo: bool
    can_redo: bool
    plan: PlanSchema

    @classmethod
    def of(cls, saved: Saved) -> "SystemOut":
        return cls(
            id=saved.id,
            revision=saved.revision,
            saved=saved.saved,
            can_undo=saved.can_undo,
            can_redo=saved.can_redo,
            plan=from_core(read_document(saved.plan)),
        )


class SystemLine(Strict):
    """A system in the list: its section, its glasses, its size in a sentence."""

    id: int
    name: str
    summary: SentenceOut
    glasses: list[GlassOut]
    section: SectionOut


class AnimalsWanted(Strict):
    species: str
    number: int = Field(ge=1, le=2000)


class StartFromAnimals(Strict):
    name: str = Field(min_length=1, max_length=80)
    animals: list[AnimalsWanted] = Field(min_length=1, max_length=40)


class StartFromGlass(Strict):
    name: str = Field(min_length=1, max_length=80)
    tank: TankSchema


class PlanUpdate(Strict):
    """A plan to save on top of the revision it was made from."""

    base: int
    plan: PlanSchema


class Base(Strict):
    """The revision that the caller stands on."""

    base: int
