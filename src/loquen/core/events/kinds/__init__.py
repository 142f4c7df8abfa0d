"""One frozen dataclass for each kind of thing that happens."""
