"""What crosses the wire."""
