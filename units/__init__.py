"""Tests of what runs in the browser, without one: web/src/**/*.test.ts, each case reported as a test of its own."""
