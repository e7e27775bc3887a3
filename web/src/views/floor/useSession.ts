import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import type { FloorView } from "@/data/client";
import { Outbox, overlaid, placeKey } from "@/data/outbox";
import { floorKey } from "@/data/queries";
import {
  asPlanned,
  type BoutDone,
  byStep,
  leastReps,
  type Mark,
  NO_MARK,
  placeOf,
  positionOf,
  toSend,
} from "./play";

export const outbox = new Outbox();

const DOUBLE_TAP = 500;

const markKey = (id: string) => `fortis.floor.${id}`;

function keptMark(id: string): Mark {
  try {
    return { ...NO_MARK, ...JSON.parse(localStorage.getItem(markKey(id)) ?? "{}") };
  } catch {
    return NO_MARK;
  }
}

/** A clock that ticks while its view is shown, in milliseconds. */
function useNow(every = 200): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), every);
    return () => clearInterval(timer);
  }, [every]);
  return now;
}

/** A session being played: where it stands, and everything that can be done about it. */
export function useSession(view: FloorView) {
  const { id } = view;
  const steps = view.timeline.steps;
  const queries = useQueryClient();
  const status = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const now = useNow();
  const [mark, setMark] = useState(() => keptMark(id));
  const done = useMemo(
    () => byStep(steps, overlaid(view.bouts, status.waiting, id)),
    [steps, view.bouts, status, id],
  );
  const place = placeOf(steps, done, mark, now);
  const ended = useRef(0);

  useEffect(() => {
    outbox.onSaved = (sessionId, tonnageKg) => {
      queries.setQueryData<FloorView>(floorKey(sessionId), (old) => old && { ...old, tonnage_kg: tonnageKg });
    };
  }, [queries]);

  const remember = useCallback(
    (next: Mark) => {
      localStorage.setItem(markKey(id), JSON.stringify(next));
      setMark(next);
    },
    [id],
  );

  /** Say what is true of a step: in this view at once, on this device next, in the record when it can be. */
  const put = useCallback(
    (index: number, sent: BoutDone | null) => {
      const step = steps[index];
      if (!step) return;
      const position = positionOf(step);
      queries.setQueryData<FloorView>(floorKey(id), (old) => {
        if (!old) return old;
        const key = placeKey(position);
        const others = old.bouts.filter((each) => placeKey(each.bout.position) !== key);
        const bouts = sent
          ? overlaid(others, [{ key, sessionId: id, position, done: sent, stamp: "" }], id)
          : others;
        return { ...old, bouts };
      });
      void outbox.put(id, position, sent);
    },
    [steps, id, queries],
  );

  const begin = () => {
    if (place.work === null) return;
    remember({
      place: placeKey(positionOf(steps[place.work] as (typeof steps)[number])),
      startedAt: Date.now(),
      extra: 0,
    });
  };

  /** Record or correct a bout. A target that was not reached was not met, whatever was said before. */
  const record = (index: number, change: Partial<BoutDone>) => {
    const step = steps[index];
    if (!step) return;
    const there = done.get(index);
    const base = there ? toSend(there.bout, there.done_at) : asPlanned(step, Date.now());
    const next = { ...base, ...change };
    if (change.ended === undefined) {
      const short = next.reps < leastReps(step.target);
      if (short && next.ended === "target met") next.ended = null;
      if (!short && next.ended === null) next.ended = "target met";
    }
    if (next.ended === "could not move it" && next.reserve !== 0) next.reserve = 0;
    put(index, next);
    if (!there) remember(NO_MARK);
  };

  /** The one button: start the bout, or end it as planned. A second tap right after the end is not a start. */
  const advance = () => {
    if (place.work === null) return;
    if (place.mode === "working") {
      ended.current = Date.now();
      record(place.work, {});
    } else if (Date.now() - ended.current > DOUBLE_TAP) begin();
  };

  const addRest = () => {
    if (place.work === null || (place.mode !== "resting" && place.mode !== "over")) return;
    const key = placeKey(positionOf(steps[place.work] as (typeof steps)[number]));
    const extra = mark.place === key ? mark.extra : 0;
    const late = Math.max(-place.clock, 0);
    remember({ place: key, startedAt: null, extra: extra + 15 + Math.ceil(late) });
  };

  const undo = () => {
    if (place.mode === "working") remember(NO_MARK);
    else if (place.before !== null) put(place.before, null);
  };

  return { steps, done, place, status, now, advance, record, addRest, undo };
}

export type Playing = ReturnType<typeof useSession>;
