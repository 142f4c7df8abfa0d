"""What turns waste over and brings oxygen."""
