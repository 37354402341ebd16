"""One panel's way down the size ladder, and places on it to point at."""
