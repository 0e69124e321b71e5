"""Edits of terminal strips."""
