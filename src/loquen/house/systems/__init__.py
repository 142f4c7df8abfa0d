"""Systems: their list, their plans and their histories."""
