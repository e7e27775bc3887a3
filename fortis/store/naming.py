"""The structures of a session as its row keeps them, to be found by what lifters call them."""

from fortis.core.structure.model import Session
from fortis.core.structure.naming import structures
from fortis.core.structure.notation import NotationError, read
from fortis.core.units import Unit


def named(written: str, unit: Unit) -> str:
    """The names of the structures of a text; none where it cannot be read today."""
    try:
        return names_of(read(written, unit))
    except NotationError:
        return ""


def names_of(session: Session) -> str:
    """The names of the structures of a session."""
    return "; ".join(sorted(structures(session)))
