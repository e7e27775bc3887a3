import { useId, useState } from "react";
import type { Schemas } from "@/data/client";
import { useChoosePolicy, usePolicies } from "@/data/queries";
import { Field } from "./Field";
import { Trouble } from "./Notice";

type Policy = Schemas["Policy-Output"];

const CLIMBING = new Set<Policy["kind"]>(["a longer range", "a ladder"]);

/** Rungs as typed, one after the other with semicolons between. */
const rungsOf = (typed: string) =>
  typed
    .split(";")
    .map((rung) => rung.trim())
    .filter(Boolean);

/** How a lift progresses: chosen here, for all its lines. */
export function Progress({ liftId, policy }: { liftId: string; policy: Policy }) {
  const { data: kinds = [] } = usePolicies();
  const choose = useChoosePolicy();
  const explained = useId();
  const put = (changed: Partial<Policy>) => choose.mutate({ liftId, policy: { ...policy, ...changed } });
  const [climbing, setClimbing] = useState<Policy["kind"] | null>(null);
  const kind = climbing ?? policy.kind;
  const pick = (chosen: Policy["kind"]) => {
    const waits = CLIMBING.has(chosen) && policy.rungs.length < 2;
    setClimbing(waits ? chosen : null);
    if (!waits) put({ kind: chosen });
  };
  const keepRungs = (typed: string) => {
    put({ kind, rungs: rungsOf(typed) });
    setClimbing(null);
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
      <label className="flex items-center gap-2">
        Progress
        <select
          value={kind}
          onChange={(event) => pick(event.target.value as Policy["kind"])}
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
      {policy.kind === "double progression" && (
        <NumberField
          label="Reps to add at most"
          value={policy.more_reps}
          onKeep={(more_reps) => put({ more_reps })}
        />
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
      {CLIMBING.has(kind) && (
        <Field
          label={
            kind === "a ladder"
              ? "Its lifts, the easiest first"
              : "Its pins or boxes, the shortest range first"
          }
          value={policy.rungs.join("; ")}
          placeholder={kind === "a ladder" ? "Ring row; Ring row [feet up]" : "pin 8; pin 7; pin 6"}
          wide
          className="basis-full"
          onKeep={keepRungs}
        />
      )}
      {kind === "a ladder" && (
        <NumberField
          label="Seconds of a hold to the next"
          value={policy.rung_at}
          onKeep={(rung_at) => put({ rung_at })}
        />
      )}
      <p id={explained} className="basis-full text-sm">
        {kinds.find((each) => each.kind === kind)?.meaning}
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
