import type { Bout, FloorView, Position, Schemas } from "./client";
import type { Entry } from "./device";

export const placeKey = (position: Position) =>
  `${position.group}.${position.round}.${position.entry}.${position.set}.${position.bout}`;

/** Lay what is still on its way over what the server has: the lifter's last word counts. */
export function overlaid(
  recorded: Schemas["Recorded"][],
  waiting: Entry[],
  sessionId: string,
): Schemas["Recorded"][] {
  const own = waiting.filter((each) => each.sessionId === sessionId && each.position);
  if (!own.length) return recorded;
  const byPlace = new Map(recorded.map((each) => [placeKey(each.bout.position), each]));
  for (const { position, done } of own) {
    if (!position || done === undefined) continue;
    const key = placeKey(position);
    const there = byPlace.get(key);
    const doneAt = there?.done_at ?? done?.done_at;
    if (!done || !doneAt) byPlace.delete(key);
    else byPlace.set(key, { bout: boutOf(position, done), done_at: doneAt, version: there?.version ?? 0 });
  }
  return [...byPlace.values()].sort((a, b) => Date.parse(a.done_at) - Date.parse(b.done_at));
}

/** A session with what this device has to say of it laid over. */
export function told(view: FloorView, waiting: Entry[]): FloorView {
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

const boutOf = (position: Position, done: Schemas["BoutDone"]): Bout => ({
  position,
  exercise: done.exercise,
  setup: { items: done.setup?.items ?? [] },
  side: done.side ?? "both",
  kg: done.kg ?? null,
  reps: done.reps,
  partial_reps: done.partial_reps ?? 0,
  seconds: done.seconds ?? 0,
  reserve: done.reserve ?? null,
  ended: done.ended ?? null,
  note: done.note ?? "",
  rep_seconds: done.rep_seconds ?? [],
});
