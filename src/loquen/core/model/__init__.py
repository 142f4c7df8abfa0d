"""What a keeper describes: frozen dataclasses and their limits."""
