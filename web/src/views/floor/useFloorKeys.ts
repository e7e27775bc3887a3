import { useRef } from "react";
import { useShortcut } from "@/app/shortcuts";
import { countOf } from "@/session/counting";
import { subjectOf } from "./subject";
import type { Playing } from "./useSession";

const TYPING_ON = 800;
const MOST_HALVED = 9;

/** Every key of the Floor. Two digits typed quickly are one number: 1 then 2 is twelve. */
export function useFloorKeys(playing: Playing) {
  const { standing, steps, done } = playing;
  const { advance, record, addRest, undo, redo, tap, pause, skip, follow, leave } = playing.acts;
  const step = standing.work === null ? undefined : steps[standing.work];
  const counting = standing.mode === "working" && step?.tempo != null;
  const subject = subjectOf(playing);
  const typed = useRef({ text: "", at: 0, about: subject });
  const on = standing.work !== null || subject !== null;

  useShortcut(
    "space",
    "Space",
    "Start the bout, end it as planned; count a rep to a tempo",
    counting ? tap : advance,
  );
  useShortcut("enter", "Enter", "End a bout done to a tempo", advance, counting);
  useShortcut("c", "C", "Count a rep", tap);
  useShortcut("p", "P", "Stop the clock, let it go on", pause);
  useShortcut(
    "w",
    "W",
    "Skip the warm-up",
    () => step && skip((each) => each.warm_up && each.group === step.group && each.entry === step.entry),
    step?.warm_up === true,
  );
  useShortcut(
    "0,1,2,3,4,5,6,7,8,9",
    "0 – 9",
    "Reps done",
    (event) => {
      if (subject === null) return;
      const digit = event.code.slice(-1);
      const quick = typed.current.about === subject && event.timeStamp - typed.current.at < TYPING_ON;
      const text = (quick ? typed.current.text : "") + digit;
      typed.current = { text: text.slice(-2), at: event.timeStamp, about: subject };
      const about = steps[subject];
      if (about) record(subject, countOf(about, Number(typed.current.text)));
    },
    on,
  );
  const shifted = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9].map((digit) => `shift+${digit}`).join();
  useShortcut(
    shifted,
    "Shift 0 – 9",
    "Reps left",
    (event) => {
      const reserve = Number(event.code.slice(-1));
      if (subject !== null) record(subject, { reserve, or_more: false });
    },
    on,
  );
  useShortcut(
    "h",
    "H",
    "Half a rep more left, or not",
    () => {
      const left = subject === null ? null : (done.get(subject)?.bout.reserve ?? null);
      if (subject === null || left === null || left >= MOST_HALVED) return;
      record(subject, { reserve: left % 1 ? Math.floor(left) : left + 0.5 });
    },
    on,
  );
  useShortcut(
    "t",
    "T",
    "Ended: target met",
    () => subject !== null && record(subject, { ended: "target met" }),
    on,
  );
  useShortcut(
    "f",
    "F",
    "Ended: form slipped",
    () => subject !== null && record(subject, { ended: "form slipped" }),
    on,
  );
  useShortcut(
    "x",
    "X",
    "Ended: could not move it",
    () => subject !== null && record(subject, { ended: "could not move it" }),
    on,
  );
  useShortcut("a", "A", "Take the advised loads", follow, playing.wouldBe !== null);
  useShortcut("l", "L", "Leave the loads as they are", leave, playing.wouldBe !== null);
  useShortcut("r", "R", "Fifteen seconds more rest", addRest);
  useShortcut("u", "U", "Undo", undo);
  useShortcut("shift+u", "Shift U", "Do it again after all", redo);
}
