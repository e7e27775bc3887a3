import { clsx } from "clsx";
import { group } from "d3-array";
import { Dialog } from "radix-ui";
import { memo, useId, useState } from "react";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas } from "@/data/client";
import { useMethods, useStructure } from "@/data/queries";
import { Button } from "@/parts/Button";
import { captionsOf } from "@/score/captions";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";
import { minutes } from "@/score/words";

type Method = Schemas["MethodView"];

const CARD = 206;

/** The ready-made structures, drawn and explained; one is chosen, its numbers turned, and added to the text. */
export const Structures = memo(function Structures({
  lifts,
  usual,
  onAdd,
}: {
  lifts: string[];
  /** The lift to offer first, where one is at hand. */
  usual: string | null;
  onAdd: (written: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<Method | null>(null);
  const { data: methods = [] } = useMethods(open);
  useShortcut("s", "S", "Structures to build with", () => setOpen(true));
  const add = (written: string) => {
    setOpen(false);
    onAdd(written);
  };
  const purposes = [...group(methods, (method) => method.purpose)];
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button look="quiet" hotkey="S">
          Structures
        </Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-shade/55" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-2 z-20 mx-auto flex max-w-6xl flex-col overflow-hidden rounded-card border border-hairline bg-paper shadow-2xl sm:inset-6"
        >
          <header className="flex items-center justify-between border-b border-ink px-5 py-2">
            <Dialog.Title className="text-xl font-bold">Structures</Dialog.Title>
            <Dialog.Close className="min-h-11 px-2 underline underline-offset-4">Close</Dialog.Close>
          </header>
          <div className="grid min-h-0 flex-1 lg:grid-cols-[1fr_24rem]">
            <div className={clsx("overflow-auto p-5", chosen && "max-lg:hidden")}>
              {purposes.map(([purpose, own]) => (
                <section key={purpose} aria-label={purpose} className="mb-6">
                  <h3 className="mb-2 font-bold">{purpose}</h3>
                  <div className="grid gap-3 sm:grid-cols-2 xl:grid-cols-3">
                    {own.map((method) => (
                      <Card
                        key={method.id}
                        method={method}
                        on={method.id === chosen?.id}
                        onChoose={() => setChosen(method)}
                      />
                    ))}
                  </div>
                </section>
              ))}
            </div>
            <aside
              className={clsx(
                "overflow-auto border-hairline bg-panel p-5 lg:border-l",
                !chosen && "max-lg:hidden",
              )}
            >
              {chosen ? (
                <Turning
                  key={chosen.id}
                  method={chosen}
                  lifts={lifts}
                  usual={usual}
                  onAdd={add}
                  onBack={() => setChosen(null)}
                />
              ) : (
                <p className="text-faint">
                  Choose a structure to see what it is for and to turn its numbers.
                </p>
              )}
            </aside>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
});

function Card({ method, on, onChoose }: { method: Method; on: boolean; onChoose: () => void }) {
  const steps = method.timeline.steps;
  const layout = layoutScore({ steps, width: CARD * 2, left: 10, tightest: 0.3 });
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onChoose}
      className={clsx(
        "flex flex-col justify-between overflow-hidden rounded-card border bg-panel p-3 text-left hover:border-ink",
        on ? "border-ink" : "border-hairline",
      )}
    >
      <span className="font-semibold">{method.name}</span>
      <span aria-hidden className="pointer-events-none block w-full overflow-hidden" inert>
        <Score
          layout={layout}
          steps={steps}
          captions={{}}
          left={10}
          zoom={CARD / Math.max(layout.width, 1)}
          bare
        />
      </span>
    </button>
  );
}

function Turning({
  method,
  lifts,
  usual,
  onAdd,
  onBack,
}: {
  method: Method;
  lifts: string[];
  usual: string | null;
  onAdd: (written: string) => void;
  onBack: () => void;
}) {
  const id = useId();
  const [chosen, setChosen] = useState<string[]>(() =>
    usual && method.lifts.length === 1 ? [usual] : method.lifts,
  );
  const [dials, setDials] = useState<Record<string, number>>({});
  const { data: structure = method } = useStructure(method, chosen, dials);
  const steps = structure.timeline.steps;
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        onAdd(structure.written);
      }}
    >
      <button type="button" onClick={onBack} className="min-h-11 underline underline-offset-4 lg:hidden">
        All structures
      </button>
      <h3 className="text-lg font-bold">{method.name}</h3>
      <dl className="space-y-1.5 text-[15px]">
        <Told name="For" text={method.is_for} />
        <Told name="Not for" text={method.not_for} />
        <Told name="Known" text={method.known} />
        <Told name="Disputed" text={method.disputed} />
      </dl>
      <div className="space-y-2">
        {chosen.map((lift, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the place in the structure is the identity
          <label key={place} className="block text-[15px]">
            <span className="text-faint">{chosen.length > 1 ? `Lift ${place + 1}` : "Lift"}</span>
            <input
              list={`${id}-lifts`}
              value={lift}
              maxLength={80}
              onChange={(event) => setChosen(chosen.with(place, event.target.value.replace(/[[\]:;#]/g, "")))}
              className="block min-h-11 w-full rounded-card border border-hairline bg-paper px-3 font-semibold"
            />
          </label>
        ))}
        <datalist id={`${id}-lifts`}>
          {lifts.map((lift) => (
            <option key={lift} value={lift} />
          ))}
        </datalist>
      </div>
      <div className="grid grid-cols-2 gap-2">
        {method.dials.map((dial) => (
          <label key={dial.name} className="block text-[15px]">
            <span className="text-faint">{dial.label}</span>
            <input
              type="number"
              min={dial.low}
              max={dial.high}
              value={dials[dial.name] ?? dial.usual}
              onChange={(event) =>
                setDials({ ...dials, [dial.name]: Math.round(event.target.valueAsNumber) || dial.low })
              }
              className="block min-h-11 w-full rounded-card border border-hairline bg-paper px-3 font-semibold"
            />
          </label>
        ))}
      </div>
      <Score
        layout={layoutScore({ steps, width: 330, left: 40, tightest: 0.6 })}
        steps={steps}
        captions={captionsOf(steps)}
        left={40}
      />
      <pre className="rounded-card bg-slate p-3 font-sans text-sm whitespace-pre-wrap text-slate-text">
        {structure.written}
      </pre>
      <p className="text-[15px] text-faint">about {minutes(structure.timeline.total_seconds)}</p>
      <Button type="submit" look="strong" disabled={chosen.some((lift) => lift.trim() === "")}>
        Add to the session
      </Button>
    </form>
  );
}

const Told = ({ name, text }: { name: string; text: string }) => (
  <div>
    <dt className="inline font-semibold">{name}: </dt>
    <dd className="inline">{text}</dd>
  </div>
);
