"""The layers under a top: their cut sizes and their thickness."""
