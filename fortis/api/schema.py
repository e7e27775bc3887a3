"""Prints the interface as OpenAPI, from which the front end's types are made."""

import json

from fortis.api.app import create_app


def schema() -> str:
    """The OpenAPI document as JSON text."""
    return json.dumps(create_app().openapi(), indent=1, sort_keys=True) + "\n"


if __name__ == "__main__":
    print(schema(), end="")
