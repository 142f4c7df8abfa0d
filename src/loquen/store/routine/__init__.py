"""The house's routine: the round, quarantine, what is kept and what it costs."""
