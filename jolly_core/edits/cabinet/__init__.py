"""Edits of enclosures and what is laid out in them."""
