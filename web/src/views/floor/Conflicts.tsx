import { outbox } from "@/data/outbox";
import { Button } from "@/parts/Button";
import { doneWords } from "@/score/words";
import type { Playing } from "./useSession";

/** Two answers for one bout, from two devices: the lifter says which holds. */
export function Conflicts({ playing, onSettled }: { playing: Playing; onSettled: () => void }) {
  const conflicts = playing.status.waiting.filter((entry) => entry.conflict && entry.done);
  if (!conflicts.length) return null;
  return (
    <section
      aria-label="Two answers for one bout"
      className="my-3 space-y-3 border-l-4 border-look bg-panel p-4"
    >
      {conflicts.map((entry) => {
        const choose = async (mine: boolean) => {
          await outbox.choose(entry, mine);
          onSettled();
        };
        const body = entry.done?.kg === null;
        return (
          <div key={entry.key}>
            <p>
              <b>
                {entry.done?.exercise}, set {entry.position?.set}
              </b>
              : two devices say different things. Which holds?
            </p>
            <div className="mt-2 flex flex-wrap gap-2">
              <Button onClick={() => choose(true)}>
                Here: {entry.done && doneWords({ ...entry.conflict?.bout, ...entry.done } as never, body)}
              </Button>
              <Button onClick={() => choose(false)}>
                In the record: {entry.conflict && doneWords(entry.conflict.bout, body)}
              </Button>
            </div>
          </div>
        );
      })}
    </section>
  );
}
