"""Reads broken texts until something gives: `python -m tests.fuzz [HOW MANY] [SEED]`, 100,000 by default.

Whole sessions are cut, joined, doubled and sprinkled with marks. A text may be wrong in any way; it may never
raise, never bring a problem without a place, and never be read as something that does not print back.
"""

import sys
from collections.abc import Iterator
from random import Random

from fortis.core.structure.methods import METHODS, write_method
from fortis.core.structure.notation import examine, read
from fortis.core.structure.writing import write

SEEDS = [write_method(method) for method in METHODS] + [
    "# Thursday\nSafety-bar squat [belt]: 3 at 150; 2 at 157,5; 2 x 3 at top -10% rest 4:00  # easy",
    "Split squat: 3 x 8-10 each side leave 1 tempo 3-x-1-0 rest 90s",
    "circuit, for 8:00, every 2 min:\n  Übung 🏋️: max at bw-20 lb\n  # a remark\n  B: hold 30s",
]
MARKS = [*"0123456789 x×:;,()[]#%-+.\n\t\x00é🏋", "leave", " at ", "99999999999", "within", "to failure", "drop"]


def mutations(random: Random) -> Iterator[str]:
    """Broken texts without end."""
    while True:
        text = random.choice(SEEDS)
        for _ in range(random.randint(1, 4)):
            at, to = sorted(random.randint(0, len(text)) for _ in range(2))
            kind = random.randrange(5)
            if kind == 0:
                text = text[:at] + text[to:]
            elif kind == 1:
                text = text[:at] + random.choice(MARKS) + text[at:]
            elif kind == 2:
                text = text[:to] + text[at:to] + text[to:]
            elif kind == 3:
                text = text[:at] + random.choice(SEEDS)[at:]
            else:
                text = text[:at] + random.choice(MARKS) + text[at + 1 :]
        yield text[:4_000]


def check(text: str) -> bool:
    """Check one text. Returns whether it was read without a problem; raises where something gave."""
    reading = examine(text)
    lines = text.expandtabs(4).splitlines() or [""]
    for problem in reading.problems:
        width = len(lines[problem.line - 1])
        assert 1 <= problem.column <= max(width, 1) + 1, (text, problem)
        assert problem.message, (text, problem)
    if not reading.problems:
        assert read(write(reading.session)) == reading.session, text
    return not reading.problems


def main() -> None:
    """Fuzz, and say what came of it."""
    many = int(sys.argv[1]) if len(sys.argv) > 1 else 100_000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    texts = mutations(Random(seed))
    good = sum(check(next(texts)) for _ in range(many))
    print(f"{many:,} texts: {good:,} read, {many - good:,} told what is wrong and where; none broke the reader.")


if __name__ == "__main__":
    main()
