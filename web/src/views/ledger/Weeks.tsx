import { useVirtualizer } from "@tanstack/react-virtual";
import { clsx } from "clsx";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas } from "@/data/client";
import { useManyWeeks, type useWeeks } from "@/data/queries";
import { LeafThrough } from "@/parts/LeafThrough";
import { scrolling } from "@/parts/motion";
import { Trouble } from "@/parts/Notice";
import { useWidth } from "@/parts/useWidth";
import { unitFor } from "@/score/SmallScore";
import { addDays, dayAndMonth, weekday, weekdayOf, weeksBetween } from "../dates";
import { SmallSession } from "../SmallSession";

type Week = Schemas["WeekView"];

const LABEL = 44;
/** A column of the calendar is at least so wide; no more weeks are shown side by side, and asked for at once. */
const NARROWEST = 92;
export const MANY_WEEKS = 8;
/** Weeks drawn beyond the edges. */
const AHEAD = 1;
const DAYS = [0, 1, 2, 3, 4, 5, 6];

const yearOf = (day: string) => day.slice(0, 4);

/**
 * All weeks side by side, back to the first one, a row for each day that is trained on, each session a small score.
 *
 * Only those in sight are drawn, and asked for when they come near.
 */
export function Weeks({ latest: { data: latest, error, refetch } }: { latest: ReturnType<typeof useWeeks> }) {
  const [pages, setPages] = useState(1);
  const last = latest?.weeks.at(-1)?.monday;
  const untils = last
    ? Array.from({ length: pages - 1 }, (_, page) => addDays(last, -7 * MANY_WEEKS * (page + 1)))
    : [];
  const earlier = useManyWeeks(untils, MANY_WEEKS);
  return (
    <section aria-label="Weeks" className="mt-4">
      {error && <Trouble error={error} retry={() => void refetch()} />}
      {latest && last && (
        <Strip
          first={latest.first}
          last={last}
          known={[...latest.weeks, ...earlier]}
          wants={(weeks) => setPages((had) => Math.max(had, Math.ceil(weeks / MANY_WEEKS)))}
        />
      )}
    </section>
  );
}

function Strip({
  first,
  last,
  known,
  wants,
}: {
  first: string;
  last: string;
  known: Week[];
  wants: (weeks: number) => void;
}) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const shown = Math.max(Math.min(MANY_WEEKS, Math.floor((width - LABEL) / NARROWEST)), 2);
  const column = (width - LABEL) / shown;
  const count = Math.max(weeksBetween(first, last) + 1, shown);
  const columns = useVirtualizer({
    horizontal: true,
    count,
    estimateSize: () => column,
    overscan: AHEAD,
    paddingStart: LABEL,
    getScrollElement: () => ref.current,
  });
  const end = count * column + LABEL - width;
  /** The weeks that lie to the right of what is in sight, whatever the width. */
  const later = useRef(0);
  const offset = columns.scrollOffset ?? 0;
  useLayoutEffect(() => {
    columns.measure();
    if (ref.current) ref.current.scrollLeft = end - later.current * column;
  }, [columns, ref, end, column]);
  const turn = (many: number) => {
    const at = Math.round((ref.current?.scrollLeft ?? 0) / column) + many;
    ref.current?.scrollTo({ left: at * column, behavior: scrolling() });
  };
  const hasEarlier = offset > 1;
  const hasLater = offset < end - 1;
  useShortcut("arrowleft", "←", "Earlier weeks", () => turn(-shown), hasEarlier);
  useShortcut("arrowright", "→", "Later weeks", () => turn(shown), hasLater);
  const drawn = columns.getVirtualItems();
  const needed = count - (drawn[0]?.index ?? count);
  useEffect(() => wants(needed), [wants, needed]);
  const weeks = drawn.map(({ index, key }) => {
    const monday = addDays(last, 7 * (index + 1 - count));
    return { key, monday, of: known.find((week) => week.monday === monday)?.of ?? [] };
  });
  const days = DAYS.filter((day) =>
    known.some((week) => week.of.some((each) => weekdayOf(each.day) === day)),
  );
  const unit = unitFor(
    known.flatMap((week) => week.of.map((each) => each.score)),
    column - 10,
  );
  const before = (drawn[0]?.index ?? 0) * column;
  const after = (count - 1 - (drawn.at(-1)?.index ?? 0)) * column;
  return (
    <>
      <div
        ref={ref}
        onScroll={({ currentTarget }) => {
          later.current = Math.round((end - currentTarget.scrollLeft) / column);
        }}
        className="relative overflow-x-auto overscroll-x-contain border-b border-ink pb-2"
      >
        <table className="table-fixed" style={{ width: LABEL + count * column }}>
          <caption className="sr-only">Sessions by week and day</caption>
          <colgroup>
            <col style={{ width: LABEL }} />
            <col style={{ width: before }} />
            {drawn.map(({ key }) => (
              <col key={key} style={{ width: column }} />
            ))}
            <col style={{ width: after }} />
          </colgroup>
          <thead>
            <tr className="text-left text-[15px]">
              <th className="sticky left-0 z-10 bg-paper font-normal">
                <span className="sr-only">Day</span>
              </th>
              <td aria-hidden />
              {weeks.map(({ key, monday }) => (
                <th key={key} scope="col" className="font-normal">
                  <Link
                    to={`/ledger/week/${monday}`}
                    className={clsx(
                      "inline-flex min-h-11 items-center hover:underline",
                      monday === last ? "font-bold text-work" : "text-faint",
                    )}
                  >
                    <span className="sr-only">Week of </span>
                    {dayAndMonth(monday)}
                    {yearOf(monday) !== yearOf(last) && ` ${yearOf(monday)}`}
                  </Link>
                </th>
              ))}
              <td aria-hidden />
            </tr>
          </thead>
          <tbody>
            {days.map((day) => (
              <tr key={day} className="border-b border-hairline">
                <th
                  scope="row"
                  className="sticky left-0 z-10 bg-paper text-left text-[15px] font-normal text-faint"
                >
                  {weekday(day)}
                </th>
                <td aria-hidden />
                {weeks.map((week) => (
                  <td key={week.key} className="h-12 align-middle">
                    {week.of
                      .filter((each) => weekdayOf(each.day) === day)
                      .map((each) => (
                        <SmallSession key={each.id} session={each} unit={unit} />
                      ))}
                  </td>
                ))}
                <td aria-hidden />
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {days.length === 0 && <p className="py-6 text-faint">Nothing was lifted in these weeks.</p>}
      <LeafThrough
        back={{ words: "Earlier weeks", onTurn: () => turn(-shown), disabled: !hasEarlier }}
        on={{ words: "Later weeks", onTurn: () => turn(shown), disabled: !hasLater }}
      />
    </>
  );
}
