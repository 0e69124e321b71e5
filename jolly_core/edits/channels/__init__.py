"""Circuits drawn from the point list."""
