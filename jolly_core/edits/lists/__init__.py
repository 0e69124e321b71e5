"""Lists taken back as edits."""
