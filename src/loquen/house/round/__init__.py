"""The round: what is due in which system, ticked off, planned ahead, and taken along as a calendar."""
