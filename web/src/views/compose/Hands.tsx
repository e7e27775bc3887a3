import { ArrowDown, ArrowUp, Copy, Link2, Trash2, Unlink2 } from "lucide-react";
import type { ReactNode } from "react";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas } from "@/data/client";
import { useNumbers } from "@/data/queries";
import { plain } from "@/score/words";

type Act = Schemas["Act"];
type WrittenNumber = Schemas["WrittenNumber"];

/** The lift the caret is in, by hand: moved, paired, copied, taken out, and each of its numbers turned. */
export function Hands({
  line,
  written,
  paired,
  onAct,
  onWrite,
}: {
  line: number;
  written: string;
  paired: boolean;
  onAct: (act: Act) => void;
  onWrite: (written: string) => void;
}) {
  const { data: numbers = [] } = useNumbers(written);
  const name = written.split(/[:[]/)[0]?.trim() ?? "";
  useShortcut("alt+up", "Alt ↑", "Move the lift earlier", () => onAct("earlier"));
  useShortcut("alt+down", "Alt ↓", "Move the lift later", () => onAct("later"));
  return (
    <section
      aria-label={`${name} by hand`}
      className="rounded-card border border-hairline bg-panel px-4 py-3"
    >
      <div className="flex flex-wrap items-center gap-x-4">
        <h2 className="mr-auto font-bold">{name}</h2>
        <Act act="earlier" onAct={onAct} icon={<ArrowUp size={16} aria-hidden />}>
          Earlier
        </Act>
        <Act act="later" onAct={onAct} icon={<ArrowDown size={16} aria-hidden />}>
          Later
        </Act>
        {paired ? (
          <Act act="part" onAct={onAct} icon={<Unlink2 size={16} aria-hidden />}>
            Part
          </Act>
        ) : (
          <Act act="pair" onAct={onAct} icon={<Link2 size={16} aria-hidden />}>
            Pair with the next
          </Act>
        )}
        <Act act="copy" onAct={onAct} icon={<Copy size={16} aria-hidden />}>
          Copy
        </Act>
        <Act act="remove" onAct={onAct} icon={<Trash2 size={16} aria-hidden />}>
          Take out
        </Act>
      </div>
      {numbers.length > 0 && (
        <div className="mt-1 flex flex-wrap gap-x-4 gap-y-2">
          {numbers.map((number) => (
            <Turned key={`${line} ${number.label}`} number={number} written={written} onWrite={onWrite} />
          ))}
        </div>
      )}
    </section>
  );
}

function Act({
  act,
  icon,
  onAct,
  children,
}: {
  act: Act;
  icon: ReactNode;
  onAct: (act: Act) => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      onClick={() => onAct(act)}
      className="flex min-h-11 items-center gap-1.5 text-[15px] text-faint hover:text-ink"
    >
      {icon}
      {children}
    </button>
  );
}

/** One number of the line. What is typed goes straight into the text, in its place. */
function Turned({
  number,
  written,
  onWrite,
}: {
  number: WrittenNumber;
  written: string;
  onWrite: (written: string) => void;
}) {
  const put = (value: number) => {
    if (!Number.isFinite(value) || value < 0) return;
    const at = number.column - 1;
    onWrite(`${written.slice(0, at)}${plain(value)}${number.suffix}${written.slice(at + number.length)}`);
  };
  return (
    <label className="text-sm">
      <span className="block text-faint">{number.label}</span>
      <input
        type="number"
        min={0}
        step={number.step}
        value={number.value}
        onChange={(event) => put(event.target.valueAsNumber)}
        className="min-h-11 w-20 rounded-card border border-hairline bg-paper px-2 text-base font-semibold"
      />
    </label>
  );
}
