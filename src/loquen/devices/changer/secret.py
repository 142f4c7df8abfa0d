"""The token that Loquen and a controller share: in a file that only its user reads, made anew by who starts first."""

import os
import secrets
from pathlib import Path

LONGEST = 200
ONLY_OWNER = 0o600


def made(path: Path) -> str:
    """A new token in a file for its owner alone, in the place of what was there. Raises: OSError."""
    token = secrets.token_urlsafe(32)
    path.parent.mkdir(parents=True, exist_ok=True)
    path.unlink(missing_ok=True)
    with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, ONLY_OWNER), "w", encoding="ascii") as file:
        file.write(token)
    return token


def read(path: Path | None) -> str:
    """The token in a file; "" where there is none that can be read."""
    if path is None:
        return ""
    try:
        return path.read_text(encoding="ascii")[:LONGEST].strip()
    except (OSError, ValueError):
        return ""
