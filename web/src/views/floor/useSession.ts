import { useQueryClient } from "@tanstack/react-query";
import isEqual from "fast-deep-equal/es6";
import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import type { FloorView, Schemas, Step } from "@/data/client";
import { keepView } from "@/data/device";
import { outbox } from "@/data/outbox";
import { overlaid, placeKey, told } from "@/data/overlay";
import { floorKey } from "@/data/queries";
import { sameFields, useActs, useStable } from "@/parts/stable";
import { type Adjustments, adjusted, entryKey } from "./adjusting";
import { afterBout, begunWith, blockOf, movedOn } from "./begun";
import { type History, NOTHING_SAID, redone, type Said, undone, withSaid } from "./history";
import { moment } from "./moment";
import {
  adviceFor,
  asPlanned,
  type BoutDone,
  blockLeft,
  byStep,
  clockAt,
  countOf,
  isBlockOver,
  leastOf,
  type Mark,
  modeAt,
  NO_MARK,
  placeOf,
  positionOf,
  toSend,
} from "./play";
import { onTick } from "./ticking";

const DOUBLE_TAP = 500;

const markKey = (id: string) => `fortis.floor.${id}`;
const saidKey = (id: string) => `fortis.floor.${id}.said`;

function kept<T extends object>(key: string, otherwise: T): T {
  try {
    return { ...otherwise, ...JSON.parse(localStorage.getItem(key) ?? "{}") };
  } catch {
    return otherwise;
  }
}

/** A session being played: where it stands, and everything that can be done about it. */
export function useSession(view: FloorView) {
  const { id } = view;
  const queries = useQueryClient();
  const status = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const { state, bouts, adjustments: changed } = useMemo(() => told(view, status.waiting), [view, status]);
  const planned = view.timeline.steps;
  const steps = useMemo(() => adjusted(planned, changed), [planned, changed]);
  const skipped = useMemo(() => new Set(changed.skipped), [changed]);
  const [mark, setMark] = useState(() => kept(markKey(id), NO_MARK));
  const [history, setHistory] = useState(() => kept(saidKey(id), NOTHING_SAID));
  const done = useStable(
    useMemo(() => byStep(steps, bouts), [steps, bouts]),
    isEqual,
  );
  const place = useStable(placeOf(steps, done, mark, moment(), skipped), sameFields);
  useSyncExternalStore(onTick, () => `${modeAt(place, moment())} ${isBlockOver(place, moment())}`);
  const ended = useRef(0);

  useEffect(() => {
    outbox.learn(id, view.bouts);
    const afterPaint = setTimeout(() => void keepView(view));
    return () => clearTimeout(afterPaint);
  }, [view, id]);

  useEffect(() => {
    if (outbox.untold.delete(id)) void queries.invalidateQueries({ queryKey: floorKey(id) });
    outbox.onSaved = (entry, taken) => {
      queries.setQueryData<FloorView>(
        floorKey(entry.sessionId),
        (old) =>
          old && {
            ...old,
            state: entry.finishedAt ? "finished" : old.state,
            bouts: overlaid(old.bouts, [entry], entry.sessionId),
            adjustments: taken.adjustments ?? old.adjustments,
            tonnage_kg: taken.tonnage_kg ?? old.tonnage_kg,
          },
      );
    };
  }, [queries, id]);

  const remember = (next: Mark) => {
    localStorage.setItem(markKey(id), JSON.stringify(next));
    setMark(next);
  };

  const recall = (next: History) => {
    localStorage.setItem(saidKey(id), JSON.stringify(next));
    setHistory(next);
  };

  /** Make something true: in this view at once, on this device next, in the record when it can be. */
  const put = ({ bout, changes }: Said, which: "before" | "after") => {
    if (changes) {
      const { before, after } = changes;
      void outbox.adjust(id, which === "after" ? changes : { before: after, after: before });
    }
    if (bout) void outbox.put(id, bout.position, bout[which]);
  };

  const say = (said: Said) => {
    recall(withSaid(history, said));
    put(said, "after");
  };

  const changes = (part: Partial<Adjustments>) => ({ before: changed, after: { ...changed, ...part } });

  const change = (part: Partial<Adjustments>) => say({ changes: changes(part) });

  const at = place.work === null ? undefined : steps[place.work];
  const key = at ? placeKey(positionOf(at)) : "";
  const own = useMemo<Mark>(
    () => (mark.place === key ? mark : { ...NO_MARK, place: key, begun: mark.begun ?? null }),
    [mark, key],
  );
  const before = place.before === null ? undefined : steps[place.before];

  /** Forget what was done to the clock for one bout; the round and the block it was in go on. */
  const clear = () => remember({ ...NO_MARK, begun: own.begun ?? null });

  const begin = () => {
    if (!at) return;
    const now = moment();
    const onTime = place.every !== null && Math.abs(now - place.zero) < place.every * 500;
    const begun = begunWith(at, before, own.begun ?? null, now, onTime ? place.zero : null);
    remember({ ...NO_MARK, place: key, startedAt: now, begun });
  };

  /**
   * Record or correct a bout, and change the rest of the session with it where `also` says so. A target that was
   * not reached was not met, whatever was said before.
   */
  const record = (index: number, part: Partial<BoutDone>, also?: Partial<Adjustments>) => {
    const step = steps[index];
    if (!step) return;
    const there = done.get(index);
    const elapsed = index === place.work && place.mode === "working" ? clockAt(place, moment()) : 0;
    const taps = index === place.work ? (own.taps ?? []) : [];
    const before = there ? toSend(there.bout, there.done_at) : null;
    const base = before ?? asPlanned(step, moment(), elapsed, taps);
    const next = { ...base, ...part };
    if (part.ended === undefined) {
      const short = countOf(step, next) < leastOf(step);
      if (short && next.ended === "target met") next.ended = null;
      if (!short && next.ended === null) next.ended = "target met";
    }
    if (next.ended === "could not move it" && next.reserve !== 0) next.reserve = 0;
    const bout = { position: positionOf(step), before, after: next };
    const changing = also ?? (there ? undefined : nextInBlock(index));
    say(changing ? { bout, changes: changes(changing) } : { bout });
    if (!there) clear();
  };

  /** What follows in a block against the clock once a bout of it is done. */
  const nextInBlock = (index: number) => {
    const left = blockLeft(place, moment());
    const isOpen = (index: number) => !done.has(index) && !skipped.has(placeKey(steps[index] as Step));
    return left === null ? undefined : afterBout(steps, index, isOpen, left > 0, changed);
  };

  /** The one button: start the bout, or end it as planned. A second tap right after the end is not a start. */
  const advance = () => {
    if (place.work === null) return;
    if (place.mode === "working") {
      ended.current = moment();
      record(place.work, {});
    } else if (at && isBlockOver(place, moment())) {
      skip((each) => blockOf(each) === blockOf(at));
    } else if (moment() - ended.current > DOUBLE_TAP) begin();
  };

  /** Count a rep of the bout that is on. */
  const tap = () => {
    if (place.mode !== "working" || own.startedAt === null || place.stoodAt !== null) return;
    const seconds = (moment() - own.startedAt) / 1000;
    remember({ ...own, taps: [...(own.taps ?? []), Math.round(seconds * 100) / 100] });
  };

  const addRest = () => {
    if (!at || (place.mode !== "resting" && place.mode !== "over")) return;
    const late = Math.max(-clockAt(place, moment()), 0);
    remember({ ...own, startedAt: null, extra: own.extra + 15 + Math.ceil(late) });
  };

  /** Stop the clock, or let it go on from where it stood. */
  const pause = () => {
    if (!at || place.mode === "ready") return;
    if (own.pausedAt == null) return remember({ ...own, pausedAt: moment() });
    const stood = moment() - own.pausedAt;
    const begun = own.begun ? movedOn(own.begun, stood) : null;
    const startedAt = own.startedAt === null ? null : own.startedAt + stood;
    remember({
      ...own,
      pausedAt: null,
      begun,
      startedAt,
      extra: own.extra + (startedAt === null && !(begun && place.every) ? stood / 1000 : 0),
    });
  };

  /** Leave bouts out, by what they are asked of: this one, its set, its warm-up, all that is left. */
  const skip = (which: (step: Step) => boolean) => {
    const places = steps
      .filter((step, index) => step.kind === "work" && !done.has(index) && which(step))
      .map((step) => placeKey(positionOf(step)));
    change({ skipped: [...new Set([...changed.skipped, ...places])] });
    clear();
  };

  /** The bout done last, to be taken back where nothing was said on this device: another one recorded it. */
  const lastDoneElsewhere = (index: number) => {
    const [step, there] = [steps[index], done.get(index)];
    if (!step || !there) return undone(history);
    const bout = { position: positionOf(step), before: null, after: toSend(there.bout, there.done_at) };
    return undone({ ...history, past: [{ bout }] });
  };

  /** Take the last word back: a bout begun, a bout with its corrections, a change of the plan. */
  const undo = () => {
    if (place.mode === "working") return clear();
    const back =
      history.past.length || place.before === null ? undone(history) : lastDoneElsewhere(place.before);
    if (!back.said) return;
    recall(back.history);
    put(back.said, "before");
    clear();
  };

  const redo = () => {
    const again = redone(history);
    if (!again.said) return;
    recall(again.history);
    put(again.said, "after");
    clear();
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

  const acts = useActs({ advance, record, tap, addRest, pause, skip, change, undo, redo, follow });
  return {
    state,
    steps,
    done,
    place,
    status,
    mark: own,
    changed,
    advice,
    canUndo: place.mode === "working" || history.past.length > 0 || place.before !== null,
    canRedo: place.mode !== "working" && history.future.length > 0,
    acts,
  };
}

export type Playing = ReturnType<typeof useSession>;
