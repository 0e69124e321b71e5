"""Drawn sheets."""
