"""Browser tests: stories a practitioner would recognise, in headless Chromium."""
