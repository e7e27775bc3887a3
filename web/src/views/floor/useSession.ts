import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import type { FloorView, Schemas, Step } from "@/data/client";
import { keepView } from "@/data/device";
import { adjustmentsOf, Outbox, overlaid, placeKey } from "@/data/outbox";
import { floorKey } from "@/data/queries";
import { type Adjustments, adjusted, entryKey } from "./adjusting";
import { moment } from "./moment";
import {
  adviceFor,
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
  const [now, setNow] = useState(moment);
  useEffect(() => {
    const tick = () => setNow(moment());
    const timer = setInterval(tick, every);
    document.addEventListener("visibilitychange", tick);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", tick);
    };
  }, [every]);
  return now;
}

/** A session being played: where it stands, and everything that can be done about it. */
export function useSession(view: FloorView) {
  const { id } = view;
  const queries = useQueryClient();
  const status = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const changed = adjustmentsOf(view.adjustments, status.waiting, id);
  const planned = view.timeline.steps;
  const steps = useMemo(() => adjusted(planned, changed), [planned, changed]);
  const skipped = useMemo(() => new Set(changed.skipped), [changed]);
  const now = useNow();
  const [mark, setMark] = useState(() => keptMark(id));
  const done = useMemo(
    () => byStep(steps, overlaid(view.bouts, status.waiting, id)),
    [steps, view.bouts, status, id],
  );
  const place = placeOf(steps, done, mark, now, skipped);
  const ended = useRef(0);

  useEffect(() => {
    outbox.learn(id, view.bouts);
    const keep = () => void keepView({ ...view, bouts: overlaid(view.bouts, outbox.snapshot().waiting, id) });
    const afterPaint = setTimeout(keep);
    return () => clearTimeout(afterPaint);
  }, [view, id]);

  useEffect(() => {
    if (outbox.untold.delete(id)) void queries.invalidateQueries({ queryKey: floorKey(id) });
    outbox.onSaved = (entry, tonnageKg) => {
      queries.setQueryData<FloorView>(
        floorKey(entry.sessionId),
        (old) =>
          old && {
            ...old,
            bouts: overlaid(old.bouts, [entry], entry.sessionId),
            adjustments: entry.adjustments ?? old.adjustments,
            tonnage_kg: tonnageKg ?? old.tonnage_kg,
          },
      );
    };
  }, [queries, id]);

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
      const key = placeKey(position);
      queries.setQueryData<FloorView>(floorKey(id), (old) => {
        if (!old) return old;
        const others = sent ? old.bouts : old.bouts.filter((each) => placeKey(each.bout.position) !== key);
        const bouts = sent
          ? overlaid(others, [{ key, sessionId: id, position, done: sent, stamp: "" }], id)
          : others;
        return { ...old, bouts };
      });
      void outbox.put(id, position, sent);
    },
    [steps, id, queries],
  );

  const change = useCallback(
    (part: Partial<Adjustments>) => {
      const next = { ...changed, ...part };
      queries.setQueryData<FloorView>(floorKey(id), (old) => old && { ...old, adjustments: next });
      void outbox.adjust(id, next);
    },
    [changed, id, queries],
  );

  const at = place.work === null ? undefined : steps[place.work];
  const key = at ? placeKey(positionOf(at)) : "";
  const own: Mark = mark.place === key ? mark : { ...NO_MARK, place: key };

  const begin = () => at && remember({ ...NO_MARK, place: key, startedAt: moment() });

  /** Record or correct a bout. A target that was not reached was not met, whatever was said before. */
  const record = (index: number, part: Partial<BoutDone>) => {
    const step = steps[index];
    if (!step) return;
    const there = done.get(index);
    const elapsed = index === place.work && place.mode === "working" ? place.clock : 0;
    const taps = index === place.work ? (own.taps ?? []) : [];
    const base = there ? toSend(there.bout, there.done_at) : asPlanned(step, moment(), elapsed, taps);
    const next = { ...base, ...part };
    if (part.ended === undefined) {
      const short = next.reps < leastReps(step);
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
      ended.current = moment();
      record(place.work, {});
    } else if (moment() - ended.current > DOUBLE_TAP) begin();
  };

  /** Count a rep of the bout that is on. */
  const tap = () => {
    if (place.mode !== "working" || own.startedAt === null || place.paused) return;
    const seconds = (moment() - own.startedAt) / 1000;
    remember({ ...own, taps: [...(own.taps ?? []), Math.round(seconds * 100) / 100] });
  };

  const addRest = () => {
    if (!at || (place.mode !== "resting" && place.mode !== "over")) return;
    const late = Math.max(-place.clock, 0);
    remember({ ...own, startedAt: null, extra: own.extra + 15 + Math.ceil(late) });
  };

  /** Stop the clock, or let it go on from where it stood. */
  const pause = () => {
    if (!at || place.mode === "ready") return;
    if (own.pausedAt == null) return remember({ ...own, pausedAt: moment() });
    const stood = moment() - own.pausedAt;
    const startedAt = own.startedAt === null ? null : own.startedAt + stood;
    remember({
      ...own,
      pausedAt: null,
      startedAt,
      extra: own.extra + (startedAt === null ? stood / 1000 : 0),
    });
  };

  /** Leave bouts out, by what they are asked of: this one, its set, its warm-up, all that is left. */
  const skip = (which: (step: Step) => boolean) => {
    const places = steps
      .filter((step, index) => step.kind === "work" && !done.has(index) && which(step))
      .map((step) => placeKey(positionOf(step)));
    change({ skipped: [...new Set([...changed.skipped, ...places])] });
    remember(NO_MARK);
  };

  const undo = () => {
    if (place.mode === "working") return remember(NO_MARK);
    const last = changed.skipped.at(-1);
    const skippedStep = steps.findIndex(
      (step) => step.kind === "work" && placeKey(positionOf(step)) === last,
    );
    if (last !== undefined && skippedStep > (place.before ?? -1)) {
      const step = steps[skippedStep] as Step;
      const together = steps.filter(
        (each) => each.kind === "work" && entryKey(each) === entryKey(step) && each.set === step.set,
      );
      const back = new Set(together.map((each) => placeKey(positionOf(each))));
      change({ skipped: changed.skipped.filter((each) => !back.has(each)) });
    } else if (place.before !== null) put(place.before, null);
  };

  const advice = place.before === null ? null : adviceFor(view.advice, steps, done, place.before);

  /** Take the advised load for what is left of the exercise. */
  const follow = (advised: Schemas["Advice"]) => {
    const step = place.before === null ? undefined : steps[place.before];
    if (!step || advised.kg === null) return;
    change({
      loads: {
        ...changed.loads,
        [entryKey(step)]: { set: step.set + 1, kg: advised.kg, side: advised.side },
      },
    });
  };

  return {
    steps,
    done,
    place,
    status,
    now,
    mark: own,
    changed,
    advice,
    advance,
    record,
    tap,
    addRest,
    pause,
    skip,
    change,
    undo,
    follow,
  };
}

export type Playing = ReturnType<typeof useSession>;
