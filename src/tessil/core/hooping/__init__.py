"""Panels made in the hoop of an embroidery machine: what lies in which hooping, what it takes."""
