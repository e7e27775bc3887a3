import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { type Bout, client, type Position, type Schemas } from "./client";

/** What is to be true of one place of a session: a bout done there, or none. */
export interface Entry {
  key: string;
  sessionId: string;
  position: Position;
  done: Schemas["BoutDone"] | null;
  stamp: string;
}

interface Kept extends DBSchema {
  entries: { key: string; value: Entry };
}

export type SaveState = "saved" | "kept" | "refused";

export interface OutboxStatus {
  waiting: Entry[];
  state: SaveState;
  refusal: string | null;
}

type Listener = () => void;

const RETRY_FIRST = 1_000;
const RETRY_MOST = 15_000;

export const placeKey = (position: Position) =>
  `${position.group}.${position.round}.${position.entry}.${position.set}.${position.bout}`;

/**
 * Bouts on their way to the record. Each is kept on this device first and sent then, in order, until the
 * server has it; a newer word about the same place replaces an unsent older one.
 */
export class Outbox {
  private database: Promise<IDBPDatabase<Kept>>;
  private waiting = new Map<string, Entry>();
  private listeners = new Set<Listener>();
  private status: OutboxStatus = { waiting: [], state: "saved", refusal: null };
  private sending = false;
  private retry = RETRY_FIRST;
  private timer: ReturnType<typeof setTimeout> | undefined;
  readonly loaded: Promise<void>;
  onSaved: (sessionId: string, tonnageKg: number) => void = () => {};

  constructor() {
    this.database = openDB<Kept>("fortis-outbox", 1, {
      upgrade: (database) => void database.createObjectStore("entries", { keyPath: "key" }),
    });
    this.loaded = this.load();
    addEventListener("online", () => this.send());
  }

  subscribe = (listener: Listener) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  snapshot = () => this.status;

  /** Keep a word about a place of a session, then try to send it. */
  async put(sessionId: string, position: Position, done: Schemas["BoutDone"] | null): Promise<void> {
    const key = `${sessionId}/${placeKey(position)}`;
    const entry: Entry = {
      key,
      sessionId,
      position,
      done,
      stamp: crypto.getRandomValues(new Uint32Array(2)).join(),
    };
    this.waiting.delete(key);
    this.waiting.set(key, entry);
    this.changed(null);
    await (await this.database).put("entries", entry);
    void this.send();
  }

  /** Wait until nothing is left to send, as far as the server answers. */
  async settle(): Promise<boolean> {
    await this.loaded;
    await this.send();
    return this.waiting.size === 0;
  }

  private async load() {
    for (const entry of await (await this.database).getAll("entries")) {
      if (!this.waiting.has(entry.key)) this.waiting.set(entry.key, entry);
    }
    this.changed(null);
    void this.send();
  }

  private changed(refusal: string | null) {
    const state = refusal ? "refused" : this.waiting.size ? "kept" : "saved";
    this.status = { waiting: [...this.waiting.values()], state, refusal };
    for (const listener of this.listeners) listener();
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.timer);
    try {
      for (let next = this.first(); next; next = this.first()) {
        if (!(await this.sendOne(next))) return;
      }
    } finally {
      this.sending = false;
    }
  }

  private first = () => this.waiting.values().next().value;

  /** Send one entry. False where the rest has to wait. */
  private async sendOne(entry: Entry): Promise<boolean> {
    try {
      const { data, error, response } = await sent(entry);
      if (response.ok && data) {
        this.retry = RETRY_FIRST;
        if (this.waiting.get(entry.key)?.stamp === entry.stamp) {
          this.waiting.delete(entry.key);
          await (await this.database).delete("entries", entry.key);
        }
        this.onSaved(entry.sessionId, data.tonnage_kg);
        this.changed(null);
        return true;
      }
      const detail = (error as Partial<Schemas["ProblemDetail"]> | undefined)?.detail;
      this.changed(response.status < 500 ? (detail ?? "The server refused a bout.") : null);
    } catch {
      this.changed(null);
    }
    this.timer = setTimeout(() => this.send(), this.retry);
    this.retry = Math.min(this.retry * 2, RETRY_MOST);
    return false;
  }
}

function sent({ sessionId, position, done }: Entry) {
  const address = "/api/floor/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}";
  const path = { session_id: sessionId, ...position };
  return done
    ? client.PUT(address, { params: { path }, body: done })
    : client.DELETE(address, { params: { path } });
}

/** Lay what is still on its way over what the server has: the lifter's last word counts. */
export function overlaid(
  recorded: Schemas["Recorded"][],
  waiting: Entry[],
  sessionId: string,
): Schemas["Recorded"][] {
  const byPlace = new Map(recorded.map((each) => [placeKey(each.bout.position), each]));
  for (const { sessionId: of, position, done } of waiting) {
    if (of !== sessionId) continue;
    const key = placeKey(position);
    const doneAt = byPlace.get(key)?.done_at ?? done?.done_at;
    if (!done || !doneAt) byPlace.delete(key);
    else byPlace.set(key, { bout: boutOf(position, done), done_at: doneAt });
  }
  return [...byPlace.values()].sort((a, b) => Date.parse(a.done_at) - Date.parse(b.done_at));
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
});
