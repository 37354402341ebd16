"""What a maker does to a pieced top."""
