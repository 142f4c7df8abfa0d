"""A root as a house keeps it: one description, from which its routes and its wire come."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Any, Generic, TypeVar

from pydantic import BaseModel, Field, create_model

from loquen.checked.documents import Inconsistent, Written
from loquen.checked.plan import Strict
from loquen.core.errors import PlanConflict
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.house.documents.wire import Base, KeptOut, standing
from loquen.house.house import Visit
from loquen.store.documents.systems import Saved

Core = TypeVar("Core")


@dataclass(frozen=True, eq=False)
class Root(Generic[Core]):
    """What is kept under a name, and what a page asks of it.

    `name` is how it is kept and told, `part` what its document is called where it is sent, `at` and `drafts_at` the paths
    of what is kept and of what is only asked; `asked` what a question about a
    draft says beside it. `sheet` is a draft's sheet, `answer` everything that its page shows, of the type `answers`. One may be
    `begun_as_sent`: any document that makes sense begins it.
    """

    name: str
    part: str
    at: str
    drafts_at: str
    written: Written[Core]
    contradictions: Callable[[Core, Library], list[PlanConflict]]
    sheet: Callable[[Visit, Core, Any], Sheet[Core]]
    answer: Callable[[Visit, Core, Any], Any]
    answers: type[Any]
    asked: type[Strict] = Strict
    begun_as_sent: bool = False

    def sensible(self, sent: Any, library: Library) -> Core:
        """What was sent, or the core's as it is; raise Inconsistent when its parts contradict each other."""
        core: Core = self.written.to_core(sent) if isinstance(sent, BaseModel) else sent
        found = self.contradictions(core, library)
        if found:
            raise Inconsistent(found)
        return core

    def out(self, saved: Saved) -> Any:
        """A kept one with its document and where it stands in its history; raise Unreadable."""
        document = self.written.to_wire(self.written.read(saved.document))
        return self.Out(**standing(saved), **{self.part: document})

    def document_of(self, draft: Any) -> Any:
        """The document in what was sent."""
        return getattr(draft, self.part)

    @cached_property
    def title(self) -> str:
        return self.name.capitalize()

    def model(self, name: str, base: type[BaseModel], words: str, **more: Any) -> Any:
        """A model on the wire that has a document of this root in it."""
        parts: dict[str, Any] = {self.part: (self.written.schema, ...), **more}
        return create_model(f"{self.title}{name}", __base__=base, __doc__=words, **parts)

    @cached_property
    def Out(self) -> Any:  # noqa: N802
        return self.model(
            "Out", KeptOut, f"A {self.name} with its current document and where it stands in its history."
        )

    @cached_property
    def Begun(self) -> Any:  # noqa: N802
        return self.model("Begun", Strict, f"A {self.part} to keep.")

    @cached_property
    def Update(self) -> Any:  # noqa: N802
        return self.model("Update", Base, f"A {self.part} to save on top of the revision it was made from.")

    @cached_property
    def Draft(self) -> Any:  # noqa: N802
        return self.model("Draft", self.asked, f"A {self.part} that is not saved.")

    @cached_property
    def Question(self) -> Any:  # noqa: N802
        return self.model(
            "Question",
            self.asked,
            "A figure to explain; with a target, also what it would take, for the named inputs or those that move it most.",
            figure=(Annotated[str, Field(max_length=80)], ...),
            target=(Annotated[float | None, Field(ge=-1e6, le=1e9)], None),
            paths=(Annotated[list[Annotated[str, Field(max_length=80)]] | None, Field(max_length=8)], None),
        )
