"""What Tessil knows about bags: pure computation, from decisions to a plan.

Must not import Qt, ``tessil.files``, ``tessil.drawing`` or ``tessil.ui``.
"""
