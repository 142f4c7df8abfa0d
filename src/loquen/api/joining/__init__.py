"""Joining a system: batches, sizes, the day's list, and where one goes that is hunted."""
