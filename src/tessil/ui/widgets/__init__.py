"""The window's own widgets, each of which shows one kind of thing."""
