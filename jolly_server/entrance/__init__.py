"""How the application is started and ended."""
