"""Layouts of enclosures, on the bench and on paper."""
