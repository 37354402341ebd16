"""The bag sewn up: its panels as flat facets in space, and what follows from where they lie.

Made from a bag's net alone.  Floats; the world is in inches, x to the right, y up, z towards the
one who looks at the front.  Knows no shape, no prints and nothing of drawing.
"""
