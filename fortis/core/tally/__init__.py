"""The arithmetic after a session."""
