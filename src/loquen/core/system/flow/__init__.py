"""Returns, overflow, sump, and what floods."""
