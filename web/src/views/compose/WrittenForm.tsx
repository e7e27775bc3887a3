import { lazy, memo, Suspense } from "react";
import type { Schemas } from "@/data/client";
import { useDrawn } from "@/parts/useDrawn";
import type { EditorHandle } from "./Editor";

/** Comes after the rest of the view, which can be read without it. */
const Editor = lazy(() => import("./Editor"));

/** The written form with, under it, what is wrong and where, and the likely mend one press away. */
export const WrittenForm = memo(function WrittenForm({
  onEditor,
  first,
  lifts,
  problems,
  onChange,
  onLine,
  onMend,
  onMove,
  onSave,
}: {
  onEditor: (editor: EditorHandle | null) => void;
  first: string;
  lifts: string[];
  problems: Schemas["Problem"][];
  onChange: (written: string) => void;
  onLine: (line: number) => void;
  onMend: (problem: Schemas["Problem"]) => void;
  onMove: (where: "earlier" | "later") => void;
  onSave: () => void;
}) {
  const drawn = useDrawn();
  const plainly = <pre className="min-h-24 whitespace-pre-wrap">{first}</pre>;
  return (
    <section
      aria-label="The session in writing"
      className="on-colour shrink-0 rounded-card bg-slate px-5 py-3 text-slate-text"
    >
      <p className="mb-2 flex justify-between text-sm text-slate-faint">
        <span>Written form. The score follows.</span>
        <span className="max-sm:hidden">Ctrl Space offers, Alt ↑↓ moves, Ctrl Z undoes</span>
      </p>
      <div className="lg:max-h-[24dvh] lg:overflow-y-auto">
        <Suspense fallback={plainly}>
          {drawn ? (
            <Editor
              onEditor={onEditor}
              first={first}
              lifts={lifts}
              problems={problems}
              onChange={onChange}
              onLine={onLine}
              onMove={onMove}
              onSave={onSave}
            />
          ) : (
            plainly
          )}
        </Suspense>
      </div>
      <div role="status" className="mt-2 text-[15px] text-slate-wrong lg:max-h-[12dvh] lg:overflow-y-auto">
        <ul className="space-y-1">
          {problems.map((problem) => (
            <li key={`${problem.line}:${problem.column}`}>
              Line {problem.line}, column {problem.column}: {problem.message}
              {problem.nearest && (
                <button
                  type="button"
                  onClick={() => onMend(problem)}
                  className="ml-2 underline underline-offset-4"
                >
                  Write {problem.nearest}
                </button>
              )}
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
});
