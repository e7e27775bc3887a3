"""Values kept whole in the record as JSON, each with the version of its form.

Older forms are read through upcasters.
"""

from collections.abc import Callable, Mapping
from decimal import Decimal
from typing import Any, TypeVar

from fortis.core.adjustments import Adjustments
from fortis.core.conventions import Conventions
from fortis.core.exercises import LIBRARY, Exercise, lift_id
from fortis.core.loading.kit import Kit
from fortis.core.performance import PerformedBout
from fortis.core.progression.policy import Policy
from fortis.core.strength.readiness import Readiness
from fortis.core.structure.prescription import Prescription
from fortis.core.value import Value

Document = dict[str, Any]
Upcaster = Callable[[Document], Document]
SomeValue = TypeVar("SomeValue", bound=Value)


def _prescription_2(old: Document) -> Document:
    """Sets know their lift, and lifts have an id; what hangs on the bar is its sleeve, and a side is a limb."""
    sets = []
    for each in old["sets"]:
        lift = each.get("lift") or LIBRARY.find(each["exercise"]).model_dump(mode="json")
        bouts = [
            bout | {"settled": _sleeved(bout["settled"])} if bout.get("settled") else bout for bout in each["bouts"]
        ]
        own = {"lift": lift | {"id": lift.get("id") or lift_id(lift["name"])}, "bouts": bouts}
        sets.append(each | own)
    return old | {"sets": sets}


def _sleeved(load: Document) -> Document:
    return {"sleeve" if name == "side" else name: value for name, value in load.items()}


def _adjustments_2(old: Document) -> Document:
    """A lift is done instead from some set on, and a line's load can change more than once."""
    swapped = {entry: {"lift": lift, "set": 0} for entry, lift in (old.get("swapped") or {}).items()}
    loads = {entry: [_sleeved(load)] for entry, load in (old.get("loads") or {}).items()}
    return old | {"swapped": swapped, "loads": loads}


_MOST_2 = {"bars": 40, "plates": 20, "handles": 20, "machines": 100, "bands": 40, "chains": 20, "heights": 40}
_MOST_PINS_2 = 400


def _kit_2(old: Document) -> Document:
    """A place has an end: what went beyond it is left out, the heaviest pins of a machine first."""
    kept = {name: old[name][:most] for name, most in _MOST_2.items() if name in old}
    machines = []
    for machine in kept.get("machines", ()):
        first, step, most = (Decimal(str(machine.get(name, usual))) for name, usual in _USUAL_PINS_2.items())
        highest = min(most, first + step * _MOST_PINS_2)
        machines.append(machine if highest == most else machine | {"most_kg": str(highest)})
    return old | kept | ({"machines": machines} if machines else {})


_USUAL_PINS_2 = {"first_kg": 5, "step_kg": 5, "most_kg": 120}

UPCASTERS: Mapping[type[Value], tuple[Upcaster, ...]] = {
    Prescription: (_prescription_2,),
    Adjustments: (_adjustments_2,),
    Kit: (_kit_2,),
    Conventions: (),
    Exercise: (),
    PerformedBout: (),
    Policy: (),
    Readiness: (),
}
"""For each kind of document, what turns version 1 into 2, 2 into 3, and so on. Never changed, only added to."""


class FromTheFutureError(ValueError):
    """A document of a later version than this release knows."""


def form_of(kind: type[Value]) -> int:
    """The version of the form in which documents of a kind are written."""
    return len(UPCASTERS[kind]) + 1


def to_document(value: Value) -> Document:
    """A value as it is kept, with the version of its form."""
    return {"version": form_of(type(value)), **value.model_dump(mode="json", exclude_none=True)}


def from_document(kind: type[SomeValue], document: Document) -> SomeValue:
    """A value as it was kept, whatever the version of its form. Raises `FromTheFutureError`."""
    found = dict(document)
    version = found.pop("version", 1)
    if version > form_of(kind):
        raise FromTheFutureError(f"a {kind.__name__} of version {version}; this release knows {form_of(kind)}")
    for upcast in UPCASTERS[kind][version - 1 :]:
        found = upcast(found)
    return kind.model_validate(found)
