"""What was computed last time need not be computed again: stages remembered by what they read."""
