"""Edits of cables and their cores."""
