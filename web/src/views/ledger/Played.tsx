import { group } from "d3-array";
import { useMemo } from "react";
import { Link } from "react-router";
import type { Bout, Schemas, Step } from "@/data/client";
import { useWidth } from "@/parts/useWidth";
import { captionsOf } from "@/score/captions";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";
import { positionKey, positionOf } from "@/session/position";
import { dayAndMonth, fullDate } from "../dates";

type Past = Schemas["PastSession"];
type Compared = Schemas["LiftComparison"];

/** A session as it was played, group by group, with the last time under it on the same scale. */
export function Played({ session }: { session: Past }) {
  const { before } = session;
  const now = useMemo(() => asDone(session.steps, session.bouts), [session]);
  const then = useMemo(() => (before ? asDone(before.steps, before.bouts) : []), [before]);
  if (!now.length) return null;
  const day = session.started_at?.slice(0, 10) ?? "";
  return (
    <section aria-labelledby="played">
      <h2 id="played" className="text-xl font-bold">
        As it was played
      </h2>
      {before && before.between > 0 && (
        <p className="text-[15px] text-faint">
          Beside it is {fullDate(before.started_at)}, which is fairer to compare than{" "}
          {before.between === 1 ? "the session" : `the ${before.between} sessions`} since.
        </p>
      )}
      <div className="mt-2 border-t border-ink">
        {[...group(now, ({ step }) => step.group).values()].map((steps) => {
          const lifts = new Set(steps.map(({ step }) => step.exercise));
          const last = then.filter(({ step }) => lifts.has(step.exercise));
          const compared = before?.compared.filter(({ exercise }) => lifts.has(exercise)) ?? [];
          return (
            <article key={steps[0]?.step.group} className="border-b border-hairline py-4">
              <Staves marks={steps} alongside={last} />
              {before && last.length > 0 && (
                <>
                  <p className="text-[15px] text-faint">
                    <Link to={`/ledger/${before.id}`} className="underline underline-offset-4">
                      {dayAndMonth(before.started_at.slice(0, 10))}
                    </Link>
                  </p>
                  <div className="opacity-55">
                    <Staves marks={last} alongside={steps} titled={false} />
                  </div>
                </>
              )}
              {compared.map((each) => (
                <Beside
                  key={each.lift_id + each.setup.items.join()}
                  compared={each}
                  named={compared.length > 1}
                />
              ))}
              {before && last.length > 0 && compared.length === 0 && (
                <p className="text-[15px] text-faint">
                  Not to compare with {dayAndMonth(before.started_at.slice(0, 10))}: another set-up. What was
                  done with this one is under its lift in Strength.
                </p>
              )}
            </article>
          );
        })}
      </div>
      {!before && (
        <p className="mt-2 text-[15px] text-faint">
          There is no session of this kind before {dayAndMonth(day)} to lay beside it.
        </p>
      )}
    </section>
  );
}

interface Marked {
  step: Step;
  bout: Bout | undefined;
}

/** The work of a session with what was done of it; what was done with another load stands at that. */
function asDone(steps: Step[], bouts: { bout: Bout }[]): Marked[] {
  const done = new Map(bouts.map(({ bout }) => [positionKey(bout.position), bout]));
  const work = steps.flatMap((step) => {
    if (step.warm_up || step.kind === "change") return [];
    const bout = step.kind === "work" ? done.get(positionKey(positionOf(step))) : undefined;
    if (step.left_out && !bout) return [];
    const other = bout?.kg != null && step.load?.kg != null;
    return [{ step: other ? { ...step, pitch: bout.kg } : step, bout }];
  });
  return work.filter(({ step }, at) => step.kind === "work" || work[at + 1]?.step.kind === "work");
}

function Staves({
  marks,
  alongside,
  titled = true,
}: {
  marks: Marked[];
  alongside: Marked[];
  titled?: boolean;
}) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const phone = width < 500;
  const left = phone ? 46 : 64;
  const steps = useMemo(() => marks.map(({ step }) => step), [marks]);
  const done = useMemo(
    () => new Map(marks.flatMap(({ bout }, at) => (bout ? [[at, bout] as const] : []))),
    [marks],
  );
  return (
    <div ref={ref}>
      <Score
        layout={layoutScore({
          steps,
          done,
          alongside: alongside.map(({ step }) => step),
          width,
          left,
          tightest: phone ? 1 : 0.72,
          titled,
        })}
        steps={steps}
        captions={captionsOf(steps)}
        left={left}
      />
    </div>
  );
}

/** What became of a lift since the last time; where that is not fair to say, why. */
function Beside({ compared, named }: { compared: Compared; named: boolean }) {
  return (
    <p className="mt-1 text-[15px]">
      {named && <b>{compared.exercise}: </b>}
      {compared.is_fair ? (
        <>
          <span className="text-faint">Fair to compare. </span>
          {compared.text}
        </>
      ) : (
        <>
          <b className="text-look">Not fair to compare:</b> {compared.unlike.join("; ")}. {compared.text}{" "}
          <span className="text-faint">{compared.fair_with}</span>
        </>
      )}
    </p>
  );
}
