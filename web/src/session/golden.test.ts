import { describe, expect, it } from "vitest";
import type { Bout, Schemas, Step } from "@/data/client";
import { NO_LOAD } from "@/score/test/steps";
import { adviceFor, lookedUp } from "./advice";
import { completed, countOf, numberOf } from "./counting";
import { boutOf, type Done } from "./done";
import adviceCases from "./golden/advice.json";
import countingCases from "./golden/counting.json";
import playedCases from "./golden/played.json";
import slowingCases from "./golden/slowing.json";
import { type Adjustments, asPlayed, BLANK, inTime, setsOf } from "./played";
import { slowedOf } from "./slowing";

/*
 * What the core makes of random sessions, random changes and random words, and what the client makes of them. The
 * cases are made by `make golden`.
 */

const SETTLED = { sleeve: [], bottom_kg: null, top_kg: null, mean_kg: null, advised: false };

/** A step as the server would send it, from the part of it that the cases hold. */
const whole = (step: Partial<Step>): Step =>
  ({
    ...BLANK,
    ...step,
    load: step.load ? { ...NO_LOAD, ...step.load } : null,
    settled: step.settled ? { ...SETTLED, ...step.settled } : null,
  }) as Step;

const number = (kg: number) => String(Math.round(kg * 1e4) / 1e4);

/** A step in a line, as `told` in `tests/golden.py` tells it. */
function told(step: Step): string {
  const words: (string | false)[] = [
    step.kind,
    `${step.group}.${step.round}.${step.entry}.${step.set}.${step.bout}`,
    step.exercise,
    `${step.seconds} s`,
    step.side !== "both" && `side ${step.side}`,
    step.what ?? false,
    step.short && "short",
    step.every !== null && `every ${step.every}`,
    step.warm_up && "warm-up",
    step.left_out && "left out",
  ];
  if (step.kind === "work") {
    words.push(`[${step.setup.items.join(", ")}]`, `then ${step.then_rest}`);
    words.push(step.then_every !== null && `then every ${step.then_every}`);
    words.push(step.load?.kg != null && `at ${number(step.load.kg)}`);
    if (step.settled) {
      words.push(`sleeve ${step.settled.sleeve.map(number).join("+")}`);
      words.push(step.settled.top_kg !== null && `top ${number(step.settled.top_kg)}`);
      words.push(step.settled.advised && "advised");
    }
  }
  return words.filter(Boolean).join(" · ");
}

describe("the session as it is played", () => {
  const { pace, cases } = playedCases;

  it("puts the plan in time as the core does", () => {
    for (const { steps, as_planned } of cases) {
      const planned = (steps as Partial<Step>[]).map(whole);
      expect(inTime(setsOf(planned), new Set(), pace).map(told)).toEqual(as_planned);
    }
  });

  it("changes the plan as the core does, in every case", () => {
    let seen = 0;
    for (const { steps, changes } of cases) {
      const planned = (steps as Partial<Step>[]).map(whole);
      for (const { changed, expected } of changes) {
        const played = asPlayed(planned, changed as unknown as Adjustments, pace);
        expect(played.map(told), JSON.stringify(changed)).toEqual(expected);
        seen += 1;
      }
    }
    expect(seen).toBeGreaterThan(500);
  });
});

describe("what a lifter's word comes to", () => {
  it("is counted and completed as the core does", () => {
    for (const { counts, least, number, told, ended_given, expected } of countingCases.cases) {
      const step = { counts, least } as Pick<Step, "counts" | "least">;
      const { reps, partial_reps, seconds } = told;
      expect(countOf(step, number)).toEqual({ reps, partial_reps, seconds });
      expect(numberOf(step, countOf(step, number))).toBe(number);
      expect(completed(step, told as Schemas["BoutDone"], ended_given)).toEqual(expected);
    }
  });

  it("is looked up as the rules would say it", () => {
    let found = 0;
    let again = 0;
    for (const { table, lookups } of adviceCases.cases) {
      for (const lookup of lookups) {
        const { bouts, expected } = lookup;
        const steps = bouts.map((bout) =>
          whole({
            kind: "work",
            exercise: bout.exercise,
            counts: bout.counts as Step["counts"],
            ...bout.position,
          }),
        );
        const done: Done = new Map(
          bouts.map((bout, index) => [
            index,
            { bout: { ...boutOf(bout.position, bout as never) } as Bout } as never,
          ]),
        );
        const advice = adviceFor(table as never, steps, done, bouts.length - 1);
        expect(advice?.text ?? null).toBe(expected);
        if (expected) found += 1;
        if (lookup.again) again += 1;
      }
    }
    expect(found).toBeGreaterThan(60);
    expect(again).toBeGreaterThan(5);
  });

  it("is nothing for a load the table does not know", () => {
    const { table, lookups } = adviceCases.cases[0] as (typeof adviceCases.cases)[number];
    const bout = lookups.find((each) => each.expected)?.bouts.at(-1);
    if (!bout) throw new Error("no case with advice");
    const step = whole({ kind: "work", exercise: bout.exercise, counts: "reps", ...bout.position });
    const other = { ...boutOf(bout.position, bout as never), kg: 1234 };
    expect(lookedUp(table as never, step, other)).toBeNull();
  });
});

describe("how reps slowed", () => {
  it("is told as the core does", () => {
    for (const { taps, expected } of slowingCases.cases) {
      const slowed = slowedOf(taps, slowingCases.slowing);
      const rounded = slowed && {
        usual: Math.round(slowed.usual * 1e6) / 1e6,
        last: Math.round(slowed.last * 1e6) / 1e6,
        ...(slowed.left === null ? {} : { left: slowed.left }),
      };
      expect(rounded).toEqual(expected);
    }
  });
});
