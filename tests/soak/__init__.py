"""What broke once, tried on a running server and bounded in time: ./run soak."""
