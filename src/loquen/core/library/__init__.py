"""What is known of animals, waters and things: the shipped tables with the keeper's own rows beside them."""
