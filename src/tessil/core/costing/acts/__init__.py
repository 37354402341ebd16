"""Sums over whole planned bags: time, cost, price."""
