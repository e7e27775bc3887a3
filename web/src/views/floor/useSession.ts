import { useQueryClient } from "@tanstack/react-query";
import isEqual from "fast-deep-equal/es6";
import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import type { Step } from "@/data/client";
import { keepView } from "@/data/device";
import type { SeenView } from "@/data/entry";
import { outbox } from "@/data/outbox";
import { withTaken, withWaiting } from "@/data/overlay";
import { floorKey } from "@/data/queries";
import { sameFields, useActs, useStable } from "@/parts/stable";
import { adviceFor, inForce, proposedChange } from "@/session/advice";
import { completed } from "@/session/counting";
import { asPlanned, type BoutDone, byStep, mustAsk, toSend } from "@/session/done";
import { type Adjustments, asPlayed } from "@/session/played";
import { positionKey, positionOf } from "@/session/position";
import { afterBout, begunWith, blockOf, movedOn } from "./blocks";
import { blockLeft, clockAt, isBlockOver, type Mark, modeAt, NO_MARK, standingOf } from "./clock";
import { type Action, type History, NO_HISTORY, redone, undone, withAction } from "./history";
import { moment } from "./moment";
import { onTick } from "./ticking";

const DOUBLE_TAP = 500;

const markKey = (id: string) => `fortis.floor.${id}`;
const historyKey = (id: string) => `fortis.floor.${id}.history`;

function stored<T extends object>(key: string, otherwise: T): T {
  try {
    return { ...otherwise, ...JSON.parse(localStorage.getItem(key) ?? "{}") };
  } catch {
    return otherwise;
  }
}

/** A session being played: where it stands, and everything that can be done about it. */
export function useSession(told: SeenView) {
  const { id } = told;
  const queries = useQueryClient();
  const status = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const view = useMemo(() => withTaken(told, status.taken), [told, status.taken]);
  const {
    state,
    bouts,
    adjustments: changed,
  } = useMemo(() => withWaiting(view, status.waiting), [view, status.waiting]);
  const planned = view.timeline.steps;
  const steps = useMemo(() => asPlayed(planned, changed, view.pace), [planned, changed, view.pace]);
  const [mark, setMark] = useState(() => stored(markKey(id), NO_MARK));
  const [history, setHistory] = useState(() => stored(historyKey(id), NO_HISTORY));
  const done = useStable(
    useMemo(() => byStep(steps, bouts), [steps, bouts]),
    isEqual,
  );
  const standing = useStable(standingOf(steps, done, mark, moment()), sameFields);
  useSyncExternalStore(onTick, () => `${modeAt(standing, moment())} ${isBlockOver(standing, moment())}`);
  const ended = useRef(0);
  const [asking, setAsking] = useState<string | null>(null);
  const [left, setLeft] = useState<string | null>(null);

  useEffect(() => outbox.learn(told), [told]);

  useEffect(() => {
    const afterPaint = setTimeout(() => void keepView(view));
    return () => clearTimeout(afterPaint);
  }, [view]);

  /** What follows from a change of the plan is the server's to say: ask anew once all is saved. */
  const isSaved = !status.waiting.some((each) => each.sessionId === id && each.refusal === undefined);
  const isOutdated =
    isSaved && status.taken.some((each) => each.sessionId === id && each.changes && each.order > told.asOf);
  useEffect(() => {
    if (isOutdated) void queries.invalidateQueries({ queryKey: floorKey(id) });
  }, [isOutdated, queries, id]);

  const keepMark = (next: Mark) => {
    localStorage.setItem(markKey(id), JSON.stringify(next));
    setMark(next);
  };

  const keepHistory = (next: History) => {
    localStorage.setItem(historyKey(id), JSON.stringify(next));
    setHistory(next);
  };

  /** Make something true: in this view at once, on this device next, in the record when it can be. */
  const put = ({ bout, changes }: Action, which: "before" | "after") => {
    if (changes) {
      const { before, after } = changes;
      void outbox.adjust(id, which === "after" ? changes : { before: after, after: before });
    }
    if (bout) void outbox.put(id, bout.position, bout[which]);
  };

  const act = (action: Action) => {
    keepHistory(withAction(history, action));
    put(action, "after");
  };

  const changes = (part: Partial<Adjustments>) => ({ before: changed, after: { ...changed, ...part } });

  const change = (part: Partial<Adjustments>) => act({ changes: changes(part) });

  const at = standing.work === null ? undefined : steps[standing.work];
  const key = at ? positionKey(positionOf(at)) : "";
  const own = useMemo<Mark>(
    () => (mark.position === key ? mark : { ...NO_MARK, position: key, begun: mark.begun ?? null }),
    [mark, key],
  );
  const before = standing.before === null ? undefined : steps[standing.before];

  /** Forget what was done to the clock for one bout; the round and the block it was in go on. */
  const clear = () => keepMark({ ...NO_MARK, begun: own.begun ?? null });

  const begin = () => {
    if (!at) return;
    const now = moment();
    const onTime = standing.every !== null && Math.abs(now - standing.zero) < standing.every * 500;
    const begun = begunWith(at, before, own.begun ?? null, now, onTime ? standing.zero : null);
    keepMark({ ...NO_MARK, position: key, startedAt: now, begun });
  };

  /**
   * Record or correct a bout, and change the rest of the session with it where `also` says so. A target that was
   * not reached was not met, whatever was recorded before.
   */
  const record = (index: number, part: Partial<BoutDone>, also?: Partial<Adjustments>) => {
    const step = steps[index];
    if (!step) return;
    const there = done.get(index);
    const before = there ? toSend(there) : null;
    const base = before ?? asPlanned(step, timesOf(index));
    const next = completed(step, { ...base, ...part }, part.ended !== undefined);
    const bout = { position: positionOf(step), before, after: next };
    const changing = also ?? (there ? undefined : nextInBlock(index));
    act(changing ? { bout, changes: changes(changing) } : { bout });
    if (!there) clear();
    setLeft(null);
  };

  /** When a bout that ends now began, and the reps tapped of it. */
  const timesOf = (index: number) => {
    const on = index === standing.work && standing.mode === "working";
    return {
      at: moment(),
      began: on ? own.startedAt : null,
      taps: index === standing.work ? (own.taps ?? []) : [],
    };
  };

  /** What follows in a block against the clock once a bout of it is done. */
  const nextInBlock = (index: number) => {
    const left = blockLeft(standing, moment());
    const isOpen = (index: number) => !done.has(index) && !steps[index]?.left_out;
    return left === null ? undefined : afterBout(steps, index, isOpen, left > 0, changed);
  };

  /** The one button: start the bout, or end it as planned. A second tap right after the end is not a start. */
  const advance = () => {
    if (standing.work === null) return;
    if (standing.mode === "working") {
      if (at && mustAsk(at, own.taps ?? [])) return setAsking(key);
      ended.current = moment();
      record(standing.work, {});
    } else if (at && isBlockOver(standing, moment())) {
      skip((each) => blockOf(each) === blockOf(at));
    } else if (moment() - ended.current > DOUBLE_TAP) begin();
  };

  /** Count a rep of the bout that is on. */
  const tap = () => {
    if (standing.mode !== "working" || own.startedAt === null || standing.stoodAt !== null) return;
    const seconds = (moment() - own.startedAt) / 1000;
    keepMark({ ...own, taps: [...(own.taps ?? []), Math.round(seconds * 100) / 100] });
  };

  const addRest = () => {
    if (!at || (standing.mode !== "resting" && standing.mode !== "over")) return;
    const late = Math.max(-clockAt(standing, moment()), 0);
    keepMark({ ...own, startedAt: null, extra: own.extra + 15 + Math.ceil(late) });
  };

  /** Stop the clock, or let it go on from where it stood. */
  const pause = () => {
    if (!at || standing.mode === "ready") return;
    if (own.pausedAt == null) return keepMark({ ...own, pausedAt: moment() });
    const stood = moment() - own.pausedAt;
    const begun = own.begun ? movedOn(own.begun, stood) : null;
    const startedAt = own.startedAt === null ? null : own.startedAt + stood;
    keepMark({
      ...own,
      pausedAt: null,
      begun,
      startedAt,
      extra: own.extra + (startedAt === null && !(begun && standing.every) ? stood / 1000 : 0),
    });
  };

  /** Leave bouts out, by what they are asked of: this one, its set, its warm-up, all that is left. */
  const skip = (which: (step: Step) => boolean) => {
    const left = steps
      .filter((step, index) => step.kind === "work" && !done.has(index) && which(step))
      .map((step) => positionKey(positionOf(step)));
    change({ skipped: [...new Set([...changed.skipped, ...left])] });
    clear();
  };

  /** The bout done last, to be taken back where this device did nothing: another one recorded it. */
  const lastDoneElsewhere = (index: number) => {
    const [step, there] = [steps[index], done.get(index)];
    if (!step || !there) return undone(history);
    const bout = { position: positionOf(step), before: null, after: toSend(there) };
    return undone({ ...history, past: [{ bout }] });
  };

  /** Take the last action back: a bout begun, a bout with its corrections, a change of the plan. */
  const undo = () => {
    if (standing.mode === "working") return clear();
    const back =
      history.past.length || standing.before === null ? undone(history) : lastDoneElsewhere(standing.before);
    if (!back.action) return;
    keepHistory(back.history);
    put(back.action, "before");
    clear();
  };

  const redo = () => {
    const again = redone(history);
    if (!again.action) return;
    keepHistory(again.history);
    put(again.action, "after");
    clear();
  };

  const found = standing.before === null ? null : adviceFor(view.advice, steps, done, standing.before);
  const advice = useMemo(() => inForce(found, steps, before), [found, steps, before]);
  const proposed = useMemo(
    () => proposedChange(advice, steps, before, changed),
    [advice, steps, before, changed],
  );
  const beforeKey = before ? positionKey(positionOf(before)) : "";

  /** Take the advised loads for what is left of the exercise, and of the session where it follows. */
  const follow = () => {
    if (proposed && standing.mode !== "working") change(proposed);
  };

  /** Leave the loads as they are. */
  const leave = () => setLeft(beforeKey);
  const isLeft = left !== null && left === beforeKey;
  const offered = isLeft || standing.mode === "working" ? null : proposed;
  const wouldBe = useMemo(
    () => (offered ? asPlayed(planned, { ...changed, ...offered }, view.pace) : null),
    [offered, planned, changed, view.pace],
  );

  const acts = useActs({ advance, record, tap, addRest, pause, skip, change, undo, redo, follow, leave });
  return {
    /** The session as the record tells it, with all that it has taken from this device. */
    view,
    state,
    /** Whether nothing of this session is on its way to the record. */
    isSaved,
    /** Whether all that is on its way is kept on this device, were the page closed now. */
    isKept: status.state !== "keeping",
    steps,
    done,
    standing,
    status,
    mark: own,
    changed,
    advice,
    /** What would change of the plan with the advice taken; null where nothing would. */
    proposed: isLeft ? null : proposed,
    isLeft,
    /** The session as it would go on with the advice taken; null where there is none to take. */
    wouldBe,
    /** Whether the bout that is on waits for the reps that were done: only the lifter can say. */
    asking: asking !== null && asking === key && standing.mode === "working",
    canUndo: standing.mode === "working" || history.past.length > 0 || standing.before !== null,
    canRedo: standing.mode !== "working" && history.future.length > 0,
    acts,
  };
}

export type Playing = ReturnType<typeof useSession>;
