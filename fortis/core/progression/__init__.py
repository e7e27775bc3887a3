"""The next loads, with their reasons."""
