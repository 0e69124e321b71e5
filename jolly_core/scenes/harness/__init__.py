"""Form boards and blocks of harnesses."""
