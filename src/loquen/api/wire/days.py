"""Days and time zones as a page asks with them."""

from typing import Annotated

from fastapi import Query
from pydantic import AfterValidator

from loquen.checked.days import ISO_DAY, known_day

Today = Annotated[str, Query(pattern=ISO_DAY), AfterValidator(known_day)]
Zone = Annotated[str, Query(max_length=60)]
