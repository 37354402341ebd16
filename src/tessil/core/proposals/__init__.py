"""Bags that could be made of what there is: squares, strips, cloth, in a maker's words."""
