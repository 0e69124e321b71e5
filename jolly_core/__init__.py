"""The project model and every trade rule of Jolly Spool, in plain Python."""
