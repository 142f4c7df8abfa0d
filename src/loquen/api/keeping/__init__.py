"""What is kept day by day: round, log, register, quarantine, feeding; and what of it can not be read."""
