"""What a maker does to the layers of a panel."""
