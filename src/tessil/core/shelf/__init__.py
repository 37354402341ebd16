"""What there is to sew with: one shelf beside all projects."""
