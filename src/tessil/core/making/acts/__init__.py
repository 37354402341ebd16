"""The steps of a planned bag, room by room."""
