"""What a planner's levers turn: steps from what is sold and done, the least first."""
