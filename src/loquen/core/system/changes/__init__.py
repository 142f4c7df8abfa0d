"""Water changes: the regime chosen, and every other beside it."""
