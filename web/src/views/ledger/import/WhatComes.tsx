import type { Schemas } from "@/data/client";
import { useWrite, type WaitingFile } from "@/data/imports";
import { Button } from "@/parts/Button";
import { Notice, Trouble } from "@/parts/Notice";
import { grouped } from "@/score/words";
import { counted } from "../../counted";
import { fullDate } from "../../dates";

/** What will be written of a file, what is passed over and why, and the word to write it. */
export function WhatComes({ file }: { file: WaitingFile }) {
  const write = useWrite();
  const { examined, state } = file;
  return (
    <section aria-labelledby="what-comes" className="lg:border-l lg:border-hairline lg:pl-8">
      <h2 id="what-comes" className="text-xl font-bold">
        What will be written
      </h2>
      {state === "reading" && (
        <p role="status" className="mt-2 text-faint">
          Reading, {counted(file.through, "row")} so far …
        </p>
      )}
      {state === "refused" && <p className="mt-2 text-faint">Nothing, until it can be read.</p>}
      {examined && <Comes preview={examined} />}
      {state === "writing" && (
        <div role="status" className="mt-4">
          <progress
            aria-label="Written so far"
            value={file.through}
            max={examined?.bouts ?? 1}
            className="h-2 w-full accent-ink"
          />
          <p className="text-faint">
            {counted(file.through, "bout")} of {grouped(examined?.bouts ?? 0)} written …
          </p>
        </div>
      )}
      {state === "read" && examined && examined.bouts > 0 && (
        <Button
          look="strong"
          className="mt-4"
          disabled={write.isPending}
          onClick={() => write.mutate({ id: file.id, told: null })}
        >
          Write {counted(examined.bouts, "bout")} into my record
        </Button>
      )}
      {write.error && <Trouble error={write.error} />}
      {examined && examined.too_long > 0 && (
        <div className="mt-5">
          <Notice>
            {counted(examined.too_long, "session")} {examined.too_long === 1 ? "has" : "have"} more bouts than
            a session can hold and {examined.too_long === 1 ? "is" : "are"} passed over: look at the column of
            the days.
          </Notice>
        </div>
      )}
      {examined && <PassedOver preview={examined} />}
      {examined && examined.previews.length > 0 && (
        <div className="mt-6">
          <h3 className="font-bold">
            {examined.sessions > examined.previews.length ? "The latest of them" : "They read"}
          </h3>
          {examined.previews.map((session) => (
            <figure key={session.day + session.written} className="mt-2">
              <figcaption className="text-[15px] text-faint">{fullDate(session.day)}</figcaption>
              <pre className="mt-1 overflow-x-auto rounded-card bg-slate p-3 text-[15px] leading-relaxed whitespace-pre-wrap text-slate-text">
                {session.written.trim()}
              </pre>
            </figure>
          ))}
        </div>
      )}
    </section>
  );
}

function Comes({
  preview: { sessions, bouts, first, last, there_already, rows },
}: {
  preview: Schemas["LogPreview"];
}) {
  return (
    <div className="mt-2 space-y-1">
      <p className="text-lg">
        {bouts === 0
          ? "Nothing that is new."
          : `${counted(sessions, "session")} with ${counted(bouts, "bout")}${first && last ? `, ${fullDate(first)} to ${fullDate(last)}` : ""}.`}
      </p>
      <p className="text-[15px] text-faint">
        From {counted(rows, "row")}
        {there_already > 0 && `; ${counted(there_already, "bout")} of them your record has already`}.
      </p>
    </div>
  );
}

function PassedOver({ preview: { passed_over, rows_passed_over } }: { preview: Schemas["LogPreview"] }) {
  if (rows_passed_over === 0) return null;
  const more = rows_passed_over - passed_over.length;
  return (
    <details className="mt-5 border-l-4 border-look pl-3" open={rows_passed_over <= 5}>
      <summary className="min-h-11 cursor-pointer py-2.5 font-semibold">
        {counted(rows_passed_over, "row")} {rows_passed_over === 1 ? "is" : "are"} passed over
      </summary>
      <ul className="max-h-80 overflow-y-auto text-[15px]" tabIndex={-1}>
        {passed_over.map(({ line, column, why }) => (
          <li key={line} className="py-0.5">
            Line {grouped(line)}
            {column && `, ${column}`}: {why}.
          </li>
        ))}
        {more > 0 && <li className="text-faint">And {grouped(more)} more.</li>}
      </ul>
    </details>
  );
}
