"""The data file: what it is before it is used, and its copies."""
