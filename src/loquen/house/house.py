"""A house: one file with its library and what was reckoned; and a visit to it, which is what every page and command asks."""

from collections.abc import Callable
from contextlib import AbstractContextManager
from dataclasses import dataclass
from threading import Lock
from typing import Concatenate, ParamSpec, TypeVar

from sqlmodel import Session

from loquen.core.library.whole import Library, shipped
from loquen.house.kept import Kept
from loquen.store.database import Database
from loquen.store.documents import own

Made = TypeVar("Made")
Of = ParamSpec("Of")


class House:
    """One file in use. Two of them in one process know nothing of each other."""

    def __init__(self, database: Database, base: Library | None = None) -> None:
        self.database = database
        self.base = base or shipped()
        self.kept = Kept()
        self.adopting = Lock()
        self.library = self.base
        if database.identity is not None:
            self.adopt()

    def adopt(self) -> None:
        """Take the keeper's own rows as they are kept now. Read and taken as one step: no older ones after newer ones."""
        with self.adopting, self.database.reading() as session:
            found = own.library_of(session, self.base)
            if found.stamp != self.library.stamp:
                self.library = found

    def visited(self) -> "Visit":
        return Visit(self, self.library)


@dataclass(frozen=True, eq=False)
class Visit:
    """Somebody asks something of a house: from here to its end the library is the same one."""

    house: House
    library: Library

    @property
    def mark(self) -> str:
        """All that what is made for a visit may depend on beside what else it is made of."""
        return self.library.stamp

    def reading(self) -> AbstractContextManager[Session]:
        return self.house.database.reading()

    def writing(self) -> AbstractContextManager[Session]:
        return self.house.database.writing()

    def kept(self, make: "Callable[Concatenate[Visit, Of], Made]", *of: Of.args, **named: Of.kwargs) -> Made:
        """What a function makes of these by this visit's library, made once for all who ask."""
        return self.house.kept.of(make, self, *of, **named)

    def knows(self, make: "Callable[Concatenate[Visit, Of], Made]", *of: Of.args, **named: Of.kwargs) -> bool:
        return self.house.kept.knows(make, self, *of, **named)
