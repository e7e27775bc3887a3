import { clsx } from "clsx";
import { Button } from "@/parts/Button";
import { plain } from "@/score/words";
import type { Playing } from "./useSession";

/** What the rules say after the bout just done, with its reason. Shown, never imposed. */
export function AdviceNote({ playing }: { playing: Playing }) {
  const { advice, place, steps, changed, acts } = playing;
  if (!advice || place.mode === "working") return null;
  const before = place.before === null ? undefined : steps[place.before];
  const key = before ? `${before.group}.${before.entry}` : "";
  const taken = advice.kg !== null && changed.loads[key]?.kg === advice.kg;
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
