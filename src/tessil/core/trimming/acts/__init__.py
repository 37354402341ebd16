"""What a maker does to the marks on a panel."""
