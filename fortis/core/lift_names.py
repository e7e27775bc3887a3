"""Which lift is meant by what somebody else calls it."""

import re
from collections.abc import Mapping
from typing import NamedTuple

from fortis.core.exercises import LONGEST_NAME, Library, one_form
from fortis.core.value import one_spelling

_WORDS: Mapping[str, str] = {
    "bb": "barbell",
    "db": "dumbbell",
    "dumbell": "dumbbell",
    "dl": "deadlift",
    "kb": "kettlebell",
    "ez": "barbell",
    "inc": "incline",
    "ext": "extension",
    "tri": "triceps",
    "tricep": "triceps",
    "bicep": "biceps",
    "pullup": "pull up",
    "chinup": "chin up",
    "pushup": "push up",
    "stepup": "step up",
    "abs": "ab",
}
"""Words that lifters write in short, or otherwise (common practice)."""
_PHRASES: Mapping[str, str] = {
    "squat": "Back squat",
    "bench": "Bench press",
    "flat bench press": "Bench press",
    "ohp": "Overhead press",
    "press": "Overhead press",
    "military press": "Overhead press",
    "shoulder press": "Overhead press",
    "strict press": "Overhead press",
    "rdl": "Romanian deadlift",
    "dead": "Deadlift",
    "conventional deadlift": "Deadlift",
    "hex deadlift": "Trap-bar deadlift",
    "hex bar deadlift": "Trap-bar deadlift",
    "cgbp": "Close-grip bench press",
    "row": "Bent-over row",
    "chin": "Chin-up",
    "pull up": "Pull-up",
    "curl": "Barbell curl",
    "dumbbell bench press": "Dumbbell press",
    "incline dumbbell bench press": "Incline dumbbell press",
    "dumbbell shoulder press": "Seated dumbbell press",
    "dumbbell row": "One-arm row",
    "bulgarian split squat": "Split squat",
    "side raise": "Lateral raise",
    "triceps pushdown": "Cable pressdown",
    "pushdown": "Cable pressdown",
    "lying triceps extension": "Skull crusher",
    "calf raise": "Standing calf raise",
    "leg curl": "Lying leg curl",
    "lunge": "Walking lunge",
    "ab rollout": "Ab wheel",
    "farmer walk": "Farmer's carry",
}
"""What lifts are called in short (common practice)."""
_SAID_OR_NOT = frozenset({"barbell", "bar", "weighted", "the", "with", "lift", "machine", "cable", "bodyweight"})
"""Words that are often left out."""


class Meant(NamedTuple):
    """The lift that seems to be meant; `sure` where nothing else can be."""

    name: str
    sure: bool


def meant(name: str, library: Library) -> Meant | None:
    """The lift of a library that somebody else's name seems to mean; None where it resembles none."""
    found = library.find(name)
    if found.known:
        return Meant(found.name, sure=True)
    words = _words(name)
    by_words = {_words(lift.name): lift.name for lift in library}
    if exact := by_words.get(words):
        return Meant(exact, sure=True)
    if (lift := _SHORT.get(words) or _SHORT.get(words - _SAID_OR_NOT)) and library.find(lift).known:
        return Meant(library.find(lift).name, sure=False)
    bare = {each - _SAID_OR_NOT: lift for each, lift in by_words.items() if each - _SAID_OR_NOT}
    if lift := bare.get(words - _SAID_OR_NOT):
        return Meant(lift, sure=False)
    close = library.nearest_names(" ".join(name.split()), 1)
    return Meant(close[0], sure=False) if close and _words(close[0]) & words else None


def _words(name: str) -> frozenset[str]:
    words = re.sub(r"[^\w]+", " ", one_form(name).replace("'s", "")).split()
    singular = (_singular(word) for word in words)
    return frozenset(" ".join(_WORDS.get(word, word) for word in singular).split())


def _singular(word: str) -> str:
    if word.endswith("presses"):
        return word.removesuffix("es")
    return word if word.endswith("ss") or word in _NO_PLURALS else word.removesuffix("s")


_NO_PLURALS = frozenset({"triceps", "biceps"})
_SHORT = {_words(phrase): lift for phrase, lift in _PHRASES.items()}
_A_GROUP = re.compile(r"(pair|circuit)\s*(,|$)", re.IGNORECASE)
_SETS = re.compile(r"(?<=\d)\s*(x|×|sets?\s+of)\s*(?=[\d(])", re.IGNORECASE)


def as_lift_name(name: str) -> str:
    """A name in one spelling, without what the written notation would read as something else."""
    shown = "".join(letter if letter.isprintable() and letter not in "[]:;#" else " " for letter in name)
    plain = one_spelling(_SETS.sub(" by ", shown))
    return f"Lift {plain}"[:LONGEST_NAME] if not plain or _A_GROUP.match(plain) else plain[:LONGEST_NAME]
