"""The order of work, and the cautions that belong to its steps."""
