"""What a maker does to the shape of a bag."""
