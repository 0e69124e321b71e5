"""Faces of things: devices, strips, cables, clips, as benches and papers show them."""
