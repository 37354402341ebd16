"""What finishes the edges of a bag: binding and its strips."""
