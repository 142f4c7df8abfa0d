"""What a running Loquen is: one file, one library, what was reckoned, and whoever asks."""
