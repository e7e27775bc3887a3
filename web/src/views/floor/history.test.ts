import { describe, expect, it } from "vitest";
import { work } from "@/score/test/steps";
import { NOTHING_SAID, redone, type Said, undone, withSaid } from "./history";
import { asPlanned, positionOf } from "./play";
import { UNCHANGED } from "./test/unchanged";

const bout = (set: number, reps: number | null, before: number | null = null): Said => {
  const step = work({ set, kg: 100, reps: 5 });
  const done = (count: number | null) => (count === null ? null : { ...asPlanned(step, 0), reps: count });
  return { bout: { position: positionOf(step), before: done(before), after: done(reps) } };
};
const changes = (skipped: string[]): Said => {
  const of = (places: string[]) => ({ ...UNCHANGED, skipped: places });
  return { changes: { before: of([]), after: of(skipped) } };
};

describe("what can be taken back", () => {
  it("takes a bout and its corrections back as one, and says them again", () => {
    const history = [bout(1, 5), bout(1, 4, 5), bout(1, 3, 4)].reduce(withSaid, NOTHING_SAID);
    const back = undone(history);
    expect(back.said?.bout).toMatchObject({ before: null, after: { reps: 3 } });
    expect(undone(back.history).said).toBeUndefined();
    expect(redone(back.history)).toEqual({ history, said: back.said });
  });

  it("keeps words about different things apart, the last one first", () => {
    const history = [bout(1, 5), bout(2, 5), changes(["1.3.1.3.1"]), bout(2, 4, 5)].reduce(
      withSaid,
      NOTHING_SAID,
    );
    expect(history.past).toHaveLength(4);
    const first = undone(history);
    expect(first.said?.bout?.before?.reps).toBe(5);
    expect(undone(first.history).said?.changes?.before.skipped).toEqual([]);
  });

  it("forgets what was taken back once something else is said, and what is very old", () => {
    const back = undone(withSaid(NOTHING_SAID, bout(1, 5))).history;
    expect(redone(withSaid(back, bout(2, 5))).said).toBeUndefined();
    const long = Array.from({ length: 150 }, (_, set) => bout(set + 1, 5)).reduce(withSaid, NOTHING_SAID);
    expect(long.past).toHaveLength(60);
  });
});
