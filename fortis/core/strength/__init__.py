"""The lifter's strength, from what was lifted."""
