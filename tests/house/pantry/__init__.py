"""A fourth root, known to no file of the product: a pantry, with its shape, its book and its page's data."""
