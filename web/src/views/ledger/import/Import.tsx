import { useId } from "react";
import { Link, useSearchParams } from "react-router";
import { letGo, useBring, useImports, useTurnImport, useWaitingFile, type WaitingFile } from "@/data/imports";
import { Button } from "@/parts/Button";
import { Trouble } from "@/parts/Notice";
import { counted } from "../../counted";
import { fullDate } from "../../dates";
import { LiftsMeant } from "./LiftsMeant";
import { MadeOfIt } from "./MadeOfIt";
import { ReadAsForm } from "./ReadAsForm";
import { WhatComes } from "./WhatComes";

/** A log of other making: brought as a file, read as the lifter says, and written when they agree. */
export default function Import() {
  const [params, setParams] = useSearchParams();
  const id = params.get("file");
  const query = useWaitingFile(id);
  const file = id === null ? undefined : query.data;
  const show = (next: string | null) => setParams(next ? { file: next } : {}, { replace: true });
  const away = () => {
    if (id) void letGo(id);
    show(null);
  };
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-7">
      <p>
        <Link to="/ledger" className="inline-flex min-h-11 items-center underline underline-offset-4">
          Ledger
        </Link>
      </p>
      <h1 className="text-3xl font-bold tracking-tight">Bring a log</h1>
      {id === null && <Choose onBrought={show} />}
      {query.error && id !== null && (
        <div className="mt-4">
          <Trouble error={query.error} />
          <Button className="mt-4" onClick={() => show(null)}>
            Choose a file
          </Button>
        </div>
      )}
      {file && <Brought file={file} onAway={away} onDone={() => show(null)} />}
      {id === null && <Earlier />}
    </div>
  );
}

function Choose({ onBrought }: { onBrought: (id: string) => void }) {
  const bring = useBring();
  const field = useId();
  const take = (file: File | undefined) =>
    file && bring.mutate(file, { onSuccess: ({ id }) => onBrought(id) });
  return (
    <section className="mt-4 max-w-2xl">
      <p>
        Any table of your sets will do, a row a set or a row for several: CSV, or text with tabs or
        semicolons, from a program or kept by hand. You see what Fortis makes of it before anything is
        written, and all of it can be taken back.
      </p>
      <div className="mt-4">
        <label
          htmlFor={field}
          className="inline-flex min-h-11 cursor-pointer items-center rounded-card border border-ink bg-ink px-4 py-2 font-bold text-paper focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-ink"
        >
          {bring.isPending ? "Bringing it …" : "Choose a file"}
          <input
            id={field}
            type="file"
            accept=".csv,.tsv,.txt,text/csv,text/plain"
            disabled={bring.isPending}
            onChange={(event) => take(event.target.files?.[0])}
            className="sr-only"
          />
        </label>
      </div>
      {bring.error && (
        <div className="mt-4">
          <Trouble error={bring.error} />
        </div>
      )}
    </section>
  );
}

function Brought({ file, onAway, onDone }: { file: WaitingFile; onAway: () => void; onDone: () => void }) {
  if (file.state === "written")
    return (
      <section className="mt-4">
        <p className="text-xl" role="status">
          {counted(file.examined?.sessions ?? 0, "session")} with {counted(file.examined?.bouts ?? 0, "bout")}{" "}
          are in your record.
        </p>
        <div className="mt-4 flex flex-wrap gap-3">
          <Link
            to="/ledger"
            className="inline-flex min-h-11 items-center rounded-card border border-ink bg-ink px-4 font-bold text-paper"
          >
            See them in the Ledger
          </Link>
          <TakeBack id={file.import_id} taken={false} onDone={onDone} />
          <Button look="quiet" onClick={onAway}>
            Bring another
          </Button>
        </div>
        <MadeOfIt />
      </section>
    );
  return (
    <>
      <div className="mt-1 flex flex-wrap items-center gap-x-5">
        <p className="font-semibold break-all">{file.name}</p>
        {file.state !== "writing" && (
          <button type="button" onClick={onAway} className="min-h-11 underline underline-offset-4">
            Another file
          </button>
        )}
      </div>
      {file.state === "refused" && (
        <div role="alert" className="mt-2 border-l-4 border-work pl-3">
          <p className="font-semibold">It cannot be read so.</p>
          <p>{file.why}</p>
        </div>
      )}
      <div className="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="space-y-8">
          {file.read_as && <ReadAsForm file={file} readAs={file.read_as} />}
          {file.examined && file.state !== "writing" && <LiftsMeant file={file} preview={file.examined} />}
        </div>
        <WhatComes file={file} />
      </div>
    </>
  );
}

function TakeBack({ id, taken, onDone }: { id: string; taken: boolean; onDone?: () => void }) {
  const turn = useTurnImport();
  return (
    <>
      <Button
        look="quiet"
        disabled={turn.isPending}
        onClick={() => turn.mutate({ id, back: taken }, { onSuccess: () => onDone?.() })}
      >
        {taken ? "Bring it back" : "Take it back"}
      </Button>
      {turn.error && <Trouble error={turn.error} />}
    </>
  );
}

/** The logs that were taken in before. */
function Earlier() {
  const { data: imports = [], error } = useImports();
  if (error) return <Trouble error={error} />;
  if (imports.length === 0) return null;
  return (
    <section className="mt-10 max-w-2xl" aria-labelledby="earlier">
      <h2 id="earlier" className="text-xl font-bold">
        Brought before
      </h2>
      <ul className="mt-2 border-t border-ink">
        {imports.map((each) => (
          <li
            key={each.id}
            className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-hairline py-2"
          >
            <div className="min-w-0 flex-1 basis-60">
              <p className="font-semibold break-all">{each.name}</p>
              <p className="text-[15px] text-faint">
                {fullDate(each.at)}: {counted(each.sessions, "session")}, {counted(each.bouts, "bout")}
                {each.taken_back_at && `, taken back ${fullDate(each.taken_back_at)}`}
              </p>
            </div>
            <TakeBack id={each.id} taken={each.taken_back_at !== null} />
          </li>
        ))}
      </ul>
    </section>
  );
}
