import { clsx } from "clsx";
import { RadioGroup } from "radix-ui";
import type { Schemas } from "@/data/client";
import { useTellFelt } from "@/data/queries";
import { Trouble } from "@/parts/Notice";

const SCALE = Array.from({ length: 11 }, (_, level) => level);
const WORDS: Record<number, string> = {
  0: "nothing at all",
  1: "very easy",
  2: "easy",
  3: "moderate",
  4: "somewhat hard",
  5: "hard",
  7: "very hard",
  10: "as hard as can be",
};

/** How hard a session was as a whole: one tap, optional; a second tap on the same number takes it back. */
export function Felt({ session: { id, felt, minutes } }: { session: Schemas["PastSession"] }) {
  const tell = useTellFelt(id);
  const said = tell.isPending ? tell.variables : felt;
  return (
    <section aria-labelledby="felt">
      <h2 id="felt" className="text-xl font-bold">
        How hard was it as a whole?
      </h2>
      <RadioGroup.Root
        aria-label="How hard the session was, from 0, nothing at all, to 10, as hard as can be"
        value={said === null ? "" : String(said)}
        onValueChange={(value) => tell.mutate(Number(value))}
        className="mt-2 grid max-w-xl grid-cols-11"
      >
        {SCALE.map((level) => (
          <RadioGroup.Item
            key={level}
            value={String(level)}
            aria-label={WORDS[level] ? `${level}, ${WORDS[level]}` : String(level)}
            onClick={() => said === level && tell.mutate(null)}
            className={clsx(
              "-ml-px min-h-11 border text-lg first:ml-0",
              level === said ? "border-ink bg-ink font-bold text-paper" : "border-hairline hover:bg-panel",
            )}
          >
            {level}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <p role="status" className="mt-1 text-[15px] text-faint">
        {tell.isPending ? "Saving …" : sentence(felt, minutes)}
      </p>
      {tell.error && <Trouble error={tell.error} />}
    </section>
  );
}

function sentence(felt: number | null, minutes: number): string {
  if (felt === null) {
    return "0 is nothing at all, 3 moderate, 5 hard, 7 very hard, 10 as hard as can be. Half an hour later one judges best.";
  }
  const words = WORDS[felt];
  return `${words ? `${capitalised(words)}: a` : "A"} load by effort of ${felt * minutes} (${felt} times ${minutes} minutes).`;
}

const capitalised = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
