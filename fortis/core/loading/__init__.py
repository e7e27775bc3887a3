"""What can be built from the kit at hand."""
