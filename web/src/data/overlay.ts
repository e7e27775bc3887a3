import { boutOf } from "@/session/done";
import { positionKey } from "@/session/position";
import type { FloorView, Schemas } from "./client";
import type { Entry, SeenView, TakenEntry } from "./entry";

/** Lay what is still on its way over what the server has: the lifter's last word counts. */
export function overlaid(
  recorded: Schemas["Recorded"][],
  waiting: Entry[],
  sessionId: string,
): Schemas["Recorded"][] {
  const own = waiting.filter((each) => each.sessionId === sessionId && each.position);
  if (!own.length) return recorded;
  const byPosition = new Map(recorded.map((each) => [positionKey(each.bout.position), each]));
  for (const { position, done, tonnage_kg } of own) {
    if (!position || done === undefined) continue;
    const key = positionKey(position);
    const there = byPosition.get(key);
    const doneAt = there?.done_at ?? done?.done_at;
    if (!done || !doneAt) byPosition.delete(key);
    else
      byPosition.set(key, {
        bout: boutOf(position, done),
        tonnage_kg: tonnage_kg ?? there?.tonnage_kg ?? 0,
        began_at: there?.began_at ?? done.began_at ?? null,
        done_at: doneAt,
        rest_seconds: there?.rest_seconds ?? null,
        version: there?.version ?? 0,
      });
  }
  return [...byPosition.values()].sort((a, b) => Date.parse(a.done_at) - Date.parse(b.done_at));
}

/** A session with what the record has taken since it was asked laid over it. */
export function withTaken(view: SeenView, taken: TakenEntry[]): SeenView {
  const own = taken.filter((each) => each.sessionId === view.id && each.order > view.asOf);
  if (!own.length) return view;
  return {
    ...view,
    adjustments: own.findLast((each) => each.adjustments)?.adjustments ?? view.adjustments,
    state: own.some((each) => each.finishedAt) ? "finished" : view.state,
    bouts: overlaid(view.bouts, own, view.id),
  };
}

/** A session with what waits on this device laid over it. */
export function withWaiting(view: FloorView, waiting: Entry[]): FloorView {
  const own = waiting.filter((each) => each.sessionId === view.id);
  const finished = own.some((each) => each.finishedAt);
  const changes = own.flatMap((each) => each.changes ?? []);
  return {
    ...view,
    state: finished ? "finished" : view.state,
    bouts: overlaid(view.bouts, waiting, view.id),
    adjustments: changes.at(-1)?.after ?? view.adjustments,
  };
}
