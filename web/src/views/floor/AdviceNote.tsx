import { clsx } from "clsx";
import { Button } from "@/parts/Button";
import { weightOf } from "@/score/words";
import type { Playing } from "./useSession";

/** What the rules say after the bout just done, with its reason. Shown, never imposed. */
export function AdviceNote({ playing }: { playing: Playing }) {
  const { advice, proposed, standing, steps, changed, acts } = playing;
  if (!advice || standing.mode === "working") return null;
  const before = standing.before === null ? undefined : steps[standing.before];
  const changes = advice.loads.length > 0 || advice.others.length > 0;
  const body = before?.load?.body ?? false;
  const take = advice.kg === null ? "these loads" : weightOf({ kg: advice.kg, body });
  const isAlso = advice.others.some(
    ({ entry }) => proposed && proposed.loads[entry] !== changed.loads[entry],
  );
  const also = advice.kg !== null && isAlso ? " and the rest" : "";
  const calm = advice.course === "go on" || advice.course === "found";
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
      {advice.reasons
        .filter((reason) => reason.code === "day")
        .map((reason) => (
          <p key={reason.text}>{reason.text}</p>
        ))}
      {advice.others.map((other) => (
        <p key={other.text}>{other.text}</p>
      ))}
      {advice.win && <p className="text-faint">{advice.win}</p>}
      {changes && (
        <div className="mt-1.5 flex flex-wrap gap-2">
          <Button look="quiet" disabled={!proposed} {...(proposed && { hotkey: "A" })} onClick={acts.follow}>
            {proposed || playing.isLeft
              ? `Use ${take}${also}`
              : advice.kg === null
                ? "Taken"
                : `${take} it is`}
          </Button>
          {proposed && (
            <Button look="quiet" hotkey="L" onClick={acts.leave}>
              Leave it
            </Button>
          )}
        </div>
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
