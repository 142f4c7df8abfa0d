"""Waters shared by all systems."""
