import { group } from "d3-array";
import { Pencil } from "lucide-react";
import { Fragment, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/data/client";
import { useBoutHistory } from "@/data/queries";
import { clock, doneWords, loadOf, sideWords } from "@/score/words";
import { moment } from "../dates";
import { Correct } from "./Correct";

type LedgerBout = Schemas["LedgerBout"];

/** Every bout of a session beside what was asked, warm-ups apart, with what was told of it before. */
export function Bouts({ session }: { session: Schemas["PastSession"] }) {
  const entries = group(
    session.bouts,
    ({ bout }) => `${bout.position.group}.${bout.position.entry} ${bout.exercise}`,
  );
  return (
    <section aria-labelledby="bouts">
      <div className="flex items-baseline justify-between border-b border-ink pb-1">
        <h2 id="bouts" className="text-xl font-bold">
          Every bout
        </h2>
        <Link to={`/floor/${session.id}`} className="text-[15px] underline underline-offset-4">
          Open on the Floor
        </Link>
      </div>
      <div className="grid gap-x-12 md:grid-cols-2">
        {[...entries].map(([key, bouts]) => (
          <Entry key={key} id={session.id} bouts={bouts} />
        ))}
      </div>
      {session.taken_back.length > 0 && (
        <details className="text-[15px] text-faint">
          <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
            Taken back on the Floor
          </summary>
          {session.taken_back.map(({ position, exercise }) => (
            <div key={Object.values(position).join(".")} className="mb-2">
              {exercise}, set {position.set}
              <Told id={session.id} position={position} />
            </div>
          ))}
        </details>
      )}
    </section>
  );
}

function Entry({ id, bouts }: { id: string; bouts: LedgerBout[] }) {
  const warmUps = bouts.filter(({ bout }) => bout.position.set === 0);
  const work = bouts.filter(({ bout }) => bout.position.set > 0);
  const first = (work[0] ?? warmUps[0])?.bout;
  if (!first) return null;
  return (
    <div className="py-4">
      <h3 className="font-bold">
        {first.exercise} <span className="font-normal text-faint">{first.setup.items.join(", ")}</span>
      </h3>
      {warmUps.length > 0 && (
        <p className="text-[15px] text-faint">
          Warm-up: {warmUps.map(({ bout }) => `${bout.reps} × ${loadOf(bout) || "–"}`).join(", ")}
        </p>
      )}
      <table className="mt-1 w-full text-[15px]">
        <thead className="text-left text-sm text-faint">
          <tr>
            <th className="font-normal">Set</th>
            <th className="font-normal">Asked</th>
            <th className="font-normal">Done</th>
            <th className="text-right font-normal">Rested</th>
            <th>
              <span className="sr-only">Ended</span>
            </th>
            <th>
              <span className="sr-only">Correct</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {work.map((each) => (
            <BoutRow key={Object.values(each.bout.position).join(".")} id={id} recorded={each} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function BoutRow({ id, recorded }: { recorded: LedgerBout; id: string }) {
  const { bout, asked, corrected, rest_seconds } = recorded;
  const [open, setOpen] = useState(false);
  const [correcting, setCorrecting] = useState(false);
  return (
    <Fragment>
      <tr className="border-t border-hairline">
        <td className="w-10 py-1 text-faint">
          {bout.position.bout === 1 ? bout.position.set : ""}
          {sideWords(bout.side)}
        </td>
        <td className="w-1/4 pr-2 text-faint">{asked}</td>
        <td className="font-semibold">
          {doneWords(bout)}
          {corrected && (
            <button
              type="button"
              aria-expanded={open}
              onClick={() => setOpen(!open)}
              className="ml-2 min-h-9 text-sm font-normal text-faint underline underline-offset-4"
            >
              corrected
            </button>
          )}
        </td>
        <td className="w-16 text-right text-sm text-faint" title="Rest really taken before it">
          {rest_seconds !== null && clock(rest_seconds)}
        </td>
        <td className={bout.ended === "target met" ? "text-faint" : "pl-3 text-work"}>
          {bout.ended === "target met" ? "" : bout.ended}
        </td>
        <td className="w-11 text-right">
          <button
            type="button"
            aria-expanded={correcting}
            aria-label={`Correct ${doneWords(bout)}, set ${bout.position.set} of ${bout.exercise}`}
            onClick={() => setCorrecting(!correcting)}
            className="grid size-11 place-items-center text-faint hover:text-ink"
          >
            <Pencil size={16} />
          </button>
        </td>
      </tr>
      {correcting && (
        <tr>
          <td colSpan={6}>
            <Correct id={id} recorded={recorded} onDone={() => setCorrecting(false)} />
          </td>
        </tr>
      )}
      {open && (
        <tr>
          <td />
          <td colSpan={5} className="pb-2">
            <Told id={id} position={bout.position} />
          </td>
        </tr>
      )}
    </Fragment>
  );
}

/** What was told of a bout, the first first: 5 at 75 kg, Tuesday 19:12, on the phone. */
function Told({ id, position }: { id: string; position: Schemas["Position"] }) {
  const { data: versions = [] } = useBoutHistory(id, position, true);
  return (
    <ol className="text-sm text-faint">
      {versions.map(({ version, at, device, bout }, place) => (
        <li key={version}>
          {place === 0 ? "first " : bout ? "then " : ""}
          {bout ? doneWords(bout) : "taken back"}, {moment(at)}
          {device && `, ${device}`}
        </li>
      ))}
    </ol>
  );
}
