"""What a maker does with the cutting of a job."""
