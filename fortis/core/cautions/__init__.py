"""What is unwise, how unwise, why, and what to do instead. Nothing is ever forbidden."""
