"""Routes by resource."""
