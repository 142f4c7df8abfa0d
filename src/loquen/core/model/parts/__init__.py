"""The parts of a plan, by subject. Field names carry the unit; limits stand beside them."""
