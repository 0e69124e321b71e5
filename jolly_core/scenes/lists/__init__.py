"""Pages and leaves of papers, and lists on them."""
