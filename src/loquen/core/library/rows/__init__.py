"""The rows of the library's tables, by subject."""
