"""Answers on the wire: frozen dataclasses, the core's own where it has them, written out without a second look."""

from typing import Any

from fastapi import Response
from pydantic import TypeAdapter

adapters: dict[type, TypeAdapter[Any]] = {}


def sent(value: Any) -> Response:
    """An answer of frozen dataclasses as JSON."""
    kind = type(value)
    if kind not in adapters:
        adapters[kind] = TypeAdapter(kind)
    return Response(adapters[kind].dump_json(value, warnings=False), media_type="application/json")
