"""What is done to a quilted panel: squaring it up, and the marks on it."""
