import { type Ref, useId } from "react";
import type { Schemas } from "@/data/client";

/** The written form: plain text with numbered lines, and under it what is wrong and where. */
export function WrittenForm({
  ref,
  written,
  onChange,
  problems,
  onSave,
}: {
  ref: Ref<HTMLTextAreaElement>;
  written: string;
  onChange: (written: string) => void;
  problems: Schemas["Problem"][];
  onSave: () => void;
}) {
  const id = useId();
  const lines = written.split("\n").length;
  const faulty = new Set(problems.map((problem) => problem.line));
  return (
    <section className="on-colour rounded-card bg-slate p-5 text-slate-text">
      <label htmlFor={id} className="text-sm text-slate-faint">
        Written form. The score follows.
      </label>
      <div className="mt-2 flex gap-4 text-[15px] leading-7">
        <ol aria-hidden className="shrink-0 text-right text-slate-faint select-none">
          {Array.from({ length: Math.max(lines, 6) }, (_, line) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a line's number is its identity
            <li key={line} className={faulty.has(line + 1) ? "font-bold text-slate-wrong" : ""}>
              {line + 1}
            </li>
          ))}
        </ol>
        <textarea
          ref={ref}
          id={id}
          value={written}
          onChange={(event) => onChange(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
              event.preventDefault();
              onSave();
            }
          }}
          rows={Math.max(lines, 6)}
          wrap="off"
          spellCheck={false}
          autoCapitalize="off"
          autoCorrect="off"
          placeholder={"# Thursday, lower body\nBack squat: 3 x 5 at 100 kg leave 2 rest 3:00"}
          aria-invalid={problems.length > 0}
          aria-describedby={problems.length ? `${id}-problems` : undefined}
          className="min-w-0 flex-1 resize-none overflow-x-auto bg-transparent leading-7 text-slate-text outline-none placeholder:text-slate-faint"
        />
      </div>
      <div id={`${id}-problems`} role="status" className="mt-2 text-[15px] text-slate-wrong">
        <ul className="space-y-1">
          {problems.map((problem) => (
            <li key={`${problem.line}:${problem.column}`}>
              Line {problem.line}, column {problem.column}: {problem.message}
              {problem.nearest && ` Did you mean ${problem.nearest}?`}
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
