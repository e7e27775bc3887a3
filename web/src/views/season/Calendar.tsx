import { clsx } from "clsx";
import { type DragEvent, type ReactNode, useEffect, useRef, useState } from "react";
import type { Schemas } from "@/data/client";
import { type SeasonView, useMoveSession, useMoveWeek, type WeekOfSeason } from "@/data/season";
import { LeafThrough } from "@/parts/LeafThrough";
import { Trouble } from "@/parts/Notice";
import { Scroller } from "@/parts/Scroller";
import { useWidth } from "@/parts/useWidth";
import { unitFor } from "@/score/SmallScore";
import { addDays, dayAndMonth, weekday, weekdayOf } from "../dates";
import { SmallSession } from "../SmallSession";

const LABEL = 44;
/** A week is at least so wide; where there are more than fit, they are moved along. */
const NARROWEST = 64;
/** On less, one week is shown at a time. */
const ONE_BY_ONE = 560;
const DAYS = [0, 1, 2, 3, 4, 5, 6];

export interface Columns {
  label: number;
  width: number;
}

type Small = Schemas["SmallSession"];

/** Weeks side by side under their blocks, a row for each day that is trained on; on a phone one week at a time. */
export function Calendar({
  season,
  monday,
  thisWeek,
  today,
  onPick,
  children,
}: {
  season: SeasonView;
  monday: string;
  thisWeek: string;
  today: string;
  onPick: (monday: string) => void;
  /** What stands under the weeks, in the same columns. */
  children: (columns: Columns) => ReactNode;
}) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const [dragged, drag] = useState<Small | null>(null);
  const [draggedWeek, dragWeek] = useState<WeekOfSeason | null>(null);
  const [over, hover] = useState<string | null>(null);
  const move = useMoveSession();
  const moveWeek = useMoveWeek(season.id);
  const { weeks } = season;
  const days = DAYS.filter((day) =>
    weeks.some((week) => week.of.some((each) => weekdayOf(each.day) === day)),
  );
  const oneByOne = width < ONE_BY_ONE;
  const at = weeks.findIndex((week) => week.monday === monday);
  const shown = oneByOne ? weeks.slice(at, at + 1) : weeks;
  const column = Math.max((width - LABEL) / Math.max(shown.length, 1), NARROWEST);
  const unit = unitFor(
    weeks.flatMap((week) => week.of.map((each) => each.score)),
    column - 8,
  );
  const scroller = useRef<HTMLDivElement>(null);
  const middle = LABEL + column * at - width / 2;
  useEffect(() => {
    if (scroller.current) scroller.current.scrollLeft = middle;
  }, [middle]);
  const turn = (by: number) => {
    const next = weeks[at + by];
    if (next) onPick(next.monday);
  };
  const drop = (week: WeekOfSeason, day: number) => {
    if (dragged) move.mutate({ id: dragged.id, on: addDays(week.monday, day) });
    drag(null);
  };
  const takesWeek = (week: WeekOfSeason) =>
    draggedWeek !== null && canGoTo(season, draggedWeek, week, thisWeek);
  const overWeek = (event: DragEvent, week: WeekOfSeason) => {
    if (takesWeek(week)) event.preventDefault();
    if (draggedWeek) hover(takesWeek(week) ? week.monday : null);
  };
  const dropWeek = (week: WeekOfSeason) => {
    if (draggedWeek && takesWeek(week)) moveWeek.mutate({ monday: draggedWeek.monday, to: week.monday });
    endWeek();
  };
  const endWeek = () => {
    dragWeek(null);
    hover(null);
  };
  return (
    <div ref={ref} className="mt-4">
      {move.error && <Trouble error={move.error} />}
      {moveWeek.error && <Trouble error={moveWeek.error} />}
      <Scroller ref={scroller} label="The weeks" className="relative">
        <table className="table-fixed" style={{ width: LABEL + column * shown.length }}>
          <caption className="sr-only">Sessions by week and day</caption>
          <colgroup>
            <col style={{ width: LABEL }} />
          </colgroup>
          <thead>
            <tr className="text-left text-sm">
              <td />
              {spans(season, shown).map(({ name, first, many }) => (
                <th key={first} scope="colgroup" colSpan={many} className="pr-2 align-bottom font-normal">
                  <span className="narrow block border-b-2 border-ink pb-1 font-semibold">{name}</span>
                </th>
              ))}
            </tr>
            <tr className="text-left text-[15px]">
              <td />
              {shown.map((week) => (
                <th
                  key={week.monday}
                  scope="col"
                  className="font-normal"
                  onDragOver={(event) => overWeek(event, week)}
                  onDrop={() => dropWeek(week)}
                >
                  <button
                    type="button"
                    aria-pressed={week.monday === monday}
                    onClick={() => onPick(week.monday)}
                    draggable={canMove(week, thisWeek)}
                    onDragStart={() => dragWeek(week)}
                    onDragEnd={endWeek}
                    className={clsx(
                      "narrow min-h-11 w-full border-b-3 text-left",
                      week.monday === over && "border-work border-dashed",
                      week.monday !== over && (week.monday === monday ? "border-ink" : "border-transparent"),
                      week.monday === thisWeek ? "font-bold text-work" : "text-faint",
                    )}
                  >
                    <span className="sr-only">Week of </span>
                    {dayAndMonth(week.monday)}
                  </button>
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
                {shown.map((week) => (
                  <td
                    key={week.monday}
                    className={clsx("h-12 align-middle", isLight(season, week) && "bg-rest/10")}
                    onDragOver={(event) => (dragged ? event.preventDefault() : overWeek(event, week))}
                    onDrop={() => (dragged ? drop(week, day) : dropWeek(week))}
                  >
                    {week.of
                      .filter((each) => weekdayOf(each.day) === day)
                      .map((each) => (
                        <SmallSession
                          key={each.id}
                          session={each}
                          unit={unit}
                          draggable={each.state === "planned"}
                          onDragStart={() => drag(each)}
                          onDragEnd={() => drag(null)}
                          className={clsx(
                            each.day === today && each.state !== "finished" && "border-b-2 border-work",
                          )}
                        />
                      ))}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        {oneByOne && (
          <LeafThrough
            back={{ words: "The week before", onTurn: () => turn(-1), disabled: at === 0 }}
            on={{ words: "The week after", onTurn: () => turn(1), disabled: at === weeks.length - 1 }}
          />
        )}
        {children(oneByOne ? { label: 0, width: width / weeks.length } : { label: LABEL, width: column })}
      </Scroller>
    </div>
  );
}

/** Whether a week can be moved: it is to come, and nothing of it was begun. */
const canMove = (week: WeekOfSeason, thisWeek: string) =>
  week.monday >= thisWeek && week.number !== null && week.of.every((each) => each.state === "planned");

/** Whether a week can go where another one is: later, or back over weeks away. */
function canGoTo(season: SeasonView, week: WeekOfSeason, to: WeekOfSeason, thisWeek: string): boolean {
  if (to.monday < thisWeek || to.monday === week.monday) return false;
  const between = season.weeks.filter((each) => each.monday >= to.monday && each.monday < week.monday);
  return between.every((each) => each.number === null && each.light === null);
}

/** The blocks over their weeks, and the weeks away between them. */
function spans(
  { blocks }: SeasonView,
  weeks: readonly WeekOfSeason[],
): { name: string; first: string; many: number }[] {
  const found: { name: string; first: string; many: number; block: number | null }[] = [];
  for (const week of weeks) {
    const last = found.at(-1);
    if (last && last.block === week.block) last.many += 1;
    else found.push({ name: blockName(blocks, week), first: week.monday, many: 1, block: week.block });
  }
  return found;
}

function blockName(blocks: SeasonView["blocks"], week: WeekOfSeason): string {
  const block = week.block === null ? undefined : blocks[week.block - 1];
  if (!block) return "Away";
  const kind = block.kind.charAt(0).toUpperCase() + block.kind.slice(1);
  return block.name ? `${kind}, ${whole(block.name)}` : kind;
}

/** A name whose per cent sign stays with its number. */
export const whole = (name: string) => name.replaceAll(" %", "\u00a0%");

const isLight = ({ blocks }: SeasonView, week: WeekOfSeason) =>
  week.block === null ||
  week.missed ||
  week.light !== null ||
  ["light", "free"].includes(blocks[week.block - 1]?.kind ?? "");
