"""Sets of papers: what the project makes of itself, counted and listed."""
