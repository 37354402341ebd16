"""What a maker does to the lines of a panel."""
