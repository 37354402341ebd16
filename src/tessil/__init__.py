"""Tessil plans quilted bags: pieces, layers, quilting, trimming, edges, cutting."""

import os

# No plug-ins of other programs change how documents are read; looking for some takes its time.
os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")

__version__ = "0.1.0"
