"""Lines of quilting: where they fall, what they take in, what thread they need."""
