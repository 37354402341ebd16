"""What a maker does to a layout as a whole."""
