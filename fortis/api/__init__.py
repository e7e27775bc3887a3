"""The web interface: one router for each view, errors as problem+json."""
