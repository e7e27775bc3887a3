import type { FloorView, Position, Schemas } from "./client";

/** A bout as the record has it, where it is not as this device last saw it; none where it was taken back there. */
export type There = Schemas["There"];

/** What is to be true of a session: a bout at a position (or none there), what was changed, or that it is over. */
export interface Entry {
  key: string;
  sessionId: string;
  stamp: string;
  position?: Position;
  done?: Schemas["BoutDone"] | null;
  changes?: Schemas["Change"][];
  finishedAt?: string;
  /** What the bout adds to the tonnage, once the record has told. */
  tonnage_kg?: number;
  /** Two answers for one bout: the other one, until the lifter has chosen. */
  conflict?: There;
  /** Why the record does not take it, in its own words: it stands aside until the lifter has said what to do. */
  refusal?: string;
}

/** An entry that the record has taken, and what the plan has become by it. */
export interface TakenEntry extends Entry {
  /** How many entries of this device the record had taken then, with this one. */
  order: number;
  adjustments?: Schemas["Adjustments"];
}

/** A session as the record tells it. */
export interface SeenView extends FloorView {
  /** How many entries of this device the record had taken when it was asked: later ones may be missing here. */
  asOf: number;
}
