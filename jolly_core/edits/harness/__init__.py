"""Edits of harnesses."""
