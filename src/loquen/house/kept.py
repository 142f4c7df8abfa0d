"""The one cache: what was reckoned, by what makes it and what it was made of, until others are asked for more often."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, ParamSpec, TypeVar

Made = TypeVar("Made")
Of = ParamSpec("Of")
Maker = TypeVar("Maker", bound=Callable[..., Any])
USUAL = 500
mosts: dict[Callable[..., Any], int] = {}
missing = object()


def at_most(most: int) -> Callable[[Maker], Maker]:
    """Say of a function how many of what it makes are kept at once."""

    def told(make: Maker) -> Maker:
        mosts[make] = most
        return make

    return told


def mark_of(argument: Any) -> Hashable:
    """What tells an argument from others: its mark where it has one, else itself."""
    mark: Hashable = getattr(argument, "mark", argument)
    return mark


class Kept:
    """What functions made, those asked for last. What depends on more than a function is given must not be kept."""

    def __init__(self) -> None:
        self.lock = Lock()
        self.made: dict[Callable[..., Any], OrderedDict[Hashable, Any]] = {}

    def of(self, make: Callable[Of, Made], *of: Of.args, **named: Of.kwargs) -> Made:
        """What a function makes of these, once; whatever it raises is not kept."""
        key = tuple(map(mark_of, of)) + tuple(map(mark_of, named.values()))
        found = self.found(make, key)
        if found is missing:
            found = make(*of, **named)
            with self.lock:
                kept = self.made.setdefault(make, OrderedDict())
                kept[key] = found
                while len(kept) > mosts.get(make, USUAL):
                    kept.popitem(last=False)
        return found  # type: ignore[no-any-return]

    def knows(self, make: Callable[Of, Made], *of: Of.args, **named: Of.kwargs) -> bool:
        """Whether that is made already."""
        key = tuple(map(mark_of, of)) + tuple(map(mark_of, named.values()))
        return self.found(make, key) is not missing

    def found(self, make: Callable[..., Any], key: Hashable) -> Any:
        with self.lock:
            kept = self.made.get(make)
            if kept is None or key not in kept:
                return missing
            kept.move_to_end(key)
            return kept[key]
