"""What a keeper writes down beside the plans: lines of the log and the register, quarantine, feeding, readings, days."""
