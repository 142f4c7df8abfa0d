"""What a sheet is, over any root: nodes wired by their names, verdicts, and questions put to them."""
