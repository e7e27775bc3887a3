import { outbox } from "@/data/outbox";
import { Button } from "@/parts/Button";
import { doneWords } from "@/score/words";
import { boutOf } from "@/session/done";
import type { Playing } from "./useSession";

/**
 * Two answers for one bout, from two devices: the lifter says which holds. It comes while the lifter taps, so it lies
 * over the score and moves nothing away from under the finger.
 */
export function Conflicts({ playing, onSettled }: { playing: Playing; onSettled: () => void }) {
  const conflicts = playing.status.waiting.filter((entry) => entry.conflict && entry.position);
  if (!conflicts.length) return null;
  return (
    <div className="sticky top-0 z-20 h-0">
      <section
        aria-label="Two answers for one bout"
        className="space-y-3 rounded-card border border-l-4 border-ink border-l-look bg-panel p-4"
      >
        {conflicts.map((entry) => {
          const choose = async (mine: boolean) => {
            await outbox.choose(entry, mine);
            onSettled();
          };
          const exercise = entry.done?.exercise ?? entry.conflict?.bout?.exercise;
          return (
            <div key={entry.key}>
              <p>
                <b>
                  {exercise}, set {entry.position?.set}
                </b>
                : two devices say different things. Which holds?
              </p>
              <div className="mt-2 flex flex-wrap gap-2">
                <Button onClick={() => choose(true)}>
                  Here:{" "}
                  {entry.position && entry.done
                    ? doneWords({
                        ...boutOf(entry.position, entry.done),
                        body: entry.conflict?.bout?.body ?? false,
                      })
                    : "taken back"}
                </Button>
                <Button onClick={() => choose(false)}>
                  In the record: {entry.conflict?.bout ? doneWords(entry.conflict.bout) : "taken back"}
                </Button>
              </div>
            </div>
          );
        })}
      </section>
    </div>
  );
}
