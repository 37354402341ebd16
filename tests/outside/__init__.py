"""Checks against something that is not Tessil: published standards, general libraries, and
values that makers agree on.  Each names its source."""
