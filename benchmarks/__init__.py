"""Measurements of the budgets in docs/architecture.md, as ratios of a subject to a floor in one run."""
