"""Plans that hold, designed: levers over what is sold and done, the search that settles a plan, and plans from nothing."""
