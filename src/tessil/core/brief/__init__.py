"""What a maker asks of a bag, and what goes wrong with the bag as a whole."""
