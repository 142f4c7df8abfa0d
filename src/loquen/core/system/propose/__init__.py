"""What the sheet is asked for: a first plan, a sump, when animals outgrow it."""
