"""A session as a card to print: what is asked, a box for every bout, and what goes on the bar.

On paper as in the score a set runs from left to right: boxes that touch are bouts of one set, what stands between
them is the rest.
"""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from datetime import date
from decimal import Decimal

from fortis.core.performance import PerformedBout
from fortis.core.structure.model import Entry, Session, Side, describe_shift
from fortis.core.structure.prescription import (
    PlannedBout,
    PlannedSet,
    Position,
    Prescription,
    Settled,
    instead_words,
)
from fortis.core.structure.timeline import asked, step_load
from fortis.core.structure.writing import write_head, write_preparations, write_sets
from fortis.core.units import clock, plain
from fortis.core.value import Value


class CardBout(Value):
    """A box: what is asked, the load as far as it is known, the short rest after it, and what was done of it."""

    asked: str
    load: str = ""
    rest: str = ""
    done: str = ""


class CardSet(Value):
    """The boxes of a set, and the rest after it."""

    bouts: tuple[CardBout, ...]
    rest: str = ""


class CardLift(Value):
    """A lift with its sets. `hints` are lines to read before it: the last cue, the way up, what goes on the bar."""

    name: str
    setup: str
    written: str
    hints: tuple[str, ...]
    sets: tuple[CardSet, ...]


class CardGroup(Value):
    """Lifts done in turn, under the words that open a pair or circuit; one lift has none."""

    head: str
    lifts: tuple[CardLift, ...]


class Card(Value):
    """A session on paper. `day` is when it is planned, or was done; `before` what is done before the first lift."""

    title: str
    day: date | None
    summary: str
    before: str
    groups: tuple[CardGroup, ...]


def card_of(
    session: Session,
    prescription: Prescription,
    day: date | None,
    summary: str,
    cues: Mapping[str, str] | None = None,
    done: Iterable[PerformedBout] = (),
) -> Card:
    """A session as a card.

    `cues` are what was noted at a lift the last time, by its name, `done` the bouts that fill boxes in.
    """
    performed = {bout.position: bout for bout in done}
    by_entry = prescription.by_entry()
    groups = []
    for number, group in enumerate(session.groups, start=1):
        lifts = tuple(
            _lift(entry, by_entry[number, at], cues or {}, performed.get)
            for at, entry in enumerate(group.entries, start=1)
        )
        groups.append(CardGroup(head="" if group.is_straight else write_head(group), lifts=lifts))
    return Card(
        title=prescription.title or "Session",
        day=day,
        summary=summary,
        before=write_preparations(prescription.prep),
        groups=tuple(groups),
    )


Done = Callable[[Position], PerformedBout | None]


def _lift(entry: Entry, sets: Sequence[PlannedSet], cues: Mapping[str, str], done: Done) -> CardLift:
    work = [each for each in sets if not each.is_warm_up]
    last = work[-1]
    return CardLift(
        name=last.exercise,
        setup=str(last.setup),
        written=", now ".join(filter(None, ("; ".join(map(write_sets, entry.sets)), instead_words(work)))),
        hints=tuple(_hints(sets, cues.get(last.exercise, ""))),
        sets=tuple(_set(each, done, is_last=each is last) for each in work if each.open_bouts),
    )


def _hints(sets: Sequence[PlannedSet], cue: str) -> Iterator[str]:
    if cue:
        yield f"From last time: {cue}"
    way_up = [
        f"{plain(bout.settled.kg)} × {asked(bout)}"
        for each in sets
        if each.is_warm_up
        for bout in each.bouts
        if bout.settled
    ]
    if way_up:
        yield f"Warm up: {', '.join(way_up)}"
    yield from _builds(bout.settled for each in sets if not each.is_warm_up for bout in each.open_bouts)


def _builds(loads: Iterable[Settled | None]) -> Iterator[str]:
    """What goes on each side of a bar, or on the belt, load by load."""
    on: dict[str, dict[str, str]] = {}
    for load in loads:
        if load and (load.bar or (load.body and load.sleeve)):
            place = f"Each side of the {load.bar}" if load.bar else "On the belt"
            on.setdefault(place, {})[_settled(load)] = " ".join(map(plain, load.sleeve)) or "nothing"
    for place, builds in on.items():
        if len(builds) == 1:
            yield f"{place}: {next(iter(builds.values()))}"
        else:
            yield f"{place}: {', '.join(f'{plates} for {kg}' for kg, plates in builds.items())}"


def _set(each: PlannedSet, done: Done, *, is_last: bool) -> CardSet:
    bouts = [
        CardBout(
            asked=f"{_SIDES.get(bout.side, '')}{asked(bout)}",
            load=_load(bout),
            rest=clock(bout.rest) if bout.rest and bout is not each.open_bouts[-1] else "",
            done=_done(bout, done(each.position(bout))),
        )
        for bout in each.open_bouts
    ]
    rest = f"every {clock(each.every)}" if each.every else clock(each.rest) if each.rest else ""
    return CardSet(bouts=tuple(bouts), rest="" if is_last else rest)


_SIDES = {Side.LEFT: "left ", Side.RIGHT: "right "}


def _load(bout: PlannedBout) -> str:
    """A load as it is written on a card; empty where only the day can tell."""
    if bout.settled:
        return _settled(bout.settled)
    load = step_load(bout)
    if load is None:
        return ""
    if load.kg is not None:
        return _weight(load.kg, body=bool(load.body))
    if load.low_kg is not None and load.high_kg is not None:
        return f"{plain(load.low_kg)}–{plain(load.high_kg)}"
    if load.percent is not None:
        return f"{plain(load.percent)} %"
    if load.rep_max is not None:
        return f"{load.rep_max}RM"
    if load.of_top:
        return f"top {describe_shift(load.of_top)}"
    return describe_shift(load.of_previous) if load.of_previous else ""


def _settled(load: Settled) -> str:
    return _weight(load.kg, body=load.body)


def _weight(kg: Decimal, *, body: bool) -> str:
    """Kilograms, or what is added to body weight."""
    if not body:
        return plain(kg)
    return f"bw{'+' if kg > 0 else ''}{plain(kg)}" if kg else "bw"


def _done(bout: PlannedBout, performed: PerformedBout | None) -> str:
    """What was done of a bout: reps (and halves), the load where it was another one, reps left."""
    if performed is None:
        return ""
    words = [f"{performed.seconds}s" if performed.seconds else str(performed.reps)]
    if performed.partial_reps:
        words.append(f"+ {performed.partial_reps} half")
    if performed.kg is not None and (bout.settled is None or performed.kg != bout.settled.kg):
        words.append(f"at {_weight(performed.kg, body=performed.body)}")
    if performed.reserve is not None:
        words.append(f"/ {plain(performed.reserve)}")
    return " ".join(words)
