"""Edits of what is selected: moved, deleted, repeated, pasted, kept as a stamp."""
