"""From what a maker decided to what each stage reads, and the bag that is built of it."""
