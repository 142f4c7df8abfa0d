"""Numbers as people type them: a decimal comma and grouped thousands where they are plain, refused where they are not."""

import math
import re

PLAIN = re.compile(r"[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?", re.ASCII | re.IGNORECASE)
DECIMAL_COMMA = re.compile(r"[+-]?\d*,\d+", re.ASCII)
EITHER = re.compile(r"[+-]?[1-9]\d{0,2}[,.]\d{3}", re.ASCII)
SPACED = re.compile(r"[+-]?\d{1,3}( \d{3})+([.,]\d+)?", re.ASCII)
BY_COMMAS = re.compile(r"[+-]?[1-9]\d{0,2}((,\d{3}){2,}(\.\d+)?|,\d{3}\.\d+)", re.ASCII)
BY_DOTS = re.compile(r"[+-]?[1-9]\d{0,2}((\.\d{3}){2,}(,\d+)?|\.\d{3},\d+)", re.ASCII)


class NotANumber(ValueError):
    """What was typed is no number."""


class Ambiguous(ValueError):
    """What was typed may be two numbers: a group of thousands, or decimals."""

    def __init__(self, thousands: str, decimals: str) -> None:
        super().__init__(f"{thousands} or {decimals}")
        self.thousands = thousands
        self.decimals = decimals


def read_number(typed: str, dots_may_group: bool = False) -> float:
    """The number that was typed; raise NotANumber or Ambiguous.

    A dot is a decimal point, unless `dots_may_group` says that whoever wrote it may group thousands by dots.
    """
    text = re.sub(r"[\s\u2009\u00a0\u202f]", " ", typed.strip()).replace("\u2212", "-")
    if EITHER.fullmatch(text) and ("," in text or dots_may_group):
        bare = text.replace(",", ".")
        raise Ambiguous(bare.replace(".", ""), bare)
    if PLAIN.fullmatch(text):
        number = text
    elif DECIMAL_COMMA.fullmatch(text):
        number = text.replace(",", ".")
    elif SPACED.fullmatch(text):
        number = text.replace(" ", "").replace(",", ".")
    elif BY_COMMAS.fullmatch(text):
        number = text.replace(",", "")
    elif BY_DOTS.fullmatch(text):
        number = text.replace(".", "").replace(",", ".")
    else:
        raise NotANumber(typed)
    value = float(number)
    if not math.isfinite(value):
        raise NotANumber(typed)
    return value
