import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { FloorView, Position, Schemas } from "./client";
import { overlaid } from "./overlay";

/** A bout as the record has it, where it is not as this device last saw it. */
export type There = Schemas["There"];

/** What is to be true of a session: a bout at one place (or none there), what was changed, or that it is over. */
export interface Entry {
  key: string;
  sessionId: string;
  stamp: string;
  position?: Position;
  done?: Schemas["BoutDone"] | null;
  changes?: Schemas["Change"][];
  finishedAt?: string;
  /** Two answers for one bout: the other one, until the lifter has chosen. */
  conflict?: There;
}

/** What changes of a session while it is played: the small part, written often. */
type Played = Pick<FloorView, "id" | "bouts" | "adjustments" | "tonnage_kg">;

interface Kept extends DBSchema {
  entries: { key: string; value: Entry };
  views: { key: string; value: FloorView };
  played: { key: string; value: Played };
}

let opened: Promise<IDBPDatabase<Kept>> | undefined;

/** What is kept on this device: entries on their way to the record, and sessions to play without a connection. */
function device(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>("fortis-outbox", 3, {
    upgrade: (database, from) => {
      if (from < 1) database.createObjectStore("entries", { keyPath: "key" });
      if (from < 2) database.createObjectStore("views", { keyPath: "id" });
      if (from < 3) database.createObjectStore("played", { keyPath: "id" });
    },
  });
  return opened;
}

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
  const kept = await stroke.objectStore("entries").get(entry.key);
  if (kept?.stamp === entry.stamp) await stroke.objectStore("entries").delete(entry.key);
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
    const kept = plans.get(view.id);
    const same = kept?.timeline === view.timeline && kept.advice === view.advice;
    if (!same) await stroke.objectStore("views").put(view);
    const { id, bouts, adjustments, tonnage_kg } = view;
    await stroke.objectStore("played").put({ id, bouts, adjustments, tonnage_kg });
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
