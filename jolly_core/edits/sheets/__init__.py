"""Edits of sheets: added, changed, put in order, deleted."""
