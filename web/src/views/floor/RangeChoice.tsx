import isEqual from "fast-deep-equal/es6";
import type { FloorView, Schemas, Step } from "@/data/client";
import { Button } from "@/parts/Button";
import { loadOf } from "@/score/words";
import { entryKey, positionKey, positionOf } from "@/session/position";
import type { Playing } from "./useSession";

/** A load planned as a range: how the last warm-up moved says where in it to go. */
export function RangeChoice({
  step,
  choices,
  changed,
  onChange,
}: {
  step: Step;
  choices: FloorView["choices"];
  changed: Playing["changed"];
  onChange: Playing["acts"]["change"];
}) {
  const ways = choices[positionKey(positionOf(step))];
  if (!ways) return null;
  const key = entryKey(step);
  const others = (changed.loads[key] ?? []).filter(
    (load) => !ways.some((way) => way.loads.some((each) => isEqual(each, load))),
  );
  const choose = ({ loads }: Schemas["Choice"]) =>
    onChange({ loads: { ...changed.loads, [key]: [...others, ...loads] } });
  const words = (kg: number) => loadOf({ kg, body: step.settled?.body === true });
  return (
    <fieldset className="mt-3">
      <legend className="text-[15px] text-ink">
        {`${words(ways[0]?.kg ?? 0)} to ${words(ways.at(-1)?.kg ?? 0)} is planned. How did the last warm-up move?`}
      </legend>
      <div className="mt-1 flex flex-wrap gap-2">
        {ways.map((way) => (
          <Button
            key={way.kg}
            look="quiet"
            aria-pressed={step.load?.kg === way.kg}
            className="aria-pressed:border-ink"
            onClick={() => choose(way)}
          >
            {`${way.moved}: ${words(way.kg)}`}
          </Button>
        ))}
      </div>
    </fieldset>
  );
}
