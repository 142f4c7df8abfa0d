"""The log of every system."""
