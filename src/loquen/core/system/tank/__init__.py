"""The glass, what it holds and what it weighs."""
