import { useId } from "react";
import type { Schemas } from "@/data/client";
import { useChoosePolicy, usePolicies } from "@/data/queries";
import { Field } from "./Field";
import { Trouble } from "./Notice";

type Policy = Schemas["Policy-Output"];

/** How a lift progresses: chosen here, for all its lines. */
export function Progress({ liftId, policy }: { liftId: string; policy: Policy }) {
  const { data: kinds = [] } = usePolicies();
  const choose = useChoosePolicy();
  const explained = useId();
  const put = (changed: Partial<Policy>) => choose.mutate({ liftId, policy: { ...policy, ...changed } });
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
