"""What each part of a system wants done, by the plan's own numbers."""
