"""Who tends a tank: what is read, dosed and changed, when it is clear, and what the run comes to."""
