import { useId } from "react";
import type { NextLoad, Schemas } from "@/data/client";
import { useChoosePolicy, usePolicies } from "@/data/queries";
import { Field } from "@/parts/Field";
import { Trouble } from "@/parts/Notice";
import { bodyWords, clock, plain } from "@/score/words";

type Policy = Schemas["Policy-Output"];

const MOVES: Record<NextLoad["move"], string> = {
  raise: "up",
  "more reps": "same load, more reps",
  "more sets": "same load, one set more",
  "shorter rests": "same load, shorter rests",
  hold: "same again",
  cut: "down",
};

/** What a session recommends for the next one, line by line, with its reasons, and how each lift progresses. */
export function NextLoads({ loads }: { loads: NextLoad[] }) {
  if (loads.length === 0) return null;
  return (
    <section aria-labelledby="next-loads">
      <h2 id="next-loads" className="text-xl font-bold">
        Next time
      </h2>
      <div className="mt-2 border-t border-ink">
        {loads.map((load) => (
          <article
            key={`${load.group}.${load.entry} ${load.exercise}`}
            aria-label={`Next time: ${load.exercise}`}
            className="grid gap-x-6 gap-y-2 border-b border-hairline py-3 sm:grid-cols-[14rem_12rem_1fr]"
          >
            <h3 className="font-semibold">{load.exercise}</h3>
            <p>
              <b className="narrow text-2xl">
                {words(load, load.kg)}
                {!(load.body && load.kg === 0) && <span className="text-base font-normal"> kg</span>}
              </b>
              <span className="ml-2 text-[15px] text-faint">
                {MOVES[load.move]}
                {load.sets !== null && ` (${load.sets})`}
                {load.rest !== null && ` (${clock(load.rest)})`}
                {load.kg !== load.was_kg && ` from ${words(load, load.was_kg)}`}
              </span>
            </p>
            <div className="text-[15px] text-faint">
              {load.reasons.map((reason) => (
                <p key={reason.text}>{reason.text}</p>
              ))}
              <Progress load={load} />
            </div>
          </article>
        ))}
      </div>
    </section>
  );
}

const words = (load: NextLoad, kg: number) => (load.body ? bodyWords(kg) : plain(kg));

/** How a lift progresses: chosen here, for all its lines. */
function Progress({ load }: { load: NextLoad }) {
  const { data: kinds = [] } = usePolicies();
  const choose = useChoosePolicy();
  const explained = useId();
  const { policy } = load;
  const put = (changed: Partial<Policy>) =>
    choose.mutate({ liftId: load.lift_id, policy: { ...policy, ...changed } });
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
      <label className="flex items-center gap-2">
        Progress
        <select
          value={policy.kind}
          onChange={(event) => put({ kind: event.target.value as Policy["kind"] })}
          aria-describedby={explained}
          className="min-h-11 rounded-card border border-hairline bg-paper px-2 text-ink"
        >
          {kinds.map(({ kind }) => (
            <option key={kind} value={kind}>
              {kind}
            </option>
          ))}
          {kinds.length === 0 && <option value={policy.kind}>{policy.kind}</option>}
        </select>
      </label>
      {policy.kind === "fixed step" && (
        <NumberField label="Step in kg" value={policy.step_kg} onKeep={(step_kg) => put({ step_kg })} />
      )}
      {policy.kind === "more sets" && (
        <NumberField
          label="Sets at most"
          value={policy.most_sets}
          onKeep={(most_sets) => put({ most_sets })}
        />
      )}
      {policy.kind === "shorter rests" && (
        <NumberField
          label="Shortest rest in seconds"
          value={policy.least_rest}
          onKeep={(least_rest) => put({ least_rest })}
        />
      )}
      <p id={explained} className="basis-full text-sm">
        {kinds.find(({ kind }) => kind === policy.kind)?.meaning}
      </p>
      {choose.error && <Trouble error={choose.error} />}
    </div>
  );
}

function NumberField({
  label,
  value,
  onKeep,
}: {
  label: string;
  value: number;
  onKeep: (typed: number) => void;
}) {
  return (
    <Field
      label={label}
      value={value}
      inputMode="decimal"
      className="flex items-center gap-2"
      onKeep={(typed) => onKeep(Number(typed.replace(",", ".")))}
    />
  );
}
