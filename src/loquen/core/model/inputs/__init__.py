"""What an input is: its words, kind, unit and limits, where it is from, how it is typed, the shape it stands in."""
