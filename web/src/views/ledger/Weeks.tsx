import { clsx } from "clsx";
import { useState } from "react";
import { Link } from "react-router";
import { useShortcut } from "@/app/shortcuts";
import { useWeeks } from "@/data/queries";
import { LeafThrough } from "@/parts/LeafThrough";
import { Trouble } from "@/parts/Notice";
import { useWidth } from "@/parts/useWidth";
import { unitFor } from "@/score/SmallScore";
import { addDays, dayAndMonth, weekday, weekdayOf } from "../dates";
import { SmallSession } from "../SmallSession";

const LABEL = 44;
/** A column of the calendar is at least so wide; so many weeks are asked for at once. */
const NARROWEST = 92;
const MANY = 8;
const DAYS = [0, 1, 2, 3, 4, 5, 6];

/** Weeks side by side, a row for each day that is trained on, each session a small score. */
export function Weeks() {
  const [until, setUntil] = useState<string | null>(null);
  const { data: view, error, refetch } = useWeeks(until, MANY);
  const [ref, width] = useWidth<HTMLDivElement>();
  const shown = Math.max(Math.min(MANY, Math.floor((width - LABEL) / NARROWEST)), 2);
  const weeks = view?.weeks.slice(-shown) ?? [];
  const last = weeks.at(-1);
  const turn = (many: number) => {
    if (!view || !last) return;
    const next = addDays(last.monday, 7 * many);
    setUntil(next > view.today ? null : next);
  };
  const earlier = () => turn(-shown);
  const later = () => turn(shown);
  useShortcut("arrowleft", "←", "Earlier weeks", earlier);
  useShortcut("arrowright", "→", "Later weeks", later, last?.is_over === true);
  const days = DAYS.filter((day) =>
    weeks.some((week) => week.of.some((each) => weekdayOf(each.day) === day)),
  );
  const unit = unitFor(
    weeks.flatMap((week) => week.of.map((each) => each.score)),
    (width - LABEL) / shown - 10,
  );
  return (
    <section aria-label="Weeks" className="mt-4">
      {error && <Trouble error={error} retry={() => void refetch()} />}
      <div ref={ref} className="border-b border-ink pb-2">
        <table className="w-full table-fixed">
          <caption className="sr-only">Sessions by week and day</caption>
          <colgroup>
            <col style={{ width: LABEL }} />
          </colgroup>
          <thead>
            <tr className="text-left text-[15px]">
              <th className="font-normal">
                <span className="sr-only">Day</span>
              </th>
              {weeks.map(({ monday, is_over: isOver }) => (
                <th key={monday} scope="col" className="font-normal">
                  <Link
                    to={`/ledger/week/${monday}`}
                    className={clsx(
                      "inline-flex min-h-11 items-center hover:underline",
                      isOver ? "text-faint" : "font-bold text-work",
                    )}
                  >
                    <span className="sr-only">Week of </span>
                    {dayAndMonth(monday)}
                  </Link>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {days.map((day) => (
              <tr key={day} className="border-b border-hairline">
                <th scope="row" className="text-left text-[15px] font-normal text-faint">
                  {weekday(day)}
                </th>
                {weeks.map((week) => (
                  <td key={week.monday} className="h-12 align-middle">
                    {week.of
                      .filter((each) => weekdayOf(each.day) === day)
                      .map((each) => (
                        <SmallSession key={each.id} session={each} unit={unit} />
                      ))}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        {view && days.length === 0 && <p className="py-6 text-faint">Nothing was lifted in these weeks.</p>}
      </div>
      <LeafThrough
        back={{ words: "Earlier weeks", onTurn: earlier }}
        on={{ words: "Later weeks", onTurn: later, disabled: !last?.is_over }}
      />
    </section>
  );
}
