import { ArrowDown, ArrowUp, Copy, Link2, Trash2, Unlink2 } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas } from "@/data/client";
import { useNumbers } from "@/data/queries";
import { Builds } from "@/parts/Builds";
import { Progress } from "@/parts/Progress";
import { isMadeLighter } from "@/parts/Reasons";
import { plain } from "@/score/words";

/** Whether it says why a load is another than the one that is written. */
const isChange = (reason: Schemas["Reason"]) => reason.code.startsWith("rounding") || isMadeLighter(reason);

type Act = Schemas["Act"];
type WrittenNumber = Schemas["WrittenNumber"];

/** The lift the caret is in, by hand: moved, paired, copied, taken out, and each of its numbers turned. */
export function Hands({
  line,
  written,
  paired,
  lift,
  behind,
  onAct,
  onWrite,
}: {
  line: number;
  written: string;
  paired: boolean;
  lift: Schemas["LiftLine"] | null;
  /** Whether the score is still to follow what was written. */
  behind: boolean;
  onAct: (act: Act) => void;
  onWrite: (written: string) => void;
}) {
  const [said, say] = useState<Said>(NOTHING_SAID);
  const values = said.line === line ? said.values : NOTHING_SAID.values;
  const waits = values.size > 0;
  const { data: numbers = [], isPlaceholderData: ofBefore } = useNumbers(written, behind && !waits);
  useEffect(() => {
    if (!waits || ofBefore) return;
    say(NOTHING_SAID);
    const changed = withNumbers(written, numbers, values);
    if (changed !== written) onWrite(changed);
  }, [waits, values, ofBefore, numbers, written, onWrite]);
  const name = written.split(/[:[]/)[0]?.trim() ?? "";
  useShortcut("alt+up", "Alt ↑", "Move the lift earlier", () => onAct("earlier"));
  useShortcut("alt+down", "Alt ↓", "Move the lift later", () => onAct("later"));
  return (
    <section
      aria-label={`${name} by hand`}
      className="flex flex-wrap items-end gap-x-4 gap-y-1 rounded-card border border-hairline bg-panel px-4 pb-2"
    >
      <div className="flex w-full flex-wrap items-center justify-between gap-x-4">
        <h2 className="font-bold">{name}</h2>
        <div className="-mr-3 flex">
          <Act act="earlier" onAct={onAct} does="Earlier" icon={<ArrowUp size={18} aria-hidden />} />
          <Act act="later" onAct={onAct} does="Later" icon={<ArrowDown size={18} aria-hidden />} />
          {paired ? (
            <Act act="part" onAct={onAct} does="Part" icon={<Unlink2 size={18} aria-hidden />} />
          ) : (
            <Act act="pair" onAct={onAct} does="Pair with the next" icon={<Link2 size={18} aria-hidden />} />
          )}
          <Act act="copy" onAct={onAct} does="Copy" icon={<Copy size={18} aria-hidden />} />
          <Act act="remove" onAct={onAct} does="Take out" icon={<Trash2 size={18} aria-hidden />} />
        </div>
      </div>
      {numbers.map((number) => (
        <Turned
          key={number.label}
          number={number}
          value={values.get(number.label) ?? number.value}
          onSay={(value) => say({ line, values: new Map(values).set(number.label, value) })}
        />
      ))}
      {lift && (
        <div className="w-full text-sm text-faint [&>p]:mr-2 [&>p]:inline">
          <Builds lift={lift} />
          {lift.reasons.filter(isChange).map((reason) => (
            <p key={reason.text}>{reason.text}</p>
          ))}
          <details>
            <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
              Progress: {lift.policy.kind}
            </summary>
            <Progress liftId={lift.lift_id} policy={lift.policy} />
          </details>
        </div>
      )}
    </section>
  );
}

function Act({
  act,
  does,
  icon,
  onAct,
}: {
  act: Act;
  does: string;
  icon: ReactNode;
  onAct: (act: Act) => void;
}) {
  return (
    <button
      type="button"
      aria-label={does}
      title={does}
      onClick={() => onAct(act)}
      className="grid size-11 place-items-center text-faint hover:text-ink"
    >
      {icon}
    </button>
  );
}

/** Numbers of a line turned by hand, by label, until they stand in the text. */
interface Said {
  line: number;
  values: ReadonlyMap<string, number>;
}

const NOTHING_SAID: Said = { line: 0, values: new Map() };

/** A line with some of its numbers changed, each in its place. */
function withNumbers(written: string, numbers: WrittenNumber[], values: Said["values"]): string {
  return numbers.reduceRight((text, { label, column, length, suffix }) => {
    const value = values.get(label);
    const at = column - 1;
    return value === undefined ? text : text.slice(0, at) + plain(value) + suffix + text.slice(at + length);
  }, written);
}

/** One number of the line. What is typed goes into the text as soon as it is known where it stands there. */
function Turned({
  number,
  value,
  onSay,
}: {
  number: WrittenNumber;
  value: number;
  onSay: (value: number) => void;
}) {
  const put = (value: number) => Number.isFinite(value) && value >= 0 && onSay(value);
  return (
    <label className="text-sm">
      <span className="block text-faint">{number.label.replace(", seconds", ", s")}</span>
      <input
        type="number"
        aria-label={number.label}
        min={0}
        step={number.step}
        value={value}
        onChange={(event) => put(event.target.valueAsNumber)}
        className="min-h-11 w-16 rounded-card border border-hairline bg-paper px-2 text-base font-semibold"
      />
    </label>
  );
}
