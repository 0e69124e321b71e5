"""Edits of devices and their parts."""
