import { useShortcut } from "@/app/shortcuts";
import type { FloorView } from "@/data/client";
import { Button } from "@/parts/Button";
import { timeWords } from "@/score/words";
import { dayAndMonth } from "../dates";
import type { Playing } from "./useSession";

/** What a session has to prepare with; none in a view that this device kept before there was any. */
export const preparationOf = (view: FloorView) => view.timeline.prep ?? [];

/** What is done before the first lift, to be ticked; then on to lifting. */
export function Prepare({ playing, onLift }: { playing: Playing; onLift: () => void }) {
  const { view, changed, steps, standing, acts } = playing;
  const items = preparationOf(view);
  const done = changed.prepared ?? [];
  const first = standing.work === null ? undefined : steps[standing.work];
  const tick = (number: number) =>
    acts.change({
      prepared: done.includes(number) ? done.filter((each) => each !== number) : [...done, number],
    });
  useShortcut("space", "Space", "On to lifting", onLift);
  return (
    <section aria-labelledby="prepare" className="mx-auto max-w-2xl py-4 sm:py-8">
      <h2 id="prepare" className="text-3xl font-bold tracking-tight">
        Before you lift
      </h2>
      <ul className="mt-3 border-t border-ink">
        {items.map(({ what, seconds }, at) => {
          const last = view.prepared_on[at];
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a preparation is known by its place in the plan
            <li key={at} className="border-b border-hairline">
              <label className="grid min-h-14 cursor-pointer grid-cols-[auto_1fr_auto] items-center gap-x-4 py-2 has-checked:text-faint">
                <input
                  type="checkbox"
                  className="size-6 accent-ink"
                  checked={done.includes(at + 1)}
                  onChange={() => tick(at + 1)}
                />
                <span className="min-w-0">
                  <span className="inline-block text-xl font-semibold first-letter:uppercase">{what}</span>
                  {last && (
                    <span className="block text-[15px] text-faint sm:ml-3 sm:inline">
                      last done {dayAndMonth(last)}
                    </span>
                  )}
                </span>
                <span className="text-lg text-faint">{seconds !== null && timeWords(seconds)}</span>
              </label>
            </li>
          );
        })}
      </ul>
      <Button look="strong" hotkey="Space" className="mt-5" onClick={onLift}>
        {first ? `On to ${first.exercise.toLowerCase()}` : "On to the session"}
      </Button>
      <p className="mt-4 max-w-prose text-[15px] text-faint">
        What is ticked is kept with the session. Sharp or new pain is a reason to stop, and to ask a
        professional.
      </p>
    </section>
  );
}
