import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas } from "@/data/client";
import { useLedger, useWeeks } from "@/data/queries";
import { saveFrom } from "@/parts/file";
import { Loaded } from "@/parts/Loaded";
import { Menu, MenuItem } from "@/parts/Menu";
import { Trouble, Waiting } from "@/parts/Notice";
import { kilograms } from "@/score/words";
import { fullDate } from "../dates";
import { MANY_WEEKS, Weeks } from "./Weeks";

const ROW = 45;
/** Rows drawn beyond the edges of the window, and rows before the end at which earlier ones are asked for. */
const AHEAD = 12;

/** The page stays where the router put it when one came back. */
const LEAVE_IT = () => undefined;

/** Past sessions, the newest first, under their weeks: what can be pressed stays where it is once it is there. */
export default function Ledger() {
  const [params, setParams] = useSearchParams();
  const find = params.get("find") ?? "";
  const [typed, setTyped] = useState(find);
  const looking = typed.trim();
  const query = useLedger(looking);
  const weeks = useWeeks(null, MANY_WEEKS);
  useEffect(() => {
    if (looking !== find) setParams(looking ? { find: looking } : {}, { replace: true });
  }, [looking, find, setParams]);
  const field = useRef<HTMLInputElement>(null);
  useShortcut("slash", "/", "Find sessions", () => field.current?.focus());
  return (
    <Loaded query={query} what="the ledger">
      {({ pages }) => {
        const sessions = pages.flatMap((page) => page.sessions);
        return (
          <div className="mx-auto max-w-6xl px-4 py-6 sm:px-7">
            <div className="flex flex-wrap items-center gap-x-8 gap-y-2">
              <h1 className="text-3xl font-bold tracking-tight">Ledger</h1>
              {(sessions.length > 0 || looking !== "") && (
                <input
                  ref={field}
                  type="search"
                  aria-label="Find sessions"
                  placeholder="Find: lift, set-up, structure, note, date"
                  value={typed}
                  onChange={(event) => setTyped(event.target.value)}
                  className="min-h-11 min-w-0 max-w-xl flex-1 rounded-card border border-hairline bg-panel px-3"
                />
              )}
              {sessions.length > 0 && (
                <Link
                  to="/ledger/blocks"
                  className="inline-flex min-h-11 items-center underline underline-offset-4"
                >
                  Two blocks
                </Link>
              )}
              <Link
                to="/ledger/import"
                className="inline-flex min-h-11 items-center underline underline-offset-4"
              >
                Bring a log
              </Link>
              <Menu
                trigger={
                  <button type="button" className="min-h-11 underline underline-offset-4">
                    Take it with you
                  </button>
                }
              >
                <MenuItem onSelect={() => takeAway("bouts.csv")}>Every bout (CSV)</MenuItem>
                <MenuItem onSelect={() => takeAway("sessions.txt")}>Every session as text</MenuItem>
                <MenuItem onSelect={() => takeAway("record.json")}>All there is (JSON)</MenuItem>
                <MenuItem onSelect={() => takeAway("planned.ics")}>What is planned, as a calendar</MenuItem>
              </Menu>
            </div>
            {looking === "" && sessions.length > 0 && <Weeks latest={weeks} />}
            {looking === "" && weeks.isPending ? (
              <Waiting what="the weeks" />
            ) : looking !== "" && sessions.length === 0 && !query.isPlaceholderData ? (
              <p role="status" className="mt-6 text-faint">
                No session has all of “{looking}” in its plan, its structures, its lifts, its notes or its
                date. Fewer words find more.
              </p>
            ) : (
              <Sessions sessions={sessions} earlier={query} />
            )}
          </div>
        );
      }}
    </Loaded>
  );
}

const takeAway = (file: "bouts.csv" | "sessions.txt" | "record.json" | "planned.ics") =>
  saveFrom(`/api/export/${file}`, `fortis-${file}`);

function Sessions({
  sessions,
  earlier,
}: {
  sessions: Schemas["LedgerRow"][];
  earlier: ReturnType<typeof useLedger>;
}) {
  const { hasNextPage, isFetching, isFetchNextPageError, error, fetchNextPage } = earlier;
  const table = useRef<HTMLTableElement>(null);
  const rows = useWindowVirtualizer({
    count: sessions.length,
    estimateSize: () => ROW,
    overscan: AHEAD,
    getItemKey: (index) => sessions[index]?.id ?? index,
    scrollMargin: table.current?.offsetTop ?? 0,
    scrollToFn: LEAVE_IT,
  });
  const drawn = rows.getVirtualItems();
  const last = drawn.at(-1)?.index ?? 0;
  const isNearTheEnd = last >= sessions.length - AHEAD;
  useEffect(() => {
    if (isNearTheEnd && hasNextPage && !isFetching && !isFetchNextPageError) void fetchNextPage();
  }, [isNearTheEnd, hasNextPage, isFetching, isFetchNextPageError, fetchNextPage]);
  if (sessions.length === 0)
    return (
      <p className="mt-2 text-faint">
        Nothing has been lifted yet. Finish a session on the Floor and it is here, to the last bout. A log
        kept elsewhere comes in by “Bring a log”.
      </p>
    );
  const above = (drawn[0]?.start ?? 0) - rows.options.scrollMargin;
  const below = rows.getTotalSize() - (drawn.at(-1)?.end ?? 0) + rows.options.scrollMargin;
  return (
    <>
      <table
        ref={table}
        aria-rowcount={hasNextPage ? -1 : sessions.length + 1}
        className="mt-4 w-full border-t border-ink"
      >
        <thead className="text-left text-[15px] text-faint max-sm:sr-only">
          <tr aria-rowindex={1}>
            <th className="py-2 font-normal">Date</th>
            <th className="font-normal">Session</th>
            <th className="hidden font-normal lg:table-cell">Lifts</th>
            <th className="text-right font-normal">Sets</th>
            <th className="text-right font-normal">Time</th>
            <th className="text-right font-normal">Tonnage</th>
          </tr>
        </thead>
        <tbody>
          <Gap height={above} />
          {drawn.map(({ index, key }) => {
            const session = sessions[index];
            return (
              session && (
                <SessionLine key={key} index={index} session={session} measure={rows.measureElement} />
              )
            );
          })}
          <Gap height={below} />
        </tbody>
      </table>
      {isFetchNextPageError && <Trouble error={error} retry={() => void fetchNextPage()} />}
    </>
  );
}

/** The rows that are not drawn because they are out of the window. */
function Gap({ height }: { height: number }) {
  if (height <= 0) return null;
  return (
    <tr aria-hidden>
      <td colSpan={6} style={{ height }} />
    </tr>
  );
}

function SessionLine({
  session,
  index,
  measure,
}: {
  session: Schemas["LedgerRow"];
  index: number;
  measure: (row: Element | null) => void;
}) {
  return (
    <tr
      ref={measure}
      data-index={index}
      aria-rowindex={index + 2}
      className="border-t border-hairline hover:bg-panel"
    >
      <td className="py-2 pr-4 whitespace-nowrap text-faint">
        {session.started_at && fullDate(session.started_at)}
      </td>
      <td className="pr-4">
        <Link
          to={`/ledger/${session.id}`}
          className="flex min-h-11 items-center font-semibold hover:underline"
        >
          {session.title}
        </Link>
      </td>
      <td className="hidden max-w-sm truncate pr-4 text-[15px] text-faint lg:table-cell">
        {session.lifts.join(", ")}
      </td>
      <td className="text-right max-sm:hidden">{session.sets}</td>
      <td className="text-right whitespace-nowrap max-sm:hidden">{session.minutes} min</td>
      <td className="text-right font-semibold whitespace-nowrap">{kilograms(session.tonnage_kg)}</td>
    </tr>
  );
}
