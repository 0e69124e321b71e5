"""Plans made from the project: strips, cables, cards."""
