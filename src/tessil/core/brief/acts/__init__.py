"""What a maker does to the bag as a whole."""
