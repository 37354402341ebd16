"""The maker's own log: swatches and what is learned from them about how quilting draws in."""
