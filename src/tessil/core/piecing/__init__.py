"""Ways of making a panel's top from pieces, each with counts, cut sizes and leftovers."""
