import type { Position } from "@/data/client";
import type { BoutDone } from "@/session/done";
import type { Adjustments } from "@/session/played";
import { positionKey } from "@/session/position";

interface Turn<T> {
  before: T;
  after: T;
}

/** One thing the lifter did: about a bout, about the rest of the session, or both at once. */
export interface Action {
  bout?: Turn<BoutDone | null> & { position: Position };
  changes?: Turn<Adjustments>;
}

/** What was done about a session on this device, and what was taken back of it. The latest stands last. */
export interface History {
  past: Action[];
  future: Action[];
}

export const NO_HISTORY: History = { past: [], future: [] };

const MOST = 60;

const samePosition = (one: { position: Position }, other: { position: Position }) =>
  positionKey(one.position) === positionKey(other.position);

/** Add an action. Actions about one bout, one after the other, are one: taken back together. */
export function withAction({ past }: History, action: Action): History {
  const last = past.at(-1);
  if (last?.bout && action.bout && !last.changes && !action.changes && samePosition(last.bout, action.bout)) {
    const joined = { bout: { ...action.bout, before: last.bout.before } };
    return { past: [...past.slice(0, -1), joined], future: [] };
  }
  return { past: [...past, action].slice(-MOST), future: [] };
}

/** Take the last action back. */
export function undone({ past, future }: History): { history: History; action: Action | undefined } {
  const action = past.at(-1);
  return {
    history: action ? { past: past.slice(0, -1), future: [...future, action] } : { past, future },
    action,
  };
}

/** Do again what was taken back last. */
export function redone({ past, future }: History): { history: History; action: Action | undefined } {
  const action = future.at(-1);
  return {
    history: action ? { past: [...past, action], future: future.slice(0, -1) } : { past, future },
    action,
  };
}
