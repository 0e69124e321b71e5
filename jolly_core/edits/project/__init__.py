"""Edits of the project itself: settings, structure, title blocks, numbers, wire types, recipes, revisions."""
