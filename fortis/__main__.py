"""`python -m fortis` is the `fortis` command."""

from fortis.cli import app

app()
