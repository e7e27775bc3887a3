import { useMemo, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { v4 as newId } from "uuid";
import { Status } from "@/app/Shell";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas } from "@/data/client";
import { useArrange, useComposed, useDiscard, useExamined, useLifts, useSavePlan } from "@/data/queries";
import { Button } from "@/parts/Button";
import { CardLink } from "@/parts/CardLink";
import { ForetoldNote } from "@/parts/ForetoldNote";
import { Loaded } from "@/parts/Loaded";
import { Notice, Trouble } from "@/parts/Notice";
import { Remember } from "@/parts/Remember";
import { useActs } from "@/parts/stable";
import { useDrawn } from "@/parts/useDrawn";
import { preparationWords } from "@/score/words";
import { isoDate } from "../dates";
import { Cautions } from "./Cautions";
import { CostTable } from "./Costing";
import { useEditing } from "./editing";
import { EXAMPLE } from "./example";
import { type Dropped, Groups } from "./Groups";
import { Hands } from "./Hands";
import { Lifts } from "./Lifts";
import { withPreparation } from "./preparation";
import { KeepAndShare, StartFrom } from "./Sources";
import { Structures } from "./Structures";
import { WrittenForm } from "./WrittenForm";

const DRAFT = "fortis.compose.draft";
const LIFTS = <Button look="quiet">Lifts</Button>;
const NONE: Schemas["Problem"][] = [];
const NO_LIFTS: Schemas["LiftView"][] = [];

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
  const [first] = useState(() => localStorage.getItem(draftKey) ?? saved?.written ?? "");
  const [written, setWritten] = useState(first);
  const [slot, setSlot] = useState(() => saved?.slot ?? localStorage.getItem(`${draftKey}.slot`));
  const [line, setLine] = useState(1);
  const [day, setDay] = useState(saved ? (saved.planned_on ?? "") : isoDate(new Date()));
  const { data: examined, error, isPlaceholderData: behind } = useExamined(written, slot);
  const { data: lifts = NO_LIFTS } = useLifts(useDrawn());
  const save = useSavePlan();
  const arranging = useArrange();
  const discard = useDiscard();
  const go = useNavigate();
  const { edit, onEditor } = useEditing();
  const changed = written !== (saved?.written ?? "");
  const played = saved !== undefined && saved.state !== "planned";
  const empty = written.trim() === "";

  const write = (next: string) => {
    setWritten(next);
    localStorage.setItem(draftKey, next);
  };
  const keep = () => {
    if (empty) return;
    const onSaved = () => {
      localStorage.removeItem(draftKey);
      localStorage.removeItem(`${draftKey}.slot`);
      go("/");
    };
    save.mutate({ id, written, plannedOn: day || null, slot }, { onSuccess: onSaved });
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
    const mended = text.slice(0, column - 1) + nearest + text.slice(column - 1 + word.length);
    edit((editor) => editor.replaceLine(at, mended));
  };
  const arrange = (change: Pick<Schemas["Arranging"], "line" | "act" | "target">) =>
    arranging.mutate(
      { written, ...change },
      {
        onSuccess: (arranged) => {
          edit((editor) => {
            editor.replaceAll(arranged.written);
            editor.goTo(arranged.line);
          });
        },
      },
    );
  const onLine = written.split("\n")[line - 1] ?? "";
  const onLift = examined?.lines.some((lines) => lines.includes(line)) === true;
  const paired = examined?.lines.some((lines) => lines.length > 1 && lines.includes(line)) === true;
  const lift = examined?.lifts[examined.lines.flat().indexOf(line)] ?? null;
  const waiting = useMemo(() => waitingForMax(examined?.lifts ?? []), [examined]);
  const names = useMemo(() => lifts.map((lift) => lift.name), [lifts]);
  const problems = examined?.problems ?? NONE;
  const acts = useActs({
    write,
    keep,
    mendSlip,
    text: () => written,
    add: (added: string) => edit((editor) => editor.append(`${added}\n`)),
    prepare: () => {
      const { text, line } = withPreparation(written);
      edit((editor) => {
        editor.replaceAll(text);
        editor.goTo(line);
      });
    },
    use: (name: string) => edit((editor) => editor.append(`${name}: `)),
    startFrom: (text: string, from: string | null) => {
      edit((editor) => editor.replaceAll(text));
      if (saved) return;
      setSlot(from);
      if (from) localStorage.setItem(`${draftKey}.slot`, from);
      else localStorage.removeItem(`${draftKey}.slot`);
    },
    goTo: (at: number) => edit((editor) => editor.goTo(at)),
    mend: (mend: Schemas["Mend"]) => edit((editor) => editor.replaceLine(mend.line, mend.written)),
    writeLine: (changed: string) => edit((editor) => editor.replaceLine(line, changed, false)),
    drop: (dropped: Dropped) => arrange(dropped),
    move: (act: "earlier" | "later") => onLift && arrange({ line, act }),
  });
  useShortcut("mod+enter", "Ctrl Enter", "Save the session", keep);

  return (
    <div className="grid lg:min-h-[calc(100dvh-58px)] lg:grid-cols-[1fr_23rem]">
      <h1 className="sr-only">Compose</h1>
      <Status>{changed && !empty && <span role="status">draft kept on this device</span>}</Status>
      <div className="flex min-w-0 flex-col gap-3 p-4 sm:px-7 sm:py-5 lg:sticky lg:top-0 lg:h-[calc(100dvh-58px)] lg:self-start">
        {examined && examined.timeline.prep.length > 0 && (
          <p className="text-faint">Before you lift: {preparationWords(examined.timeline.prep)}</p>
        )}
        {examined ? (
          <Groups
            examined={examined}
            line={line}
            onGoTo={acts.goTo}
            onDrop={acts.drop}
            className="-ml-3 min-h-40 flex-1 pl-3 lg:overflow-y-auto"
          />
        ) : (
          <Opening onExample={() => edit((editor) => editor.replaceAll(EXAMPLE))} />
        )}
        {error && <Trouble error={error} />}
        {arranging.error && <Trouble error={arranging.error} />}
        {onLift && (
          <Hands
            line={line}
            written={onLine}
            paired={paired}
            lift={lift}
            behind={behind}
            onAct={(act) => arrange({ line, act })}
            onWrite={acts.writeLine}
          />
        )}
        <div className="flex flex-wrap gap-2">
          <Structures
            lifts={names}
            usual={onLift ? (onLine.split(/[:[]/)[0]?.trim() ?? null) : null}
            onAdd={acts.add}
          />
          <Lifts trigger={LIFTS} onUse={acts.use} />
          <Button look="quiet" onClick={acts.prepare}>
            Before you lift
          </Button>
          <StartFrom onStart={acts.startFrom} />
          <KeepAndShare
            text={acts.text}
            slot={slot}
            empty={empty}
            title={examined?.title ?? "Session"}
            whole={examined !== undefined && !behind && problems.length === 0}
          />
        </div>
        <WrittenForm
          onEditor={onEditor}
          first={first}
          lifts={names}
          onChange={acts.write}
          onLine={setLine}
          problems={problems}
          onMend={acts.mendSlip}
          onMove={acts.move}
          onSave={acts.keep}
        />
      </div>
      <aside className="flex flex-col border-t border-ink bg-panel p-5 sm:p-7 lg:border-t-0 lg:border-l">
        <h2 className="text-2xl font-bold">{examined?.title ?? "Session"}</h2>
        <p className="text-faint">The first line that starts with # is its name.</p>
        {examined && (
          <CostTable costing={examined.costing} before={examined.before} likely={examined.likely} />
        )}
        {waiting.map((lift) => (
          <Remember key={lift.exercise + lift.setup.items.join()} lift={lift} />
        ))}
        {examined && <ForetoldNote steps={examined.timeline.steps} />}
        {examined && <Cautions cautions={examined.cautions} onMend={acts.mend} onGoTo={acts.goTo} />}
        {examined?.unknown.map((lift) => (
          <div key={lift.name} className="mt-4">
            <Notice>
              {lift.name} is not in the library: its load is taken as written and never rounded.
              {lift.nearest.map((name) => (
                <button
                  key={name}
                  type="button"
                  className="ml-2 underline underline-offset-4"
                  onClick={() => edit((editor) => editor.replaceAll(written.replaceAll(lift.name, name)))}
                >
                  Use {name}
                </button>
              ))}
              <Lifts
                name={lift.name}
                onUse={() => {}}
                trigger={
                  <button type="button" className="ml-2 underline underline-offset-4">
                    Describe this lift
                  </button>
                }
              />
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
          {saved && <CardLink session={saved.id} />}
        </div>
      </aside>
    </div>
  );
}

/** The lifts whose loads wait for a word about them, each once. */
const waitingForMax = (lifts: Schemas["LiftLine"][]) => [
  ...new Map(
    lifts.filter((lift) => lift.waits_for_max).map((lift) => [lift.exercise + lift.setup.items.join(), lift]),
  ).values(),
];

function Opening({ onExample }: { onExample: () => void }) {
  return (
    <div className="min-h-40 max-w-prose flex-1 py-6">
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
