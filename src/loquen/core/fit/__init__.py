"""The log against the plan: what readings that are intervals say of what is made, lost and brought in."""
