"""Every word that keys, steps and figures are told in: one table each."""
