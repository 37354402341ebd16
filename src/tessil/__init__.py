"""Tessil plans quilted bags: pieces, layers, quilting, trimming, edges, cutting."""

import os

from tessil.core.memory.collecting import seldom

# No plug-ins of other programs change how documents are read; looking for some takes its time.
os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")

# Thousands of names are made while the program is fetched, and all of them stay.
seldom()

__version__ = "0.1.0"
