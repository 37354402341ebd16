"""Which print may lie where: what touches what in the finished bag, and finding a layout."""
