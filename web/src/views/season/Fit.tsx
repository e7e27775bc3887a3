import { useState } from "react";
import type { Schemas } from "@/data/client";
import { useKit } from "@/data/queries";
import { type SeasonView, useFit, useFitted, type WeekOfSeason } from "@/data/season";
import { Button } from "@/parts/Button";
import { Choice } from "@/parts/Field";
import { Trouble } from "@/parts/Notice";
import { SessionTexts } from "./SessionTexts";

/** Make a week fit what there is: another place, fewer sessions, only the main lifts, and what is lost by it. */
export function Fit({ season, week }: { season: SeasonView; week: WeekOfSeason }) {
  const [open, setOpen] = useState(false);
  return (
    <details
      className="mt-1 print:hidden"
      onToggle={(event) => setOpen((event.target as HTMLDetailsElement).open)}
    >
      <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
        Fit this week to what there is
      </summary>
      {open && <Fitting season={season} week={week} />}
    </details>
  );
}

function Fitting({ season, week }: { season: SeasonView; week: WeekOfSeason }) {
  const { data: kit } = useKit();
  const [told, tell] = useState({ place: "", sessions: "", main_only: false });
  const wanted: Schemas["Fit"] = {
    main_only: told.main_only,
    ...(told.place && { place_id: Number(told.place) }),
    ...(told.sessions && { sessions: Number(told.sessions) }),
  };
  const asks = told.place !== "" || told.sessions !== "" || told.main_only;
  const { data: found, error } = useFitted(season.id, week.monday, wanted);
  const fit = useFit(season.id, week.monday);
  const places = kit?.places ?? [];
  const fewer = Array.from({ length: Math.max((found?.sessions.length ?? 1) - 1, 0) }, (_, at) =>
    String(at + 1),
  );
  return (
    <>
      <div className="space-y-2">
        {places.length > 1 && (
          <Choice
            above
            label="Trained at"
            of={[["", "the usual place"], ...places.map(({ id, kit }) => [String(id), kit.place] as const)]}
            value={told.place}
            onPick={(place) => tell({ ...told, place })}
          />
        )}
        <Choice
          above
          label="Sessions there is time for"
          of={[["", "all of them"], ...fewer.map((many) => [many, many] as const)]}
          value={told.sessions}
          onPick={(sessions) => tell({ ...told, sessions })}
        />
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="accent-ink"
            checked={told.main_only}
            onChange={({ target }) => tell({ ...told, main_only: target.checked })}
          />
          Only the main lifts
        </label>
      </div>
      {error && <Trouble error={error} />}
      {asks && found && (
        <>
          {found.lost.map((each) => (
            <p key={each} className="mt-2 border-l-3 border-look pl-3">
              {each}
            </p>
          ))}
          <SessionTexts of={found.sessions} withDays />
          <Button look="strong" className="mt-2" disabled={fit.isPending} onClick={() => fit.mutate(wanted)}>
            Change the week
          </Button>
          <p className="mt-1 text-sm text-faint">
            The rest of the season stays. What is changed so is yours and stays as it is when the season
            changes.
          </p>
        </>
      )}
      {found?.is_changed && (
        <Button className="mt-2" disabled={fit.isPending} onClick={() => fit.mutate(null)}>
          Plan it as the season has it
        </Button>
      )}
      {fit.error && <Trouble error={fit.error} />}
    </>
  );
}
