import { clsx } from "clsx";
import { RadioGroup } from "radix-ui";
import type { Schemas } from "@/data/client";
import { useTellReadiness } from "@/data/queries";
import { Trouble } from "@/parts/Notice";

type Asked = "sleep" | "calm" | "freshness" | "motivation";

const ASKED: [Asked, string][] = [
  ["sleep", "Sleep"],
  ["calm", "Calm"],
  ["freshness", "Freshness"],
  ["motivation", "Motivation"],
];
const LEVELS = [1, 2, 3, 4, 5];
const HOW =
  "From poor on the left to good on the right; leave out what you like. It moves what is expected only as far as your own log says it matters.";

/** How ready you are: optional, and it counts only as far as the own log says it does. */
export function Ready({ session: { id, readiness } }: { session: Schemas["DueSession"] }) {
  const tell = useTellReadiness();
  const said: Schemas["Readiness"] = tell.isPending ? tell.variables.said : readiness;
  const put = (part: Partial<Record<Asked, number>>) => {
    const { sleep = null, calm = null, freshness = null, motivation = null } = said;
    tell.mutate({ id, said: { sleep, calm, freshness, motivation, ...part } });
  };
  return (
    <details className="text-[15px]" open={readiness.words !== ""}>
      <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
        How ready are you?
      </summary>
      <div className="grid gap-x-10 sm:grid-cols-2">
        {ASKED.map(([name, words]) => (
          <RadioGroup.Root
            key={name}
            aria-label={`${words}, from 1, poor, to 5, good`}
            value={String(said[name] ?? "")}
            onValueChange={(value) => put({ [name]: Number(value) })}
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
                    level <= (said[name] ?? 0) ? "border-rest bg-rest" : "border-faint/60 border-dashed",
                  )}
                />
              </RadioGroup.Item>
            ))}
          </RadioGroup.Root>
        ))}
      </div>
      <p className="text-faint" role="status">
        {readiness.words || HOW}
      </p>
      {tell.error && <Trouble error={tell.error} />}
    </details>
  );
}
