import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { FloorView, Position, Schemas } from "./client";

/** A bout as the record has it, where it is not as this device last saw it. */
export type There = Schemas["There"];

/** What is to be true of a session: a bout at one place (or none there), or what was changed on the floor. */
export interface Entry {
  key: string;
  sessionId: string;
  stamp: string;
  position?: Position;
  done?: Schemas["BoutDone"] | null;
  adjustments?: Schemas["Adjustments"];
  /** Two answers for one bout: the other one, until the lifter has chosen. */
  conflict?: There;
}

interface Kept extends DBSchema {
  entries: { key: string; value: Entry };
  views: { key: string; value: FloorView };
}

let opened: Promise<IDBPDatabase<Kept>> | undefined;

/** What is kept on this device: entries on their way to the record, and sessions to play without a connection. */
export function device(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>("fortis-outbox", 2, {
    upgrade: (database, from) => {
      if (from < 1) database.createObjectStore("entries", { keyPath: "key" });
      if (from < 2) database.createObjectStore("views", { keyPath: "id" });
    },
  });
  return opened;
}

/** Keep a session so that it can be played with the server gone; finished ones are let go. */
export async function keepView(view: FloorView): Promise<void> {
  const database = await device();
  if (view.state === "started") await database.put("views", view);
  else await database.delete("views", view.id);
}

/** A session as it was last seen here. */
export const keptView = async (id: string): Promise<FloorView | undefined> =>
  (await device()).get("views", id);

/** The session under way as last seen here, for when the server cannot be asked. */
export const keptViews = async (): Promise<FloorView[]> => (await device()).getAll("views");
