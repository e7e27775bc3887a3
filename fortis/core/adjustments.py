"""What was changed of a plan while it was played, and how two devices that change it are brought together."""

from collections.abc import Sequence
from decimal import Decimal
from itertools import dropwhile
from typing import Annotated, Any, TypeVar

from pydantic import ConfigDict, Field

from fortis.core.exercises import LiftName
from fortis.core.structure.model import MOST_ITEMS, SetUpItem
from fortis.core.structure.notation import MOST_PREPARED
from fortis.core.structure.prescription import MOST_EXTRA
from fortis.core.units import HEAVIEST
from fortis.core.value import Entered, Flag, Value

Item = TypeVar("Item")
Load = Annotated[Entered, Field(ge=Decimal(-300), le=HEAVIEST)]


class LoadChange(Value):
    """Another load for some bouts of a lift: from set `set` on, bout `bout` of each where `was_kg` was to go on it.

    Without `bout` every bout of those sets is meant, without `was_kg` whatever its load, and where there was none.
    `sleeve` is what then hangs on each sleeve, of the bar named where there was no load before. `advised` says that
    the load is one Fortis advised, `follows_day` that it did so as today is better or worse than expected.
    """

    model_config = ConfigDict(json_schema_serialization_defaults_required=False)

    set: int = Field(ge=1, le=1000)
    bout: int | None = Field(default=None, ge=1, le=1000)
    was_kg: Load | None = None
    kg: Load
    sleeve: Annotated[tuple[Entered, ...], Field(max_length=40)] = ()
    bar: Annotated[str, Field(max_length=100)] | None = None
    bar_kg: Load | None = None
    advised: Flag = False
    follows_day: Flag = False

    def after(self, number: int) -> "LoadChange":
        """A change that counts its sets from set `number` on, counted from the first."""
        return self.model_copy(update={"set": number + self.set})


class Swap(Value):
    """Another lift done from set `set` on; 0 takes the warm-up with it."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=False)

    lift: LiftName
    set: int = Field(default=0, ge=0, le=1000)


EntryName = Annotated[str, Field(pattern=r"^\d{1,3}\.\d{1,3}$")]
GroupNumber = Annotated[str, Field(pattern=r"^\d{1,3}$")]
Order = Annotated[tuple[Annotated[int, Field(ge=1, le=1000)], ...], Field(max_length=200)]
Worn = Annotated[tuple[SetUpItem, ...], Field(max_length=MOST_ITEMS)]
ExtraSets = Annotated[int, Field(ge=0, le=MOST_EXTRA)]
LoadChanges = Annotated[tuple[LoadChange, ...], Field(max_length=200)]
MOST_CHANGED = 200
"""Entries of a session that can be changed in one way."""


class Adjustments(Value):
    """What was changed on the floor. Entries are named by their group and number in it: `2.1`.

    `skipped` are bouts by their position, `extra` sets added at the end of an entry, `swapped` lifts done instead
    of the planned ones, `loads` other loads, one change after the other, `setups` what was worn and used instead,
    `order` the groups in the order they are done where it is not the planned one, `within` by group the order of
    its entries. `prepared` are the preparations that were done, by their number from 1.
    """

    model_config = ConfigDict(json_schema_serialization_defaults_required=False)

    skipped: Annotated[tuple[Annotated[str, Field(max_length=30)], ...], Field(max_length=500)] = ()
    extra: Annotated[dict[EntryName, ExtraSets], Field(max_length=MOST_CHANGED)] = {}
    swapped: Annotated[dict[EntryName, Swap], Field(max_length=MOST_CHANGED)] = {}
    loads: Annotated[dict[EntryName, LoadChanges], Field(max_length=MOST_CHANGED)] = {}
    setups: Annotated[dict[EntryName, Worn], Field(max_length=MOST_CHANGED)] = {}
    order: Order = ()
    within: Annotated[dict[GroupNumber, Order], Field(max_length=MOST_CHANGED)] = {}
    prepared: Annotated[
        tuple[Annotated[int, Field(ge=1, le=MOST_PREPARED)], ...], Field(max_length=MOST_PREPARED)
    ] = ()


def until_followed(adjustments: Adjustments) -> tuple[Adjustments, dict[str, LoadChanges]]:
    """Adjustments without the loads that followed the day, and by entry those with all that came after them."""
    since = {
        entry: tuple(dropwhile(lambda each: not each.follows_day, changes))
        for entry, changes in adjustments.loads.items()
    }
    before = {entry: changes[: len(changes) - len(since[entry])] for entry, changes in adjustments.loads.items()}
    return adjustments.model_copy(update={"loads": before}), since


class Change(Value):
    """One change of the plan: how it stood `before`, and `after`."""

    before: Adjustments
    after: Adjustments


def with_change(there: Adjustments, change: Change) -> Adjustments:
    """What is `there`, with what `change` changes, and nothing else. Made twice it is made once."""
    fields: dict[str, Any] = {}
    for name in Adjustments.model_fields:
        now, before, after = (getattr(each, name) for each in (there, change.before, change.after))
        if name in ("skipped", "prepared"):
            fields[name] = _merged(now, before, after)
        elif isinstance(after, dict):
            kept = {key: value for key, value in now.items() if key in after or key not in before}
            fields[name] = kept | {key: value for key, value in after.items() if before.get(key) != value}
        else:
            fields[name] = now if after == before else after
    return Adjustments(**fields)


def _merged(now: Sequence[Item], before: Sequence[Item], after: Sequence[Item]) -> tuple[Item, ...]:
    kept = [item for item in now if item in after or item not in before]
    return (*kept, *(item for item in after if item not in before and item not in kept))
