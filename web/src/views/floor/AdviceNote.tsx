import { clsx } from "clsx";
import isEqual from "fast-deep-equal/es6";
import { Button } from "@/parts/Button";
import { plain } from "@/score/words";
import { entryKey } from "@/session/position";
import type { Playing } from "./useSession";

/** What the rules say after the bout just done, with its reason. Shown, never imposed. */
export function AdviceNote({ playing }: { playing: Playing }) {
  const { advice, standing, steps, changed, acts } = playing;
  if (!advice || standing.mode === "working") return null;
  const before = standing.before === null ? undefined : steps[standing.before];
  const own = before ? (changed.loads[entryKey(before)] ?? []) : [];
  const loads = advice.loads.map((load) => ({ ...load, set: (before?.set ?? 0) + load.set }));
  const taken = advice.loads.length > 0 && isEqual(own.slice(-advice.loads.length), loads);
  const calm = advice.course === "go on";
  return (
    <div
      role="status"
      aria-label="Advice"
      className={clsx("mt-3 border-l-4 pl-3 text-[15px]", calm ? "border-rest" : "border-look")}
    >
      <p>
        {!calm && (
          <span className="mr-1.5 font-bold text-look" aria-hidden>
            ▲
          </span>
        )}
        {advice.text}
      </p>
      {advice.kg !== null && (
        <Button look="quiet" className="mt-1.5" disabled={taken} onClick={() => acts.follow(advice)}>
          {taken ? `${plain(advice.kg)} kg it is` : `Use ${plain(advice.kg)} kg`}
        </Button>
      )}
      {advice.course === "stop" && before && (
        <Button
          look="quiet"
          className="mt-1.5"
          onClick={() => acts.skip((step) => step.group === before.group && step.entry === before.entry)}
        >
          Stop {before.exercise.toLowerCase()} here
        </Button>
      )}
    </div>
  );
}
