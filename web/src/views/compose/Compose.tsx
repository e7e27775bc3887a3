import { clsx } from "clsx";
import { useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { v4 as newId } from "uuid";
import { Status } from "@/app/Shell";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas } from "@/data/client";
import { useComposed, useDiscard, useExamined, useLifts, useSavePlan } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Loaded } from "@/parts/Loaded";
import { Notice, Trouble } from "@/parts/Notice";
import { useWidth } from "@/parts/useWidth";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";
import { isoDate } from "../dates";
import { captionsOf } from "../floor/CurrentGroup";
import { Cautions } from "./Cautions";
import { CostTable } from "./Costing";
import type { EditorHandle } from "./Editor";
import { EXAMPLE } from "./example";
import { Structures } from "./Structures";
import { WrittenForm } from "./WrittenForm";

const DRAFT = "fortis.compose.draft";
const NONE: Schemas["Problem"][] = [];

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
  const [line, setLine] = useState(1);
  const [day, setDay] = useState(saved ? (saved.planned_on ?? "") : isoDate(new Date()));
  const { data: examined, error } = useExamined(written);
  const { data: lifts = [] } = useLifts();
  const save = useSavePlan();
  const discard = useDiscard();
  const go = useNavigate();
  const editor = useRef<EditorHandle>(null);
  const changed = written !== (saved?.written ?? "");
  const played = saved !== undefined && saved.state !== "planned";
  const empty = written.trim() === "";

  const write = (next: string) => {
    setWritten(next);
    localStorage.setItem(draftKey, next);
  };
  const keep = () => {
    if (empty) return;
    const kept = () => {
      localStorage.removeItem(draftKey);
      go("/");
    };
    save.mutate({ id, written, plannedOn: day || null }, { onSuccess: kept });
  };
  const putAside = () =>
    saved &&
    discard.mutate(saved.id, {
      onSuccess: () => {
        localStorage.setItem(DRAFT, written);
        go("/");
      },
    });
  const mendSlip = ({ line: at, column, nearest }: Schemas["Problem"]) => {
    const text = written.split("\n")[at - 1] ?? "";
    const word = /^[^\s,;:()]*/.exec(text.slice(column - 1))?.[0] ?? "";
    editor.current?.replaceLine(
      at,
      text.slice(0, column - 1) + nearest + text.slice(column - 1 + word.length),
    );
  };
  const problems = empty ? NONE : (examined?.problems ?? NONE);
  useShortcut("mod+enter", "Ctrl Enter", "Save the session", keep);

  return (
    <div className="grid lg:min-h-[calc(100dvh-58px)] lg:grid-cols-[1fr_23rem]">
      <h1 className="sr-only">Compose</h1>
      <Status>{changed && !empty && <span role="status">draft kept on this device</span>}</Status>
      <div className="flex min-w-0 flex-col gap-4 p-4 sm:p-7">
        <div className="min-h-40 flex-1 space-y-1">
          {examined && !empty ? (
            <Groups examined={examined} line={line} onGoTo={(at) => editor.current?.goTo(at)} />
          ) : (
            <Opening onExample={() => editor.current?.replaceAll(EXAMPLE)} />
          )}
        </div>
        {error && <Trouble error={error} />}
        <div className="flex gap-2">
          <Structures lifts={lifts} onAdd={(added) => editor.current?.append(`${added}\n`)} />
        </div>
        <WrittenForm
          editor={editor}
          first={written}
          lifts={lifts}
          onChange={write}
          onLine={setLine}
          problems={problems}
          onMend={mendSlip}
          onSave={keep}
        />
      </div>
      <aside className="flex flex-col border-t border-ink bg-panel p-5 sm:p-7 lg:border-t-0 lg:border-l">
        <h2 className="text-2xl font-bold">{examined?.title ?? "Session"}</h2>
        <p className="text-faint">The first line that starts with # is its name.</p>
        {examined && !empty && <CostTable examined={examined} />}
        {examined && (
          <Cautions
            cautions={examined.cautions}
            onMend={(mend) => editor.current?.replaceLine(mend.line, mend.written)}
            onGoTo={(at) => editor.current?.goTo(at)}
          />
        )}
        {examined?.unknown.map((lift) => (
          <div key={lift.name} className="mt-4">
            <Notice>
              {lift.name} is not in the library: its load is taken as written and never rounded.
              {lift.nearest.map((name) => (
                <button
                  key={name}
                  type="button"
                  className="ml-2 underline underline-offset-4"
                  onClick={() => editor.current?.replaceAll(written.replaceAll(lift.name, name))}
                >
                  Use {name}
                </button>
              ))}
            </Notice>
          </div>
        ))}
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
              <Button look="quiet" onClick={putAside}>
                Put aside
              </Button>
            )}
          </div>
        </div>
      </aside>
    </div>
  );
}

/** The score of the whole text. The group the caret is in is marked; a press on a group takes the caret there. */
function Groups({
  examined,
  line,
  onGoTo,
}: {
  examined: Schemas["Examined"];
  line: number;
  onGoTo: (line: number) => void;
}) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const groups = useMemo(() => [...Map.groupBy(examined.timeline.steps, (step) => step.group)], [examined]);
  return (
    <div ref={ref} className="space-y-2">
      {groups.map(([group, steps]) => {
        const lines = examined.lines[group - 1] ?? [];
        return (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the written form is the way by key; this is a short cut
          // biome-ignore lint/a11y/noStaticElementInteractions: as above
          <div
            key={group}
            onClick={() => lines[0] !== undefined && onGoTo(lines[0])}
            className={clsx(
              "-ml-3 border-l-2 pl-3",
              lines.includes(line) ? "border-work" : "border-transparent",
            )}
          >
            <Score
              layout={layoutScore({ steps, width: width - 14 })}
              steps={steps}
              captions={captionsOf(steps)}
            />
          </div>
        );
      })}
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
