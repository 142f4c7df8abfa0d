"""The keeper's days: what is due when, with amounts, and what a missed day costs."""
