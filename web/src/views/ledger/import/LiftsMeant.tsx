import { useId, useState } from "react";
import type { Schemas } from "@/data/client";
import { useMean, type WaitingFile } from "@/data/imports";
import { useLifts } from "@/data/queries";
import { Trouble } from "@/parts/Notice";
import { counted } from "../../counted";

/** Which lift each name in a file means; those to look at first. */
export function LiftsMeant({ file, preview }: { file: WaitingFile; preview: Schemas["LogPreview"] }) {
  const { data: lifts = [] } = useLifts();
  const mean = useMean();
  const names = useId();
  const [all, setAll] = useState(false);
  const known = new Set(lifts.map((lift) => lift.name));
  const told = { ...file.lifts, ...(mean.isPending ? mean.variables.told : {}) };
  const unsure = preview.lifts.filter((lift) => !lift.sure);
  const shown = all ? [...unsure, ...preview.lifts.filter((lift) => lift.sure)] : unsure;
  const put = (name: string, meant: string) => mean.mutate({ id: file.id, told: { [name]: meant } });
  const others = preview.lifts.length - unsure.length;
  return (
    <section aria-labelledby="lifts-meant">
      <h2 id="lifts-meant" className="text-xl font-bold">
        The lifts
      </h2>
      <p className="mt-1 text-[15px] text-faint">
        {unsure.length === 0
          ? `All ${counted(preview.lifts.length, "lift")} are called as Fortis calls them.`
          : "A lift keeps one history under one name. Look at each of these; one that is left empty is not taken."}
      </p>
      <datalist id={names}>
        {lifts.map((lift) => (
          <option key={lift.name} value={lift.name} />
        ))}
      </datalist>
      {shown.length > 0 && (
        <ul className="mt-3 border-t border-ink">
          {shown.map(({ name, bouts }) => {
            const meant = told[name] ?? "";
            return (
              <li key={name} className="grid grid-cols-2 items-center gap-x-4 border-b border-hairline py-1">
                <div className="min-w-0">
                  <p className="font-semibold break-words">{name}</p>
                  <p className="text-sm text-faint">{counted(bouts, "bout")}</p>
                </div>
                <div>
                  <input
                    key={meant}
                    list={names}
                    aria-label={`${name} is`}
                    defaultValue={meant}
                    onBlur={(event) => {
                      const typed = event.target.value.trim();
                      if (typed !== meant) put(name, typed);
                    }}
                    onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
                    className="min-h-11 w-full rounded-card border border-hairline bg-panel px-2"
                  />
                  <p className="text-sm text-faint">{aboutIt(meant, known)}</p>
                </div>
              </li>
            );
          })}
        </ul>
      )}
      {unsure.length > 0 && others > 0 && (
        <button
          type="button"
          aria-expanded={all}
          onClick={() => setAll(!all)}
          className="mt-1 min-h-11 underline underline-offset-4"
        >
          {all ? "Only those to look at" : `And ${others} that are sure`}
        </button>
      )}
      {mean.error && <Trouble error={mean.error} />}
    </section>
  );
}

function aboutIt(meant: string, known: Set<string>): string {
  if (meant === "") return "Not taken.";
  return known.has(meant) ? "" : "A lift Fortis does not know: its loads count as they are written.";
}
