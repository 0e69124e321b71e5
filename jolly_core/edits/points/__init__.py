"""Edits of the point list, cards and racks."""
