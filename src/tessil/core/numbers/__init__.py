"""Exact lengths, figures with their workings, rulers, floats for looking; nothing of bags."""
