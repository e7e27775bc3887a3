import { useState } from "react";
import type { Schemas } from "@/data/client";
import { type SeasonView, useLighten, useWaysToLighten, type WeekOfSeason } from "@/data/season";
import { Button } from "@/parts/Button";
import { Trouble } from "@/parts/Notice";
import { dayAndMonth } from "../dates";
import { SessionTexts } from "./SessionTexts";

type Proposal = Schemas["LightProposal"];

/** Make a week light: by which school, between its neighbours or in place of its plan, and what it would be. */
export function Lighten({ season, week }: { season: SeasonView; week: WeekOfSeason }) {
  const { data: ways } = useWaysToLighten(season.id, week.monday);
  const lighten = useLighten(season.id);
  const [picked, pick] = useState<string | null>(null);
  const isLight = week.block !== null && season.blocks[week.block - 1]?.kind === "light";
  if (!ways?.length || isLight) return null;
  const chosen = ways.find((way) => nameOf(way) === picked) ?? usual(ways, season);
  const { school, instead } = chosen;
  return (
    <details className="mt-4 print:hidden">
      <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
        Make this week light
      </summary>
      <fieldset>
        <legend className="sr-only">How</legend>
        {ways.map((way) => (
          <label key={nameOf(way)} className="flex min-h-11 items-start gap-2 py-1.5">
            <input
              type="radio"
              name={`light ${week.monday}`}
              className="mt-1.5 accent-ink"
              checked={way === chosen}
              onChange={() => pick(nameOf(way))}
            />
            <span>
              <span className="block first-letter:uppercase">{nameOf(way)}</span>
              <span className="block text-sm text-faint">
                {way.instead
                  ? "Nothing else moves"
                  : `The season ends in the week of ${dayAndMonth(way.last)}`}
              </span>
            </span>
          </label>
        ))}
      </fieldset>
      <h3 className="mt-2 font-semibold">What it would be</h3>
      <SessionTexts of={chosen.sessions} />
      <p className="text-sm text-faint">
        {school === "heavy and short"
          ? "Heavy and short keeps skill and readiness, and weights do not feel strange afterwards."
          : "Half the load rests joints and mood; the first heavy week after it can feel flat."}
      </p>
      <Button
        look="strong"
        className="mt-3"
        disabled={lighten.isPending}
        onClick={() =>
          lighten.mutate({ monday: week.monday, school, instead }, { onSuccess: () => show("The week") })
        }
      >
        Make it light
      </Button>
      {lighten.error && <Trouble error={lighten.error} />}
    </details>
  );
}

/** Bring a part of the page back into view that stood far above. */
const show = (label: string) =>
  document.querySelector(`section[aria-label="${label}"]`)?.scrollIntoView({ block: "nearest" });

const nameOf = ({ school, instead }: Proposal) =>
  `${school}, ${instead ? "in place of what is planned" : "and all that follows a week later"}`;

/** A date does not move, so what leads to it gives way; else nothing is lost. */
const usual = (ways: Proposal[], { aim }: SeasonView) =>
  ways.find((way) => way.instead === (aim !== null)) ?? (ways[0] as Proposal);
