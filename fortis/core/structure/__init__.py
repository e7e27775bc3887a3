"""The algebra of set structures: its model, its written notation, and its timeline."""
