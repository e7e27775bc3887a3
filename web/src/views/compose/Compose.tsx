import { useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { v4 as newId } from "uuid";
import { Status } from "@/app/Shell";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas } from "@/data/client";
import { useComposed, useDiscard, useExamined, useSavePlan } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Loaded } from "@/parts/Loaded";
import { Notice, Trouble } from "@/parts/Notice";
import { useWidth } from "@/parts/useWidth";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";
import { kilograms, minutes, plain } from "@/score/words";
import { isoDate } from "../dates";
import { captionsOf } from "../floor/CurrentGroup";
import { EXAMPLE } from "./example";
import { WrittenForm } from "./WrittenForm";

const DRAFT = "fortis.compose.draft";

/** Write a session, or change one: the text, its score, what it comes to. */
export default function Compose() {
  const { id } = useParams();
  const composed = useComposed(id);
  if (!id) return <Desk key="new" />;
  return (
    <Loaded query={composed} what="the session">
      {(saved) => <Desk key={saved.id} saved={saved} />}
    </Loaded>
  );
}

function Desk({ saved }: { saved?: Schemas["Composed"] }) {
  const [id] = useState(() => saved?.id ?? newId());
  const draftKey = saved ? `${DRAFT}.${saved.id}` : DRAFT;
  const [written, setWritten] = useState(() => localStorage.getItem(draftKey) ?? saved?.written ?? "");
  const [day, setDay] = useState(saved ? (saved.planned_on ?? "") : isoDate(new Date()));
  const { data: examined, error } = useExamined(written);
  const save = useSavePlan();
  const discard = useDiscard();
  const go = useNavigate();
  const text = useRef<HTMLTextAreaElement>(null);
  const changed = written !== (saved?.written ?? "");
  const played = saved !== undefined && saved.state !== "planned";

  const write = (next: string) => {
    setWritten(next);
    localStorage.setItem(draftKey, next);
  };
  const keep = () =>
    save.mutate(
      { id, written, plannedOn: day || null },
      {
        onSuccess: () => {
          localStorage.removeItem(draftKey);
          go("/");
        },
      },
    );
  const problems = examined?.problems ?? [];
  const empty = written.trim() === "";
  useShortcut("mod+enter", "Ctrl Enter", "Save the session", () => !empty && keep());

  return (
    <div className="grid lg:min-h-[calc(100dvh-58px)] lg:grid-cols-[1fr_23rem]">
      <h1 className="sr-only">Compose</h1>
      <Status>{changed && !empty && <span role="status">draft kept on this device</span>}</Status>
      <div className="flex min-w-0 flex-col gap-4 p-4 sm:p-7">
        <div className="min-h-40 flex-1 space-y-1">
          {examined && !empty ? (
            <Groups timeline={examined.timeline} />
          ) : (
            <Opening onExample={() => write(EXAMPLE)} />
          )}
        </div>
        {error && <Trouble error={error} />}
        <WrittenForm
          ref={text}
          written={written}
          onChange={write}
          problems={empty ? [] : problems}
          onSave={keep}
        />
      </div>
      <aside className="flex flex-col border-t border-ink bg-panel p-5 sm:p-7 lg:border-t-0 lg:border-l">
        <h2 className="text-2xl font-bold">{examined?.title ?? "Session"}</h2>
        <p className="text-faint">The first line that starts with # is its name.</p>
        {examined && !empty && <Costing tally={examined.tally} />}
        {examined && examined.unknown.length > 0 && (
          <div className="mt-6 space-y-3">
            <h3 className="font-bold">Worth a second look</h3>
            {examined.unknown.map((lift) => (
              <Notice key={lift.name}>
                {lift.name} is not in the library: its load is taken as written and never rounded.
                {lift.nearest.map((name) => (
                  <button
                    key={name}
                    type="button"
                    className="ml-2 underline underline-offset-4"
                    onClick={() => write(written.replaceAll(lift.name, name))}
                  >
                    Use {name}
                  </button>
                ))}
              </Notice>
            ))}
          </div>
        )}
        <div className="mt-8 space-y-3 lg:mt-auto lg:pt-8">
          {save.error && <Trouble error={save.error} />}
          {played && <Notice>This session has been started: its text stays as it was played.</Notice>}
          <label className="flex items-center justify-between gap-3">
            <span>On</span>
            <input
              type="date"
              value={day}
              onChange={(event) => setDay(event.target.value)}
              className="min-h-11 rounded-card border border-hairline bg-paper px-3"
            />
          </label>
          <div className="flex gap-2">
            <Button
              look="strong"
              hotkey="Ctrl ⏎"
              className="flex-1"
              onClick={keep}
              disabled={empty || save.isPending || played}
            >
              {day ? "Save as planned" : "Save without a date"}
            </Button>
            {saved?.state === "planned" && (
              <Button
                look="quiet"
                onClick={() =>
                  discard.mutate(saved.id, {
                    onSuccess: () => {
                      localStorage.setItem(DRAFT, written);
                      go("/");
                    },
                  })
                }
              >
                Put aside
              </Button>
            )}
          </div>
        </div>
      </aside>
    </div>
  );
}

function Groups({ timeline }: { timeline: Schemas["Timeline"] }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const groups = useMemo(() => [...Map.groupBy(timeline.steps, (step) => step.group)], [timeline]);
  return (
    <div ref={ref} className="space-y-2">
      {groups.map(([group, steps]) => (
        <Score
          key={group}
          layout={layoutScore({ steps, width })}
          steps={steps}
          captions={captionsOf(steps)}
        />
      ))}
    </div>
  );
}

function Opening({ onExample }: { onExample: () => void }) {
  return (
    <div className="max-w-prose py-6">
      <p className="text-2xl font-bold">Write what you mean to lift</p>
      <p className="mt-2 text-faint">
        A line a lift: its name, a colon, its sets. The score appears as you write.
      </p>
      <Button className="mt-4" onClick={onExample}>
        Start from an example
      </Button>
    </div>
  );
}

function Costing({ tally }: { tally: Schemas["PlanTally"] }) {
  return (
    <table className="mt-6 w-full">
      <caption className="sr-only">What this session comes to</caption>
      <tbody>
        <Row name="Time on the floor" value={minutes(tally.seconds)} />
        <Row name="Reps" value={String(tally.reps)} />
        <Row name="Tonnage" value={kilograms(tally.tonnage_kg)} />
        {tally.lifts.map((lift) => (
          <Row
            key={lift.exercise}
            name={`Average load, ${lift.exercise.toLowerCase()}`}
            value={lift.average_kg === null ? "not settled" : `${plain(lift.average_kg)} kg`}
          />
        ))}
      </tbody>
    </table>
  );
}

const Row = ({ name, value }: { name: string; value: string }) => (
  <tr>
    <th scope="row" className="py-1 text-left font-normal">
      {name}
    </th>
    <td className="py-1 text-right font-bold">{value}</td>
  </tr>
);
