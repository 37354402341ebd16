"""What to cut and what to buy: the cut list, and cloth by strips across the width."""
