"""What goes wrong here, and what mends it."""
