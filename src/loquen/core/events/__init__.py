"""What happened, once: typed events, what each means, and the lines in which pages and tables show them."""
