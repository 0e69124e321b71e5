"""What every edit needs: the registry and how an edit is made, words of faults, what is left clean, taking back."""
