"""What every answer has in common: how it is sent, and how faults are told."""
