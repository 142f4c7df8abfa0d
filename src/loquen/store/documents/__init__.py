"""What is described: systems, rooms and ventures by revision, variants, waters, own rows."""
