"""Cutting rectangles from cloth edge to edge, three cuts deep: strips, crosscuts, trims.

Rotary cuts run from edge to edge.  A cloth is cut across into strips, a strip across into stacks,
a stack into pieces: all pieces of a stack are as wide as it, so that nothing is cut a fourth time.
"""
