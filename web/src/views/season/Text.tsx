import { useDeferredValue, useState } from "react";
import { v4 as newId } from "uuid";
import { type SeasonView, useEndSeason, useSaveSeason, useSeasonRead } from "@/data/season";
import { Button } from "@/parts/Button";
import { saveFile } from "@/parts/file";
import { Trouble } from "@/parts/Notice";

/**
 * The season as text: changed and saved here, its sessions follow. Where it is changed elsewhere meanwhile, what was
 * not touched here follows, and what was is kept until the lifter has chosen.
 */
export function Text({ season, first }: { season: SeasonView | null; first: string }) {
  const [was, begin] = useState(first);
  const [written, write] = useState(first);
  const there = season?.written ?? first;
  if (there !== was && (written === was || written === there)) {
    begin(there);
    write(there);
  }
  const isBehind = there !== was;
  const [id] = useState(() => season?.id ?? newId());
  const [ending, end] = useState(false);
  const { data: read } = useSeasonRead(useDeferredValue(written));
  const save = useSaveSeason();
  const stop = useEndSeason();
  const problems = written.trim() ? (read?.problems ?? []) : [];
  const sound = written.trim() !== "" && problems.length === 0;
  return (
    <div className="mt-3">
      <label className="block">
        <span className="sr-only">The season as text</span>
        <textarea
          value={written}
          onChange={(event) => write(event.target.value)}
          rows={Math.min(Math.max(written.split("\n").length + 1, 12), 34)}
          spellCheck={false}
          wrap="off"
          className="w-full overflow-x-auto rounded-card bg-slate p-3 text-[15px] leading-6 text-slate-text"
        />
      </label>
      <ul aria-label="What is wrong with it" className="text-[15px]">
        {problems.map((problem) => (
          <li key={`${problem.line} ${problem.message}`} className="mt-1 border-l-4 border-work pl-3">
            <b>Line {problem.line}: </b>
            {problem.message}
            {problem.nearest && ` Did you mean “${problem.nearest}”?`}
          </li>
        ))}
      </ul>
      {/* Its line is kept while it is empty, so that what is pressed under it does not move. */}
      <p role="status" className="mt-1 min-h-6 text-[15px] text-faint">
        {sound && read && `${read.weeks} weeks, ${read.sessions} sessions.`}
      </p>
      {season && isBehind && (
        <div role="alert" className="mt-2 border-l-4 border-look pl-3 text-[15px]">
          <p>The season was changed elsewhere meanwhile. Yours is still here.</p>
          <div className="mt-2 flex flex-wrap gap-2">
            <Button
              disabled={!sound || save.isPending}
              onClick={() => save.mutate({ id, written, was: there })}
            >
              Save mine instead
            </Button>
            <Button
              look="quiet"
              onClick={() => {
                begin(there);
                write(there);
                save.reset();
              }}
            >
              Take the other one
            </Button>
          </div>
        </div>
      )}
      {save.error && !isBehind && problems.length === 0 && <Trouble error={save.error} />}
      {stop.error && <Trouble error={stop.error} />}
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          look="strong"
          disabled={!sound || save.isPending || isBehind || written === season?.written}
          onClick={() => save.mutate({ id, written, was: season ? was : null })}
        >
          {season ? "Save the change" : "Plan this season"}
        </Button>
        <Button look="quiet" onClick={() => saveFile("season.txt", written)}>
          Save as a file
        </Button>
        {season && !ending && (
          <Button look="quiet" onClick={() => end(true)}>
            End the season
          </Button>
        )}
      </div>
      {season && ending && (
        <div role="alert" className="mt-3 border-l-4 border-look pl-3 text-[15px]">
          <p>Its sessions that were not begun are put aside. What was done stays in the Ledger.</p>
          <div className="mt-2 flex gap-2">
            <Button disabled={stop.isPending} onClick={() => stop.mutate(season.id)}>
              End it
            </Button>
            <Button look="quiet" onClick={() => end(false)}>
              Go on with it
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}
