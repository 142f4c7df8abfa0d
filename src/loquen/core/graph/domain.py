"""What questions need to know of a root beyond its shape."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from loquen.core.library.whole import Library


def same_label(_sheet: Any, _section: str, _at: int, label: str) -> str:
    return label


def as_listed(_sheet: Any, _option: Any, _present: Any) -> Any:
    return 0


def never(_root: Any, _library: Library) -> bool:
    return False


def always(_sheet: Any, _path: str) -> bool:
    return True


@dataclass(frozen=True)
class Domain:
    """How a row's input is called, in which order choices are tried, what can not both be true, and what matters.

    Each is a function: (sheet, section, place from 0, label) to words; (sheet, option, present one) to a sort
    key; (root, library) to whether its parts contradict each other; (sheet, path) to whether an input that nobody told bears on anything.
    """

    row_label: Callable[[Any, str, int, str], str] = same_label
    option_order: Callable[[Any, Any, Any], Any] = as_listed
    contradicts: Callable[[Any, Library], bool] = never
    matters: Callable[[Any, str], bool] = always
