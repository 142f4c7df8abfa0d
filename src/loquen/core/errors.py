"""The few things that can go wrong in the core: a code and its values, no prose."""

from typing import Any


class CoreError(Exception):
    """Base of the core's errors.

    `code` names the case; `values` are what a sentence about it needs.
    """

    def __init__(self, code: str, **values: Any) -> None:
        super().__init__(code)
        self.code = code
        self.values = values

    def __str__(self) -> str:
        return f"{self.code}: {self.values}"


class OutOfRange(CoreError, ValueError):
    """A parameter outside its limits."""

    def __init__(self, name: str, value: Any, low: float, high: float, unit: str) -> None:
        super().__init__("out_of_range", name=name, value=value, low=low, high=high, unit=unit)


class UnknownKey(CoreError, KeyError):
    """A name that is not in the table it was looked up in."""

    def __init__(self, table: str, key: str) -> None:
        super().__init__("unknown_key", table=table, key=key)


class NamedCase(CoreError, ValueError):
    """A named case without a number: no answer exists for these inputs."""


class BadReading(CoreError, ValueError):
    """A value that is no reading: no number, no interval, or one turned round."""


class PlanConflict(CoreError, ValueError):
    """Two parts of a plan that can not both be true.

    `path` is the field that it is typed in, `nearest` the value there that works, where one does.
    """

    def __init__(self, code: str, path: str, nearest: float | bool | None = None, **values: Any) -> None:
        super().__init__(code, nearest=nearest, **values)
        self.path = path
        self.nearest = nearest


class BrokenData(CoreError, ValueError):
    """A row of the shipped tables that can not be used."""

    def __init__(self, table: str, row: str, reason: str) -> None:
        super().__init__("broken_data", table=table, row=row, reason=reason)
