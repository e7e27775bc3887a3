import type { Position } from "@/data/client";
import { placeKey } from "@/data/overlay";
import type { Adjustments } from "./adjusting";
import type { BoutDone } from "./play";

interface Turn<T> {
  before: T;
  after: T;
}

/** One thing the lifter said: about a bout, about the rest of the session, or both at once. */
export interface Said {
  bout?: Turn<BoutDone | null> & { position: Position };
  changes?: Turn<Adjustments>;
}

/** What was said of a session on this device, and what was taken back of it. The latest stands last. */
export interface History {
  past: Said[];
  future: Said[];
}

export const NOTHING_SAID: History = { past: [], future: [] };

const MOST = 60;

const samePlace = (one: { position: Position }, other: { position: Position }) =>
  placeKey(one.position) === placeKey(other.position);

/** Add a word. Words about one bout, one after the other, are one: taken back together. */
export function withSaid({ past }: History, said: Said): History {
  const last = past.at(-1);
  if (last?.bout && said.bout && !last.changes && !said.changes && samePlace(last.bout, said.bout)) {
    const joined = { bout: { ...said.bout, before: last.bout.before } };
    return { past: [...past.slice(0, -1), joined], future: [] };
  }
  return { past: [...past, said].slice(-MOST), future: [] };
}

/** Take the last word back. */
export function undone({ past, future }: History): { history: History; said: Said | undefined } {
  const said = past.at(-1);
  return { history: said ? { past: past.slice(0, -1), future: [...future, said] } : { past, future }, said };
}

/** Say again what was taken back last. */
export function redone({ past, future }: History): { history: History; said: Said | undefined } {
  const said = future.at(-1);
  return { history: said ? { past: [...past, said], future: future.slice(0, -1) } : { past, future }, said };
}
