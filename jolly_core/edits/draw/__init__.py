"""Edits that draw: symbols, wires, marks, notes, boundaries, blocks, rungs."""
