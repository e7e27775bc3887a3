import { useSearchParams } from "react-router";
import type { Schemas } from "@/data/client";
import { type Span, useBlocks, useKnownBlocks } from "@/data/queries";
import { Choice, Field } from "@/parts/Field";
import { Loaded } from "@/parts/Loaded";
import { Trouble } from "@/parts/Notice";
import { averageWords, kilograms, minutes, plain, tenth } from "@/score/words";
import { addDays, dayAndMonth, weekdayOf } from "../dates";
import { WorkAndLoad } from "./WorkAndLoad";

type Known = Schemas["KnownBlock"];
type Block = Schemas["BlockTally"];
type LiftBeside = Schemas["LiftBeside"];

const MOST_WEEKS = 26;

/** Two blocks side by side: which they are, what a week of each came to, and what became of every lift. */
export default function Blocks() {
  return (
    <div className="mx-auto max-w-6xl space-y-8 px-4 py-6 sm:px-7">
      <header>
        <h1 className="text-3xl font-bold tracking-tight">Two blocks side by side</h1>
        <p className="mt-1 max-w-prose text-faint">
          Blocks of your seasons, or any whole weeks. They may be of unlike length: work is told by the week.
        </p>
      </header>
      <Loaded query={useKnownBlocks()} what="your blocks">
        {(known) => <Chosen known={known} />}
      </Loaded>
    </div>
  );
}

const written = ({ monday, weeks }: Span) => `${monday}.${weeks}`;

function spanOf(told: string | null, otherwise: Known | undefined): Span {
  const [monday, weeks] = (told ?? "").split(".");
  if (monday && Number(weeks)) return { monday, weeks: Number(weeks) };
  return { monday: otherwise?.monday ?? "", weeks: otherwise?.weeks ?? 1 };
}

function Chosen({ known }: { known: Known[] }) {
  const [params, setParams] = useSearchParams();
  const spans = { one: spanOf(params.get("one"), known[1]), other: spanOf(params.get("other"), known[0]) };
  const choose = (which: "one" | "other", span: Span) =>
    setParams(
      (before) => {
        before.set(which, written(span));
        return before;
      },
      { replace: true },
    );
  const { data: blocks, error, refetch } = useBlocks(spans.one, spans.other);
  return (
    <>
      <div className="grid grid-cols-1 gap-6 sm:grid-cols-2">
        <Pick name="One block" known={known} span={spans.one} onPick={(span) => choose("one", span)} />
        <Pick name="Beside it" known={known} span={spans.other} onPick={(span) => choose("other", span)} />
      </div>
      {error ? <Trouble error={error} retry={() => void refetch()} /> : blocks && <Beside blocks={blocks} />}
    </>
  );
}

const OWN = "own";

/** A block by its name, or by its first week and how many there are. */
function Pick({
  name,
  known,
  span,
  onPick,
}: {
  name: string;
  known: Known[];
  span: Span;
  onPick: (span: Span) => void;
}) {
  const picked = known.some((each) => written(each) === written(span)) ? written(span) : OWN;
  const keepMonday = (typed: string) => {
    if (/^\d{4}-\d{2}-\d{2}$/.test(typed)) onPick({ ...span, monday: addDays(typed, -weekdayOf(typed)) });
  };
  const keepWeeks = (typed: string) => {
    const weeks = Math.round(Number(typed));
    if (weeks >= 1 && weeks <= MOST_WEEKS) onPick({ ...span, weeks });
  };
  return (
    <section aria-label={name} className="space-y-2">
      <Choice
        above
        label={name}
        value={picked}
        of={[
          ...known.map((each) => [written(each), `${each.name} (${spanWords(each)})`] as const),
          [OWN, picked === OWN ? `Own weeks (${spanWords(span)})` : "Own weeks"],
        ]}
        onPick={(value) => value !== OWN && onPick(spanOf(value, undefined))}
      />
      <div className="flex gap-4">
        <Field label="First week" type="date" wide value={span.monday} onKeep={keepMonday} />
        <Field label="Weeks" inputMode="numeric" value={span.weeks} onKeep={keepWeeks} />
      </div>
    </section>
  );
}

const spanWords = ({ monday, weeks }: Span) =>
  `${dayAndMonth(monday)} to ${dayAndMonth(addDays(monday, 7 * weeks - 1))}`;

const spanOfBlock = ({ monday, weeks }: Block): Span => ({ monday, weeks: weeks.length });

function Beside({ blocks }: { blocks: Schemas["Blocks"] }) {
  const { earlier, later } = blocks;
  return (
    <>
      <p className="text-lg">{blocks.text}</p>
      <div className="grid grid-cols-1 gap-x-12 gap-y-10 lg:grid-cols-[1fr_24rem]">
        <div className="min-w-0">
          <WorkAndLoad weeks={earlier.weeks} second={later.weeks} />
        </div>
        <AWeek earlier={earlier} later={later} />
      </div>
      <section aria-labelledby="by-lift">
        <h2 id="by-lift" className="text-xl font-bold">
          Lift by lift
        </h2>
        <p className="max-w-prose text-sm text-faint">
          The max is what all sets said of it, before the block and after it, both read by what is known of
          you now. Body weight is in tonnage and load where it was lifted.
        </p>
        <div className="mt-2 border-t border-ink">
          {blocks.lifts.map((lift) => (
            <Lift key={lift.exercise} lift={lift} />
          ))}
        </div>
      </section>
    </>
  );
}

/** What a week of each came to. */
function AWeek({ earlier, later }: { earlier: Block; later: Block }) {
  const row = (name: string, of: (block: Block) => string | null) => (
    <tr key={name} className="border-t border-hairline">
      <th scope="row" className="py-1 text-left font-normal">
        {name}
      </th>
      {[earlier, later].map((block) => (
        <td key={block.monday} className="py-1 pl-4 text-right font-bold whitespace-nowrap">
          {of(block) ?? "–"}
        </td>
      ))}
    </tr>
  );
  const muscles = [...new Set([...later.hard_sets, ...earlier.hard_sets].map(({ name }) => name))];
  const hard = (block: Block, muscle: string) =>
    block.hard_sets.find(({ name }) => name === muscle)?.count ?? 0;
  return (
    <section aria-labelledby="a-week">
      <h2 id="a-week" className="text-xl font-bold">
        A week of each
      </h2>
      <table className="mt-3 w-full text-[15px]">
        <thead className="text-right text-sm text-faint">
          <tr>
            <th>
              <span className="sr-only">What</span>
            </th>
            <th scope="col" className="pl-4 font-normal">
              {spanWords(spanOfBlock(earlier))}
            </th>
            <th scope="col" className="pl-4 font-normal">
              {spanWords(spanOfBlock(later))}
            </th>
          </tr>
        </thead>
        <tbody>
          {row("Tonnage", (block) => kilograms(block.tonnage_kg))}
          {row("Average load", averageWords)}
          {row("of the max", (block) =>
            block.average_percent === null ? null : `${plain(tenth(block.average_percent))} %`,
          )}
          {(earlier.light.length > 0 || later.light.length > 0) &&
            row("Light weeks in it", (block) => (block.light.length ? String(block.light.length) : null))}
          {row("Sessions", (block) => plain(block.sessions))}
          {row("Sets", (block) => plain(block.sets))}
          {row("Reps", (block) => plain(block.reps))}
          {row("Time on the floor", (block) => minutes(block.seconds))}
          {row("Sets to failure", (block) => plain(block.failure_sets))}
        </tbody>
        {muscles.length > 0 && (
          <tbody>
            <tr className="border-t border-ink">
              <th scope="rowgroup" colSpan={3} className="pt-3 text-left text-sm font-normal text-faint">
                Hard sets, within four reps of failure
              </th>
            </tr>
            {muscles.map((muscle) => row(muscle, (block) => plain(hard(block, muscle))))}
          </tbody>
        )}
      </table>
    </section>
  );
}

function Lift({ lift }: { lift: LiftBeside }) {
  const { exercise, earlier, later, unlike, text } = lift;
  return (
    <article className="grid grid-cols-1 gap-x-10 gap-y-2 border-b border-hairline py-4 lg:grid-cols-[1fr_24rem]">
      <div>
        <h3 className="text-lg font-bold">{exercise}</h3>
        {text && <p className="text-[15px]">{text}</p>}
        {unlike.length > 0 && (
          <p className="text-[15px] text-faint">
            Not done alike, so no fair comparison: {unlike.join("; ")}.
          </p>
        )}
        {!(earlier && later) && (
          <p className="text-[15px] text-faint">Only in the {earlier ? "earlier" : "later"}.</p>
        )}
      </div>
      <table className="w-full text-[15px]">
        <thead className="text-right text-sm text-faint">
          <tr>
            <th>
              <span className="sr-only">Block</span>
            </th>
            <th className="font-normal">Sets a week</th>
            <th className="pl-3 font-normal">Load</th>
            <th className="pl-3 font-normal">Max</th>
          </tr>
        </thead>
        <tbody>
          {earlier && <Row name="earlier" of={earlier} />}
          {later && <Row name="later" of={later} />}
        </tbody>
      </table>
    </article>
  );
}

function Row({ name, of }: { name: string; of: Schemas["BlockLift"] }) {
  const max = (kg: number | null) => (kg === null ? "–" : plain(tenth(kg)));
  return (
    <tr className="text-right">
      <th scope="row" className="text-left font-normal text-faint">
        {name}
      </th>
      <td>{plain(of.sets)}</td>
      <td className="pl-3 whitespace-nowrap">{averageWords(of)}</td>
      <td className="pl-3 font-bold whitespace-nowrap">
        {of.max_before_kg === null && of.max_after_kg === null
          ? "–"
          : `${max(of.max_before_kg)} → ${max(of.max_after_kg)} kg`}
      </td>
    </tr>
  );
}
