import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { FloorView, Schemas } from "./client";
import type { Entry } from "./entry";
import { overlaid } from "./overlay";

/** What changes of a session while it is played: the small part, written often. */
type Played = Pick<FloorView, "id" | "bouts" | "adjustments">;

interface Kept extends DBSchema {
  entries: { key: string; value: Entry };
  views: { key: string; value: FloorView };
  played: { key: string; value: Played };
  pages: { key: string; value: unknown };
}

let opened: Promise<IDBPDatabase<Kept>> | undefined;

/** What is kept on this device: entries on their way to the record, and sessions to play without a connection. */
function device(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>("fortis-outbox", 8, {
    upgrade: async (database, from, _to, upgrading) => {
      if (from < 1) database.createObjectStore("entries", { keyPath: "key" });
      if (from < 2) database.createObjectStore("views", { keyPath: "id" });
      if (from < 3) database.createObjectStore("played", { keyPath: "id" });
      if (from < 7) database.createObjectStore("pages");
      if (from > 0 && from < 5) {
        const entries = upgrading.objectStore("entries");
        for (const entry of await entries.getAll()) await entries.put(entryOfVersion3(entry));
        await upgrading.objectStore("views").clear();
        if (from > 2) await upgrading.objectStore("played").clear();
      }
      if (from >= 5) {
        const views = upgrading.objectStore("views");
        for (const view of await views.getAll()) await views.put(viewOfEarlier(view));
      }
    },
  });
  return opened;
}

type Adjustments = Schemas["Adjustments"];

/**
 * What an earlier release kept to be sent, as it is sent now: a lift was done instead from the start, and a lift had
 * one change of load. Sessions kept to be played are asked for anew.
 */
export function entryOfVersion3(entry: Entry): Entry {
  if (!entry.changes) return entry;
  const upcast = (old: Adjustments): Adjustments => ({
    ...old,
    swapped: mapped(old.swapped, (swap) => (typeof swap === "string" ? { lift: swap, set: 0 } : swap)),
    loads: mapped(old.loads, (load) => (Array.isArray(load) ? load : [sleeved(load)])),
  });
  const changes = entry.changes.map(({ before, after }) => ({
    before: upcast(before),
    after: upcast(after),
  }));
  return { ...entry, changes };
}

/** A session that an earlier release kept to be played, with what it did not know yet. */
export function viewOfEarlier(view: FloorView): FloorView {
  const told = { others: [], skipped: [], win: "", was: null };
  const advice = view.advice.advice.map((each) => ({
    ...told,
    ...each,
    again: each.again && { ...told, ...each.again },
  }));
  const steps = view.timeline.steps.map((step) => ({ ...{ gear: [], finds: false }, ...step }));
  return {
    ...{ choices: {} },
    ...view,
    advice: { ...{ lifted: {} }, ...view.advice, advice },
    timeline: { ...view.timeline, steps },
  };
}

/** A load of an earlier release: what hung on each end of the bar was called its side. */
function sleeved(old: Schemas["LoadChange"] & { side?: number[] }): Schemas["LoadChange"] {
  const { side, ...load } = old;
  return { ...load, sleeve: side ?? [], advised: true };
}

const mapped = <T>(of: Record<string, T> | undefined, change: (value: T) => T): Record<string, T> =>
  Object.fromEntries(Object.entries(of ?? {}).map(([key, value]) => [key, change(value)]));

/** Keep a page to read it with the server gone. */
export async function keepPage(name: string, page: unknown): Promise<void> {
  await (await device()).put("pages", page, name);
}

export const keptPage = async <Page>(name: string): Promise<Page | undefined> =>
  (await (await device()).get("pages", name)) as Page | undefined;

export const keptEntries = async (): Promise<Entry[]> => (await device()).getAll("entries");

export async function keepEntry(entry: Entry): Promise<void> {
  await (await device()).put("entries", entry);
}

export async function dropEntry(entry: Entry): Promise<void> {
  await (await device()).delete("entries", entry.key);
}

/**
 * Let go of an entry that the record has taken, with what the plan has become; in the same stroke the session kept
 * here has it too. A newer word of another tab about the same thing stays.
 */
export async function handOver(entry: Entry, changed?: Schemas["Adjustments"]): Promise<void> {
  const stroke = (await device()).transaction(["entries", "played"], "readwrite");
  const played = await stroke.objectStore("played").get(entry.sessionId);
  if (played) {
    const adjustments = changed ?? played.adjustments;
    const bouts = overlaid(played.bouts, [entry], entry.sessionId);
    await stroke.objectStore("played").put({ ...played, adjustments, bouts });
  }
  const waiting = await stroke.objectStore("entries").get(entry.key);
  if (waiting?.stamp === entry.stamp) await stroke.objectStore("entries").delete(entry.key);
  await stroke.done;
}

const plans = new Map<string, FloorView>();

/** Keep a session so that it can be played with the server gone; finished ones are let go. */
export async function keepView(view: FloorView): Promise<void> {
  const stroke = (await device()).transaction(["views", "played"], "readwrite");
  if (view.state !== "started") {
    await stroke.objectStore("views").delete(view.id);
    await stroke.objectStore("played").delete(view.id);
  } else {
    const before = plans.get(view.id);
    const same = before?.timeline === view.timeline && before.advice === view.advice;
    if (!same) await stroke.objectStore("views").put(view);
    const { id, bouts, adjustments } = view;
    await stroke.objectStore("played").put({ id, bouts, adjustments });
    plans.set(id, view);
  }
  await stroke.done;
}

/** The sessions under way as last seen here, for when the server cannot be asked. */
export async function keptViews(): Promise<FloorView[]> {
  const database = await device();
  const played = new Map((await database.getAll("played")).map((each) => [each.id, each]));
  return (await database.getAll("views")).map((view) => ({ ...view, ...played.get(view.id) }));
}
