import { describe, expect, it } from "vitest";
import { work } from "@/score/test/steps";
import { asPlanned } from "@/session/done";
import { UNCHANGED } from "@/session/played";
import { positionOf } from "@/session/position";
import { type Action, NO_HISTORY, redone, undone, withAction } from "./history";

const bout = (set: number, reps: number | null, before: number | null = null): Action => {
  const step = work({ set, kg: 100, reps: 5 });
  const done = (count: number | null) =>
    count === null ? null : { ...asPlanned(step, { at: 0 }), reps: count };
  return { bout: { position: positionOf(step), before: done(before), after: done(reps) } };
};
const changes = (skipped: string[]): Action => {
  const of = (places: string[]) => ({ ...UNCHANGED, skipped: places });
  return { changes: { before: of([]), after: of(skipped) } };
};

describe("what can be taken back", () => {
  it("takes a bout and its corrections back as one, and says them again", () => {
    const history = [bout(1, 5), bout(1, 4, 5), bout(1, 3, 4)].reduce(withAction, NO_HISTORY);
    const back = undone(history);
    expect(back.action?.bout).toMatchObject({ before: null, after: { reps: 3 } });
    expect(undone(back.history).action).toBeUndefined();
    expect(redone(back.history)).toEqual({ history, action: back.action });
  });

  it("keeps words about different things apart, the last one first", () => {
    const history = [bout(1, 5), bout(2, 5), changes(["1.3.1.3.1"]), bout(2, 4, 5)].reduce(
      withAction,
      NO_HISTORY,
    );
    expect(history.past).toHaveLength(4);
    const first = undone(history);
    expect(first.action?.bout?.before?.reps).toBe(5);
    expect(undone(first.history).action?.changes?.before.skipped).toEqual([]);
  });

  it("forgets what was taken back once something else is action, and what is very old", () => {
    const back = undone(withAction(NO_HISTORY, bout(1, 5))).history;
    expect(redone(withAction(back, bout(2, 5))).action).toBeUndefined();
    const long = Array.from({ length: 150 }, (_, set) => bout(set + 1, 5)).reduce(withAction, NO_HISTORY);
    expect(long.past).toHaveLength(60);
  });
});
