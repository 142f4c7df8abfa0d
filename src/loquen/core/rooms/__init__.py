"""A room as one machine: every emitter, hot litre and minute of work."""
