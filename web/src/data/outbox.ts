import { positionKey } from "@/session/position";
import { client, type Position, type Schemas } from "./client";
import { dropEntry, handOver, keepEntry, keptEntries } from "./device";
import type { Entry, SeenView, TakenEntry } from "./entry";

/** Whether all is in the record, kept on this device, or not even that yet; else what stands aside. */
export type SaveState = "saved" | "kept" | "keeping" | "refused" | "conflict";

export interface OutboxStatus {
  waiting: Entry[];
  /** What the record has taken that an answer asked for before may not show, in order. */
  taken: TakenEntry[];
  state: SaveState;
  /** What the server put right about what was said last, such as a time to come. */
  word: string;
}

type Listener = () => void;

const RETRY_FIRST = 1_000;
const RETRY_MOST = 15_000;

/**
 * Bouts, and changes to a session, on their way to the record. Each is kept on this device first and sent then,
 * in order, until the server has it; a newer word about the same thing replaces an unsent older one. One that the
 * record refuses stands aside, and the rest goes on.
 */
class Outbox {
  private waiting = new Map<string, Entry>();
  private taken: TakenEntry[] = [];
  /** Entries that this device would still forget, were the page closed. */
  private unkept = new WeakSet<Entry>();
  private versions = new Map<string, number>();
  private listeners = new Set<Listener>();
  private status: OutboxStatus = { waiting: [], taken: [], state: "saved", word: "" };
  private sending = false;
  private retry = RETRY_FIRST;
  private word = "";
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** How many entries of this device the record has taken since the page was loaded. */
  order = 0;

  constructor() {
    void this.load();
    addEventListener("online", () => this.send());
  }

  subscribe = (listener: Listener) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  snapshot = () => this.status;

  /** Learn which versions of a session's bouts this device has seen; what the view shows need not be laid over it. */
  learn({ id, bouts, asOf }: SeenView) {
    for (const { bout, version } of bouts) {
      const key = `${id}/${positionKey(bout.position)}`;
      this.versions.set(key, Math.max(version, this.versions.get(key) ?? 0));
    }
    this.taken = this.taken.filter((each) => each.sessionId !== id || each.order > asOf);
  }

  /** Keep what is said of a bout, then try to send it. */
  put(sessionId: string, position: Position, done: Schemas["BoutDone"] | null): Promise<void> {
    return this.keep({
      key: `${sessionId}/${positionKey(position)}`,
      sessionId,
      position,
      done,
      stamp: stamp(),
    });
  }

  /**
   * Keep a change of the plan, then try to send it. Earlier ones stay with it: one that is to be taken back may
   * have arrived although nobody here was told.
   */
  adjust(sessionId: string, change: Schemas["Change"]): Promise<void> {
    const key = `${sessionId}/adjustments`;
    const changes = [...(this.waiting.get(key)?.changes ?? []), change];
    return this.keep({ key, sessionId, changes, stamp: stamp() });
  }

  /** Keep that a session is over, then try to say so. */
  finish(sessionId: string, finishedAt: string): Promise<void> {
    return this.keep({ key: `${sessionId}/finish`, sessionId, finishedAt, stamp: stamp() });
  }

  /** Settle two answers for one bout: this device's, or the one in the record. */
  async choose(entry: Entry, mine: boolean): Promise<void> {
    const { conflict, ...own } = entry;
    if (conflict) this.versions.set(entry.key, conflict.version);
    if (mine) await this.keep({ ...own, stamp: stamp() });
    else {
      await this.letGo(entry);
    }
    this.changed();
  }

  /** Send again what was refused. */
  async sendAgain(): Promise<void> {
    for (const { refusal, ...entry } of [...this.waiting.values()]) if (refusal) await this.keep(entry);
  }

  /** Forget an entry: it will not reach the record. */
  async letGo(entry: Entry): Promise<void> {
    this.waiting.delete(entry.key);
    await dropEntry(entry);
    this.changed();
  }

  /** Bouts go to the end of what waits; a change of the plan stays ahead of the bouts that were done after it. */
  private async keep(entry: Entry): Promise<void> {
    if (!entry.changes) this.waiting.delete(entry.key);
    this.waiting.set(entry.key, entry);
    this.unkept.add(entry);
    this.changed();
    try {
      await keepEntry(entry);
      this.unkept.delete(entry);
      this.changed();
    } finally {
      void this.send();
    }
  }

  private async load() {
    for (const entry of await keptEntries()) {
      if (!this.waiting.has(entry.key)) this.waiting.set(entry.key, entry);
    }
    this.changed();
    void this.send();
  }

  private changed() {
    const waiting = [...this.waiting.values()];
    const state = waiting.some((each) => each.conflict)
      ? "conflict"
      : waiting.some((each) => this.unkept.has(each))
        ? "keeping"
        : waiting.some((each) => !each.refusal)
          ? "kept"
          : waiting.length
            ? "refused"
            : "saved";
    this.status = { waiting, taken: this.taken, state, word: this.word };
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

  private async standAside(entry: Entry, { there, detail }: Partial<Schemas["ProblemDetail"]>) {
    const aside = {
      ...entry,
      ...(there ? { conflict: there } : { refusal: detail || "No reason was given." }),
    };
    this.waiting.set(entry.key, aside);
    await keepEntry(aside);
    this.changed();
  }

  private take(entry: Entry, { tonnage_kg, adjustments }: Told) {
    this.order += 1;
    const told = { ...(tonnage_kg !== undefined && { tonnage_kg }), ...(adjustments && { adjustments }) };
    const others = this.taken.filter(({ key }) => key !== entry.key);
    this.taken = [...others, { ...entry, ...told, order: this.order }];
  }

  private first = () => [...this.waiting.values()].find((entry) => !entry.conflict && !entry.refusal);

  /** Send one entry. False where the rest has to wait. */
  private async sendOne(entry: Entry): Promise<boolean> {
    try {
      const { data, error, response } = await sent(entry, this.versions.get(entry.key) ?? null);
      const still = this.waiting.get(entry.key)?.stamp === entry.stamp;
      if (response.ok) {
        this.retry = RETRY_FIRST;
        if (data?.version) this.versions.set(entry.key, data.version);
        if (entry.position) this.word = data?.word ?? "";
        this.take(entry, data ?? {});
        if (still) {
          this.waiting.delete(entry.key);
          await handOver(entry, data?.adjustments);
        }
        this.changed();
        return true;
      }
      const problem = error as Partial<Schemas["ProblemDetail"]> | undefined;
      if (isRefusal(response, problem)) {
        if (still) await this.standAside(entry, problem);
        return true;
      }
    } catch {
      // The server cannot be reached: what waits is sent later.
    }
    this.changed();
    this.timer = setTimeout(() => this.send(), this.retry);
    this.retry = Math.min(this.retry * 2, RETRY_MOST);
    return false;
  }
}

/** Answers that say nothing of what was sent: too slow, too many, or not from Fortis at all. */
const FOR_NOW = [401, 403, 408, 425, 429];

/** Whether the record has looked at what was sent, and will never take it as it is. */
function isRefusal(
  { status }: Response,
  problem: Partial<Schemas["ProblemDetail"]> | undefined,
): problem is Partial<Schemas["ProblemDetail"]> {
  return status >= 400 && status < 500 && !FOR_NOW.includes(status) && problem?.status === status;
}

const DEVICE_KEY = "fortis.device";

/** What this device calls itself, so that the record can tell which one said what. */
function deviceName(): string {
  const known = localStorage.getItem(DEVICE_KEY);
  if (known) return known;
  const kind = matchMedia("(pointer: coarse)").matches ? "phone" : "computer";
  const name = `${kind} ${crypto.getRandomValues(new Uint16Array(1))[0]}`;
  localStorage.setItem(DEVICE_KEY, name);
  return name;
}

export const deviceHeader = { "Fortis-Device": deviceName() };

const stamp = () => crypto.getRandomValues(new Uint32Array(2)).join();

/** What the record tells of an entry that it has taken. */
interface Told {
  tonnage_kg?: number;
  version?: number | null;
  word?: string;
  adjustments?: Schemas["Adjustments"];
}

interface Sent {
  data?: Told | undefined;
  error?: unknown;
  response: Response;
}

async function sent({ sessionId, ...entry }: Entry, seen: number | null): Promise<Sent> {
  const { position, done, changes = [], finishedAt } = entry;
  const session = { params: { path: { session_id: sessionId } } };
  if (finishedAt) {
    const body = { finished_at: finishedAt };
    const { error, response } = await client.POST("/api/floor/{session_id}/finish", { ...session, body });
    return { error, response };
  }
  if (!position) {
    const body = { changes };
    const answer = await client.PATCH("/api/floor/{session_id}/adjustments", { ...session, body });
    return { ...answer, data: answer.data && { adjustments: answer.data } };
  }
  const address = "/api/floor/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}";
  const params = { path: { session_id: sessionId, ...position } };
  if (done)
    return client.PUT(address, { params: { ...params, header: deviceHeader }, body: { ...done, seen } });
  return client.DELETE(address, { params: { ...params, header: deviceHeader, query: { seen } } });
}

/** The outbox of this device. */
export const outbox = new Outbox();
