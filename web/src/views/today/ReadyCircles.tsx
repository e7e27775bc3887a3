import { clsx } from "clsx";
import { RadioGroup } from "radix-ui";
import type { Schemas } from "@/data/client";

type Asked = "sleep" | "calm" | "freshness" | "motivation";
type Said = Pick<Schemas["Readiness"], Asked>;

const ASKED: [Asked, string][] = [
  ["sleep", "Sleep"],
  ["calm", "Calm"],
  ["freshness", "Freshness"],
  ["motivation", "Motivation"],
];
const LEVELS = [1, 2, 3, 4, 5];

/** Four rows of five circles to tap: loaded once they are unfolded, most sessions start without. */
export default function ReadyCircles({ said, onTell }: { said: Said; onTell: (said: Said) => void }) {
  const { sleep = null, calm = null, freshness = null, motivation = null } = said;
  const told = { sleep, calm, freshness, motivation };
  return (
    <div className="grid gap-x-10 sm:grid-cols-2">
      {ASKED.map(([name, words]) => (
        <RadioGroup.Root
          key={name}
          aria-label={`${words}, from 1, poor, to 5, good`}
          value={String(told[name] ?? "")}
          onValueChange={(value) => onTell({ ...told, [name]: Number(value) })}
          className="flex items-center"
        >
          <span aria-hidden className="w-24">
            {words}
          </span>
          {LEVELS.map((level) => (
            <RadioGroup.Item
              key={level}
              value={String(level)}
              aria-label={String(level)}
              className="grid size-11 place-items-center"
            >
              <span
                className={clsx(
                  "size-5 rounded-full border-2",
                  level <= (told[name] ?? 0) ? "border-rest bg-rest" : "border-faint/60 border-dashed",
                )}
              />
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
      ))}
    </div>
  );
}
