"""A made-up lifter in a boathouse gym, and twelve weeks of their training."""
