"""Tessil plans quilted bags: pieces, layers, quilting, trimming, edges, cutting."""

__version__ = "0.1.0"
